from django.apps import AppConfig


class ShelfConfig(AppConfig):
    name = "server.shelf"
    label = "shelf"
