"""Ways by the length along them: dashes, stitches, and what of a way lies on a region."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.curves.arrays import run_ends, true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import Floats, Segments, arc, concatenate
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.regions.region import Region
from stileblade.words import say

MOST_DASHES = 5000
_BREAK = 1e-6
"""mm: stretches of a way that are no farther from each other are one."""
_SCRAP = 0.02
"""mm: shorter ones are left out."""


def dashed(way: Segments, dashes: Sequence[float], phase: float = 0.0) -> list[Segments]:
    """The painted stretches of a way, by the length along it (SVG 2, chapter 13.5.6).

    An odd number of lengths is taken twice over; all of them 0 is no dashing.
    """
    pattern = np.asarray(dashes, float)
    if (pattern < 0).any():
        raise GeometryError(
            say("dashes={dashes}: lengths of dashes are not negative.", dashes=tuple(dashes))
        )
    pattern = np.tile(pattern, 2) if len(pattern) % 2 else pattern
    period = float(pattern.sum())
    if period <= 0:
        return [way]
    table, segment, t = _length_table(way)
    total = float(table[-1])
    if total / period * len(pattern) > MOST_DASHES:
        raise GeometryError(
            say("A stroke has more than {most_dashes} dashes.", most_dashes=MOST_DASHES)
        )
    found = []
    at, i = -(phase % period), 0
    while at < total:
        low, high = max(at, 0.0), min(at + pattern[i % len(pattern)], total)
        if i % 2 == 0 and high - low > 1e-9:
            found.append(_stretch(way, table, segment, t, low, high))
        at += float(pattern[i % len(pattern)])
        i += 1
    return found


def _length_table(way: Segments) -> tuple[Floats, np.ndarray, Floats]:
    """Lengths (k,) along the way at parameters t (k,) of segments (k,)."""
    pieces = np.maximum(way.pieces_per_parent, np.where(way.kind == Kind.LINE, 1, 16))
    counts = pieces + 1
    segment = np.arange(len(way)).repeat(counts)
    first = counts.cumsum() - counts
    step = (np.arange(len(segment)) - first[segment]) / pieces[segment]
    start, end = way.span.T
    t = start[segment] + (end - start)[segment] * step
    p = way.points_at(segment, t)
    table = np.zeros(len(segment))
    norms(p[1:] - p[:-1]).cumsum(out=table[1:])
    return table, segment, t


def _stretch(
    way: Segments, table: Floats, segment: np.ndarray, t: Floats, low: float, high: float
) -> Segments:
    (i, a), (j, b) = (_place(table, segment, t, s) for s in (low, high))
    part = way.take(slice(i, j + 1))
    span, start, end = part.span.copy(), part.start.copy(), part.end.copy()
    span[0, 0], span[-1, 1] = a, b
    start[0] = way.points_at(np.array([i]), np.array([a]))[0]
    end[-1] = way.points_at(np.array([j]), np.array([b]))[0]
    return Segments(part.kind, part.coef, span, start, end)


def _place(table: Floats, segment: np.ndarray, t: Floats, s: float) -> tuple[int, float]:
    """Segment and parameter at length ``s`` along the way."""
    k = int(np.clip(np.searchsorted(table, s, "right"), 1, len(table) - 1))
    if segment[k] != segment[k - 1]:
        return int(segment[k]), float(t[k])
    width = table[k] - table[k - 1]
    share = (s - table[k - 1]) / width if width > 0 else 0.0
    return int(segment[k]), float(t[k - 1] + share * (t[k] - t[k - 1]))


def points_along(way: Segments) -> Floats:
    """Places (k, 2) along a way, close enough for lines between them."""
    _, segment, t = _length_table(way)
    return way.points_at(segment, t)


def points_along_each(ways: Sequence[Segments]) -> list[Floats]:
    """``points_along`` of each of many ways, found together."""
    if not ways:
        return []
    joined = concatenate(ways)
    _, segment, t = _length_table(joined)
    begins = np.cumsum([len(way) for way in ways])[:-1]
    return np.split(joined.points_at(segment, t), np.searchsorted(segment, begins))


def length_of(way: Segments) -> float:
    """Length in mm, by chords of its curves."""
    return float(_length_table(way)[0][-1]) if len(way) else 0.0


_CORNER = np.cos(np.radians(20.0))
"""A way turns by more at a corner."""


def sides_of(way: Segments, *, closed: bool) -> list[tuple[Segments, bool]]:
    """A way parted at its corners, each side with whether it is a closed one without any."""
    n = len(way)
    if not n:
        return []
    first, last = way.end_directions()
    turns = (last * np.roll(first, -1, axis=0)).sum(axis=1) < _CORNER
    if not closed:
        turns[-1] = True
    corners = true_at(turns)
    if not len(corners):
        return [(way, True)]
    begins = (np.roll(corners, 1) + 1) % n
    found = []
    for begin, end in zip(begins.tolist(), corners.tolist(), strict=True):
        count = (end - begin) % n + 1
        found.append((way.take((begin + np.arange(count)) % n), False))
    return found


def holes_along(
    way: Segments, spacing: float, diameter: float, *, closed: bool
) -> list[tuple[Segments, bool]]:
    """Holes along a way, a whole number of spacings on each side, one in each corner: circles, or
    strokes of 0.3 mm along the way where the diameter is 0."""
    found: list[tuple[Segments, bool]] = []
    known: list[Floats] = []
    for side, whole in sides_of(way, closed=closed):
        table, segment, t = _length_table(side)
        total = float(table[-1])
        count = max(1, round(total / spacing))
        if count > MOST_DASHES:
            raise GeometryError(
                say("A line has more than {most_dashes} holes.", most_dashes=MOST_DASHES)
            )
        for place in np.linspace(0, total, count + 1)[: -1 if whole else None]:
            i, at = _place(table, segment, t, float(place))
            spot = side.points_at(np.array([i]), np.array([at]))[0]
            if any(np.hypot(*(spot - other)) < 1e-6 for other in (known[:1] + known[-1:])):
                continue
            known.append(spot)
            if diameter:
                r = diameter / 2
                found.append((arc(spot.tolist(), (r, 0.0), (0.0, r), 0.0, 2 * np.pi), True))
            else:
                low, high = (max(0.0, min(total, float(place) + d)) for d in (-0.15, 0.15))
                found.append((_stretch(side, table, segment, t, low, high), False))
    return found


def stitches(way: Segments, stitch: float, gap: float, *, closed: bool) -> list[Segments]:
    """Along each side of a way a whole number of stitches, stitch and gap stretched alike so that they
    come out; a side begins and ends with one, so that there is a hole in each corner."""
    return [
        part
        for side, whole in sides_of(way, closed=closed)
        for part in _evenly(side, stitch, gap, closed=whole)
    ]


def _evenly(way: Segments, stitch: float, gap: float, *, closed: bool) -> list[Segments]:
    total = length_of(way)
    if total <= 0:
        return []
    if closed:
        count = max(1, round(total / (stitch + gap)))
        share = total / (count * (stitch + gap))
    else:
        count = max(1, round((total + gap) / (stitch + gap)))
        share = total / (count * stitch + (count - 1) * gap)
    found = dashed(way, (stitch * share, gap * share))
    # rounding may leave a hair at the end
    return [part for part in found if length_of(part) > 1e-3]


def within(region: Region, way: Segments, *, closed: bool) -> list[tuple[Segments, bool]]:
    """What of a way lies on a region, each stretch with whether it is still a closed contour. Ends
    lie within 0.004 mm of the outline."""
    if not len(way) or not region:
        return []
    table, segment, t = _length_table(way)
    points = way.points_at(segment, t)
    line = shapely.linestrings(points)
    shape = region.polygons
    shapely.prepare(shape)
    if shapely.covers(shape, line):
        return [(way, closed)]
    if not shapely.intersects(shape, line):
        return []
    low, high = _inside(shape, points, table)
    new = np.ones(len(low), bool)
    new[1:] = low[1:] > high[:-1] + _BREAK
    starts = true_at(new)
    spans = zip(low[starts], high[run_ends(starts, len(low)) - 1], strict=True)
    found = [
        (_stretch(way, table, segment, t, float(a), float(b)), False)
        for a, b in spans
        if b - a > _SCRAP
    ]
    return _joined(found) if closed else found


def _inside(shape: shapely.Geometry, points: Floats, table: Floats) -> tuple[Floats, Floats]:
    """From where to where (k,) along a polyline (n, 2), by the lengths (n,) along it, its edges lie in a prepared
    shape, in order: edge by edge, since a way may touch itself or cross itself by a hair."""
    edges = shapely.linestrings(np.stack([points[:-1], points[1:]], axis=1))
    long = np.diff(table) > 0
    whole = long & shapely.covers(shape, edges)
    cut = true_at(long & ~whole & shapely.intersects(shape, edges))
    parts, of = shapely.get_parts(shapely.intersection(edges[cut], shape), return_index=True)
    stretches = shapely.get_type_id(parts) == 1  # what only touches comes as a point
    parts, edge = parts[stretches], cut[of[stretches]]
    ends = [
        table[edge] + norms(shapely.get_coordinates(shapely.get_point(parts, end)) - points[edge])
        for end in (0, -1)
    ]
    low = np.concatenate([table[:-1][whole], np.minimum(*ends)])
    high = np.concatenate([table[1:][whole], np.maximum(*ends)])
    order = np.argsort(low, kind="stable")
    return low[order], high[order]


def _joined(parts: list[tuple[Segments, bool]]) -> list[tuple[Segments, bool]]:
    """The first and the last stretch as one where a closed way was only cut where it begins."""
    if len(parts) > 1:
        first, last = parts[0][0], parts[-1][0]
        if float(np.hypot(*(last.end[-1] - first.start[0]))) < 1e-6:
            return [(concatenate([last, first]), False), *parts[1:-1]]
    return parts
