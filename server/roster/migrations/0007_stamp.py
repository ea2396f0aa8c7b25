from django.db import migrations

from server.accounts.stamp import renews_the_stamp

OF_PERSON = "SELECT club_id FROM roster_person WHERE id = the_row.person_id"


class Migration(migrations.Migration):
    dependencies = [("roster", "0006_review"), ("accounts", "0010_stamp")]

    operations = [
        renews_the_stamp("roster_person", "the_row.club_id"),
        renews_the_stamp("roster_limit", OF_PERSON),
        renews_the_stamp("roster_knock", OF_PERSON),
    ]
