"""Runs of equal numbers, offsets and masks: a third of the time that numpy's general words take
for arrays as short as an ordinary outline's.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


def true_at(mask: Bools) -> Ints:
    """Positions (k,) at which a mask (m,) holds."""
    return mask.nonzero()[0]


def both(mask: Bools) -> Bools:
    """Where a mask of pairs (..., 2) holds for both."""
    return mask[..., 0] & mask[..., 1]


def equal_rows(a: NDArray[Any], b: NDArray[Any]) -> Bools:
    """Which rows (m,) of two arrays (m, k) are the same."""
    found = a[:, 0] == b[:, 0]
    for column in range(1, a.shape[1]):
        found &= a[:, column] == b[:, column]
    return found


def offsets_of(sizes: Ints) -> Ints:
    """Where each of ``sizes`` (n,) begins, and where the last one ends (n + 1,)."""
    found = np.zeros(len(sizes) + 1, np.int64)
    np.add.accumulate(sizes, out=found[1:])
    return found


def begins(numbers: NDArray[Any]) -> Bools:
    """Where a run of equal numbers (m,) begins."""
    found = np.empty(len(numbers), bool)
    found[:1] = True
    np.not_equal(numbers[1:], numbers[:-1], out=found[1:])
    return found


def run_starts(numbers: NDArray[Any]) -> Ints:
    """Positions at which a run of equal numbers begins."""
    return begins(numbers).nonzero()[0]


def run_ends(starts: Ints, count: int) -> Ints:
    """Positions just after the runs of ``count`` numbers that begin at ``starts`` (r,)."""
    found = np.empty(len(starts), np.int64)
    found[:-1] = starts[1:]
    found[-1:] = count
    return found


def run_sizes(starts: Ints, count: int) -> Ints:
    """How many there are in each run of ``count`` numbers that begin at ``starts`` (r,)."""
    return run_ends(starts, count) - starts


def nth_of(sizes: Ints) -> Ints:
    """The numbers 0, 1, ... in each of runs of so many (r,), one run after the other."""
    before = np.add.accumulate(sizes) - sizes
    found = np.arange(int(sizes.sum()))
    found -= before.repeat(sizes)
    return found


def ranks(values: NDArray[Any], apart: float) -> Ints:
    """For each of the values (n,) how many steps of more than ``apart`` there are below it: what only
    rounding tells apart has one rank."""
    order = values.argsort(kind="stable")
    found = np.zeros(len(values), np.int64)
    found[order[1:]] = (np.diff(values[order]) > apart).cumsum()
    return found


def neighbours(ring: Ints) -> tuple[Ints, Ints]:
    """Positions of the next and previous vertex within each run of equal ring numbers."""
    m = len(ring)
    after = np.arange(1, m + 1)
    before = np.arange(-1, m - 1)
    if m:
        starts = run_starts(ring)
        lasts = run_ends(starts, m) - 1
        after[lasts] = starts
        before[starts] = lasts
    return after, before
