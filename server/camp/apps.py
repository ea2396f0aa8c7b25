from django.apps import AppConfig


class CampConfig(AppConfig):
    name = "server.camp"
    label = "camp"
