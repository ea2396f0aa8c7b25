import uuid

from django.db import migrations, models

from server.accounts.stamp import RENEWS_ITS_OWN


class Migration(migrations.Migration):
    dependencies = [("accounts", "0009_api_tokens")]

    operations = [
        migrations.AddField("club", "stamp", models.UUIDField(default=uuid.uuid4, editable=False)),
        RENEWS_ITS_OWN,
    ]
