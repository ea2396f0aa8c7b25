from django.db import migrations

from server.accounts.stamp import renews_the_stamp


class Migration(migrations.Migration):
    dependencies = [("review", "0001_review"), ("roster", "0007_stamp")]

    operations = [
        renews_the_stamp("review_calibration", "SELECT club_id FROM roster_person WHERE id = the_row.person_id"),
    ]
