"""Where the runs of an offset outline meet: what is known of a joint before any search for it."""

from __future__ import annotations

from dataclasses import fields as dataclass_fields
from dataclasses import replace
from typing import Final

import numpy as np

from stileblade.geometry.flatten import neighbours
from stileblade.geometry.parallel import MITRED, OffsetCurves
from stileblade.geometry.runs import ResultEdges, Runs
from stileblade.geometry.segments import (
    TAU,
    Floats,
    Ints,
    Kind,
)
from stileblade.geometry.vectors import norms
from stileblade.tolerance import TOLERANCE

_MISSING: Final = 4
_BAYS: Final = 0.15
"""By how much of the distance the kernel may misplace a corner."""
BETWEEN: Final = np.array([0.25, 0.5, 0.75])
"""Shares of a stretch at which it is looked at."""
APART: Final = 0.004
"""mm: ends of neighbours' parallels that are this close are one place."""
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
    rows = np.flatnonzero(over & curves.curved(edges.curve))
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
    point = (curves.segments.kind == Kind.ARC) & (norms(end - start) < _POINT)
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
    # and there the kernel has its corner: a cap may lie all but wholly in a bend next to it
    near = np.maximum(TOLERANCE.crossing, _BAYS * np.abs(curves.distance)[q % n])
    into &= (q // n == 3) | (norms(end[p % n] - runs.point) <= near)
    out &= (p // n == 4) | (norms(start[q % n] - runs.point) <= near)
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
    # where the source runs on smoothly, or as good as that, so do its parallels
    apart = norms(end[p % n] - start[q % n])
    smooth = (p < n) & (q < n) & (curves.before[q % n] == p)
    smooth &= curves.runs_on[q % n] | (apart < APART)
    smooth &= np.abs(runs.t1[before] - span[p % n, 1]) <= slack[p % n]
    smooth &= np.abs(runs.t0 - span[q % n, 0]) <= slack[q % n]
    rows = np.flatnonzero(smooth)
    rows = rows[
        ~curves.runs_back(p[rows], span[p[rows], 1]) & ~curves.runs_back(q[rows], span[q[rows], 0])
    ]
    t1[before[rows]], t0[rows] = span[p[rows], 1], span[q[rows], 0]
    exact0[rows] = exact1[before[rows]] = True
    return replace(runs, t0=t0, t1=t1, exact0=exact0, exact1=exact1)
