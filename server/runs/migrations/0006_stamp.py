from django.db import migrations

from server.accounts.stamp import renews_the_stamp


class Migration(migrations.Migration):
    dependencies = [("runs", "0005_class"), ("accounts", "0010_stamp")]

    operations = [
        renews_the_stamp("runs_result", "SELECT club_id FROM runs_run WHERE id = the_row.run_id"),
    ]
