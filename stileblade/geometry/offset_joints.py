"""Where the runs of an offset outline meet: what is known of a joint before any search for it, and
what is made of one that no search finds."""

from __future__ import annotations

from dataclasses import dataclass, replace
from dataclasses import fields as dataclass_fields
from typing import Final, Literal

import numpy as np
import shapely

from stileblade.geometry.crossing import nearest_places
from stileblade.geometry.flatten import Flat, neighbours
from stileblade.geometry.parallel import MITRED, OffsetCurves
from stileblade.geometry.runs import ResultEdges, Runs
from stileblade.geometry.segments import (
    TAU,
    Bools,
    Floats,
    Ints,
    Kind,
    Segments,
    concatenate,
    lines,
)
from stileblade.geometry.trace import ResultRings
from stileblade.tolerance import TOLERANCE

_MISSING: Final = 4
_BAYS: Final = 0.15
"""By how much of the distance the kernel may misplace a corner."""
_GAP: Final = 0.01
"""mm: two runs whose corner is off their curves by more are bridged."""
_BESIDE: Final = 0.01
"""mm: joints farther from the kernel's corners are looked at again."""
_ON: Final = 0.006
"""mm: a place of the kernel's polygon this near to a curve is on it."""
_ROUNDS: Final = 4
_SIDES: Final[tuple[Literal["left"], Literal["right"]]] = ("left", "right")
_FARTHEST: Final = 12
"""How many places of the kernel's polygon are tried on either side of a bridge."""
_BETWEEN: Final = np.array([0.25, 0.5, 0.75])
_INSIDE: Final = np.array([0.05, 0.1, 0.2])
"""Shares of what is looked at between two places of a curve, and behind its end."""
_POINT: Final = 1e-4
"""mm: a parallel whose ends are this close is a point."""


def slack_of(curves: OffsetCurves) -> Floats:
    """How far t may jump within a run of each curve (5n,): a few edges of the flattened source may
    be missing, but where a curve meets itself again, two of its stretches stay apart."""
    pieces = curves.segments.pieces_within(curves.flatness)
    own = np.where(curves.segments.kind == Kind.ARC, TAU, 1.0) / pieces
    own = np.where(curves.segments.kind == Kind.LINE, np.inf, _MISSING * own)
    return np.concatenate([own, np.full(4 * curves.n, np.inf)])


def strides(edges: ResultEdges, curves: OffsetCurves) -> Floats:
    """How far t may jump before each edge (m,) of a run: nowhere over a stretch that runs back,
    as inside bends that are tighter than the distance, where the curve crosses itself."""
    slack = slack_of(curves)[edges.curve]
    _, before = neighbours(edges.ring)
    jump = edges.t0 - edges.t1[before]
    over = (edges.curve == edges.curve[before]) & (jump != 0) & (np.abs(jump) <= slack)
    rows = np.flatnonzero(over & _curved(curves, edges.curve))
    for share in _BETWEEN:
        slack[rows[_bent(curves, edges.curve[rows], edges.t0[rows] - share * jump[rows])]] = 0.0
    return slack


def whole_lengths(curves: OffsetCurves) -> Floats:
    """How long each curve's segment (5n,) is, as the way from end to end; about corners without
    end."""
    return np.concatenate([curves.segments.chords, np.full(4 * curves.n, np.inf)])


def reach_of(runs: Runs, curves: OffsetCurves) -> Floats:
    """How far the kernel's corners may be off along their curves: most where parallels of neighbours,
    or a straight corner and its sides, meet at a flat angle."""
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    n = curves.n
    follow = (p < n) & ((q < n) | (q >= 2 * n)) & (curves.before[q % n] == p)
    follow |= (p >= 2 * n) & (q < n) & (p % n == q)
    beside = np.maximum(TOLERANCE.crossing, _BAYS * np.abs(curves.distance)[q % n])
    return np.where(follow, TOLERANCE.grazing, beside)


