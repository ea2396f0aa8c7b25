from django.db import migrations

from yoisho.session.document import renamed


def with_heights(apps, schema_editor):
    """Drills are kept as the document has them: where a strike lands is its height now."""
    for entry in apps.get_model("combinations", "BookEntry").objects.all():
        entry.drill = renamed(entry.drill)
        entry.save(update_fields=["drill"])


class Migration(migrations.Migration):
    dependencies = [("combinations", "0001_book")]
    operations = [migrations.RunPython(with_heights, migrations.RunPython.noop)]
