"""Hinges: how long the paper is that joins two panels."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np

from stileblade.geometry.curves.places import Axis, Point, Side
from stileblade.geometry.regions.region import Region
from stileblade.piece.folds import Fold, Made, Span
from stileblade.piece.mirrored import Mirrored, place_at_lap

LEAST_HINGE = 20.0
LEAST_SHARE = 0.2
LEAST_SPAN = 6.0


def least_hinge(height: float) -> float:
    """The hinge that a panel of this height along the crease needs."""
    return max(LEAST_HINGE, LEAST_SHARE * height)


def cut_count(span: float, fold: Fold) -> int:
    """How many cuts a perforation has on a span: as many as fit, each with its paper."""
    return max(0, math.floor((span - fold.leave) / (fold.cut + fold.leave) + 1e-9))


def perforation(span: Span, fold: Fold) -> list[tuple[Point, Point]]:
    """The cuts on a span, the pattern in its middle."""
    n = cut_count(span.length, fold)
    used = n * (fold.cut + fold.leave) - fold.leave if n else 0.0
    first = (span.length - used) / 2
    (x0, y0), (x1, y1) = span.start, span.end
    ux, uy = ((x1 - x0) / span.length, (y1 - y0) / span.length) if span.length else (0.0, 0.0)
    found = []
    for k in range(n):
        a = first + k * (fold.cut + fold.leave)
        b = a + fold.cut
        found.append(((x0 + ux * a, y0 + uy * a), (x0 + ux * b, y0 + uy * b)))
    return found


def hinge_length(spans: list[Span], fold: Fold) -> float:
    """Summed length of the spans, less what a perforation cuts of them."""
    total = sum(s.length for s in spans)
    if fold.made is Made.PERFORATE:
        total -= sum(cut_count(s.length, fold) * fold.cut for s in spans)
    return total


def chord(region: Region, axis: Axis, at: float) -> float:
    """How much of an upright ("x") or level ("y") line lies on the region."""
    return sum(chords(region, axis, at))


def chords(region: Region, axis: Axis, at: float) -> list[float]:
    """Lengths in mm of the stretches of an upright ("x") or level ("y") line on the region, in order.

    Crossings are counted on the flattened outline and refined on its curves.
    """
    flat, segments = region.flat, region.segments
    across, along = (0, 1) if axis == "x" else (1, 0)
    a, b = flat.points[:, across] - at, flat.ends[:, across] - at
    hit = np.flatnonzero((a <= 0) != (b <= 0))
    low, high = flat.t0[hit], flat.t1[hit]
    t = low + a[hit] / (a[hit] - b[hit]) * (high - low)
    curve = flat.segment[hit]
    for _ in range(4):
        off = segments.points_at(curve, t)[:, across] - at
        slope = segments.derivatives_at(curve, t)[:, across]
        t = t - np.where(np.abs(slope) > 1e-9, off / np.where(slope == 0, 1, slope), 0.0)
    where = np.sort(segments.points_at(curve, t)[:, along])
    return (where[1::2] - where[::2]).tolist()


def flat_chord(region: Region, axis: Axis, at: float) -> float:
    """As ``chord``, on the flattened outline alone: much quicker, and as good as that."""
    flat = region.flat
    across, along = (0, 1) if axis == "x" else (1, 0)
    a, b = flat.points[:, across] - at, flat.ends[:, across] - at
    hit = np.flatnonzero((a <= 0) != (b <= 0))
    p, q = flat.points[hit, along], flat.ends[hit, along]
    where = np.sort(p + a[hit] / (a[hit] - b[hit]) * (q - p))
    return float((where[1::2] - where[::2]).sum())


def hinge_at_lap(mirrored: Mirrored, lap: float) -> float:
    """The hinge that the mirrored figure would have with another lap."""
    return chord(mirrored.figure, mirrored.axis, mirrored.place_at(lap))


@lru_cache(maxsize=64)
def lap_for(mirrored: Mirrored, hinge: float) -> float | None:
    """The smallest lap above the present, in tenths, that gives the hinge; None if none does."""
    laps = np.arange(round(mirrored.lap * 10) + 1, int(mirrored.depth * 10), 1) / 10

    def roughly(lap: float) -> float:
        return flat_chord(mirrored.figure, mirrored.axis, mirrored.place_at(lap))

    coarse = laps[:: max(1, len(laps) // 120)]
    hit = next((i for i, lap in enumerate(coarse) if roughly(lap) >= hinge - 0.1), None)
    if hit is None:
        return None
    low = coarse[hit - 1] if hit else mirrored.lap
    for lap in laps[laps > low]:
        # the polyline tells which to look at closely
        if roughly(lap) >= hinge - 0.02 and hinge_at_lap(mirrored, float(lap)) >= hinge:
            return round(float(lap), 1)
    return None


def safe_lap(figure: Region, towards: Side, least: float) -> float:
    """The smallest lap from ``least`` on, in halves of a mm, with which a figure and its mirror image have
    a hinge that is long enough, of spans that are; where none has, of any spans; else ``least``."""
    box = figure.bounds
    wanted = least_hinge(towards.length_in(box))
    enough: float | None = None
    for lap in np.arange(least, towards.depth_of(box), 0.5).tolist():
        spans = chords(figure, towards.axis, place_at_lap(box, towards, lap))
        if sum(spans) >= wanted:
            if min(spans) >= LEAST_SPAN:
                return float(lap)
            enough = lap if enough is None else enough
    return least if enough is None else float(enough)
