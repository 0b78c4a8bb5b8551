"""Limits on time and memory within this process, for code that reads what strangers sent."""

from __future__ import annotations

import math
import resource
import signal
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from types import FrameType


class TimeLimitExceeded(BaseException):
    """Derives from BaseException, so that a parser's own recovery handlers do not swallow it."""


def address_space() -> int:
    """Bytes of address space that this process has taken."""
    pages = int(Path("/proc/self/statm").read_text().split()[0])
    return pages * resource.getpagesize()


@contextmanager
def limited(seconds: int, memory: int) -> Iterator[None]:
    """Run the body with at most ``seconds`` of processor time and ``memory`` bytes beyond what is taken already.

    TimeLimitExceeded or MemoryError where it takes more. Limits that are narrower already stay; what they were is
    restored afterwards. In another thread than the main one there are no limits: they would be those of the
    whole process, and signals do not arrive there. Source: setrlimit(2).
    """
    if threading.current_thread() is not threading.main_thread():
        yield
        return
    time_before = resource.getrlimit(resource.RLIMIT_CPU)
    memory_before = resource.getrlimit(resource.RLIMIT_AS)
    handler = signal.signal(signal.SIGXCPU, _exceeded)
    resource.setrlimit(
        resource.RLIMIT_CPU,
        (_least(time_before[0], math.ceil(time.process_time()) + seconds), time_before[1]),
    )
    resource.setrlimit(
        resource.RLIMIT_AS, (_least(memory_before[0], address_space() + memory), memory_before[1])
    )
    try:
        yield
    finally:
        resource.setrlimit(resource.RLIMIT_CPU, time_before)
        resource.setrlimit(resource.RLIMIT_AS, memory_before)
        signal.signal(signal.SIGXCPU, handler)


def _least(before: int, now: int) -> int:
    return now if before == resource.RLIM_INFINITY else min(before, now)


def _exceeded(number: int, frame: FrameType | None) -> None:
    raise TimeLimitExceeded
