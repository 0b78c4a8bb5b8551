"""Nearness of outlines, on their flattened forms (to the flattening tolerance)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypeAlias

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import Bools, Floats, Ints
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.simplification import simplified
from stileblade.geometry.regions.region import Contour, Region
from stileblade.geometry.regions.remembered import with_figures

_ALIKE = 0.02
"""mm: distances that are alike."""
_ALONG = np.array([0.0, 0.25, 0.5, 0.75])
Shape: TypeAlias = shapely.Geometry
"""Polygons of the kernel."""


def nearest(first: shapely.Geometry, second: shapely.Geometry) -> tuple[float, Point, Point]:
    """Smallest distance in mm and the two places where it is measured."""
    swapped = shapely.get_num_coordinates(second) > shapely.get_num_coordinates(first)
    large, small = (second, first) if swapped else (first, second)
    large, small = _with_length(large), _with_length(small)
    shapely.prepare(large)  # else all edges are compared with all
    ends = shapely.get_coordinates(shapely.shortest_line(large, small))
    (ax, ay), (bx, by) = ends[::-1] if swapped else ends
    return float(np.hypot(bx - ax, by - ay)), (float(ax), float(ay)), (float(bx), float(by))


def _with_length(shape: shapely.Geometry) -> shapely.Geometry:
    """The shape, or the point that it is: of lines without length the prepared kernel falls over."""
    if shapely.length(shape) > 0:
        return shape
    return shapely.points(shapely.get_coordinates(shape)[0])


def nearest_middle(first: shapely.Geometry, second: shapely.Geometry) -> tuple[float, Point, Point]:
    """As ``nearest``; where two edges run along each other, in the middle of that."""
    away, start, end = nearest(first, second)
    alike = shapely.buffer(second, away + _ALIKE, quad_segs=16)
    stretches = shapely.get_parts(
        shapely.line_merge(shapely.intersection(shapely.boundary(first), alike))
    )
    if not len(stretches) or away < _ALIKE:
        return away, start, end
    longest = stretches[int(np.argmax(shapely.length(stretches)))]
    middle = shapely.line_interpolate_point(longest, 0.5, normalized=True)
    return nearest(middle, second)


def lies_inside(inner: Region, outer: Region, by: float) -> bool:
    """Whether a region surely lies in another one, farther than ``by`` mm from its outline: on flattened forms,
    and so with a hundredth to spare."""
    first, second = inner.polygons, outer.polygons
    return bool(
        shapely.contains_properly(second, first)
        and shapely.distance(shapely.boundary(second), first) > by + 0.01
    )


def is_same(first: Region, second: Region) -> bool:
    """Whether two regions cover the same, up to a millionth of a mm^2 of their flattened forms."""
    if abs(first.area - second.area) > 1e-3:
        return False
    return float(shapely.area(shapely.symmetric_difference(first.polygons, second.polygons))) < 1e-6


def joining_gap(parts: Sequence[Region]) -> float:
    """The widest gap in mm that has to be bridged so that all parts hang together: the longest edge
    of their minimum spanning tree."""
    shapes = np.array([part.polygons for part in parts])
    nearest_yet = shapely.distance(shapes[0], shapes)
    joined = np.zeros(len(shapes), bool)
    joined[0], widest = True, 0.0
    while not joined.all():
        following = int(np.argmin(np.where(joined, np.inf, nearest_yet)))
        widest = max(widest, float(nearest_yet[following]))
        joined[following] = True
        nearest_yet = np.minimum(nearest_yet, shapely.distance(shapes[following], shapes))
    return widest


def line_of(start: Point, end: Point) -> shapely.LineString:
    return shapely.linestrings([start, end])


@with_figures
def outline_of(region: Region) -> shapely.Geometry:
    """All contours of the region as lines of the kernel."""
    return shapely.boundary(region.polygons)


def shell_beside(region: Region, figure: Region) -> shapely.Geometry:
    """The outer contours of those of the region's parts that do not lie in the figure or in one of its openings."""
    parts = shapely.get_parts(thin(region, 1e-3))
    if len(parts) > 1 and figure.openings:
        hulls = shapely.polygons(shapely.get_exterior_ring(shapely.get_parts(figure.polygons)))
        inside, _ = shapely.STRtree(hulls).query(shapely.point_on_surface(parts), "within")
        parts = np.delete(parts, inside)
    return shapely.multilinestrings(shapely.get_exterior_ring(parts))


def is_inside(contour: Contour, region: Region) -> bool:
    """Whether a contour's corners, and places along its curves, lie within a region, edges
    included, up to a hundredth of a mm."""
    s = contour.segments
    index = np.repeat(np.arange(len(s)), len(_ALONG))
    share = np.tile(_ALONG, len(s))
    t = s.span[index, 0] + (s.span[index, 1] - s.span[index, 0]) * share
    x, y = s.points_at(index, t).T
    return bool(shapely.contains_xy(_widened(region), x, y).all())


@with_figures
def _widened(region: Region) -> shapely.Geometry:
    """Grown by a hundredth of a mm, and ready to be asked many times."""
    grown = shapely.buffer(region.polygons, 0.01, quad_segs=2)
    shapely.prepare(grown)
    return grown


