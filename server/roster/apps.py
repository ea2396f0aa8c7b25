from django.apps import AppConfig


class RosterConfig(AppConfig):
    name = "server.roster"
    label = "roster"
