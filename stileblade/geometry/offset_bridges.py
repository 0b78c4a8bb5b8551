"""Joints of an offset outline that no search finds, bridged along the kernel's own polygon."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from stileblade.geometry.flatten import neighbours
from stileblade.geometry.offset_joints import BETWEEN
from stileblade.geometry.offset_kernel import SIDES, Kernel, Reached
from stileblade.geometry.parallel import OffsetCurves
from stileblade.geometry.runs import Runs
from stileblade.geometry.segments import Bools, Floats, Ints, Segments, concatenate, lines
from stileblade.geometry.vectors import as_complex, crosses, norms
from stileblade.tolerance import TOLERANCE

_GAP: Final = 0.01
"""mm: two runs whose corner is off their curves by more are bridged."""
_BESIDE: Final = 0.01
"""mm: joints farther from the kernel's corners are looked at again."""
_INSIDE: Final = np.array([0.05, 0.1, 0.2])
"""Shares of a run at which it is looked at behind an end where it turns back."""
_ROUNDS: Final = 4


@dataclass(frozen=True, eq=False)
class Bridge:
    """What lies before a run whose joint with the one before it no search has found: places (k, 2)
    from the kernel's polygon, between the end of the one and the start of the other."""

    row: int
    places: Floats


@dataclass(frozen=True, eq=False)
class Joined:
    """Where runs start and end, in points and parameters, bridges between them, and those runs
    before which there is a gap that cannot be bridged."""

    t0: Floats
    t1: Floats
    start: Floats
    end: Floats
    bridges: list[Bridge]
    gaps: set[int]


def joined(
    runs: Runs,
    corners: Floats,
    t1: Floats,
    curves: OffsetCurves,
    kernel: Kernel,
    astray: Bools,
) -> tuple[Runs, Joined, Ints]:
    """Runs with their joints, and their numbers; ``corners`` (n, 2) are the kernel's, before any search
    for them, and runs ``astray`` (n,) are left out.

    Where a joint is wrong the kernel's own polygon bridges, from where both sides are on their
    curves again. Runs of which nothing, or a scrap, is left between two bridges are bridged over.
    """
    wrong, kept = _wrong(runs, t1, corners, curves, kernel), np.arange(len(runs))
    reaches = _Reaches.none(len(runs))
    for rounds in range(_ROUNDS + 1):
        after, before = neighbours(runs.ring)
        found = Joined(runs.t0.copy(), t1.copy(), runs.point.copy(), runs.point[after], [], set())
        _bridge(np.flatnonzero(wrong), before, kept, runs, corners, curves, kernel, reaches, found)
        changed = (found.t0 != runs.t0) | (found.t1 != t1)
        turned = changed & ((found.t1 - found.t0) * (t1 - runs.t0) <= 0)
        found.gaps.update(np.flatnonzero(turned).tolist())
        left = np.bincount(runs.ring, minlength=int(runs.ring.max(initial=0)) + 1)
        scraps = norms(found.end - found.start) < TOLERANCE.leftover
        out = found.gaps | set(np.flatnonzero((wrong | wrong[after]) & scraps).tolist())
        out |= set(np.flatnonzero(astray[kept]).tolist())
        gone = np.array(sorted(row for row in out if left[runs.ring[row]] > 2), np.int64)
        # rings of which nothing would be left stay as they are
        dropped = np.bincount(runs.ring[gone], minlength=len(left))
        gone = gone[dropped[runs.ring[gone]] < left[runs.ring[gone]]]
        if not len(gone) or rounds == _ROUNDS:
            break
        keep = np.ones(len(runs), bool)
        keep[gone] = False
        for row in gone.tolist():
            k = int(after[row])
            while not keep[k]:
                k = int(after[k])
            wrong[k] = True
        rows = np.flatnonzero(keep)
        runs, corners, t1, wrong = runs.take(rows), corners[rows], t1[rows], wrong[rows]
        kept = kept[rows]
    if found.bridges:
        found = replace(found, bridges=_on_outline(found, runs, curves, kernel))
    return runs, found, kept


def _wrong(runs: Runs, t1: Floats, corners: Floats, curves: OffsetCurves, kernel: Kernel) -> Bools:
    """Joints, before each run, that are on neither of their curves, or nearer to the source than
    the distance: the kernel has left out what is between the two, or a turn about a vertex was
    taken for nothing."""
    _, before = neighbours(runs.ring)
    alone = before == np.arange(len(runs))
    here = curves.points_at(runs.curve, runs.t0)
    there = curves.points_at(runs.curve, t1)[before]
    off = np.maximum(norms(here - runs.point), norms(there - runs.point))
    wrong = (off > _GAP) & ~alone
    # a curve that is to cross itself, where the search has found one place for both
    wrong |= (runs.curve == runs.curve[before]) & (np.abs(runs.t0 - t1[before]) < 1e-6) & ~alone
    moved = norms(runs.point - corners) > _BESIDE
    far = np.flatnonzero(moved & ~wrong & ~alone)
    if len(far):
        wrong[far] = kernel.too_near(runs.point[far], runs.curve[far], curves)
    # where a run turns back, the way to its cusp and from there to the crossing with itself
    rows, (after, _) = np.arange(len(runs)), neighbours(runs.ring)
    short = norms(runs.point[after] - runs.point) < 4 * TOLERANCE.leftover
    short &= curves.curved(runs.curve)
    for joint, run, shares in (
        (rows, rows[curves.runs_back(runs.curve, runs.t0)], _INSIDE),
        (after, rows[curves.runs_back(runs.curve, t1)], 1 - _INSIDE),
        (rows, rows[short], BETWEEN),
    ):
        run = np.repeat(run, len(shares))
        t = runs.t0[run] + np.resize(shares, len(run)) * (t1 - runs.t0)[run]
        spots = curves.points_at(runs.curve[run], t)
        wrong[joint[run[kernel.too_near(spots, runs.curve[run], curves)]]] = True
    wrong[alone] = False
    return wrong