def label_point(region: Region, box: Box, clear: Sequence[Box] = ()) -> Point:
    """A place well inside the region's part in a box, for a name, beside what is to be kept clear where
    there is room: the box's centre where that is about as good as any, or where there is none."""
    rough = thin(region, max(box.width, box.height) / 200)
    part = shapely.intersection(shapely.make_valid(rough), shapely.box(*box.as_list()))
    polygons = shapely.get_parts(part)
    polygons = polygons[shapely.get_type_id(polygons) == 3]
    areas = shapely.area(polygons)
    if not (areas > 1.0).any():  # too little paper for a name
        return box.centre
    largest = polygons[int(np.argmax(areas))]
    x, y = found = _well_inside(largest, box)
    near = [
        b
        for b in clear
        if b.left < x + _WIDE and b.right > x - _WIDE and b.head < y + _NAME and b.foot > y - _NAME
    ]
    if not near:
        return found
    held = shapely.union_all([shapely.box(*b.as_list()) for b in clear])
    rest = shapely.get_parts(shapely.difference(largest, held))
    if not len(rest):
        return found
    free = rest[int(np.argmax(shapely.area(rest)))]
    widest = shapely.maximum_inscribed_circle(free, 1.0)
    return _well_inside(free, box) if shapely.length(widest) > _NAME else found


def _well_inside(part: Shape, box: Box) -> Point:
    """The box's centre where that is about as far inside as any place, else the furthest one."""
    widest = shapely.maximum_inscribed_circle(part, 1.0)
    centre = shapely.points(box.centre)
    inside = shapely.within(centre, part)
    if inside and shapely.distance(centre, part.boundary) > _AS_GOOD * shapely.length(widest):
        return box.centre
    x, y = shapely.get_coordinates(widest)[0]
    return float(x), float(y)


_WIDE = 12.0
_NAME = 4.0
"""mm about a name's middle, across and down, that are to be free."""
_AS_GOOD = 0.75


def depth_beyond(region: Region, other: Region) -> float:
    """How far the region's farthest place is from another one, in mm."""
    points = shapely.points(region.flat.points)
    shapely.prepare(other.polygons)
    return float(shapely.distance(other.polygons, points).max())


def inner_point(region: Region) -> Point:
    """A place well inside the region."""
    x, y = shapely.get_coordinates(shapely.point_on_surface(region.polygons))[0]
    return float(x), float(y)


def holds_any(region: Region, spots: Sequence[Point]) -> bool:
    """Whether one of the places lies in the region."""
    return bool(holds(region, spots).any())


def holds(region: Region, spots: Sequence[Point]) -> Bools:
    """For each of the places whether it lies in the region."""
    x, y = np.array(spots, float).reshape(-1, 2).T
    return np.asarray(shapely.contains_xy(region.polygons, x, y))


def touching(region: Region, places: Floats) -> Ints:
    """Numbers of the places (n, 2) that lie in the region or within a hundredth of a mm of it."""
    spots = shapely.points(places)
    return true_at(shapely.dwithin(spots, region.polygons, 0.01))


def rings_round(region: Region, rings: Sequence[int], spots: Sequence[Point]) -> set[int]:
    """Those of the region's rings, taken by themselves, that have one of the places inside."""
    if not rings or not spots:
        return set()
    shapes = np.array([region.contour(r).as_region().polygons for r in rings])
    x, y = np.array(spots, float).T
    inside = shapely.contains_xy(shapes[:, None], x[None], y[None])
    return {r for r, hit in zip(rings, inside.any(axis=1), strict=True) if hit}


@with_figures
def thin(region: Region, tolerance: float, *, most: int | None = None) -> shapely.Geometry:
    """The flattened region with corners within ``tolerance`` left out: for pictures alone,
    since it may touch itself. With ``most``, so coarse that it has at most so many corners."""
    shape = simpler(region.polygons, tolerance)
    while most is not None and shapely.get_num_coordinates(shape) > most and tolerance < 2:
        tolerance *= 2
        shape = simpler(shape, tolerance)
    return shape


def simpler(shape: Shape, tolerance: float) -> Shape:
    """Polygons with corners within ``tolerance`` left out, as ``thin`` does; those of which nothing would be
    left stay as they are."""
    found = simplified(shape, tolerance)
    return shape if shapely.is_empty(found) else found


def coarse_enough(region: Region, tolerance: float, most: int) -> float:
    """The least of tolerance, twice, four times ... that leaves at most so many corners."""
    while shapely.get_num_coordinates(simpler(region.polygons, tolerance)) > most and tolerance < 2:
        tolerance *= 2
    return tolerance


def rings_of(shape: Shape) -> list[list[Point]]:
    """Closed polylines, shells with positive area and openings against it."""
    parts = shapely.get_parts(shape)
    polygons = parts[(shapely.get_type_id(parts) == 3) & ~shapely.is_empty(parts)]
    rings = shapely.get_rings(shapely.orient_polygons(polygons, exterior_cw=False))
    return [shapely.get_coordinates(r)[:-1].tolist() for r in rings]


def close_pairs(points: Floats, reach: float) -> tuple[Ints, Ints, Floats]:
    """Pairs (i, j), i < j, of points (n, 2) not more than ``reach`` apart, and how far they are."""
    spots = shapely.points(points)
    i, j = shapely.STRtree(spots).query(spots, predicate="dwithin", distance=reach)
    once = i < j
    i, j = i[once], j[once]
    return i, j, norms(points[i] - points[j])
