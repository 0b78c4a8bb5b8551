"""Makes a copy of the database now, in the data folder's backups: manage.py backup"""

from __future__ import annotations

import sqlite3
from datetime import date
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from server.config import backups


class Command(BaseCommand):
    help = __doc__ or ""

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            path = backups.back_up(settings.DATA_DIR, date.today().isoformat())
        except (OSError, sqlite3.Error) as error:
            raise CommandError(f"The copy could not be made: {error}.", returncode=2) from error
        self.stdout.write(f"Copied to {path}")
