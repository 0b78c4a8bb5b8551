"""Joints of an offset outline that no search finds, bridged along the kernel's own polygon."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from stileblade.geometry.curves.arrays import neighbours, true_at
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments, concatenate, lines
from stileblade.geometry.curves.vectors import as_complex, crosses, norms
from stileblade.geometry.offset.outline import Outline
from stileblade.geometry.offset.polygon import BETWEEN, SIDES, Places, Polygon, Reached
from stileblade.geometry.regions.runs import Runs
from stileblade.tolerance import TOLERANCE

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


def joined(outline: Outline, polygon: Polygon) -> tuple[Outline, Joined]:
    """The outline's joints; runs of which nothing, or a scrap, is left between two bridges are
    bridged over, and are not in the outline that comes back.

    Where a joint is wrong the kernel's own polygon bridges, from where both sides are on their
    curves again. Invariant: of every ring at least two runs stay, or all that it had.
    """
    wrong, reaches = _wrong(outline, polygon), _Reaches.none(len(outline))
    for rounds in range(_ROUNDS + 1):
        runs, after = outline.runs, neighbours(outline.runs.ring)[0]
        found = Joined(
            runs.t0.copy(), outline.t1.copy(), runs.point.copy(), runs.point[after], [], set()
        )
        _bridge(true_at(wrong), outline, polygon, reaches, found)
        gone = _bridged_over(outline, found, wrong)
        if not len(gone) or rounds == _ROUNDS:
            break
        keep = np.ones(len(runs), bool)
        keep[gone] = False
        for row in gone.tolist():
            k = int(after[row])
            while not keep[k]:
                k = int(after[k])
            wrong[k] = True
        rows = true_at(keep)
        outline, wrong = outline.take(rows), wrong[rows]
    if found.bridges:
        found = replace(found, bridges=_on_outline(found, outline.runs, polygon))
    return outline, found


def _bridged_over(outline: Outline, found: Joined, wrong: Bools) -> Ints:
    """Runs of which nothing is left, or a scrap between two bridges."""
    runs, (after, _) = outline.runs, neighbours(outline.runs.ring)
    changed = (found.t0 != runs.t0) | (found.t1 != outline.t1)
    turned = changed & ((found.t1 - found.t0) * (outline.t1 - runs.t0) <= 0)
    found.gaps.update(true_at(turned).tolist())
    left = np.bincount(runs.ring, minlength=int(runs.ring.max(initial=0)) + 1)
    scraps = norms(found.end - found.start) < TOLERANCE.leftover
    out = found.gaps | set(true_at((wrong | wrong[after]) & scraps).tolist())
    out |= set(true_at(outline.astray).tolist())
    gone = np.array(sorted(row for row in out if left[runs.ring[row]] > 2), np.int64)
    # rings of which nothing would be left stay as they are
    dropped = np.bincount(runs.ring[gone], minlength=len(left))
    return gone[dropped[runs.ring[gone]] < left[runs.ring[gone]]]


def _wrong(outline: Outline, polygon: Polygon) -> Bools:
    """Joints, before each run, that are on neither of their curves, or nearer to the source than
    the distance: the kernel has left out what is between the two, or a turn about a vertex was
    taken for nothing."""
    runs, t1, curves = outline.runs, outline.t1, polygon.source.curves
    after, before = neighbours(runs.ring)
    rows = np.arange(len(runs))
    alone = before == rows
    here = curves.points_at(runs.curve, runs.t0)
    there = curves.points_at(runs.curve, t1)[before]
    off = np.maximum(norms(here - runs.point), norms(there - runs.point))
    wrong = (off > TOLERANCE.gap) & ~alone
    # a curve that is to cross itself, where the search has found one place for both
    wrong |= (runs.curve == runs.curve[before]) & (np.abs(runs.t0 - t1[before]) < 1e-6) & ~alone
    moved = norms(runs.point - outline.corner) > TOLERANCE.moved
    far = true_at(moved & ~wrong & ~alone)
    if len(far):
        wrong[far] = polygon.too_near(runs.point[far], runs.curve[far])
    # where a run turns back, the way to its cusp and from there to the crossing with itself
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
        wrong[joint[run[polygon.too_near(spots, runs.curve[run])]]] = True
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


def _places_of(rows: Ints, outline: Outline, polygon: Polygon) -> tuple[Places, Bools]:
    """The kernel's vertices that are the corners of the runs ``rows``, and which there are."""
    rings, ring = polygon.rings, outline.runs.ring[rows]
    first, last = (np.searchsorted(rings.ring, ring, side) for side in SIDES)
    at = np.full(len(rows), -1, np.int64)
    vertex, corner = as_complex(rings.points), as_complex(outline.corner)
    for i, row in enumerate(rows.tolist()):
        here = (vertex[first[i] : last[i]] == corner[row]).nonzero()[0]
        at[i] = here[0] if len(here) else -1
    return Places(first, last - first, at), at >= 0


def _bridge(
    rows: Ints, outline: Outline, polygon: Polygon, reaches: _Reaches, found: Joined
) -> None:
    """The joints before ``rows`` bridged, in place; a run is a gap that the kernel's polygon is
    nowhere on the curve of."""
    runs, numbers, (_, before) = outline.runs, outline.numbers, neighbours(outline.runs.ring)
    at, there = _places_of(rows, outline, polygon)
    found.gaps.update(rows[~there].tolist())
    rows, at = rows[there], at.take(there)
    p, (t0, t1) = before[rows], (found.t0.copy(), found.t1.copy())
    new = true_at(reaches.before[numbers[rows]] != numbers[p])
    number = numbers[rows[new]]
    for reached, run, ends, way in (
        (reaches.back, p[new], (t1, t0), -1),
        (reaches.ahead, rows[new], (t0, t1), 1),
    ):
        own = ends[0][run], ends[1][run]
        reached.put(number, polygon.reached(runs.curve[run], own, at.take(new), way))
    reaches.before[number] = numbers[p[new]]
    back, ahead = reaches.back.take(numbers[rows]), reaches.ahead.take(numbers[rows])
    found.gaps.update(before[rows][back.steps == 0].tolist())
    found.gaps.update(rows[(ahead.steps == 0) & (back.steps > 0)].tolist())
    for i in true_at((back.steps > 0) & (ahead.steps > 0)).tolist():
        row, previous = int(rows[i]), int(before[rows[i]])
        found.t1[previous], found.t0[row] = back.t[i], ahead.t[i]
        order = (at.place[i] + np.arange(1 - back.steps[i], ahead.steps[i])) % at.size[i]
        places = polygon.rings.points[at.first[i] + order]
        way_over = np.concatenate([back.foot[i, None], places, ahead.foot[i, None]])
        way_over = _without_scraps(way_over)
        found.end[previous], found.start[row] = way_over[0], way_over[-1]
        found.bridges.append(Bridge(row, way_over[1:-1]))


def _on_outline(found: Joined, runs: Runs, polygon: Polygon) -> list[Bridge]:
    """Bridges with their places as far from the source as they should be."""
    _, before = neighbours(runs.ring)
    ways = [
        np.concatenate([found.end[before[b.row], None], b.places, found.start[b.row, None]])
        for b in found.bridges
    ]
    job = polygon.rings.origin[runs.ring[[b.row for b in found.bridges]]]
    placed = polygon.on_outline(ways, job)
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
