"""Whose turn it is to write: first come, first served.

SQLite takes one writer at a time. Left to itself, a second one polls for the lock with ever longer sleeps,
and a later writer may overtake it; with many writers some wait for seconds.
"""

from __future__ import annotations

import threading
from collections import deque


class WriteQueue:
    """A lock that threads get in the order in which they asked for it."""

    def __init__(self) -> None:
        self._guard = threading.Lock()
        self._held = False
        self._waiting: deque[threading.Event] = deque()

    def acquire(self, timeout: float) -> bool:
        """Whether the turn came within ``timeout`` seconds."""
        with self._guard:
            if not self._held:
                self._held = True
                return True
            turn = threading.Event()
            self._waiting.append(turn)
        if turn.wait(timeout):
            return True
        with self._guard:
            if turn.is_set():  # it came while the wait ended
                return True
            self._waiting.remove(turn)
            return False

    def release(self) -> None:
        """Pass the turn to the thread that has waited longest."""
        with self._guard:
            if self._waiting:
                self._waiting.popleft().set()
            else:
                self._held = False
