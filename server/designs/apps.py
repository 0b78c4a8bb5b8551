from django.apps import AppConfig


class DesignsConfig(AppConfig):
    name = "server.designs"
    label = "designs"
