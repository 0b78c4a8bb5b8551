"""Where two curves meet, by Newton from a close guess; and feet of points on curves."""

from __future__ import annotations

from typing import Protocol

import numpy as np

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments
from stileblade.geometry.curves.vectors import dots, norms

_ROUNDS = 10
_STARTS = 33
"""From how many places of a curve its nearest one is looked for."""


class Curves(Protocol):
    """Numbered parametric curves, evaluated many at a time; ``span`` (n, 2) bounds t."""

    @property
    def span(self) -> Floats: ...
    def points_at(self, index: Ints, t: Floats) -> Floats: ...
    def motion_at(self, index: Ints, t: Floats) -> tuple[Floats, Floats]:
        """Points and first derivatives by t."""
        ...


def _bounds(curves: Curves, index: Ints) -> Floats:
    """The least and the largest parameters (2, m) of the curves."""
    return np.sort(curves.span.take(index, axis=0).T, axis=0)


def crossings(
    curves: Curves, p: Ints, t: Floats, q: Ints, s: Floats
) -> tuple[Floats, Floats, Bools]:
    """Parameters (t, s) at which curves p and q meet near the guesses, and where it was found.

    Not found: where they run side by side, or end before they meet.
    """
    t, s = t.copy(), s.copy()
    found = np.zeros(len(p), bool)
    bounds_p, bounds_q = _bounds(curves, p), _bounds(curves, q)
    rows = np.arange(len(p))
    for rounds in range(_ROUNDS):
        n = len(rows)
        both = np.concatenate([p[rows], q[rows]])
        points, derivatives = curves.motion_at(both, np.concatenate([t[rows], s[rows]]))
        gap = points[:n] - points[n:]
        # every round starts where the last one stepped to: done where that was the crossing
        if rounds:
            left = ~found[rows] | (np.maximum(np.abs(gap[:, 0]), np.abs(gap[:, 1])) >= 1e-11)
            rows, gap = rows[left], gap[left]
            derivatives = derivatives[np.concatenate([left, left])]
            n = len(rows)
        if not n:
            break
        (gx, gy), (ax, ay), (bx, by) = gap.T, derivatives[:n].T, derivatives[n:].T
        det = ay * bx - ax * by
        crosses = np.abs(det) > 1e-7 * norms(derivatives[:n]) * norms(derivatives[n:])
        share = crosses / np.where(crosses, det, 1.0)
        found[rows] = crosses
        before_t, before_s = t[rows], s[rows]
        (low_t, high_t), (low_s, high_s) = bounds_p[:, rows], bounds_q[:, rows]
        next_t = np.minimum(np.maximum(before_t + (gx * by - gy * bx) * share, low_t), high_t)
        next_s = np.minimum(np.maximum(before_s + (gx * ay - gy * ax) * share, low_s), high_s)
        t[rows], s[rows] = next_t, next_s
        rows = rows[(next_t != before_t) | (next_s != before_s)]
    places = curves.points_at(np.concatenate([p, q]), np.concatenate([t, s]))
    gap = places[: len(p)] - places[len(p) :]
    return t, s, found & (norms(gap) < 1e-8)


def feet(curves: Curves, index: Ints, t: Floats, points: Floats) -> Floats:
    """Parameters of the points on the curves nearest to ``points``, from close guesses."""
    low, high = _bounds(curves, index)
    t, rows = t.copy(), np.arange(len(index))
    for _ in range(6):
        if not len(rows):
            break
        before = t[rows]
        here, d = curves.motion_at(index[rows], before)
        speed = np.maximum(dots(d, d), 1e-300)
        step = dots(points.take(rows, axis=0) - here, d) / speed
        now = np.minimum(np.maximum(before + step, low[rows]), high[rows])
        t[rows] = now
        rows = rows[np.abs(now - before) >= 1e-12]
    return t


def on_level_lines(segments: Segments, curve: Ints, points: Floats) -> Floats:
    """Crossings with upright and level lines lie on them to the last bit."""
    coef = segments.coef.take(curve, axis=0)
    line = segments.kind[curve] == Kind.LINE
    out = points.copy()
    for axis in (0, 1):
        m = line & (coef[:, axis] == coef[:, axis + 2])
        out[m, axis] = coef[m, axis]
    return out


def nearest_places(curves: Curves, index: Ints, t: Floats, points: Floats) -> Floats:
    """Parameters of the places on the curves nearest to ``points``: from close guesses, and on
    curves without end from these alone, else from all over the curve."""
    found = feet(curves, index, t, points)
    span = curves.span.take(index, axis=0)
    low, high = span.min(axis=1), span.max(axis=1)
    short = true_at(high - low <= 1 + 1e-9)
    if not len(short):
        return found
    share = np.linspace(0, 1, _STARTS)
    grid = low[short, None] + (high - low)[short, None] * share
    places = curves.points_at(index[short].repeat(_STARTS), grid.ravel())
    away = norms(places.reshape(-1, _STARTS, 2) - points[short, None])
    start = grid[np.arange(len(short)), away.argmin(axis=1)]
    other = feet(curves, index[short], start, points[short])
    here = norms(curves.points_at(index[short], found[short]) - points[short])
    there = norms(curves.points_at(index[short], other) - points[short])
    found[short] = np.where(there < here - 1e-9, other, found[short])
    return found
