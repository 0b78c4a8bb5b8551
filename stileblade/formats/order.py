"""The order of lines: small before large, near before far, and what lies inside before what is around it.

A piece that lies in another's window has to be cut before that window, so inner and outer cuts come in
rounds: those that hold nothing, then those around them, and so on.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from stileblade.formats.lines import Lines
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.nested import around_each
from stileblade.machine.operation import CUTS, Operation

SMALL = 25.0
"""mm of width or height: contours that are smaller are cut before the others of their pass."""
_MOST_SWAPPED = 300
_ROUNDS = 30


def in_rounds(lines: Lines) -> Lines:
    """The same lines, cuts with the rounds in which they come."""
    cuts = [(op, i) for op in CUTS for i, line in enumerate(lines[op]) if line.closed]
    holder = around_each([lines[op][i].segments for op, i in cuts])
    if (holder < 0).all():
        return lines
    within: dict[int, list[int]] = {}
    for inner, outer in enumerate(holder):
        within.setdefault(int(outer), []).append(inner)
    rounds: dict[int, int] = {}
    # from the innermost outwards: what holds more contours around it is deeper
    depth = [_depth(holder, i) for i in range(len(cuts))]
    for i in sorted(range(len(cuts)), key=lambda i: -depth[i]):
        held = [(rounds[k], cuts[k][0]) for k in within.get(i, [])]
        if cuts[i][0] is Operation.CUT_OUTER:
            rounds[i] = max((r for r, _ in held), default=0)
        else:
            rounds[i] = max((r + (op is Operation.CUT_OUTER) for r, op in held), default=0)
    found = {op: list(some) for op, some in lines.items()}
    for i, (op, number) in enumerate(cuts):
        if rounds[i] != found[op][number].round:
            found[op][number] = replace(found[op][number], round=rounds[i])
    return found


def _depth(holder: Sequence[int] | np.ndarray, number: int) -> int:
    depth, seen = 0, int(holder[number])
    while seen >= 0:
        depth, seen = depth + 1, int(holder[seen])
    return depth


@dataclass(frozen=True, eq=False)
class Stop:
    """Where a way may be begun (k, 2), where it ends when it is begun at the first, and its size in mm;
    an open way has its two ends."""

    starts: Floats
    closed: bool
    size: float


def tour(stops: Sequence[Stop], at: Floats) -> list[tuple[int, int]]:
    """The order in which stops are called at from a place, as (number, which of its starts): small ones
    first, by the nearest neighbour and then by 2-opt."""
    found: list[tuple[int, int]] = []
    for small in (True, False):
        chosen = [i for i, stop in enumerate(stops) if (stop.size < SMALL) is small]
        part = _nearest(stops, chosen, at)
        part = _swapped(stops, part, at)
        if part:
            at = _exit(stops[part[-1][0]], part[-1][1])
        found += part
    return found


def _entry(stop: Stop, which: int) -> Floats:
    return np.asarray(stop.starts[which])


def _exit(stop: Stop, which: int) -> Floats:
    return np.asarray(stop.starts[which] if stop.closed else stop.starts[1 - which])


def _nearest(stops: Sequence[Stop], chosen: Sequence[int], at: Floats) -> list[tuple[int, int]]:
    if not chosen:
        return []
    places = np.concatenate([stops[i].starts for i in chosen])
    owner = np.repeat(np.array(chosen), [len(stops[i].starts) for i in chosen])
    which = np.concatenate([np.arange(len(stops[i].starts)) for i in chosen])
    free = np.ones(len(places), bool)
    found = []
    for _ in chosen:
        away = np.where(free, norms(places - at), np.inf)
        k = int(np.argmin(away))
        number, start = int(owner[k]), int(which[k])
        found.append((number, start))
        free &= owner != number
        at = _exit(stops[number], start)
    return found


def _swapped(
    stops: Sequence[Stop], part: list[tuple[int, int]], at: Floats
) -> list[tuple[int, int]]:
    """By 2-opt: a stretch is called at backwards where that is shorter."""
    n = len(part)
    if n < 2 or n > _MOST_SWAPPED:
        return part
    part = list(part)
    for _ in range(_ROUNDS):
        entry = np.array([_entry(stops[i], k) for i, k in part])
        leave = np.array([_exit(stops[i], k) for i, k in part])
        before = np.concatenate([at[None], leave[:-1]])
        best, pair = -1e-6, None
        for i in range(n - 1):
            # reversed from i to j: enter where j was left, leave where i was entered
            j = np.arange(i + 1, n)
            new = norms(leave[j] - before[i])
            old = np.full(len(j), norms((entry[i] - before[i])[None])[0])
            inner = j < n - 1
            new[inner] += norms(entry[j[inner] + 1] - entry[i])
            old[inner] += norms(entry[j[inner] + 1] - leave[j[inner]])
            gain = new - old
            k = int(np.argmin(gain))
            if gain[k] < best:
                best, pair = float(gain[k]), (i, int(j[k]))
        if pair is None:
            break
        i, last = pair
        back = [(k, w if stops[k].closed else 1 - w) for k, w in reversed(part[i : last + 1])]
        part[i : last + 1] = back
    return part