def same_turn(met: Runs, runs: Runs, curves: OffsetCurves) -> Runs:
    """Arcs that end in the turn in which the kernel's corner is: a search may go round and round."""
    n = curves.n
    arc = (runs.curve // n == 1) | (runs.curve < n) & (
        curves.segments.kind[runs.curve % n] == Kind.ARC
    )
    ends = []
    for found, near in ((met.t0, runs.t0), (met.t1, runs.t1)):
        ends.append(np.where(arc, found - TAU * np.rint((found - near) / TAU), found))
    return replace(met, t0=ends[0], t1=ends[1])


def without_points(runs: Runs, curves: OffsetCurves) -> Runs:
    """Without the arcs whose radius is the distance: their parallel is a point, and what comes
    before it meets what comes after."""
    start, end = curves.offset_ends
    point = (curves.segments.kind == Kind.ARC) & (np.hypot(*(end - start).T) < _POINT)
    point &= (curves.segments.start != curves.segments.end).any(axis=1)
    gone = (runs.curve < curves.n) & point[runs.curve % curves.n]
    left = np.bincount(runs.ring[~gone], minlength=int(runs.ring.max(initial=0)) + 1)
    gone &= left[runs.ring] >= 2
    if not gone.any():
        return runs
    after, _ = neighbours(runs.ring)
    meeting = runs.point.copy()
    meeting[after[gone]] = start[runs.curve[gone]]
    return replace(runs, point=meeting).take(np.flatnonzero(~gone))


