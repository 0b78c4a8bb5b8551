"""Outcomes of steps, kept by content, the least used let go first. Safe between threads."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock

from stileblade.build.work import Work
from stileblade.errors import StepError

Kept = Work | StepError


class OutcomeCache:
    """At most ``most_nodes`` segments and ``most_entries`` outcomes."""

    def __init__(self, *, most_entries: int = 2000, most_nodes: int = 2_000_000) -> None:
        self.most_entries, self.most_nodes = most_entries, most_nodes
        self.hits = self.misses = 0
        self._kept: OrderedDict[str, Kept] = OrderedDict()
        self._nodes = 0
        self._lock = Lock()

    def get(self, key: str) -> Kept | None:
        with self._lock:
            found = self._kept.get(key)
            if found is None:
                self.misses += 1
            else:
                self.hits += 1
                self._kept.move_to_end(key)
            return found

    def put(self, key: str, outcome: Kept) -> None:
        with self._lock:
            if key in self._kept:
                return
            self._kept[key] = outcome
            self._nodes += _size(outcome)
            while len(self._kept) > 1 and (
                len(self._kept) > self.most_entries or self._nodes > self.most_nodes
            ):
                _, gone = self._kept.popitem(last=False)
                self._nodes -= _size(gone)


def _size(outcome: Kept) -> int:
    return outcome.paper.nodes if isinstance(outcome, Work) else 1
