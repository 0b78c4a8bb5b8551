"""Jobs for the workers that do what no job should."""

from __future__ import annotations

import os
import signal
import time
from typing import Any

import shapely

from server.computing.jobs import JOBS, Answer
from stileblade.design.cache import OutcomeCache
from stileblade.spending import for_look, for_step

OWN = OutcomeCache()


def _said(what: Any) -> Answer:
    return Answer(str(what).encode())


def spin(seconds: float, key: str = "") -> Answer:
    """Computes for so long; as a step where it has a key."""
    until = time.process_time() + seconds
    if not key:
        while time.process_time() < until:
            pass
        return _said("done")
    with for_step(key):
        while time.process_time() < until:
            pass
    return _said("done")


def deaf(key: str) -> Answer:
    """Is lost inside a library, which hears no signal."""
    signal.signal(signal.SIGPROF, signal.SIG_IGN)
    with for_step(key):
        while True:
            shapely.buffer(shapely.Point(0, 0), 1.0)


def eat(megabytes: int) -> Answer:
    kept = [bytearray(1_000_000) for _ in range(megabytes)]
    return _said(len(kept))


HOARD: list[bytearray] = []


def hoard(megabytes: int) -> Answer:
    """Keeps it, as what is remembered is kept."""
    HOARD.extend(bytearray(1_000_000) for _ in range(megabytes))
    return _said(os.getpid())


def die() -> Answer:
    os.kill(os.getpid(), signal.SIGKILL)
    return _said("never")


def who() -> Answer:
    return _said(os.getpid())


def looks(seconds: float) -> Answer:
    """Checks of a hundredth of a second each, for so long altogether."""
    until = time.process_time() + seconds
    while time.process_time() < until:
        with for_look():
            end = time.process_time() + 0.01
            while time.process_time() < end:
                pass
    return _said("done")


JOBS.update(spin=spin, deaf=deaf, eat=eat, hoard=hoard, die=die, who=who, looks=looks)
