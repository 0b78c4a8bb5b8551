"""Outcomes of steps, kept by content, the least used let go first. Safe between threads."""

from __future__ import annotations

from threading import Lock

from cachetools import LRUCache

from stileblade.errors import StepError
from stileblade.geometry.regions.remembered import BYTES_OF_REGION, bytes_of
from stileblade.piece.work import Work

Kept = Work | StepError
MOST_BYTES = 400_000_000


class OutcomeCache:
    """Outcomes up to about ``most_bytes`` of memory; one that is larger is not kept."""

    def __init__(self, *, most_bytes: int = MOST_BYTES) -> None:
        self.hits = self.misses = 0
        self._kept: LRUCache[str, Kept] = LRUCache(most_bytes, getsizeof=_size)
        self._lock = Lock()

    def get(self, key: str) -> Kept | None:
        with self._lock:
            found = self._kept.get(key)
            if found is None:
                self.misses += 1
            else:
                self.hits += 1
            return found

    def put(self, key: str, outcome: Kept) -> None:
        if _size(outcome) <= self._kept.maxsize:
            with self._lock:
                self._kept[key] = outcome


def _size(outcome: Kept) -> int:
    return bytes_of(outcome.paper) if isinstance(outcome, Work) else BYTES_OF_REGION
