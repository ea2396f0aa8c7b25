from django.apps import AppConfig


class ClassesConfig(AppConfig):
    name = "server.classes"
    label = "classes"
