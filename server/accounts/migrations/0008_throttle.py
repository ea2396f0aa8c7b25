from django.core.management import call_command
from django.db import migrations, models


def make_table(apps, schema_editor):
    call_command("createcachetable", database=schema_editor.connection.alias, verbosity=0)


def know_addresses(apps, schema_editor):
    """Whoever has an account signs in with its address as before."""
    User = apps.get_model("accounts", "User")
    EmailAddress = apps.get_model("account", "EmailAddress")
    for user in User.objects.exclude(email=""):
        EmailAddress.objects.create(user=user, email=user.email.lower(), primary=True, verified=False)


class Migration(migrations.Migration):
    dependencies = [
        ("accounts", "0007_clock_of_the_club"),
        ("account", "0009_emailaddress_unique_primary_email"),
    ]
    operations = [
        migrations.AddField("invitation", "email", models.EmailField(blank=True, default="", max_length=254), preserve_default=False),
        migrations.RunPython(make_table, migrations.RunPython.noop),
        migrations.RunPython(know_addresses, migrations.RunPython.noop),
    ]
