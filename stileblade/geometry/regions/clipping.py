"""The part of a straight line that lies on a region: where a fold can be."""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.crossing import crossings
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats, concatenate, lines
from stileblade.geometry.regions.region import Region
from stileblade.tolerance import TOLERANCE


def clip_line(
    region: Region, start: Point, end: Point, *, both_sides: bool = False
) -> list[tuple[Point, Point]]:
    """Spans of the line on the region, in the order of running, each at least 0.02 mm long.

    Ends lie on the true outline. Edges of the region that lie on the line count, but not where
    there must be paper on ``both_sides``; where the line only touches a corner there is no span.
    """
    if not region:
        return []
    a, b = np.array(start, float), np.array(end, float)
    length = float(np.hypot(*(b - a)))
    along = (b - a) / max(length, 1e-300)
    sides = [
        _merged([(max(s, 0.0), min(e, length)) for s, e in side if e > 0 and s < length])
        for side in _on_polyline(region, a, along)
    ]
    spans = _common(*sides) if both_sides else _merged(sorted(sides[0] + sides[1]))
    if not spans:
        return []
    ends = _refined(region, a, b, along, np.array(spans).ravel()).reshape(-1, 2)
    full = ends[ends[:, 1] - ends[:, 0] >= TOLERANCE.leftover]
    return [(_point(a, along, s), _point(a, along, e)) for s, e in full]


Stretches = list[tuple[float, float]]


def _on_polyline(region: Region, a: Floats, along: Floats) -> list[Stretches]:
    """Stretches of the endless line on the flattened region, sorted: just to the one and just to the
    other side of the line. Together that is the closed region, edges that lie on the line included;
    what both have is where there is paper on either side.
    """
    flat = region.flat
    off = (flat.points - a) @ np.array([-along[1], along[0]])
    off[np.abs(off) < TOLERANCE.conode / 100] = 0.0
    off_end = off[flat.after]
    found: list[Stretches] = []
    for inside, inside_end in ((off <= 0, off_end <= 0), (off < 0, off_end < 0)):
        hit = true_at(inside != inside_end)
        share = off[hit] / (off[hit] - off_end[hit])
        p, q = flat.points[hit], flat.points[flat.after[hit]]
        where = np.sort((p + share[:, None] * (q - p) - a) @ along)
        found.append(sorted(zip(where[::2].tolist(), where[1::2].tolist(), strict=True)))
    return found


def _point(a: Floats, along: Floats, at: float) -> Point:
    x, y = a + along * at
    return float(x), float(y)


def _merged(spans: Stretches) -> Stretches:
    out: Stretches = []
    for low, high in spans:
        if out and low - out[-1][1] <= TOLERANCE.conode:
            out[-1] = (out[-1][0], max(out[-1][1], high))
        else:
            out.append((low, high))
    return out


def _common(first: Stretches, second: Stretches) -> Stretches:
    """What lies in a stretch of the first and in one of the second, both sorted and apart."""
    found = [(max(a, c), min(b, d)) for a, b in first for c, d in second if max(a, c) < min(b, d)]
    return _merged(sorted(found))


def _refined(region: Region, a: Floats, b: Floats, along: Floats, at: Floats) -> Floats:
    """Places along the line moved on to the true outline, where it crosses it close by."""
    flat = region.flat
    normal = np.array([-along[1], along[0]])
    off = (flat.points - a) @ normal
    off_end = off[flat.after]
    hit = true_at((off <= 0) != (off_end <= 0))
    if not len(hit):
        return at
    share = off[hit] / (off[hit] - off_end[hit])
    where = ((flat.points[hit] + share[:, None] * (flat.ends[hit] - flat.points[hit])) - a) @ along
    order = np.argsort(where)
    hit, where, share = hit[order], where[order], share[order]
    right = np.clip(np.searchsorted(where, at), 0, len(where) - 1)
    left = np.clip(right - 1, 0, len(where) - 1)
    nearest = np.where(np.abs(where[left] - at) < np.abs(where[right] - at), left, right)
    close = np.abs(where[nearest] - at) < TOLERANCE.crossing
    if not close.any():
        return at
    pick = hit[nearest[close]]
    length = float(np.hypot(*(b - a)))
    curves = concatenate([region.segments.take(flat.segment[pick]), lines(a[None], b[None])])
    t = flat.t0[pick] + share[nearest[close]] * (flat.t1[pick] - flat.t0[pick])
    line = np.full(len(pick), len(pick))
    _, s, found = crossings(curves, np.arange(len(pick)), t, line, at[close] / length)
    out = at.copy()
    # where the line grazes the outline, the polyline's crossing lies far from the true one
    value = np.where(
        found & (np.abs(s * length - at[close]) < TOLERANCE.grazing), s * length, at[close]
    )
    out[close] = value
    return out
