from django.apps import AppConfig


class CombinationsConfig(AppConfig):
    name = "server.combinations"
    label = "combinations"
