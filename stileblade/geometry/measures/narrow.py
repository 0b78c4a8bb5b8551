"""Thin places: of the paper that is left standing, and of what is cut between two lines.

Short rays run from places along the outline to the side that is asked about; where one meets
another part of the outline that faces it, the distance of the two is the width there. Corners
are no thin places: what meets at one is nearer to each other the nearer it is to it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely

from stileblade.geometry.curves.arrays import nth_of, true_at
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import NUDGE, Bools, Floats, Ints
from stileblade.geometry.curves.vectors import crosses, dots, norms
from stileblade.geometry.measures.distances import thin
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import with_figures

_SPACING = 0.8
"""mm between two rays on a long straight edge."""
_MANY = 3
"""Rays from an edge, on the average: with so many it pays to ask first from which ones they need start."""
_AT_ONCE = 2_000
"""Rays that are asked for in one call."""
_CORNERS = 0.01
_BESIDE = 1.5
_ROUND = 8.0
"""Two sides that meet after less outline than so many widths make a corner, of more than 7 degrees."""
_MEETING = 2.0
"""mm of outline between two sides where they are nearest: less, and they run into each other."""
_FACING = -0.6
"""Cosine of the angle between the two sides' directions: they must run against each other."""


@dataclass(frozen=True)
class Thin:
    """A thin place: its width in mm and the two places between which it is measured."""

    width: float
    start: Point
    end: Point


@dataclass(frozen=True)
class Corner:
    """A corner of the outline: where, and the angle of the paper in it, in degrees."""

    at: Point
    angle_deg: float


@with_figures
def thin_places(region: Region, width: float, *, of_paper: bool = True) -> tuple[Thin, ...]:
    """Places where the paper (or, without ``of_paper``, the gap between two cuts) is less than
    ``width`` mm wide, the narrowest first; of places beside each other only the narrowest."""
    if not region:
        return ()
    start, end, ring, tree = _edges(region)
    if not len(start):  # so small that nothing is left of it when thinned
        return ()
    along = end - start
    size = norms(along)
    direction = along / size[:, None]
    # shells run clockwise as seen: the paper lies to the right of the running
    inward = np.column_stack([-direction[:, 1], direction[:, 0]])
    side = inward if of_paper else -inward
    n = np.maximum(np.ceil(size / _SPACING).astype(int), 1)
    if n.sum() > _MANY * len(n):
        # long edges: rays start from those alone that have another near them
        n = np.where(_faced(tree, direction, width), n, 0)
        if not n.any():
            return ()
    edge = np.repeat(np.arange(len(start)), n)
    share = (nth_of(n) + 0.5) / n[edge]
    origin = start[edge] + along[edge] * share[:, None]
    tip = origin + side[edge] * width
    rays = shapely.linestrings(np.stack([origin, tip], axis=1))
    ray, hit = _near(tree, rays)
    facing = dots(direction[edge[ray]], direction[hit]) < _FACING
    ray, hit = ray[facing], hit[facing]
    meets = shapely.intersects(rays[ray], tree.geometries[hit])
    ray, hit = ray[meets], hit[meets]
    if not len(ray):
        return ()
    at, normal = origin[ray], side[edge[ray]]
    away = dots(start[hit] - at, _turned(direction[hit]))
    slope = dots(normal, _turned(direction[hit]))
    distance = away / np.where(np.abs(slope) < 1e-9, 1.0, slope)
    met = at + normal * distance[:, None]
    begin = np.concatenate([[0.0], np.cumsum(size)])[:-1]
    here = begin[edge[ray]] + share[ray] * size[edge[ray]]
    there = begin[hit] + dots(met - start[hit], direction[hit])
    run = np.abs(here - there)
    run = np.minimum(run, np.bincount(ring, weights=size)[ring[hit]] - run)
    run = np.where(ring[edge[ray]] == ring[hit], run, np.inf)
    round_a_corner = run < _ROUND * distance
    good = (distance > 1e-3) & (distance < width - 1e-6) & ~round_a_corner
    return _narrowest(at[good], met[good], distance[good], run[good])


def _faced(tree: shapely.STRtree, direction: Floats, width: float) -> Bools:
    """Which edges have another one within ``width`` that runs against them."""
    left, head, right, foot = shapely.bounds(tree.geometries).T
    around = shapely.box(left - width, head - width, right + width, foot + width)
    one, other = tree.query(around)
    against = dots(direction[one], direction[other]) < _FACING
    one, other = one[against], other[against]
    found = np.zeros(len(direction), bool)
    found[one[shapely.dwithin(tree.geometries[one], tree.geometries[other], width)]] = True
    return found


