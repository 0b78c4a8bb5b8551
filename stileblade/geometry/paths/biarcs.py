"""Curves as circular arcs: for files whose closed outlines are to be one line each.

A stretch of a curve becomes two arcs that run on into each other with one tangent, and that have the
curve's own tangents at both ends (a biarc; Bolton 1975). Where they are further from the curve than
is allowed the stretch is halved.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.geometry.curves.arrays import nth_of, true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import circular
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments
from stileblade.geometry.curves.vectors import norms

WITHIN = 0.004
"""mm: how far the arcs may be from the curve where it is looked at; 0.005 anywhere."""
_LOOKED_AT = np.linspace(0.0, 1.0, 11)[1:-1]
_MOST_HALVINGS = 14
_STRAIGHT = 1e-9


@dataclass(frozen=True, eq=False)
class Bulged:
    """A chain of places (n, 2) with the bulge (n,) of the way from each to the next, as in a polyline of
    DXF: the tangent of a quarter of the arc's angle, positive where it runs clockwise as seen with y
    downwards. The last bulge is that of the way back to the first place, of a closed chain."""

    points: Floats
    bulges: Floats


def bulged(segments: Segments, *, closed: bool, within: float = WITHIN) -> Bulged:
    """A contour or an open way as a chain of lines and arcs within ``within`` mm of it."""
    n = len(segments)
    places: list[Floats] = []
    bulges: list[Floats] = []
    keys: list[Floats] = []
    round_, _ = circular(segments)
    straight = segments.kind == Kind.LINE
    for index, make in (
        (true_at(straight), _lines),
        (true_at(~straight & round_), _arcs),
        (true_at(~straight & ~round_), _curves),
    ):
        if len(index):
            key, start, bulge = make(segments, index, within)
            keys.append(key)
            places.append(start)
            bulges.append(bulge)
    if not n:
        return Bulged(np.zeros((0, 2)), np.zeros(0))
    order = np.argsort(np.concatenate(keys), kind="stable")
    points, bulge = np.concatenate(places)[order], np.concatenate(bulges)[order]
    if not closed:
        points = np.concatenate([points, segments.end[-1:]])
        bulge = np.append(bulge, 0.0)
    return Bulged(points, bulge)


def _lines(s: Segments, index: Ints, within: float) -> tuple[Floats, Floats, Floats]:
    return index.astype(float), s.start[index], np.zeros(len(index))


def _arcs(s: Segments, index: Ints, within: float) -> tuple[Floats, Floats, Floats]:
    """Circular arcs, in parts of at most a quarter turn."""
    c, span = s.coef[index], s.span[index]
    turn = np.sign(c[:, 2] * c[:, 5] - c[:, 3] * c[:, 4])
    sweep = (span[:, 1] - span[:, 0]) * turn
    parts = np.maximum(np.ceil(np.abs(sweep) / (np.pi / 2) - 1e-9), 1).astype(np.int64)
    which = np.repeat(np.arange(len(index)), parts)
    number = nth_of(parts)
    share = number / parts[which]
    at = span[which, 0] + share * (span[which, 1] - span[which, 0])
    start = s.points_at(index[which], at)
    start[number == 0] = s.start[index]
    return index[which] + share, start, np.tan(sweep[which] / parts[which] / 4)


def _curves(s: Segments, index: Ints, within: float) -> tuple[Floats, Floats, Floats]:
    """Other curves, halved until two arcs are near enough to each stretch."""
    low, high = np.zeros(len(index)), np.ones(len(index))
    which = index.copy()
    keys, starts, bulges = [], [], []
    for halving in range(_MOST_HALVINGS + 1):
        if not len(which):
            break
        middle, first, second, ends, off = _biarcs(s, which, low, high)
        fine = (off <= within) | (halving == _MOST_HALVINGS)
        keys += [which[fine] + low[fine], which[fine] + (low + high)[fine] / 2]
        starts += [ends[0][fine], middle[fine]]
        bulges += [first[fine], second[fine]]
        rest = ~fine
        half = (low + high)[rest] / 2
        which = np.concatenate([which[rest], which[rest]])
        low, high = np.concatenate([low[rest], half]), np.concatenate([half, high[rest]])
    return np.concatenate(keys), np.concatenate(starts), np.concatenate(bulges)


def _biarcs(
    s: Segments, which: Ints, low: Floats, high: Floats
) -> tuple[Floats, Floats, Floats, tuple[Floats, Floats], Floats]:
    """For stretches of curves, given by shares of their spans: where the two arcs meet (n, 2), their
    bulges (n,), both ends, and how far the curve is from them at most (n,)."""
    a, t0 = _place(s, which, low)
    b, t1 = _place(s, which, high)
    chord = b - a
    t = t0 + t1
    vv, vt = (chord * chord).sum(axis=1), (chord * t).sum(axis=1)
    denominator = 2 * (1 - (t0 * t1).sum(axis=1))
    flat = np.abs(denominator) < _STRAIGHT
    root = np.sqrt(np.maximum(vt * vt + denominator * vv, 0))
    with np.errstate(divide="ignore", invalid="ignore"):
        d = np.where(flat, vv / (4 * (chord * t1).sum(axis=1)), (root - vt) / denominator)
    d = np.where(np.isfinite(d) & (d > 0), d, np.sqrt(vv) / 2)
    middle = (a + b + d[:, None] * (t0 - t1)) / 2
    first, second = _bulge(t0, middle - a), -_bulge(-t1, middle - b)
    off = np.zeros(len(which))
    for share in _LOOKED_AT:
        spot, _ = _place(s, which, low + (high - low) * share)
        off = np.maximum(
            off, np.minimum(_away(spot, a, middle, first), _away(spot, middle, b, second))
        )
    off[vv < _STRAIGHT**2] = np.inf  # a whole ellipse ends where it begins
    return middle, first, second, (a, b), off


def _place(s: Segments, which: Ints, share: Floats) -> tuple[Floats, Floats]:
    """Places (n, 2) and unit tangents in the direction of running."""
    span = s.span[which]
    at = span[:, 0] + (span[:, 1] - span[:, 0]) * share
    spots = s.points_at(which, at)
    starts, ends = share == 0, share == 1
    spots[starts], spots[ends] = s.start[which[starts]], s.end[which[ends]]
    tangents = s.derivatives_at(which, at) * np.sign(span[:, 1] - span[:, 0])[:, None]
    weak = norms(tangents) < 1e-9
    if (starts | ends | weak).any():
        first, last = s.end_directions()
        tangents[starts], tangents[ends] = first[which[starts]], last[which[ends]]
    return spots, tangents / np.maximum(norms(tangents), 1e-300)[:, None]


def _bulge(tangent: Floats, chord: Floats) -> Floats:
    """Of arcs that begin with a tangent and end after a chord: tan of half the angle between them."""
    cross = tangent[:, 0] * chord[:, 1] - tangent[:, 1] * chord[:, 0]
    dot = (tangent * chord).sum(axis=1)
    return np.asarray(np.tan(np.arctan2(cross, dot) / 2))


def _away(spot: Floats, a: Floats, b: Floats, bulge: Floats) -> Floats:
    """How far places are from the circle, or the line, of an arc that they are beside; far off where
    they are not beside it."""
    chord = b - a
    size = np.maximum(norms(chord), 1e-12)
    unit = chord / size[:, None]
    normal = np.stack([-unit[:, 1], unit[:, 0]], axis=1)
    place = spot - a
    along, across = (place * unit).sum(axis=1), (place * normal).sum(axis=1)
    straight = np.abs(bulge) < _STRAIGHT
    safe = np.where(straight, 1.0, bulge)
    # the centre lies on the chord's bisector; an arc of bulge b has the height b c / 2
    radius = size * (1 + safe**2) / (4 * np.abs(safe))
    height = size * (1 - safe**2) / (4 * safe)
    arc = np.abs(np.hypot(along - size / 2, across - height) - radius)
    off = np.where(straight, np.abs(across), arc)
    beside = _beside(along, size)
    return np.where(beside, off, np.inf)


def _beside(along: Floats, size: Floats) -> Bools:
    return (along > -0.05 * size) & (along < 1.05 * size)
