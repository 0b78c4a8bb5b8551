from django.apps import AppConfig


class JobsConfig(AppConfig):
    name = "server.jobs"
    label = "jobs"