def with_flat_mitres(runs: Runs, curves: OffsetCurves, corners: Ints) -> Runs:
    """With the sides of mitres beside curves whose corner is so flat that the kernel has its tip
    on the first edge of the flattened curve."""
    n, kind = curves.n, curves.segments.kind
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    k = q % n
    flat = (p < n) & (q < n) & (curves.before[k] == p % n) & (before != np.arange(len(runs)))
    flat &= (corners[k] == MITRED) & curves.turns_outwards[k]
    slack, span = slack_of(curves)[:n], curves.segments.span
    flat &= np.abs(runs.t1[before] - span[p % n, 1]) <= slack[p % n]
    flat &= np.abs(runs.t0 - span[k, 0]) <= slack[k]
    # one side of a mitre may lie so close to the curve beside it that its edges were taken for it
    lone = (corners[k] == MITRED) & (before != np.arange(len(runs)))
    to_tip = lone & (p < n) & (q // n == 4) & (curves.before[k] == p % n)
    from_tip = lone & (p // n == 3) & (q < n) & (p % n == k)
    sides = [
        (np.flatnonzero(flat & (kind[p % n] != Kind.LINE) | to_tip), 3),
        (np.flatnonzero(flat & (kind[k] != Kind.LINE) | from_tip), 4),
    ]
    count = sum(len(rows) for rows, _ in sides)
    if not count:
        return runs
    row = np.concatenate([rows for rows, _ in sides])
    group = np.concatenate([np.full(len(rows), g) for rows, g in sides])
    put_in = Runs(
        k[row] + group * n,
        np.zeros(count),
        np.ones(count),
        np.zeros(count, bool),
        np.zeros(count, bool),
        runs.point[row],
        runs.ring[row],
    )
    # before the run at ``row``, the incoming side first
    place = np.concatenate([np.arange(len(runs)) + 0.9, row + 0.1 * (group - 2)])
    fields = {
        f.name: np.concatenate([getattr(runs, f.name), getattr(put_in, f.name)])
        for f in dataclass_fields(Runs)
    }
    return Runs(**fields).take(np.argsort(place, kind="stable"))


def at_their_corners(runs: Runs, curves: OffsetCurves) -> Runs:
    """Where a parallel goes over into the arc or mitre at its own corner, or that into the next,
    they meet at the parallel's own end: no search for a touch finds it better. Parallels of
    neighbours that run on into each other do as well."""
    n = curves.n
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    start, end = curves.offset_ends
    into = ((q // n == 1) | (q // n == 3)) & (p < n) & (curves.before[q % n] == p)
    out = ((p // n == 1) | (p // n == 4)) & (q < n) & (p % n == q)
    slack, span = np.minimum(slack_of(curves)[:n], 0.5), curves.segments.span
    into &= np.abs(runs.t1[before] - span[p % n, 1]) <= slack[p % n]
    out &= np.abs(runs.t0 - span[q % n, 0]) <= slack[q % n]
    t0, t1 = runs.t0.copy(), runs.t1.copy()
    exact0, exact1 = runs.exact0.copy(), runs.exact1.copy()
    for rows, arc_t, spots in (
        (np.flatnonzero(into), t0, end[p[into]]),
        (np.flatnonzero(out), t1, start[q[out]]),
    ):
        on_arc = rows if arc_t is t0 else before[rows]
        on_line = before[rows] if arc_t is t0 else rows
        gap = spots - curves.segments.start[runs.curve[on_arc] % n]
        angle = np.arctan2(gap[:, 1], gap[:, 0])
        turned = np.remainder(angle - arc_t[on_arc] + np.pi, 2 * np.pi) - np.pi
        is_arc = runs.curve[on_arc] // n == 1
        arc_t[on_arc] = np.where(is_arc, arc_t[on_arc] + turned, 0.0 if arc_t is t0 else 1.0)
        own = curves.segments.span[runs.curve[on_line]]
        if arc_t is t0:
            t1[on_line] = own[:, 1]
        else:
            t0[on_line] = own[:, 0]
        exact0[rows] = exact1[before[rows]] = True
    # where the source runs on smoothly so do its parallels
    smooth = (p < n) & (q < n) & (curves.before[q % n] == p) & curves.runs_on[q % n]
    smooth &= np.abs(runs.t1[before] - span[p % n, 1]) <= slack[p % n]
    smooth &= np.abs(runs.t0 - span[q % n, 0]) <= slack[q % n]
    rows = np.flatnonzero(smooth)
    rows = rows[
        ~_bent(curves, p[rows], span[p[rows], 1]) & ~_bent(curves, q[rows], span[q[rows], 0])
    ]
    t1[before[rows]], t0[rows] = span[p[rows], 1], span[q[rows], 0]
    exact0[rows] = exact1[before[rows]] = True
    return replace(runs, t0=t0, t1=t1, exact0=exact0, exact1=exact1)


@dataclass(frozen=True, eq=False)
class Bridge:
    """What lies before a run whose joint with the one before it no search has found: places of the
    kernel's polygon (k, 2), between the end of the one and the start of the other."""

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
) -> tuple[Runs, Joined]:
    """Runs with their joints; ``corners`` (n, 2) are the kernel's, before any search for them.

    Where a joint is wrong the kernel's own polygon bridges, from where both sides are on their
    curves again. Runs of which nothing, or a scrap, is left between two bridges are bridged over.
    """
    wrong = _wrong(runs, t1, corners, curves, kernel)
    for rounds in range(_ROUNDS + 1):
        after, before = neighbours(runs.ring)
        found = Joined(runs.t0.copy(), t1.copy(), runs.point.copy(), runs.point[after], [], set())
        _bridge(np.flatnonzero(wrong), before, runs, corners, curves, kernel, found)
        changed = (found.t0 != runs.t0) | (found.t1 != t1)
        turned = changed & ((found.t1 - found.t0) * (t1 - runs.t0) <= 0)
        found.gaps.update(np.flatnonzero(turned).tolist())
        left = np.bincount(runs.ring, minlength=int(runs.ring.max(initial=0)) + 1)
        scraps = np.hypot(*(found.end - found.start).T) < TOLERANCE.leftover
        out = found.gaps | set(np.flatnonzero(changed & scraps).tolist())
        gone = np.array([row for row in out if left[runs.ring[row]] > 2], np.int64)
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
    return runs, found


def _wrong(runs: Runs, t1: Floats, corners: Floats, curves: OffsetCurves, kernel: Kernel) -> Bools:
    """Joints, before each run, that are on neither of their curves, or nearer to the source than
    the distance: the kernel has left out what is between the two, or a turn about a vertex was
    taken for nothing."""
    _, before = neighbours(runs.ring)
    alone = before == np.arange(len(runs))
    here = curves.points_at(runs.curve, runs.t0)
    there = curves.points_at(runs.curve, t1)[before]
    off = np.maximum(np.hypot(*(here - runs.point).T), np.hypot(*(there - runs.point).T))
    wrong = (off > _GAP) & ~alone
    # a curve that is to cross itself, where the search has found one place for both
    wrong |= (runs.curve == runs.curve[before]) & (np.abs(runs.t0 - t1[before]) < 1e-6) & ~alone
    moved = np.hypot(*(runs.point - corners).T) > _BESIDE
    far = np.flatnonzero(moved & ~wrong & ~alone)
    if len(far):
        wrong[far] = kernel.too_near(runs.point[far], runs.curve[far], curves)
    # where a run turns back, the way to its cusp and from there to the crossing with itself
    rows, (after, _) = np.arange(len(runs)), neighbours(runs.ring)
    short = np.hypot(*(runs.point[after] - runs.point).T) < 4 * TOLERANCE.leftover
    short &= _curved(curves, runs.curve)
    for joint, run, shares in (
        (rows, rows[_bent(curves, runs.curve, runs.t0)], _INSIDE),
        (after, rows[_bent(curves, runs.curve, t1)], 1 - _INSIDE),
        (rows, rows[short], _BETWEEN),
    ):
        run = np.repeat(run, len(shares))
        t = runs.t0[run] + np.resize(shares, len(run)) * (t1 - runs.t0)[run]
        spots = curves.points_at(runs.curve[run], t)
        wrong[joint[run[kernel.too_near(spots, runs.curve[run], curves)]]] = True
    wrong[alone] = False
    return wrong


def _curved(curves: OffsetCurves, curve: Ints) -> Bools:
    """Which of the curves (k,) are parallels of no line."""
    return (curve < curves.n) & (curves.segments.kind[curve % curves.n] != Kind.LINE)


def _bent(curves: OffsetCurves, curve: Ints, t: Floats) -> Bools:
    """Where curves (k,) at t (k,) run back, as parallels do inside bends that are tighter than the
    distance."""
    bent = _curved(curves, curve)
    rows = np.flatnonzero(bent)
    _, moving = curves.motion_at(curve[rows], t[rows])
    way = curves.segments.derivatives_at(curve[rows], t[rows])
    bent[rows] = (moving * way).sum(axis=1) < 0
    return bent


@dataclass(frozen=True, eq=False)
class Reached:
    """steps (k,) that were gone, 0 where it was nowhere; t (k,) and places (k, 2) on the curves."""

    steps: Ints
    t: Floats
    foot: Floats


@dataclass(frozen=True, eq=False)
class Kernel:
    """The kernel's polygons, and the flattened source that they are the buffers of, whose edges are
    each of one job (m,)."""

    rings: ResultRings
    flat: Flat
    job: Ints

    def reached(
        self,
        run: Ints,
        ends: tuple[Floats, Floats],
        first: Ints,
        size: Ints,
        at: Ints,
        way: int,
        runs: Runs,
        curves: OffsetCurves,
    ) -> Reached:
        """After how many places from ``at`` (k,), ahead or back in their rings, these are on the
        curves of the runs again; ``ends`` are the runs' parameters here and at their other ends.

        Places from where a run goes on without turning back come first, however far."""
        guess, other = ends
        steps = np.arange(1, _FARTHEST)
        row, step = np.nonzero(steps < size[:, None])
        curve, n = runs.curve[run][row], steps[step]
        spot = self.rings.points[first[row] + (at[row] + n * way) % size[row]]
        t = nearest_places(curves, curve, guess[row], spot)
        foot = curves.points_at(curve, t)
        hit = (np.hypot(*(foot - spot).T) < _ON) & ~_bent(curves, curve, t)
        row, n, t, foot, curve = row[hit], n[hit], t[hit], foot[hit], curve[hit]
        turns = np.zeros(len(row), bool)
        for share in _BETWEEN:
            turns |= _bent(curves, curve, t + share * (other[row] - t))
        order = np.lexsort((n, turns, row))
        row, first_of = np.unique(row[order], return_index=True)
        nearest = order[first_of]
        found = Reached(np.zeros(len(run), np.int64), guess.copy(), np.zeros((len(run), 2)))
        found.steps[row], found.t[row], found.foot[row] = n[nearest], t[nearest], foot[nearest]
        return found

    def too_near(self, points: Floats, curve: Ints, curves: OffsetCurves) -> Bools:
        """Which of the points (k, 2) on curves are nearer to the source than the distance."""
        segment = curve % curves.n
        job = np.zeros(curves.n, np.int64)
        job[self.flat.segment] = self.job
        out = np.zeros(len(points), bool)
        for j in np.unique(job[segment]):
            own = slice(*np.searchsorted(self.job, [j, j + 1]))
            lines = np.stack([self.flat.points[own], self.flat.ends[own]], axis=1)
            rows = np.flatnonzero(job[segment] == j)
            source = shapely.multilinestrings(shapely.linestrings(lines))
            shapely.prepare(source)
            least = np.abs(curves.distance[segment[rows]]) - 2 * curves.flatness
            out[rows] = shapely.dwithin(source, shapely.points(points[rows]), np.maximum(least, 0))
        return out


def _bridge(
    rows: Ints,
    before: Ints,
    runs: Runs,
    corners: Floats,
    curves: OffsetCurves,
    kernel: Kernel,
    found: Joined,
) -> None:
    """The joints before ``rows`` bridged, in place; a run is a gap that the kernel's polygon is
    nowhere on the curve of."""
    first, last = (np.searchsorted(kernel.rings.ring, runs.ring[rows], side) for side in _SIDES)
    at = np.full(len(rows), -1, np.int64)
    for i, row in enumerate(rows.tolist()):
        ring = kernel.rings.points[first[i] : last[i]]
        here = np.flatnonzero((ring == corners[row]).all(axis=1))
        at[i] = here[0] if len(here) else -1
    found.gaps.update(rows[at < 0].tolist())
    rows, first, size, at = (v[at >= 0] for v in (rows, first, last - first, at))
    p, (t0, t1) = before[rows], (found.t0.copy(), found.t1.copy())
    back = kernel.reached(p, (t1[p], t0[p]), first, size, at, -1, runs, curves)
    ahead = kernel.reached(rows, (t0[rows], t1[rows]), first, size, at, 1, runs, curves)
    found.gaps.update(before[rows][back.steps == 0].tolist())
    found.gaps.update(rows[(ahead.steps == 0) & (back.steps > 0)].tolist())
    for i in np.flatnonzero((back.steps > 0) & (ahead.steps > 0)).tolist():
        row, previous = int(rows[i]), int(before[rows[i]])
        found.t1[previous], found.end[previous] = back.t[i], back.foot[i]
        found.t0[row], found.start[row] = ahead.t[i], ahead.foot[i]
        order = (at[i] + np.arange(1 - back.steps[i], ahead.steps[i])) % size[i]
        found.bridges.append(Bridge(row, kernel.rings.points[first[i] + order]))


def with_bridges(made: Segments, row: Ints, joined_: Joined, before: Ints) -> tuple[Segments, Ints]:
    """With the straight pieces of bridges before their runs."""
    parts, rows, places = [made], [row], [row.astype(float)]
    for bridge in joined_.bridges:
        end, start = joined_.end[before[bridge.row]], joined_.start[bridge.row]
        points = np.concatenate([end[None], bridge.places, start[None]])
        parts.append(lines(points[:-1], points[1:]))
        count = len(points) - 1
        rows.append(np.full(count, bridge.row))
        places.append(bridge.row - 0.5 + np.arange(count) / (4 * count))
    if len(parts) == 1:
        return made, row
    order = np.argsort(np.concatenate(places), kind="stable")
    return concatenate(parts).take(order), np.concatenate(rows)[order]
