"""Plans of runs brought up to version 4."""

from django.db import migrations

from yoisho.session.document import up_to_date


def onward(apps, schema_editor):
    for run in apps.get_model("runs", "Run").objects.iterator():
        run.document = up_to_date(run.document)
        run.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0002_document_version_3")]
    operations = [migrations.RunPython(onward, migrations.RunPython.noop)]
