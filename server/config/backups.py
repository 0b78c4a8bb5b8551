"""Copies of the database by SQLite's own means: one a day, of the last seven days."""

from __future__ import annotations

import logging
import os
import sqlite3
import threading
from contextlib import closing
from datetime import date
from pathlib import Path

from server.config.data import BACKUPS, DATABASE, DataTrouble, days_of_backups

KEPT_DAYS = 7
_HOUR = 3600.0
logger = logging.getLogger(__name__)


def folder_of(data: Path) -> Path:
    return data / BACKUPS


def path_of(data: Path, day: str) -> Path:
    return folder_of(data) / f"stileblade-{day}.sqlite3"


def back_up(data: Path, day: str) -> Path:
    """A whole copy of the database as it is, beside work that goes on; older ones than the last
    ``KEPT_DAYS`` go. OSError or sqlite3.Error where it cannot be written, or where the database is empty: the
    earlier ones stay."""
    folder_of(data).mkdir(mode=0o700, exist_ok=True)
    path = path_of(data, day)
    new = path.with_suffix(".new")
    try:
        os.close(os.open(new, os.O_CREAT | os.O_TRUNC | os.O_WRONLY, 0o600))
        with (
            closing(sqlite3.connect(data / DATABASE)) as base,
            closing(sqlite3.connect(new)) as copy,
        ):
            if not base.execute("SELECT count(*) FROM sqlite_master").fetchone()[0]:
                raise sqlite3.DatabaseError("the database is empty")
            base.backup(copy, pages=500, sleep=0.01)
            copy.execute("PRAGMA journal_mode=DELETE")
        new.replace(path)
    finally:
        new.unlink(missing_ok=True)
    # by when they were made: a clock that was set back names the newest one for an earlier day
    made = sorted(
        days_of_backups(data), key=lambda d: path_of(data, d).stat().st_mtime_ns, reverse=True
    )
    for old in made[KEPT_DAYS:]:
        if old != day:
            path_of(data, old).unlink(missing_ok=True)
    return path


def restore(data: Path, day: str) -> Path:
    """The copy of a day in the database's place; the present database stays beside it, under the
    name that is returned. Nothing may be running on it."""
    source = path_of(data, day)
    if not source.is_file():
        there = ", ".join(days_of_backups(data)) or "none"
        raise DataTrouble(f"There is no copy of {day}. Copies there are: {there}.")
    with closing(sqlite3.connect(source)) as copy:
        if copy.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok":
            raise DataTrouble(f"The copy of {day} is broken itself. Take another day's.")
    new = data / f"{DATABASE}.new"
    with open(os.open(new, os.O_CREAT | os.O_TRUNC | os.O_WRONLY, 0o600), "wb") as file:
        file.write(source.read_bytes())
        file.flush()
        os.fsync(file.fileno())
    aside = data / f"{DATABASE}.before-{day}"
    number = 1
    while aside.exists():
        number += 1
        aside = data / f"{DATABASE}.before-{day}-{number}"
    for end in ("-wal", "-shm"):  # the log belongs to what is put aside
        log = data / f"{DATABASE}{end}"
        if log.exists():
            log.replace(Path(f"{aside}{end}"))
    if (data / DATABASE).exists():
        (data / DATABASE).replace(aside)
    new.replace(data / DATABASE)
    return aside


class Daily(threading.Thread):
    """Makes the day's copy at once and looks each hour whether another day has begun."""

    def __init__(self, data: Path) -> None:
        super().__init__(name="backups", daemon=True)
        self.data = data
        self._ended = threading.Event()

    def run(self) -> None:
        while not self._ended.is_set():
            today = date.today().isoformat()
            try:
                if today not in days_of_backups(self.data):
                    back_up(self.data, today)
            except (OSError, sqlite3.Error) as error:
                logger.warning("The day's copy of the database could not be made: %s", error)
            self._ended.wait(_HOUR)

    def end(self) -> None:
        self._ended.set()
        self.join(timeout=5)
