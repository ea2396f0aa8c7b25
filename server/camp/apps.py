from django.apps import AppConfig


class CampConfig(AppConfig):
    name = "server.camp"
    label = "camp"

    def ready(self) -> None:
        import server.camp.follow  # noqa: F401
