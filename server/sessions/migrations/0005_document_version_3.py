"""Documents brought up to version 3, and their history with them."""

from django.db import migrations

from yoisho.session.document import up_to_date


def onward(apps, schema_editor):
    for name in ("Session", "Version"):
        for saved in apps.get_model("training", name).objects.iterator():
            saved.document = up_to_date(saved.document)
            saved.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("training", "0004_calls")]
    operations = [migrations.RunPython(onward, migrations.RunPython.noop)]
