from django.apps import AppConfig


class SessionsConfig(AppConfig):
    name = "server.sessions"
    label = "training"
