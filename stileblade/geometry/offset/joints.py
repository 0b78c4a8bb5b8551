"""Where the runs of an offset outline meet: what is known of a joint before any search for it."""

from __future__ import annotations

from dataclasses import fields as dataclass_fields
from dataclasses import replace
from typing import Final

import numpy as np

from stileblade.geometry.curves.arrays import neighbours, true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import Corner, Of, OffsetCurves
from stileblade.geometry.curves.segments import TAU, Floats, Ints
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.offset.polygon import BETWEEN
from stileblade.geometry.regions.runs import ResultEdges, Runs
from stileblade.tolerance import TOLERANCE

_MISSING: Final = 4
_BAYS: Final = 0.15
"""By how much of the distance the kernel may misplace a corner."""


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
    rows = true_at(over & curves.curved(edges.curve))
    for share in BETWEEN:
        slack[rows[curves.runs_back(edges.curve[rows], edges.t0[rows] - share * jump[rows])]] = 0.0
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
    is_p, is_q, k = curves.of(p), curves.of(q), curves.segment(q)
    follow = (is_p == Of.SEGMENT) & (is_q != Of.ARC) & (curves.before[k] == p)
    follow |= (is_p >= Of.BEVEL) & (is_q == Of.SEGMENT) & (curves.segment(p) == q)
    beside = np.maximum(TOLERANCE.crossing, _BAYS * np.abs(curves.distance)[k])
    return np.where(follow, TOLERANCE.grazing, beside)


def same_turn(met: Runs, runs: Runs, curves: OffsetCurves) -> Runs:
    """Arcs that end in the turn in which the kernel's corner is: a search may go round and round."""
    of = curves.of(runs.curve)
    own = curves.segments.kind[curves.segment(runs.curve)] == Kind.ARC
    arc = (of == Of.ARC) | (of == Of.SEGMENT) & own
    ends = []
    for found, near in ((met.t0, runs.t0), (met.t1, runs.t1)):
        ends.append(np.where(arc, found - TAU * np.rint((found - near) / TAU), found))
    return replace(met, t0=ends[0], t1=ends[1])


def round_their_corners(runs: Runs, curves: OffsetCurves) -> Runs:
    """Arcs about corners as they go round these, not the long way about: a ring may begin within one."""
    way = np.sign(curves.distance)[curves.segment(runs.curve)]
    long = (curves.of(runs.curve) == Of.ARC) & (way * (runs.t1 - runs.t0) < -np.pi / 2)
    return replace(runs, t1=np.where(long, runs.t1 + way * TAU, runs.t1)) if long.any() else runs


def without_points(runs: Runs, curves: OffsetCurves) -> Runs:
    """Without the arcs whose radius is the distance: their parallel is a point, and what comes
    before it meets what comes after."""
    start, end = curves.offset_ends
    point = (curves.segments.kind == Kind.ARC) & (norms(end - start) < TOLERANCE.point)
    point &= (curves.segments.start != curves.segments.end).any(axis=1)
    gone = (curves.of(runs.curve) == Of.SEGMENT) & point[curves.segment(runs.curve)]
    left = np.bincount(runs.ring[~gone], minlength=int(runs.ring.max(initial=0)) + 1)
    gone &= left[runs.ring] >= 2
    if not gone.any():
        return runs
    after, _ = neighbours(runs.ring)
    meeting = runs.point.copy()
    meeting[after[gone]] = start[runs.curve[gone]]
    return replace(runs, point=meeting).take(true_at(~gone))


def with_flat_mitres(runs: Runs, curves: OffsetCurves, corners: Ints) -> Runs:
    """With the sides of mitres beside curves whose corner is so flat that the kernel has its tip
    on the first edge of the flattened curve."""
    kind = curves.segments.kind
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    is_p, is_q, j, k = curves.of(p), curves.of(q), curves.segment(p), curves.segment(q)
    both = (is_p == Of.SEGMENT) & (is_q == Of.SEGMENT)
    flat = both & (curves.before[k] == j) & (before != np.arange(len(runs)))
    flat &= (corners[k] == Corner.MITRED) & curves.turns_outwards[k]
    slack, span = slack_of(curves)[: curves.n], curves.segments.span
    flat &= np.abs(runs.t1[before] - span[j, 1]) <= slack[j]
    flat &= np.abs(runs.t0 - span[k, 0]) <= slack[k]
    # one side of a mitre may lie so close to the curve beside it that its edges were taken for it
    lone = (corners[k] == Corner.MITRED) & (before != np.arange(len(runs)))
    to_tip = lone & (is_p == Of.SEGMENT) & (is_q == Of.FROM_TIP) & (curves.before[k] == j)
    from_tip = lone & (is_p == Of.INTO_TIP) & (is_q == Of.SEGMENT) & (j == k)
    sides = [
        (true_at(flat & (kind[j] != Kind.LINE) | to_tip), Of.INTO_TIP),
        (true_at(flat & (kind[k] != Kind.LINE) | from_tip), Of.FROM_TIP),
    ]
    count = sum(len(rows) for rows, _ in sides)
    if not count:
        return runs
    row = np.concatenate([rows for rows, _ in sides])
    of = np.concatenate([np.full(len(rows), int(side)) for rows, side in sides])
    put_in = Runs(
        curves.number(of, k[row]),
        np.zeros(count),
        np.ones(count),
        np.zeros(count, bool),
        np.zeros(count, bool),
        runs.point[row],
        runs.ring[row],
    )
    # before the run at ``row``, the incoming side first
    place = np.concatenate([np.arange(len(runs)) + 0.9, row + 0.1 * (of - Of.BEVEL)])
    fields = {
        f.name: np.concatenate([getattr(runs, f.name), getattr(put_in, f.name)])
        for f in dataclass_fields(Runs)
    }
    return Runs(**fields).take(np.argsort(place, kind="stable"))


