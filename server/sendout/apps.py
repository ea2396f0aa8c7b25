from django.apps import AppConfig


class SendoutConfig(AppConfig):
    name = "server.sendout"
    label = "sendout"
