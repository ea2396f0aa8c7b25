"""Documents brought up to version 4, and the purposes they are judged for."""

from django.db import migrations

from yoisho.session.document import up_to_date
from yoisho.session.purposes import FORMER_PURPOSES


def onward(apps, schema_editor):
    for name in ("Session", "Version"):
        for saved in apps.get_model("training", name).objects.iterator():
            saved.document = up_to_date(saved.document)
            saved.target = FORMER_PURPOSES.get(saved.target, saved.target)
            saved.save(update_fields=["document", "target"])


class Migration(migrations.Migration):
    dependencies = [("training", "0005_document_version_3")]
    operations = [migrations.RunPython(onward, migrations.RunPython.noop)]
