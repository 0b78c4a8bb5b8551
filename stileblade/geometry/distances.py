"""Nearness of outlines, on their flattened forms (to the flattening tolerance)."""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.geometry.region import Contour, Region

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


def covers_point(region: Region, point: Point) -> bool:
    return bool(shapely.intersects_xy(region.polygons, *point))


def thinned(region: Region, tolerance: float) -> list[list[Point]]:
    """Closed polylines for a small picture: corners within ``tolerance`` left out."""
    rings = shapely.get_rings(shapely.simplify(region.polygons, tolerance, preserve_topology=True))
    return [[(float(x), float(y)) for x, y in shapely.get_coordinates(r)] for r in rings]