def _near(tree: shapely.STRtree, rays: npt.NDArray[np.object_]) -> tuple[Ints, Ints]:
    """Rays and the edges whose boxes theirs meet; some of them at a time, so that it can be given up in
    between."""
    found = [
        tree.query(rays[n : n + _AT_ONCE]) + np.array([[n], [0]])
        for n in range(0, len(rays), _AT_ONCE)
    ]
    ray, hit = np.concatenate(found, axis=1)
    return ray, hit


def _turned(d: Floats) -> Floats:
    return np.column_stack([-d[:, 1], d[:, 0]])


@with_figures
def _edges(region: Region) -> tuple[Floats, Floats, Ints, shapely.STRtree]:
    """Start and end of each edge (n, 2), running with the paper to the right, its ring, and the
    edges as a tree to search."""
    starts, ends = [np.zeros((0, 2))], [np.zeros((0, 2))]
    number = [np.zeros(0, np.int64)]
    for polygon in shapely.get_parts(
        shapely.orient_polygons(thin(region, _CORNERS), exterior_cw=False)
    ):
        for ring in shapely.get_rings(polygon):
            points = shapely.get_coordinates(ring)
            long = norms(np.diff(points, axis=0)) > 1e-9
            starts.append(points[:-1][long])
            ends.append(points[1:][long])
            number.append(np.full(int(long.sum()), len(number)))
    start, end = np.concatenate(starts), np.concatenate(ends)
    tree = shapely.STRtree(shapely.linestrings(np.stack([start, end], axis=1)))
    return start, end, np.concatenate(number), tree


def _narrowest(start: Floats, end: Floats, width: Floats, run: Floats) -> tuple[Thin, ...]:
    """Of each group of places that lie beside each other the narrowest, of those that are alike the
    one with the most outline ``run`` between its sides. Where that is hardly any, the two sides
    meet there in a point, and it is none."""
    if not len(width):
        return ()
    squares = np.floor((start + end) / 2 / _BESIDE).astype(np.int64)
    unique, square = np.unique(squares, axis=0, return_inverse=True)
    group = _groups(unique)[square.ravel()]
    found = []
    for number in range(int(group.max()) + 1):
        mine = true_at(group == number)
        alike = mine[width[mine] <= width[mine].min() * 1.05 + 1e-4]
        i = int(alike[np.argmax(run[alike])])
        if run[i] < _MEETING:
            continue
        (ax, ay), (bx, by) = start[i].tolist(), end[i].tolist()
        found.append(Thin(float(width[mine].min()), (ax, ay), (bx, by)))
    return tuple(sorted(found, key=lambda t: t.width))


def _groups(squares: Ints) -> Ints:
    """For squares (n, 2) of a grid the number of their group; those that touch belong together."""
    number = {(int(x), int(y)): i for i, (x, y) in enumerate(squares)}
    found = np.zeros(len(squares), np.int64)
    count = 0
    while number:
        (x, y), i = number.popitem()
        found[i], waiting = count, [(x, y)]
        while waiting:
            x, y = waiting.pop()
            for beside in ((x + dx, y + dy) for dx in (-1, 0, 1) for dy in (-1, 0, 1)):
                if beside in number:
                    found[number.pop(beside)] = count
                    waiting.append(beside)
        count += 1
    return found


def sharp_corners(region: Region, below_deg: float) -> list[Corner]:
    """Corners in which the paper's angle is less than ``below_deg``, the sharpest first."""
    if not region:
        return []
    segments = region.segments
    leave, arrive = segments.end_directions()
    first, last = region.rings[:-1], region.rings[1:] - 1
    before = np.arange(len(segments)) - 1
    before[first] = last
    incoming, outgoing = arrive[before], leave
    turn = crosses(incoming, outgoing)
    straight = dots(incoming, outgoing)
    # turning right (clockwise as seen) by nearly half a turn leaves a thin tip of paper
    angle = 180.0 - np.degrees(np.arctan2(turn, straight))
    sharp = true_at((angle < below_deg) & (angle > NUDGE))
    order = sharp[np.argsort(angle[sharp], kind="stable")]
    return [
        Corner((float(segments.start[i, 0]), float(segments.start[i, 1])), float(angle[i]))
        for i in order
    ]
