"""Which closed contour lies in which, on their flattened forms."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely

from stileblade.geometry.curves.flatten import flatten
from stileblade.geometry.curves.segments import Ints, Segments


def around_each(contours: Sequence[Segments]) -> Ints:
    """Of each contour the number of the smallest other one that it lies in, -1 where it lies in none.
    Contours that cross lie in each other by their first places."""
    found = np.full(len(contours), -1, np.int64)
    if len(contours) < 2:
        return found
    shapes = np.array([_polygon(contour) for contour in contours])
    spots = shapely.points(np.array([contour.start[0] for contour in contours]))
    inner, outer = shapely.STRtree(shapes).query(spots, predicate="intersects")
    areas = shapely.area(shapes)
    apart = (inner != outer) & (areas[outer] > areas[inner])
    inner, outer = inner[apart], outer[apart]
    for i in np.argsort(-areas[outer], kind="stable"):
        found[inner[i]] = outer[i]
    return found


def _polygon(contour: Segments) -> shapely.Polygon:
    points = flatten(contour, np.array([0, len(contour)])).points
    if len(points) < 3:
        points = np.concatenate([points, np.repeat(points[-1:], 3 - len(points), axis=0)])
    return shapely.polygons(points)
