"""Bridges between an island and what is round it: where they are shortest."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import dots, norms
from stileblade.geometry.regions.region import Contour

_PLACES = 1500
"""How many places of an island's edge are looked at."""
_ROUNDS, _SAMPLES, _ZOOMS = 4, 17, 6
_ALIKE = 0.02
"""mm: of ways that are alike the one nearest to the middle of its sector is taken."""


@dataclass(frozen=True)
class Bridge:
    """From the island's edge to the outer edge."""

    start: Point
    end: Point

    @property
    def length(self) -> float:
        return math.dist(self.start, self.end)

    def moved(self, dx: float, dy: float) -> Bridge:
        (ax, ay), (bx, by) = self.start, self.end
        return Bridge((ax + dx, ay + dy), (bx + dx, by + dy))


def bridges_of(
    island: Contour,
    round_it: Contour,
    count: int,
    *,
    turn_deg: float | None = None,
    own: Sequence[float | None] = (),
) -> list[Bridge]:
    """``count`` bridges, one in each of as many equal sectors about the island's middle, each where
    it is shortest. The first sector is about ``turn_deg`` (clockwise, 0 to the right), or about
    the place where the island is nearest to the edge. Where ``own`` has an angle for a bridge, it is
    there, and the shortest from that place."""
    places, ends = _ways(island, round_it)
    away = norms(ends - places)
    box = island.bounds
    about = places - np.array(box.centre)
    angle = np.degrees(np.arctan2(about[:, 1], about[:, 0]))
    first = turn_deg
    if first is None:
        near = true_at(away <= away.min() + _ALIKE)
        # of many places that are alike, as on a ring, the one to the right
        first = float(angle[near[np.argmin(np.abs(angle[near]))]])
    found = []
    for n in range(count):
        at = own[n] if n < len(own) else None
        middle = first + 360 * n / count if at is None else at
        off = np.abs((angle - middle + 180) % 360 - 180)
        if at is not None:
            pick = int(np.argmin(off))
            found.append(Bridge(_point(places[pick]), _point(ends[pick])))
            continue
        inside = true_at(off <= 180 / count)
        if not len(inside):
            inside = np.array([int(np.argmin(off))])
        alike = inside[away[inside] <= away[inside].min() + _ALIKE]
        pick = int(alike[np.argmin(off[alike])])
        found.append(_exact(island, round_it, places[pick], ends[pick]))
    return found


def _exact(island: Contour, round_it: Contour, start: Floats, end: Floats) -> Bridge:
    """The two ends moved along the true outlines to where they are nearest to each other."""
    here, there = start[None], end[None]
    for _ in range(_ROUNDS):
        there = _foot(round_it, here)
        here = _foot(island, there)
    moved = max(np.hypot(*(here[0] - start)), np.hypot(*(there[0] - end)))
    if moved > 1.0:  # on to another stretch
        return Bridge(_point(start), _point(end))
    return Bridge(_point(here[0]), _point(there[0]))


def _foot(contour: Contour, point: Floats) -> Floats:
    """The place (1, 2) of the contour that is nearest to a point (1, 2)."""
    flat = contour.as_region().flat
    a, along = flat.points, flat.ends - flat.points
    size = np.maximum(dots(along, along), 1e-300)
    share = np.clip(dots(point - a, along) / size, 0, 1)
    near = int(np.argmin(((a + along * share[:, None] - point) ** 2).sum(axis=1)))
    curves = contour.as_region().segments
    index = np.full(_SAMPLES, flat.segment[near])
    at = flat.t0[near] + share[near] * (flat.t1[near] - flat.t0[near])
    low, high = np.sort(curves.span[flat.segment[near]])
    reach = abs(flat.t1[near] - flat.t0[near])
    # the point is far from the curve: looked for more and more closely
    for _ in range(_ZOOMS):
        t = np.clip(np.linspace(at - reach, at + reach, _SAMPLES), low, high)
        places = curves.points_at(index, t)
        best = int(np.argmin(((places - point) ** 2).sum(axis=1)))
        at, reach = t[best], reach / 8
    return places[best][None]


def _ways(island: Contour, round_it: Contour) -> tuple[Floats, Floats]:
    """Places along the island (n, 2), and for each the nearest of the outer edge."""
    ring = shapely.get_parts(shapely.boundary(island.as_region().polygons))[0]
    spacing = max(float(shapely.length(ring)) / _PLACES, 0.01)
    places = shapely.get_coordinates(shapely.segmentize(ring, spacing))[:-1]
    edge = shapely.boundary(round_it.as_region().polygons)
    shapely.prepare(edge)
    ends = shapely.get_coordinates(shapely.shortest_line(shapely.points(places), edge))[1::2]
    return places, ends


def _point(p: Floats) -> Point:
    return float(p[0]), float(p[1])
