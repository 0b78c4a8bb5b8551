"""The hinge over the lap, and the best join of a figure to its own image.

Measured on the flattened outline, chords along the fold refined on the curves.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from stileblade.folding.hinge import LEAST_SPAN, chord, chords
from stileblade.geometry.curves.places import Side
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import rotation
from stileblade.geometry.regions.region import Region
from stileblade.piece.mirrored import Mirrored, place_at_lap

MOST_TURN = 180.0
ALIKE = 0.5
"""mm: hinges that differ by less are alike."""
APART = 2.0
"""Degrees between two joins that are told apart."""
_LAPS = 40
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


@dataclass(frozen=True)
class Wish:
    """What a join may be: the area in mm^2 that each half may lose, laps and turns in mm and degrees,
    and how many spans it is to have, 0 for any number."""

    loss: float
    least_lap: float = 0.1
    most_lap: float = math.inf
    most_turn: float = MOST_TURN
    spans: int = 0


def best_joins(mirrored: Mirrored, wish: Wish, *, most: int = 6) -> list[Join]:
    """The joins of all turns and laps that the wish allows, the longest hinge first, spans under 6 mm
    not counted. Of turns within 2 degrees of each other only the best, and of joins that a figure's
    symmetry makes alike only that of the least turn."""
    shape = _Shape.of(mirrored)
    coarse = _turns(wish.most_turn)
    found = [j for j in (shape.best_at(angle, wish) for angle in coarse) if j is not None]
    found.sort(key=_rank)
    apart: list[Join] = []
    for join in found:
        if len(apart) >= most * 2:
            break
        if all(_between(join.turn_deg, other.turn_deg) >= APART for other in apart):
            finer = [join.turn_deg + step for step in np.arange(-0.75, 0.76, 0.25).tolist()]
            near = [shape.best_at(a, wish) for a in finer if abs(a) <= wish.most_turn + 1e-9]
            apart.append(min((j for j in [join, *near] if j is not None), key=_rank))
    exact = sorted((shape.exactly(join, mirrored) for join in apart), key=_rank)
    kept: list[Join] = []
    for join in exact:
        if any(_beats(other, join) for other in exact):
            continue
        alike = any(
            _between(join.turn_deg, other.turn_deg) < APART
            or (abs(join.hinge - other.hinge) < 0.02 and abs(join.loss - other.loss) < 0.1)
            for other in kept
        )
        if not alike and len(kept) < most:
            kept.append(join)
    return kept


def _beats(join: Join, other: Join) -> bool:
    """Whether a join at nearly the same turn has nearly the same hinge for much less."""
    near = _between(join.turn_deg, other.turn_deg) < 5 * APART
    return near and join.hinge > other.hinge - ALIKE and join.loss < 0.7 * other.loss


def _rank(join: Join) -> tuple[float, float, float]:
    return -round(join.hinge, 1), round(join.loss, 1), abs(join.turn_deg)


def _turns(most: float) -> list[float]:
    """Turns in whole degrees, but half ones where there are few; the least first."""
    step = 0.5 if most <= 20 else 1.0
    angles = np.arange(0.0, most + 1e-9, step)
    both = np.concatenate([angles, -angles[angles > 0]])
    if most >= 180:
        both = both[both > -180]
    return sorted(both.tolist(), key=abs)


def _between(first: float, second: float) -> float:
    """The angle between two turns in degrees, the short way round."""
    return abs((first - second + 180) % 360 - 180)


@dataclass(frozen=True, eq=False)
class _Shape:
    """A figure's flattened outline: places (n, 2), the number of the next, and where the mirror is."""

    points: Floats
    after: np.ndarray
    towards: Side

    @staticmethod
    def of(mirrored: Mirrored) -> _Shape:
        flat = mirrored.figure.flat
        return _Shape(flat.points, flat.after, mirrored.towards)

    def facing(self, angle: float) -> tuple[Floats, Floats]:
        """Turned by an angle: how deep each place lies inside the extreme at the mirror, and its place
        along the fold."""
        c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
        x = self.points[:, 0] * c - self.points[:, 1] * s
        y = self.points[:, 0] * s + self.points[:, 1] * c
        across, along = (x, y) if self.towards.upright else (y, x)
        across = across - across.min() if self.towards.low else across.max() - across
        return across, along

    def best_at(self, angle: float, wish: Wish) -> Join | None:
        across, along = self.facing(angle)
        deepest = _deepest(self.points, self.after, across, along, wish.loss, float(across.max()))
        high = math.floor(min(deepest * 2, wish.most_lap) * 10 + 1e-6) / 10
        if high < wish.least_lap - 1e-9:
            return None
        laps = np.unique(np.round(np.linspace(wish.least_lap, high, _LAPS), 1))
        lengths, which = _chords(across, along, self.after, laps / 2)
        wide = lengths >= LEAST_SPAN
        hinges = np.bincount(which[wide], lengths[wide], minlength=len(laps))
        counts = np.bincount(which[wide], minlength=len(laps))
        fits = (hinges > 0) & ((counts == wish.spans) if wish.spans else True)
        if not fits.any():
            return None
        top = hinges[fits].max()
        # the least lap of those that are as good
        pick = int(np.flatnonzero(fits & (hinges >= top - ALIKE / 2))[0])
        loss = _area_within(self.points, self.after, across, along, laps[pick : pick + 1] / 2)
        return Join(
            angle, float(laps[pick]), float(hinges[pick]), int(counts[pick]), float(loss[0])
        )

    def exactly(self, join: Join, mirrored: Mirrored) -> Join:
        """Its hinge on the true outline."""
        figure = mirrored.figure
        turned = figure.transformed(rotation(join.turn_deg, about=figure.bounds.centre))
        at = place_at_lap(turned.bounds, mirrored.towards, join.lap)
        spans = np.array(chords(turned, mirrored.towards.axis, at))
        wide = spans[spans >= LEAST_SPAN]
        return Join(join.turn_deg, join.lap, float(wide.sum()), len(wide), join.loss)


def _chords(
    across: Floats, along: Floats, after: np.ndarray, depths: Floats
) -> tuple[Floats, np.ndarray]:
    """Lengths (k,) of the chords at all depths, and the number of the depth that each is at."""
    a, b = across[:, None] - depths, across[after][:, None] - depths
    edge, which = np.nonzero((a <= 0) != (b <= 0))
    share = a[edge, which] / (a[edge, which] - b[edge, which])
    places = along[edge] + share * (along[after[edge]] - along[edge])
    order = np.lexsort((places, which))
    places, which = places[order], which[order]
    return places[1::2] - places[::2], which[::2]


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
