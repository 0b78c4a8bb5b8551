"""Django's SQLite backend, with its writes in turns and its syncs shared.

Every write takes its turn here, from any caller: transactions from their beginning to their end, single
statements while they run. That keeps writers from polling for SQLite's lock, and no caller can forget it.
"""

from __future__ import annotations

import threading
from functools import partial
from pathlib import Path
from typing import Any

from django.db.backends.sqlite3 import base
from django.db.utils import OperationalError

from server.sqlite.log_sync import LogSync
from server.sqlite.write_queue import WriteQueue

_READS = ("SELECT", "PRAGMA", "EXPLAIN", "BEGIN", "COMMIT", "SAVEPOINT", "RELEASE", "ROLLBACK")


class Writing:
    """What all connections to one database in this process share."""

    _of: dict[str, Writing] = {}
    _guard = threading.Lock()

    def __init__(self, database: str) -> None:
        self.queue, self.log = WriteQueue(), LogSync(Path(database))

    @classmethod
    def of(cls, database: str) -> Writing:
        with cls._guard:
            return cls._of.setdefault(database, cls(database))


class DatabaseWrapper(base.DatabaseWrapper):
    def __init__(self, *given: Any, **named: Any) -> None:
        super().__init__(*given, **named)
        self._writing: Writing | None = None
        self._has_turn = False

    @property
    def writing(self) -> Writing:
        if self._writing is None:
            self._writing = Writing.of(str(self.settings_dict["NAME"]))
        return self._writing

    def take_turn(self) -> None:
        """Wait to be the one who writes. OperationalError where that takes longer than the timeout."""
        timeout = float(self.settings_dict.get("OPTIONS", {}).get("timeout", 5.0))
        if not self.writing.queue.acquire(timeout):
            raise OperationalError("database is locked: too many writers wait")
        self._has_turn = True

    def pass_turn(self) -> None:
        if self._has_turn:
            self._has_turn = False
            self.writing.queue.release()

    def sync(self) -> None:
        """Wait until what has been committed is on the disk."""
        if self.is_in_memory_db():
            return
        try:
            self.writing.log.wait()
        except OSError as error:
            raise OperationalError(f"disk I/O error: {error}") from error

    def _start_transaction_under_autocommit(self) -> None:
        self.take_turn()
        try:
            super()._start_transaction_under_autocommit()  # type: ignore[misc]
        except BaseException:
            self.pass_turn()
            raise

    def _commit(self) -> None:
        wrote = self._has_turn
        try:
            super()._commit()  # type: ignore[misc]
        finally:
            if not self.connection.in_transaction:
                self.pass_turn()
        if wrote:
            self.sync()

    def _rollback(self) -> None:
        try:
            super()._rollback()  # type: ignore[misc]
        finally:
            self.pass_turn()

    def _close(self) -> None:
        try:
            super()._close()  # type: ignore[misc]
        finally:
            self.pass_turn()

    def create_cursor(self, name: Any = None) -> Any:
        return self.connection.cursor(factory=partial(_Cursor, wrapper=self))


class _Cursor(base.SQLiteCursorWrapper):
    """Takes a turn for a statement that writes outside a transaction."""

    def __init__(self, connection: Any, *, wrapper: DatabaseWrapper) -> None:
        super().__init__(connection)
        self._wrapper = wrapper

    def execute(self, query: str, params: Any = None) -> Any:
        if self.connection.in_transaction or query.lstrip().upper().startswith(_READS):
            return super().execute(query, params)
        return self._alone(partial(super().execute, query, params))

    def executemany(self, query: str, param_list: Any) -> Any:
        if self.connection.in_transaction:
            return super().executemany(query, param_list)
        return self._alone(partial(super().executemany, query, param_list))

    def _alone(self, run: Any) -> Any:
        self._wrapper.take_turn()
        try:
            result = run()
        finally:
            self._wrapper.pass_turn()
        self._wrapper.sync()
        return result
