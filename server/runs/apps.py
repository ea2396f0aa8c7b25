from django.apps import AppConfig
from django.conf import settings
from django.db.models.signals import post_save


class RunsConfig(AppConfig):
    name = "server.runs"
    label = "runs"

    def ready(self) -> None:
        if settings.SPEAK_AHEAD:
            from server.runs.ahead import on_saved

            post_save.connect(on_saved, sender="training.Session", dispatch_uid="speak ahead")
