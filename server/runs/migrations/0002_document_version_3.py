"""Plans of runs brought up to version 3."""

from django.db import migrations

from yoisho.session.document import up_to_date


def onward(apps, schema_editor):
    for run in apps.get_model("runs", "Run").objects.iterator():
        run.document = up_to_date(run.document)
        run.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0001_runs")]
    operations = [migrations.RunPython(onward, migrations.RunPython.noop)]
