"""Outlines of strokes: what a pen of a given width paints along a contour.

A way is run forwards and back as one ring, whose offset the stroke is: so its sides are
the parallels of the way's own curves, its round caps and joins arcs, its flat caps lines.
Joins and caps are SVG's (SVG 2, chapter 13.5): a mitre beyond its limit becomes a bevel.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.drawing import Drawing
from stileblade.geometry.fill import fill
from stileblade.geometry.flatten import neighbours
from stileblade.geometry.offset import CORNERS, Join, buffered, mitred, without_closed_segments
from stileblade.geometry.offset_tracing import BEVELLED, ROUNDED, traced
from stileblade.geometry.parallel import OffsetCurves
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats, Kind, Segments, concatenate, lines

MOST_DASHES = 5000


class Cap(StrEnum):
    BUTT = "butt"
    ROUND = "round"
    SQUARE = "square"


@dataclass(frozen=True)
class Pen:
    """width in mm; dashes (painted, left, painted, ...) in mm, ``phase`` into them at the start."""

    width: float
    join: Join = Join.MITRE
    cap: Cap = Cap.BUTT
    mitre_limit: float = 4.0
    dashes: tuple[float, ...] = ()
    phase: float = 0.0


def stroke(way: Segments, pen: Pen, *, closed: bool) -> Region:
    """What ``pen`` paints along one contour; where ``closed``, its end is its start.

    A way without length is a dot with round and square caps and nothing with butt caps.
    """
    if pen.width <= 0:
        raise GeometryError(f"width={pen.width}: a stroke is wider than 0.")
    way = _with_length(way)
    if not len(way):
        return Region.empty()
    if not pen.dashes:
        return _one(way, pen, closed)
    parts = [_one(part, pen, False) for part in dashed(way, pen.dashes, pen.phase)]
    contours = [c.segments for part in parts for c in part.contours]
    return fill(contours) if contours else Region.empty()


def dot(x: float, y: float, pen: Pen) -> Region:
    """What a way without length paints at a place."""
    drawing, r = Drawing(), pen.width / 2
    if pen.cap is Cap.ROUND:
        drawing.ellipse(x, y, r, r)
    elif pen.cap is Cap.SQUARE:
        drawing.move(x - r, y - r)
        for px, py in ((x + r, y - r), (x + r, y + r), (x - r, y + r)):
            drawing.line(px, py)
        drawing.close()
    return fill(drawing.contours)


def _with_length(way: Segments) -> Segments:
    still = (way.start == way.end).all(axis=1) & (way.kind == Kind.LINE)
    return way.take(~still) if still.any() else way


def _one(way: Segments, pen: Pen, closed: bool) -> Region:
    if not closed and pen.cap is Cap.SQUARE:
        way = _extended(way, pen.width / 2)
    n = len(way)
    rings = np.array([0, n, 2 * n] if closed else [0, 2 * n])
    there_and_back = concatenate([way, way.reversed()])
    both = without_closed_segments(
        Region(there_and_back, rings, np.arange(len(rings) - 1, dtype=np.int64))
    )
    flat = both.flat
    m = len(flat.points) // 2
    _, before = neighbours(np.repeat(np.arange(len(both.rings) - 1), np.diff(both.rings)))
    curves = OffsetCurves(both.segments, pen.width / 2, before)
    corners = np.full(curves.n, CORNERS[pen.join])
    if pen.join is Join.MITRE:
        corners[curves.mitre_ratio > pen.mitre_limit] = BEVELLED
    points = flat.points[:m] if closed else flat.points[: m + 1]
    if not closed:
        half = len(both.segments) // 2
        corners[[0, half]] = ROUNDED if pen.cap is Cap.ROUND else BEVELLED
    line = (
        shapely.linearrings(points)
        if closed and m > 2
        else shapely.linestrings(np.concatenate([points, points[:1]]) if closed else points)
    )
    grown = buffered(line, curves, pen.join, "round" if pen.cap is Cap.ROUND else "flat")
    twins = np.arange(2 * m)[::-1]
    return traced(mitred(grown, curves, corners), flat, curves, corners, twins)


def _extended(way: Segments, by: float) -> Segments:
    """The way with a straight piece of length ``by`` put on at each end."""
    first, last = way.end_directions()
    start, end = way.start[:1], way.end[-1:]
    return concatenate(
        [lines(start - by * first[:1], start), way, lines(end, end + by * last[-1:])]
    )


def dashed(way: Segments, dashes: Sequence[float], phase: float = 0.0) -> list[Segments]:
    """The painted stretches of a way, by the length along it (SVG 2, chapter 13.5.6).

    An odd number of lengths is taken twice over; all of them 0 is no dashing.
    """
    pattern = np.asarray(dashes, float)
    if (pattern < 0).any():
        raise GeometryError(f"dashes={tuple(dashes)}: lengths of dashes are not negative.")
    pattern = np.tile(pattern, 2) if len(pattern) % 2 else pattern
    period = float(pattern.sum())
    if period <= 0:
        return [way]
    table, segment, t = _length_table(way)
    total = float(table[-1])
    if total / period * len(pattern) > MOST_DASHES:
        raise GeometryError(f"A stroke has more than {MOST_DASHES} dashes.")
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
    segment = np.repeat(np.arange(len(way)), counts)
    step = np.concatenate([np.linspace(0, 1, c) for c in counts])
    t = way.span[segment, 0] + (way.span[segment, 1] - way.span[segment, 0]) * step
    p = way.points_at(segment, t)
    steps = np.hypot(*np.diff(p, axis=0).T)
    return np.r_[0.0, np.cumsum(steps)], segment, t


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
