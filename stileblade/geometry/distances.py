"""Nearness of outlines, on their flattened forms (to the flattening tolerance)."""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.geometry.region import Box, Contour, Region

Point = tuple[float, float]


def nearest(first: shapely.Geometry, second: shapely.Geometry) -> tuple[float, Point, Point]:
    """Smallest distance in mm and the two places where it is measured."""
    (ax, ay), (bx, by) = shapely.get_coordinates(shapely.shortest_line(first, second))
    return float(np.hypot(bx - ax, by - ay)), (float(ax), float(ay)), (float(bx), float(by))


def line_of(start: Point, end: Point) -> shapely.LineString:
    return shapely.linestrings([start, end])


def outline_of(region: Region) -> shapely.Geometry:
    """All contours of the region as lines of the kernel."""
    return shapely.boundary(region.polygons)


def shell_of(region: Region) -> shapely.Geometry:
    """The outer contours alone."""
    parts = shapely.get_parts(region.polygons)
    return shapely.multilinestrings(shapely.get_exterior_ring(parts))


def ring_of(contour: Contour) -> shapely.Geometry:
    return shapely.boundary(contour.as_region().polygons)


def is_inside(contour: Contour, region: Region) -> bool:
    """Whether a contour lies within a region, edges included, up to a hundredth of a mm."""
    covered = shapely.buffer(region.polygons, 0.01)
    return bool(shapely.covers(covered, contour.as_region().polygons))


def label_point(region: Region, box: Box) -> Point:
    """A place well inside the region's part in a box, for a name; the box's centre if none."""
    thin = shapely.simplify(region.polygons, max(box.width, box.height) / 200)
    part = shapely.intersection(shapely.make_valid(thin), shapely.box(*box.as_list()))
    polygons = shapely.get_parts(part)
    polygons = polygons[shapely.get_type_id(polygons) == 3]
    if not len(polygons):
        return box.centre
    largest = polygons[int(np.argmax(shapely.area(polygons)))]
    x, y = shapely.get_coordinates(shapely.maximum_inscribed_circle(largest, 1.0))[0]
    return float(x), float(y)


def covers_point(region: Region, point: Point) -> bool:
    return bool(shapely.intersects_xy(region.polygons, *point))


def thinned(region: Region, tolerance: float) -> list[list[Point]]:
    """Closed polylines for a small picture: corners within ``tolerance`` left out."""
    rings = shapely.get_rings(shapely.simplify(region.polygons, tolerance, preserve_topology=True))
    return [[(float(x), float(y)) for x, y in shapely.get_coordinates(r)] for r in rings]
