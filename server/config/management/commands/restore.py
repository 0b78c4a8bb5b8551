"""Brings back the database of a day: manage.py restore 2026-11-24. Without a day: lists them."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from server.config import backups
from server.config.data import DataTrouble, days_of_backups


class Command(BaseCommand):
    help = __doc__ or ""
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("day", nargs="?", default="")

    def handle(self, *args: Any, **options: Any) -> None:
        data = settings.DATA_DIR
        if not options["day"]:
            self.stdout.write("\n".join(days_of_backups(data)) or "There are no copies yet.")
            return
        try:
            aside = backups.restore(data, options["day"])
        except DataTrouble as trouble:
            raise CommandError(str(trouble), returncode=2) from trouble
        self.stdout.write(
            f"The database is that of {options['day']}. What was there before is kept as {aside}."
        )
