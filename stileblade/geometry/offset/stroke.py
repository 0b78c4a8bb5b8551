"""Outlines of strokes: what a pen of a given width paints along a contour.

A way is run forwards and back as one ring, whose offset the stroke is: so its sides are
the parallels of the way's own curves, its round caps and joins arcs, its flat caps lines.
Joins and caps are SVG's (SVG 2, chapter 13.5): a mitre beyond its limit becomes a bevel.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.curves.arrays import both, neighbours, nth_of, offsets_of, true_at
from stileblade.geometry.curves.flatten import Flat, flatten
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import Corner, OffsetCurves
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments, concatenate, lines
from stileblade.geometry.offset.hairs import without_hairs
from stileblade.geometry.offset.kernel import CORNERS, Join, KernelCap, KernelStyle, buffered
from stileblade.geometry.offset.polygon import SIDES
from stileblade.geometry.offset.source import Pairs, Source, without_closed_segments
from stileblade.geometry.offset.tracing import traced
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.along import dashed
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.tolerance import TOLERANCE

MOST_SEGMENTS = 4_000
"""Strokes are worked on together up to about this many segments."""


class Cap(StrEnum):
    BUTT = "butt"
    ROUND = "round"
    SQUARE = "square"


_KERNEL_CAPS: Final[dict[Cap, KernelCap]] = {
    Cap.BUTT: "flat",
    Cap.ROUND: "round",
    Cap.SQUARE: "flat",  # put on by hand
}


@dataclass(frozen=True)
class Pen:
    """width in mm; dashes (painted, left, painted, ...) in mm, ``phase`` into them at the start."""

    width: float
    join: Join = Join.MITRE
    cap: Cap = Cap.BUTT
    mitre_limit: float = 4.0
    dashes: tuple[float, ...] = ()
    phase: float = 0.0

    def __post_init__(self) -> None:
        if self.width <= 0:
            raise GeometryError(f"width={self.width}: a stroke is wider than 0.")


@dataclass(frozen=True, eq=False)
class Stroked:
    """What a pen runs along: contours whose end is their start, open ways, and dots, which are
    ways without length: painted as such with round and square caps, with butt caps not."""

    pen: Pen
    closed: Sequence[Segments] = ()
    open: Sequence[Segments] = ()
    dots: Sequence[tuple[float, float]] = ()

    def ways(self) -> list[tuple[Segments, bool]]:
        """Ways, dashes cut out, and whether each closes."""
        found = [(w, True) for w in self.closed] + [(w, False) for w in self.open]
        if not self.pen.dashes or sum(self.pen.dashes) <= 0:
            return found
        long = [way.take(true_at(~_still(way))) for way, _ in found]
        pattern = self.pen.dashes, self.pen.phase
        return [(part, False) for way in long if len(way) for part in dashed(way, *pattern)]


def stroke(way: Segments, pen: Pen, *, closed: bool) -> Region:
    """What ``pen`` paints along one contour; where ``closed``, its end is its start."""
    return stroke_all([Stroked(pen, [way] if closed else [], [] if closed else [way])])[0]


def stroke_all(strokes: Sequence[Stroked]) -> list[Region]:
    """What each pen paints along all its ways: many at once at a fraction of the cost."""
    found: list[Region] = []
    batch: list[tuple[Pen, list[tuple[Segments, bool]]]] = []
    size = 0
    for one in strokes:
        ways = one.ways()
        size += sum(len(w) for w, _ in ways)
        batch.append((one.pen, ways))
        if size > MOST_SEGMENTS:
            found += _together(batch)
            batch, size = [], 0
    found += _together(batch)
    for i, one in enumerate(strokes):
        if one.dots and one.pen.cap is not Cap.BUTT:
            parts = [found[i], *(_dot(x, y, one.pen) for x, y in one.dots)]
            found[i] = fill([c.segments for part in parts for c in part.contours])
    return found


def _dot(x: float, y: float, pen: Pen) -> Region:
    drawing, r = Drawing(), pen.width / 2
    if pen.cap is Cap.ROUND:
        drawing.ellipse(x, y, r, r)
    else:
        drawing.move(x - r, y - r)
        for px, py in ((x + r, y - r), (x + r, y + r), (x - r, y + r)):
            drawing.line(px, py)
        drawing.close()
    return fill(drawing.contours)


def _still(way: Segments) -> Bools:
    return (way.kind == Kind.LINE) & both(way.start == way.end)


@dataclass(frozen=True, eq=False)
class _Ways:
    """All ways of many strokes, side by side: their segments, the way (n,) of each, whether each way
    (w,) closes, and the stroke (w,) that it is of."""

    single: Segments
    way: Ints
    closing: Bools
    job: Ints


@dataclass(frozen=True, eq=False)
class _Doubled:
    """Ways run forwards and back as rings, flattened: the way of each segment and of each vertex, and
    of each way its first vertex and how many edges it has."""

    curves: OffsetCurves
    flat: Flat
    way_of_segment: Ints
    way_of_vertex: Ints
    first: Ints
    half: Ints


def _together(strokes: Sequence[tuple[Pen, list[tuple[Segments, bool]]]]) -> list[Region]:
    pens = [pen for pen, _ in strokes]
    ways = _gathered(strokes)
    if ways is None:
        return [Region.empty()] * len(strokes)
    doubled = _doubled(ways, np.array([pen.width / 2 for pen in pens]))
    job = ways.job[doubled.way_of_segment]
    corners, joins = _corners(doubled, ways, pens)
    within = np.arange(len(doubled.flat.points)) - doubled.first[doubled.way_of_vertex]
    half = doubled.half[doubled.way_of_vertex]
    twin = doubled.first[doubled.way_of_vertex] + 2 * half - 1 - within
    pairs = Pairs(ways.job[doubled.way_of_vertex], twin, within >= half)
    styles = [KernelStyle(pen.join, pen.mitre_limit, _KERNEL_CAPS[pen.cap]) for pen in pens]
    radius = np.array([pen.width / 2 for pen in pens])
    shapes = _shapes(doubled, ways, len(pens))
    owner = np.where(joins, job, -1)
    grown = buffered(shapes, radius, styles, doubled.curves, corners, owner)
    return traced(grown, Source(doubled.flat, doubled.curves, corners, pairs))


def _gathered(strokes: Sequence[tuple[Pen, list[tuple[Segments, bool]]]]) -> _Ways | None:
    """The ways of all strokes without what has no length, square caps put on; None without any."""
    ways = [(way, ring, job) for job, (_, own) in enumerate(strokes) for way, ring in own]
    single, way_of = concatenate([w for w, _, _ in ways]), _numbers([len(w) for w, _, _ in ways])
    moving = true_at(~_still(single))
    present, way_of = np.unique(way_of[moving], return_inverse=True)
    if not len(present):
        return None
    closing, job = np.array([ring for _, ring, _ in ways]), np.array([j for _, _, j in ways])
    closing, job = closing[present], job[present]
    single, way_of = without_hairs(single.take(moving), way_of, closing)
    by = np.array([pen.width / 2 if pen.cap is Cap.SQUARE else 0.0 for pen, _ in strokes])[job]
    single, way_of = _extended(single, way_of, np.where(closing, 0.0, by))
    return _Ways(single, way_of, closing, job)


def _doubled(ways: _Ways, radius: Floats) -> _Doubled:
    """Each way forwards, and back as another ring, or on from the end where the way is open."""
    single, closing = ways.single, ways.closing
    length = np.bincount(ways.way)
    both = _numbers(2 * length)
    within = nth_of(2 * length)
    back = within >= length[both]
    begin = (np.cumsum(length) - length)[both]
    twice = single.take(begin + np.where(back, 2 * length[both] - 1 - within, within))
    twice.span[back] = twice.span[back, ::-1]
    twice.start[back], twice.end[back] = twice.end[back], twice.start[back]
    way_of_ring = np.repeat(np.arange(len(closing)), np.where(closing, 2, 1))
    sizes = np.where(closing, length, 2 * length)[way_of_ring]
    whole = without_closed_segments(
        Region(twice, offsets_of(sizes), np.arange(len(sizes), dtype=np.int64))
    )
    flatness = TOLERANCE.flatten_strokes
    flat = flatten(whole.segments, whole.rings, whole.segments.pieces_within(flatness))
    ring_of_segment = _numbers(np.diff(whole.rings))
    way_of_segment = way_of_ring[ring_of_segment]
    way_of_vertex = way_of_segment[flat.segment]
    half = np.bincount(way_of_vertex) // 2
    _, before = neighbours(ring_of_segment)
    curves = OffsetCurves(whole.segments, radius[ways.job[way_of_segment]], before, flatness)
    first = 2 * (np.cumsum(half) - half)
    return _Doubled(curves, flat, way_of_segment, way_of_vertex, first, half)


def _corners(doubled: _Doubled, ways: _Ways, pens: list[Pen]) -> tuple[Ints, Bools]:
    """How each segment's start corner is gone round, and which are joins: the others are caps."""
    job = ways.job[doubled.way_of_segment]
    corners = np.array([CORNERS[pen.join] for pen in pens])[job]
    limit = np.array([pen.mitre_limit for pen in pens])[job]
    beyond = doubled.curves.mitre_ratio > limit
    corners[(corners == Corner.MITRED) & beyond] = Corner.BEVELLED
    open_ = true_at(~ways.closing)
    start, stop = (np.searchsorted(doubled.way_of_segment, open_, side) for side in SIDES)
    ends = np.concatenate([start, (start + stop) // 2])
    rounded = np.array([pen.cap is Cap.ROUND for pen in pens])[job[ends]]
    corners[ends] = np.where(rounded, Corner.ROUNDED, Corner.BEVELLED)
    joins = np.ones(len(corners), bool)
    joins[ends] = False
    return corners, joins


def _shapes(doubled: _Doubled, ways: _Ways, count: int) -> np.ndarray:
    """The kernel's lines of each of so many strokes: each way once, from its start to its end."""
    half = doubled.half
    way = _numbers(half + 1)
    place = np.arange(len(way)) - np.repeat(np.cumsum(half + 1) - half - 1, half + 1)
    place[ways.closing[way] & (place == half[way])] = 0
    lines = shapely.linestrings(doubled.flat.points[doubled.first[way] + place], indices=way)
    shapes = np.full(count, shapely.MultiLineString(), object)
    present, numbered = np.unique(ways.job, return_inverse=True)
    shapes[present] = shapely.multilinestrings(lines, indices=numbered)
    return shapes


def _numbers(counts: Sequence[int] | Ints) -> Ints:
    """0, 1, 2, ..., each as often as ``counts`` (k,) says."""
    return np.repeat(np.arange(len(counts)), counts)


def _extended(segments: Segments, way: Ints, by: Floats) -> tuple[Segments, Ints]:
    """Segments of ways (n,) with straight pieces of length ``by`` (k,) put on at the ends of those
    ways where it is more than 0, and the ways of all."""
    rows = true_at(by > 0)
    if not len(rows):
        return segments, way
    first, last = (np.searchsorted(way, rows, side) for side in SIDES)
    start, end, long = segments.start[first], segments.end[last - 1], by[rows, None]
    away = segments.take(first).end_directions()[0], segments.take(last - 1).end_directions()[1]
    put_on = [lines(start - long * away[0], start), lines(end, end + long * away[1])]
    order = np.argsort(np.concatenate([np.arange(len(way)), first - 0.4, last - 0.6]))
    numbers = np.concatenate([way, rows, rows])[order]
    return concatenate([segments, *put_on]).take(order), numbers
