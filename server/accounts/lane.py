"""Passwords are compared in a lane of their own: one at a time, a few waiting, with a limit a minute for each address and
for all.

Comparing a password costs a second of a core on purpose. Without a lane forty visitors who try names at random take all the
server's threads for minutes, and those who are signed in wait behind them.
"""

from __future__ import annotations

import threading
import time
from collections import deque
from collections.abc import Iterator
from contextlib import contextmanager

from cachetools import LRUCache

AT_ONCE, WAITING = 1, 3
LONGEST_WAIT = 8.0
"""Seconds in the lane until it is said that too many are signing in."""
MINUTE = 60.0
MOST_FROM_ADDRESS, MOST_IN_ALL = 20, 120
"""Passwords compared in a minute."""
MOST_ADDRESSES = 10_000


class LaneFullError(Exception):
    """Too many passwords are being compared, or were within the last minute."""


class RateLimit:
    """At most ``most`` events in ``seconds`` for each key, over a sliding window."""

    def __init__(self, most: int, seconds: float, *, keys: int = MOST_ADDRESSES) -> None:
        self.most, self.seconds = most, seconds
        self._times: LRUCache[str, deque[float]] = LRUCache(keys)
        self._lock = threading.Lock()

    def take(self, key: str, now: float) -> bool:
        """Whether one more is allowed now; it counts if so."""
        with self._lock:
            times = self._times.setdefault(key, deque())
            while times and now - times[0] >= self.seconds:
                times.popleft()
            if len(times) >= self.most:
                return False
            times.append(now)
            return True


class PasswordLane:
    def __init__(self, at_once: int = AT_ONCE, waiting: int = WAITING) -> None:
        self._places = threading.BoundedSemaphore(at_once + waiting)
        self._comparing = threading.BoundedSemaphore(at_once)
        self._from_address = RateLimit(MOST_FROM_ADDRESS, MINUTE)
        self._in_all = RateLimit(MOST_IN_ALL, MINUTE)

    @contextmanager
    def comparing(self, address: str) -> Iterator[None]:
        """Holds a place in the lane while a visitor's password is compared. Raises ``LaneFullError`` at once when full, so
        that no thread of the server waits for one."""
        now = time.monotonic()
        if not self._from_address.take(address, now) or not self._in_all.take("", now):
            raise LaneFullError
        if not self._places.acquire(blocking=False):
            raise LaneFullError
        try:
            if not self._comparing.acquire(timeout=LONGEST_WAIT):
                raise LaneFullError
            try:
                yield
            finally:
                self._comparing.release()
        finally:
            self._places.release()


LANE = PasswordLane()