def at_their_corners(runs: Runs, curves: OffsetCurves) -> Runs:
    """Where a parallel goes over into the arc or mitre at its own corner, or that into the next,
    they meet at the parallel's own end: no search for a touch finds it better. Parallels of
    neighbours that run on into each other do as well."""
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    is_p, is_q, j, k = curves.of(p), curves.of(q), curves.segment(p), curves.segment(q)
    start, end = curves.offset_ends
    to_corner = (is_q == Of.ARC) | (is_q == Of.INTO_TIP)
    from_corner = (is_p == Of.ARC) | (is_p == Of.FROM_TIP)
    into = to_corner & (is_p == Of.SEGMENT) & (curves.before[k] == p)
    out = from_corner & (is_q == Of.SEGMENT) & (j == q)
    slack, span = np.minimum(slack_of(curves)[: curves.n], 0.5), curves.segments.span
    into &= np.abs(runs.t1[before] - span[j, 1]) <= slack[j]
    out &= np.abs(runs.t0 - span[k, 0]) <= slack[k]
    # and there the kernel has its corner: a cap may lie all but wholly in a bend next to it
    near = np.maximum(TOLERANCE.crossing, _BAYS * np.abs(curves.distance)[k])
    into &= (is_q == Of.INTO_TIP) | (norms(end[j] - runs.point) <= near)
    out &= (is_p == Of.FROM_TIP) | (norms(start[k] - runs.point) <= near)
    made = replace(
        runs,
        t0=runs.t0.copy(),
        t1=runs.t1.copy(),
        exact0=runs.exact0.copy(),
        exact1=runs.exact1.copy(),
    )
    for rows, arc_t, on_arc, spots in (
        (true_at(into), made.t0, true_at(into), end[p[into]]),
        (true_at(out), made.t1, before[out], start[q[out]]),
    ):
        gap = spots - curves.segments.start[curves.segment(runs.curve[on_arc])]
        angle = np.arctan2(gap[:, 1], gap[:, 0])
        turned = np.remainder(angle - arc_t[on_arc] + np.pi, TAU) - np.pi
        is_arc = curves.of(runs.curve[on_arc]) == Of.ARC
        tip = 0.0 if arc_t is made.t0 else 1.0
        arc_t[on_arc] = np.where(is_arc, arc_t[on_arc] + turned, tip)
        made.exact0[rows] = made.exact1[before[rows]] = True
    made.t1[before[into]], made.t0[out] = span[p[into], 1], span[q[out], 0]
    return _running_on(made, runs, curves)


def _running_on(made: Runs, runs: Runs, curves: OffsetCurves) -> Runs:
    """``made`` of ``runs``, with parallels going over into each other at their ends where the source
    runs on smoothly, or as good as that."""
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    j, k = curves.segment(p), curves.segment(q)
    start, end = curves.offset_ends
    slack, span = np.minimum(slack_of(curves)[: curves.n], 0.5), curves.segments.span
    apart = norms(end[j] - start[k])
    smooth = (curves.of(p) == Of.SEGMENT) & (curves.of(q) == Of.SEGMENT)
    smooth &= curves.before[k] == p
    smooth &= curves.runs_on[k] | (apart < TOLERANCE.one_place)
    smooth &= np.abs(runs.t1[before] - span[j, 1]) <= slack[j]
    smooth &= np.abs(runs.t0 - span[k, 0]) <= slack[k]
    rows = true_at(smooth)
    rows = rows[
        ~curves.runs_back(p[rows], span[p[rows], 1]) & ~curves.runs_back(q[rows], span[q[rows], 0])
    ]
    made.t1[before[rows]], made.t0[rows] = span[p[rows], 1], span[q[rows], 0]
    made.exact0[rows] = made.exact1[before[rows]] = True
    return made
