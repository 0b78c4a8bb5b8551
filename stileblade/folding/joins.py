"""The hinge over the lap, and the best join of a figure to its own image.

Measured on the flattened outline, chords along the fold refined on the curves.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from stileblade.folding.hinge import LEAST_SPAN, chord
from stileblade.geometry.curves.places import Side
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import rotation
from stileblade.geometry.regions.region import Region
from stileblade.piece.mirrored import Mirrored, place_at_lap

MOST_TURN = 10.0
ALIKE = 0.5
"""mm: hinges that differ by less are alike."""
_CURVE_POINTS = 80


@dataclass(frozen=True)
class LapPoint:
    """A lap with the hinge it gives and the area that each half loses by it, in mm and mm^2."""

    lap: float
    hinge: float
    loss: float


@dataclass(frozen=True)
class Join:
    """A way to join the halves: the figure turned, the lap; ``hinge`` counts spans of 6 mm and
    more, of which there are ``spans``; ``loss`` is of each half."""

    turn_deg: float
    lap: float
    hinge: float
    spans: int
    loss: float


def lap_curve(mirrored: Mirrored) -> tuple[LapPoint, ...]:
    """The hinge over laps from 0 to two fifths of the figure's depth, at least 20 mm, or so many
    times that until the present lap is on it; at most twice the depth. Hinges are those of the
    flattened figure."""
    depth = mirrored.depth
    base = max(20.0, 0.4 * depth)
    most = base * max(1, math.ceil(mirrored.lap / base - 1e-9))
    return _curve(mirrored.figure, mirrored.towards, min(most, 2 * depth - 0.1))


@lru_cache(maxsize=32)
def _curve(figure: Region, towards: Side, most: float) -> tuple[LapPoint, ...]:
    laps = np.linspace(0.0, most, _CURVE_POINTS)
    points, after, across, along = _facing(figure, towards)
    hinges = [float(spans_at(across, along, after, lap / 2).sum()) for lap in laps]
    # a round figure touches in a point; its polyline may in an edge
    hinges[0] = chord(figure, towards.axis, place_at_lap(figure.bounds, towards, 0.0))
    loss = _area_within(points, after, across, along, laps / 2)
    return tuple(
        LapPoint(float(a), h, float(c)) for a, h, c in zip(laps, hinges, loss, strict=True)
    )


def _facing(region: Region, towards: Side) -> tuple[Floats, np.ndarray, Floats, Floats]:
    """Corners of the flattened outline, the number of the next, how deep each lies inside the
    extreme that the mirror is at, and its place along the fold."""
    flat = region.flat
    x, y = flat.points[:, 0], flat.points[:, 1]
    across, along = (x, y) if towards.upright else (y, x)
    across = across - across.min() if towards.low else across.max() - across
    return flat.points, flat.after, across, along


def _area_within(
    points: Floats, after: np.ndarray, across: Floats, along: Floats, depths: Floats
) -> Floats:
    """Area of what lies less deep than each of the depths: each edge's share, clipped."""
    a, b = across, across[after]
    found = np.zeros(len(depths))
    for i, depth in enumerate(depths):
        # the area under an edge, along over across, of the part with across below the depth
        low, high = np.minimum(a, depth), np.minimum(b, depth)
        span = b - a
        safe = np.where(np.abs(span) < 1e-12, 1.0, span)
        s, e = (low - a) / safe, (high - a) / safe
        rise = along[after] - along
        mean = along + rise * (s + e) / 2
        found[i] = abs(float((mean * (high - low)).sum()))
    return found


def spans_at(across: Floats, along: Floats, after: np.ndarray, depth: float) -> Floats:
    """Lengths (n,) of the chords at a depth, straight edges taken as they are."""
    a, b = across - depth, across[after] - depth
    hit = np.flatnonzero((a <= 0) != (b <= 0))
    share = a[hit] / (a[hit] - b[hit])
    places = np.sort(along[hit] + share * (along[after[hit]] - along[hit]))
    return places[1::2] - places[::2]


def best_joins(
    mirrored: Mirrored, most_loss: float, *, most: int = 6, turns: Sequence[float] | None = None
) -> list[Join]:
    """Turns within 10 degrees and laps up to a loss of ``most_loss`` mm^2 of each half, the longest
    hinge first, spans under 6 mm not counted; where two are alike to half a mm, the smaller loss.
    Of turns within 2 degrees of each other only the best."""
    found: list[Join] = []
    angles = turns if turns is not None else np.arange(-MOST_TURN, MOST_TURN + 0.01, 0.5).tolist()
    for angle in angles:
        join = _best_at(mirrored, float(angle), most_loss)
        if join is not None:
            found.append(join)
    found.sort(key=lambda j: (-round(j.hinge / ALIKE), j.loss, abs(j.turn_deg)))
    apart: list[Join] = []
    for join in found:
        if all(abs(join.turn_deg - other.turn_deg) >= 2.0 for other in apart):
            apart.append(join)
        if len(apart) == most:
            break
    return apart


def _best_at(mirrored: Mirrored, angle: float, most_loss: float) -> Join | None:
    figure = mirrored.figure
    if angle:
        figure = figure.transformed(rotation(angle, about=figure.bounds.centre))
    points, after, across, along = _facing(figure, mirrored.towards)
    reach = float(across.max())
    deepest = _deepest(points, after, across, along, most_loss, reach)
    laps = np.arange(1, int(deepest * 2 * 10) + 1) / 10
    if not len(laps):
        return None
    laps = laps[:: max(1, len(laps) // 60)]
    best: Join | None = None
    for lap in laps:
        spans = spans_at(across, along, after, float(lap) / 2)
        wide = spans[spans >= LEAST_SPAN]
        hinge = float(wide.sum())
        if hinge > 0 and (best is None or hinge > best.hinge + ALIKE / 2):
            best = Join(angle, round(float(lap), 1), hinge, len(wide), 0.0)
    if best is None:
        return None
    loss = float(_area_within(points, after, across, along, np.array([best.lap / 2]))[0])
    return Join(best.turn_deg, best.lap, best.hinge, best.spans, loss)


def _deepest(
    points: Floats, after: np.ndarray, across: Floats, along: Floats, loss: float, reach: float
) -> float:
    """The depth at which the loss is reached, by halving."""
    low, high = 0.0, reach * 0.999
    if _area_within(points, after, across, along, np.array([high]))[0] <= loss:
        return high
    for _ in range(24):
        middle = (low + high) / 2
        if _area_within(points, after, across, along, np.array([middle]))[0] <= loss:
            low = middle
        else:
            high = middle
    return low
