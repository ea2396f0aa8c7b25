from django.apps import AppConfig


class ReviewConfig(AppConfig):
    name = "server.review"
    label = "review"

    def ready(self) -> None:
        from server.review import relearn

        relearn.listen()