@dataclass(frozen=True, eq=False)
class _Reaches:
    """What was reached from the joint before each run (n,), and before which it was another run."""

    before: Ints
    back: Reached
    ahead: Reached

    @classmethod
    def none(cls, n: int) -> _Reaches:
        return cls(np.full(n, -1), Reached.none(np.zeros(n)), Reached.none(np.zeros(n)))


def _bridge(
    rows: Ints,
    before: Ints,
    kept: Ints,
    runs: Runs,
    corners: Floats,
    curves: OffsetCurves,
    kernel: Kernel,
    reaches: _Reaches,
    found: Joined,
) -> None:
    """The joints before ``rows`` bridged, in place; a run is a gap that the kernel's polygon is
    nowhere on the curve of. ``kept`` are the runs' numbers in ``reaches``."""
    first, last = (np.searchsorted(kernel.rings.ring, runs.ring[rows], side) for side in SIDES)
    at = np.full(len(rows), -1, np.int64)
    vertex, corner = as_complex(kernel.rings.points), as_complex(corners)
    for i, row in enumerate(rows.tolist()):
        here = (vertex[first[i] : last[i]] == corner[row]).nonzero()[0]
        at[i] = here[0] if len(here) else -1
    found.gaps.update(rows[at < 0].tolist())
    rows, first, size, at = (v[at >= 0] for v in (rows, first, last - first, at))
    p, (t0, t1) = before[rows], (found.t0.copy(), found.t1.copy())
    new = np.flatnonzero(reaches.before[kept[rows]] != kept[p])
    there, number = (first[new], size[new], at[new]), kept[rows[new]]
    for reached, run, ends, way in (
        (reaches.back, p[new], (t1, t0), -1),
        (reaches.ahead, rows[new], (t0, t1), 1),
    ):
        own = ends[0][run], ends[1][run]
        reached.put(number, kernel.reached(run, own, *there, way, runs, curves))
    reaches.before[number] = kept[p[new]]
    back, ahead = reaches.back.take(kept[rows]), reaches.ahead.take(kept[rows])
    found.gaps.update(before[rows][back.steps == 0].tolist())
    found.gaps.update(rows[(ahead.steps == 0) & (back.steps > 0)].tolist())
    for i in np.flatnonzero((back.steps > 0) & (ahead.steps > 0)).tolist():
        row, previous = int(rows[i]), int(before[rows[i]])
        found.t1[previous], found.t0[row] = back.t[i], ahead.t[i]
        order = (at[i] + np.arange(1 - back.steps[i], ahead.steps[i])) % size[i]
        places = kernel.rings.points[first[i] + order]
        way_over = np.concatenate([back.foot[i, None], places, ahead.foot[i, None]])
        way_over = _without_scraps(way_over)
        found.end[previous], found.start[row] = way_over[0], way_over[-1]
        found.bridges.append(Bridge(row, way_over[1:-1]))


def _on_outline(found: Joined, runs: Runs, curves: OffsetCurves, kernel: Kernel) -> list[Bridge]:
    """Bridges with their places as far from the source as they should be."""
    _, before = neighbours(runs.ring)
    ways = [
        np.concatenate([found.end[before[b.row], None], b.places, found.start[b.row, None]])
        for b in found.bridges
    ]
    job = kernel.rings.origin[runs.ring[[b.row for b in found.bridges]]]
    placed = kernel.on_outline(ways, job, curves)
    return [Bridge(b.row, way[1:-1]) for b, way in zip(found.bridges, placed, strict=True)]


def _without_scraps(way: Floats) -> Floats:
    """The way (k, 2) without the places that make short pieces of it, as long as it goes on within
    a quarter of their length; one that is itself that short is the place in its middle, twice."""
    while len(way) > 2:
        a, b, c = way[:-2], way[1:-1], way[2:]
        piece = np.minimum(norms(b - a), norms(c - b))
        run = c - a
        across = crosses(run, b - a)
        cost = np.abs(across) / np.maximum(norms(run), 1e-12)
        cost[piece >= TOLERANCE.leftover] = np.inf
        least = int(cost.argmin())
        if cost[least] > TOLERANCE.leftover / 4:
            break
        way = np.delete(way, least + 1, axis=0)
    if len(way) == 2 and np.hypot(*(way[1] - way[0])) < TOLERANCE.leftover:
        way = np.repeat(way.mean(axis=0)[None], 2, axis=0)
    return way


def with_bridges(made: Segments, row: Ints, joined_: Joined, before: Ints) -> tuple[Segments, Ints]:
    """With the straight pieces of bridges before their runs."""
    parts, rows, places = [made], [row], [row.astype(float)]
    for bridge in joined_.bridges:
        end, start = joined_.end[before[bridge.row]], joined_.start[bridge.row]
        if not len(bridge.places) and (end == start).all():
            continue
        points = np.concatenate([end[None], bridge.places, start[None]])
        parts.append(lines(points[:-1], points[1:]))
        count = len(points) - 1
        rows.append(np.full(count, bridge.row))
        places.append(bridge.row - 0.5 + np.arange(count) / (4 * count))
    if len(parts) == 1:
        return made, row
    order = np.argsort(np.concatenate(places), kind="stable")
    return concatenate(parts).take(order), np.concatenate(rows)[order]
