"""Strikes by limb instead of one number; documents brought up to version 2."""

from django.db import migrations, models

from yoisho.session.document import up_to_date
from yoisho.session.volume import by_hand


def onward(apps, schema_editor):
    for entry in apps.get_model("logbook", "LogEntry").objects.iterator():
        entry.document = up_to_date(entry.document)
        entry.expected_limbs = by_hand(entry.expected_strikes)
        entry.save(update_fields=["document", "expected_limbs"])


class Migration(migrations.Migration):
    dependencies = [("logbook", "0002_engine_whole")]

    operations = [
        migrations.AddField("logentry", "expected_limbs", models.JSONField(default=dict)),
        migrations.AddField("logentry", "expected_levels", models.JSONField(default=dict)),
        migrations.AddField("logentry", "counted_strikes", models.PositiveIntegerField(null=True)),
        migrations.RunPython(onward, migrations.RunPython.noop),
        migrations.RemoveField("logentry", "expected_strikes"),
    ]
