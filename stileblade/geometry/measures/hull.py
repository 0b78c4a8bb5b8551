"""Convex hulls of places in a plane, and how far inside one a place lies. mm."""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.geometry.curves.segments import Floats


def hull_of(points: Floats) -> Floats:
    """Corners (n, 2) of the hull of points (m, 2), the first again at the end; two where all lie
    on one line."""
    # the places as corners of one line: made far faster than as many points, with the same hull
    shape = shapely.linestrings(points) if len(points) > 1 else shapely.multipoints(points)
    return np.asarray(shapely.get_coordinates(shapely.convex_hull(shape)))


def margin_in(hull: Floats, place: Floats) -> float:
    """Distance of a place from the hull's nearest side, negative outside. What is only a line or a
    point encloses nothing: its distances count as outside."""
    point = shapely.points(place)
    if len(hull) < 4:
        shape = shapely.linestrings(hull) if len(hull) > 1 else shapely.points(hull[0])
        return min(-float(shapely.distance(shape, point)), -1e-3)
    away = float(shapely.distance(shapely.linestrings(hull), point))
    return away if shapely.covers(shapely.polygons(hull), point) else -away
