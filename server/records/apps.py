from django.apps import AppConfig


class RecordsConfig(AppConfig):
    name = "server.records"
    label = "records"
