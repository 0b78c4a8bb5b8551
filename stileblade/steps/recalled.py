"""What a step has just worked out, for whoever asks once more: its handles and figures ask for what
was made when it was applied."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from threading import Lock
from typing import Generic, TypeVar

from stileblade.piece.work import Work
from stileblade.steps.step import Setting, Step
from stileblade.tracing import is_traced, untraced

T = TypeVar("T")


class Recalled(Generic[T]):
    """The last few results, each of a step on one and the same work in one and the same setting. Safe
    between threads."""

    def __init__(self, most: int = 8) -> None:
        self._kept: deque[tuple[Step, Work, Setting, T]] = deque(maxlen=most)
        self._lock = Lock()

    def __call__(self, step: Step, work: Work, setting: Setting, make: Callable[[], T]) -> T:
        if not is_traced(
            setting
        ):  # in a trace everything is read once more, so that it is recorded
            with self._lock:
                for kept, before, within, result in self._kept:
                    if before is work and within is setting and kept == step:
                        return result
        result = make()
        with self._lock:
            self._kept.append((step, work, untraced(setting), result))
        return result
