from django.apps import AppConfig


class TodayConfig(AppConfig):
    name = "server.today"
    label = "today"
