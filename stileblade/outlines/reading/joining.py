"""Loose lines joined end to end to contours, as drawings without fills need it."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import Floats, Ints, Segments, concatenate
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.distances import close_pairs


@dataclass
class Joined:
    """closed contours; open ones, whose ends meet nothing; how many gaps were bridged, and the
    widest of them."""

    closed: list[Segments] = field(default_factory=list)
    open: list[Segments] = field(default_factory=list)
    bridged: int = 0
    widest: float = 0.0


def join(ways: list[Segments], tolerance: float) -> Joined:
    """Ways put together where ends lie within ``tolerance`` of each other, the nearest first.

    Ends that are joined meet half way: lines and the handles of Beziers follow.
    """
    found = Joined()
    ways = [w for w in ways if len(w)]
    if not ways:
        return found
    ends = np.array([p for w in ways for p in (w.start[0], w.end[-1])])
    mate = _mates(ends, tolerance)
    met = ends.copy()
    paired = np.flatnonzero(mate >= 0)
    gap = norms(ends[paired] - ends[mate[paired]])
    bridged = paired[gap > 1e-9]
    met[bridged] = (ends[bridged] + ends[mate[bridged]]) / 2
    found.bridged = len(bridged) // 2
    found.widest = float(gap.max(initial=0.0))
    for chain, closed in _chains(mate, len(ways)):
        parts = []
        for end in chain:  # entered at this end
            way, backwards = ways[end // 2], end % 2 == 1
            way = _pulled(way, met[end // 2 * 2], met[end // 2 * 2 + 1])
            parts.append(way.reversed() if backwards else way)
        (found.closed if closed else found.open).append(concatenate(parts))
    return found


def _mates(ends: Floats, tolerance: float) -> Ints:
    """For each end the end that it is joined to, or -1."""
    mate = np.full(len(ends), -1, np.int64)
    i, j, away = close_pairs(ends, tolerance)
    for k in np.argsort(away, kind="stable"):
        a, b = int(i[k]), int(j[k])
        if mate[a] < 0 and mate[b] < 0:
            mate[a], mate[b] = b, a
    return mate


def _chains(mate: Ints, count: int) -> list[tuple[list[int], bool]]:
    """Ends at which ways are entered, chain by chain, and whether the chain closes."""
    done = np.zeros(count, bool)
    found = []
    # open chains from one of their free ends first, then what is left goes round
    starts = [e for e in range(2 * count) if mate[e] < 0] + list(range(0, 2 * count, 2))
    for start in starts:
        if done[start // 2]:
            continue
        chain, end, closed = [], start, False
        while not done[end // 2]:
            done[end // 2] = True
            chain.append(end)
            onward = int(mate[end ^ 1])
            if onward < 0:
                break
            closed = onward == start
            end = onward
        found.append((chain, closed))
    return found


def _pulled(way: Segments, start: Floats, end: Floats) -> Segments:
    """The way with its ends moved a little to where they meet others."""
    if (way.start[0] == start).all() and (way.end[-1] == end).all():
        return way
    coef, first, last = way.coef.copy(), way.start.copy(), way.end.copy()
    for row, index, to in ((0, 0, start), (len(way) - 1, 1, end)):
        by = to - (first[row] if index == 0 else last[row])
        kind = int(way.kind[row])
        if kind != Kind.ARC and (way.span[row] == [0.0, 1.0]).all():
            points = coef[row].reshape(4, 2)
            at = 0 if index == 0 else {0: 1, 1: 2, 2: 3}[kind]
            points[at] += by
            if kind == Kind.CUBIC:
                points[1 if index == 0 else 2] += by
        if index == 0:
            first[row] = to
        else:
            last[row] = to
    return Segments(way.kind, coef, way.span, first, last)
