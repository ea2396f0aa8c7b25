"""The day of the fight by the glossary's word."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("roster", "0003_languages")]
    operations = [migrations.RenameField("person", "bout_on", "fight_on")]
