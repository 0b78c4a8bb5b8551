"""Syncing the write-ahead log to the disk, once for all commits that wait for it.

SQLite with ``synchronous=FULL`` syncs within each commit, while it holds the write lock. With ``NORMAL`` it
syncs the log before a checkpoint alone; a commit is durable as soon as the log has been synced after it. So
commits are made without a sync, one after the other, and each then waits here for the next sync, which
serves all that wait. Source: SQLite documentation, "Write-Ahead Logging", sections 2.3 and 6.
"""

from __future__ import annotations

import os
import threading
from pathlib import Path


class LogSync:
    """Syncs the log of one database."""

    def __init__(self, database: Path) -> None:
        self._log = database.with_name(f"{database.name}-wal")
        self._changed = threading.Condition()
        self._begun = self._done = 0
        self._running = False
        self._error: tuple[int, OSError] | None = None
        self._known = 0
        self.count = 0
        """Syncs so far."""

    def wait(self) -> None:
        """Return when a sync that began after this call has ended. OSError where it failed."""
        with self._changed:
            mine = self._begun + 1
            while self._done < mine:
                if self._running:
                    self._changed.wait()
                else:
                    self._sync()
            if self._error and self._error[0] >= mine:
                raise self._error[1]

    def _sync(self) -> None:
        """Sync for all that wait, with the condition let go of meanwhile."""
        self._running = True
        self._begun += 1
        number = self._begun
        self._changed.release()
        try:
            self._written_through()
            error = None
        except OSError as failed:
            error = failed
        finally:
            self._changed.acquire()
            self._running = False
        self._done = number
        self.count += 1
        if error:
            self._error = (number, error)
        self._changed.notify_all()

    def _written_through(self) -> None:
        try:
            log = os.open(self._log, os.O_RDONLY)
        except FileNotFoundError:
            return  # the last connection has closed: SQLite has synced the log into the database
        try:
            os.fdatasync(log)
            if (
                file := os.fstat(log).st_ino
            ) != self._known:  # a new file needs its folder synced, too
                folder = os.open(self._log.parent, os.O_RDONLY)
                try:
                    os.fsync(folder)
                finally:
                    os.close(folder)
                self._known = file
        finally:
            os.close(log)
