"""Timing: the best of several runs, and fresh copies so that no run profits from another."""

from __future__ import annotations

import time
from collections.abc import Callable

from stileblade.geometry.regions.region import Region


def best(run: Callable[[], object], *, repeat: int = 7) -> float:
    """Seconds of the quickest of ``repeat`` runs, after one that warms up."""
    run()
    times = []
    for _ in range(repeat):
        started = time.perf_counter()
        run()
        times.append(time.perf_counter() - started)
    return min(times)


def fresh(region: Region) -> Region:
    """The same region with nothing remembered."""
    return Region(region.segments, region.rings, region.shell)
