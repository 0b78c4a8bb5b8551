"""The part of a straight line that lies on a region: where a fold can be."""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.geometry.crossing import crossings
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats, concatenate, lines
from stileblade.tolerance import TOLERANCE

Point = tuple[float, float]


def clip_line(region: Region, start: Point, end: Point) -> list[tuple[Point, Point]]:
    """Spans of the line on the region, in the order of running, each at least 0.02 mm long.

    Ends lie on the true outline. Edges of the region that lie on the line count; where the
    line only touches a corner there is no span.
    """
    if not region:
        return []
    a, b = np.array(start, float), np.array(end, float)
    along = (b - a) / max(float(np.hypot(*(b - a))), 1e-300)
    inside = shapely.intersection(region.polygons, shapely.linestrings([a, b]))
    spans = []
    for part in shapely.get_parts(inside):
        if shapely.get_type_id(part) == 1 and not shapely.is_empty(part):
            at = (shapely.get_coordinates(part) - a) @ along
            spans.append((float(at.min()), float(at.max())))
    spans += _edges_on(region, a, b, along)
    spans = _merged(sorted(spans))
    if not spans:
        return []
    ends = _refined(region, a, b, along, np.array(spans).ravel()).reshape(-1, 2)
    full = ends[ends[:, 1] - ends[:, 0] >= TOLERANCE.leftover]
    return [(_point(a, along, s), _point(a, along, e)) for s, e in full]


def _point(a: Floats, along: Floats, at: float) -> Point:
    x, y = a + along * at
    return float(x), float(y)


def _edges_on(region: Region, a: Floats, b: Floats, along: Floats) -> list[tuple[float, float]]:
    """Stretches of straight edges that lie on the line itself, within the line's ends."""
    normal = np.array([-along[1], along[0]])
    p, q = region.flat.points, region.flat.ends
    near = TOLERANCE.conode
    on = (np.abs((p - a) @ normal) < near) & (np.abs((q - a) @ normal) < near)
    s, e = (p[on] - a) @ along, (q[on] - a) @ along
    longest = float(np.hypot(*(b - a)))
    low, high = np.clip(np.minimum(s, e), 0, longest), np.clip(np.maximum(s, e), 0, longest)
    return [(float(x), float(y)) for x, y in zip(low, high, strict=True) if y - x > near]


def _merged(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    out: list[tuple[float, float]] = []
    for low, high in spans:
        if out and low - out[-1][1] <= TOLERANCE.conode:
            out[-1] = (out[-1][0], max(out[-1][1], high))
        else:
            out.append((low, high))
    return out


def _refined(region: Region, a: Floats, b: Floats, along: Floats, at: Floats) -> Floats:
    """Places along the line moved on to the true outline, where it crosses it close by."""
    flat = region.flat
    normal = np.array([-along[1], along[0]])
    off = (flat.points - a) @ normal
    off_end = off[flat.after]
    hit = np.flatnonzero((off <= 0) != (off_end <= 0))
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
    curves = concatenate([region.segments, lines(a[None], b[None])])
    t = flat.t0[pick] + share[nearest[close]] * (flat.t1[pick] - flat.t0[pick])
    line = np.full(len(pick), len(region.segments))
    _, s, found = crossings(curves, flat.segment[pick], t, line, at[close] / length)
    out = at.copy()
    # where the line grazes the outline, the polyline's crossing lies far from the true one
    value = np.where(
        found & (np.abs(s * length - at[close]) < TOLERANCE.grazing), s * length, at[close]
    )
    out[close] = value
    return out
