"""Outcomes of steps, kept with what each of them read, the least used let go first. Safe between
threads."""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass
from threading import Lock

from cachetools import LRUCache

from stileblade.errors import StepError
from stileblade.geometry.regions.remembered import BYTES_OF_REGION, bytes_of
from stileblade.piece.work import Work
from stileblade.tracing import Fact, Observations

Result = Work | StepError
MOST_BYTES = 400_000_000
_MOST_STEPS = 20_000
_MOST_REFUSED = 400
_MOST_TRACES = 24
"""Traces for one step on one input: a window that is dragged below a mat leaves one for each place."""


@dataclass(frozen=True, eq=False)
class Recorded:
    """The outcome's key, by which later steps know it, and the facts that it depends on."""

    key: str
    facts: tuple[Fact, ...]


class OutcomeCache:
    """Outcomes up to about ``most_bytes`` of memory; one that is larger is not kept."""

    def __init__(self, *, most_bytes: int = MOST_BYTES) -> None:
        self.hits = self.misses = 0
        self._results: LRUCache[str, Result] = LRUCache(most_bytes, getsizeof=_size)
        self._traces: LRUCache[str, deque[Recorded]] = LRUCache(_MOST_STEPS)
        self._refused: LRUCache[str, str] = LRUCache(_MOST_REFUSED)
        self._lock = Lock()

    def get(self, step: str, now: Observations) -> tuple[str, Result] | None:
        """The outcome of the step on its input, and the outcome's key, where all that it read is as it
        was. ``step`` is a digest of the step's values and of its input's key."""
        with self._lock:
            traces = tuple(self._traces.get(step, ()))
        found = next((trace for trace in traces if now.hold(trace.facts)), None)
        with self._lock:
            result = self._results.get(found.key) if found else None
            if found is None or result is None:
                self.misses += 1
                return None
            self.hits += 1
            return found.key, result

    def put(self, step: str, recorded: Recorded, result: Result) -> None:
        if _size(result) > self._results.maxsize:
            return
        with self._lock:
            self._results[recorded.key] = result
            traces = self._traces.setdefault(step, deque(maxlen=_MOST_TRACES))
            if all(trace.key != recorded.key for trace in traces):
                traces.appendleft(recorded)

    def refuse(self, attempt: str, what: str) -> None:
        """Remember that an attempt ended its worker: it took too much ``what``."""
        with self._lock:
            self._refused[attempt] = what

    def refusal(self, attempt: str) -> str | None:
        """Of what the attempt took too much, where it is known to."""
        with self._lock:
            return self._refused.get(attempt)


def _size(result: Result) -> int:
    return bytes_of(result.paper) if isinstance(result, Work) else BYTES_OF_REGION
