"""Documents brought up to version 2."""

from django.db import migrations

from yoisho.session.document import up_to_date


def onward(apps, schema_editor):
    for saved in apps.get_model("training", "Session").objects.iterator():
        saved.document = up_to_date(saved.document)
        saved.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("training", "0001_initial")]

    operations = [migrations.RunPython(onward, migrations.RunPython.noop)]
