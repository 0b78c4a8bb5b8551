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
from stileblade.geometry.along import dashed
from stileblade.geometry.drawing import Drawing
from stileblade.geometry.fill import fill
from stileblade.geometry.flatten import flatten, neighbours
from stileblade.geometry.offset import (
    CORNERS,
    Join,
    KernelCap,
    Style,
    buffered,
    without_closed_segments,
)
from stileblade.geometry.offset_kernel import SIDES
from stileblade.geometry.offset_tracing import Ways, traced
from stileblade.geometry.parallel import BEVELLED, MITRED, ROUNDED, OffsetCurves
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Kind, Segments, concatenate, lines
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
        """Ways with length, and whether each closes: dashes cut out, square caps put on."""
        found = [(_with_length(w), True) for w in self.closed]
        found += [(_with_length(w), False) for w in self.open]
        if self.pen.dashes and sum(self.pen.dashes) > 0:
            found = [
                (part, False)
                for way, _ in found
                if len(way)
                for part in dashed(way, self.pen.dashes, self.pen.phase)
            ]
        if self.pen.cap is Cap.SQUARE:
            found = [(w if ring else _extended(w, self.pen.width / 2), ring) for w, ring in found]
        return [(w, ring) for w, ring in found if len(w)]


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


def _with_length(way: Segments) -> Segments:
    still = (way.start == way.end).all(axis=1) & (way.kind == Kind.LINE)
    return way.take(~still) if still.any() else way


def _together(strokes: list[tuple[Pen, list[tuple[Segments, bool]]]]) -> list[Region]:
    ways = [(way, ring, job) for job, (_, own) in enumerate(strokes) for way, ring in own]
    if not ways:
        return [Region.empty()] * len(strokes)
    both = [part for way, _, _ in ways for part in (way, way.reversed())]
    sizes = [n for way, ring, _ in ways for n in ([len(way)] * 2 if ring else [2 * len(way)])]
    rings = np.r_[0, np.cumsum(sizes)]
    whole = without_closed_segments(
        Region(concatenate(both), rings, np.arange(len(sizes), dtype=np.int64))
    )
    flatness = TOLERANCE.flatten_strokes
    flat = flatten(whole.segments, whole.rings, whole.segments.pieces_within(flatness))
    # of each way: the first of its segments and of its vertices, and half of how many those are
    way_of_ring = np.repeat(np.arange(len(ways)), [2 if ring else 1 for _, ring, _ in ways])
    way_of_segment = way_of_ring[np.repeat(np.arange(len(sizes)), np.diff(whole.rings))]
    way_of_vertex = way_of_segment[flat.segment]
    number = np.arange(len(ways))
    half = np.bincount(way_of_vertex, minlength=len(ways)) // 2
    first = np.searchsorted(way_of_vertex, number)
    within = np.arange(len(flat.points)) - first[way_of_vertex]
    job = np.array([j for _, _, j in ways])
    twin = first[way_of_vertex] + 2 * half[way_of_vertex] - 1 - within
    edges = Ways(job[way_of_vertex], twin, within >= half[way_of_vertex])

    pens = [pen for pen, _ in strokes]
    job_of_segment = job[way_of_segment]
    _, before = neighbours(np.repeat(np.arange(len(sizes)), np.diff(whole.rings)))
    radius = np.array([pen.width / 2 for pen in pens])
    curves = OffsetCurves(whole.segments, radius[job_of_segment], before, flatness)
    corners = np.array([CORNERS[pen.join] for pen in pens])[job_of_segment]
    limit = np.array([pen.mitre_limit for pen in pens])[job_of_segment]
    corners[(corners == MITRED) & (curves.mitre_ratio > limit)] = BEVELLED
    closing = np.array([ring for _, ring, _ in ways])
    open_ = np.flatnonzero(~closing)
    start, stop = (np.searchsorted(way_of_segment, open_, side) for side in SIDES)
    ends = np.concatenate([start, (start + stop) // 2])
    rounded = np.array([pen.cap is Cap.ROUND for pen in pens])[job_of_segment[ends]]
    corners[ends] = np.where(rounded, ROUNDED, BEVELLED)
    owner = job_of_segment.copy()
    owner[ends] = -1

    # each way once, from its start to its end
    way = np.repeat(number, half + 1)
    place = np.arange(len(way)) - np.repeat(np.cumsum(half + 1) - half - 1, half + 1)
    place[closing[way] & (place == half[way])] = 0
    lines = shapely.linestrings(flat.points[first[way] + place], indices=way)
    shapes = np.full(len(pens), shapely.MultiLineString(), object)
    present, numbered = np.unique(job, return_inverse=True)
    shapes[present] = shapely.multilinestrings(lines, indices=numbered)
    styles = [Style(pen.join, pen.mitre_limit, _KERNEL_CAPS[pen.cap]) for pen in pens]
    grown = buffered(shapes, radius, styles, curves, corners, owner)
    return traced(grown, flat, curves, corners, edges)


def _extended(way: Segments, by: float) -> Segments:
    """The way with a straight piece of length ``by`` put on at each end."""
    first, last = way.end_directions()
    start, end = way.start[:1], way.end[-1:]
    return concatenate(
        [lines(start - by * first[:1], start), way, lines(end, end + by * last[-1:])]
    )
