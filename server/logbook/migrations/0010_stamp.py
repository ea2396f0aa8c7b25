from django.db import migrations

from server.accounts.stamp import renews_the_stamp


class Migration(migrations.Migration):
    dependencies = [("logbook", "0009_sums"), ("accounts", "0010_stamp")]

    operations = [
        renews_the_stamp("logbook_logentry", "the_row.club_id"),
    ]
