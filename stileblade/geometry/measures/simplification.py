"""Corners left out of outlines within a tolerance (Douglas and Peucker, 1973), in bounded time and on a bounded stack.

The kernel splits a line at its farthest corner and goes on with both halves by calling itself. Of a zigzag of n corners
each split takes one corner off: n squared comparisons, n calls deep, and at some 60,000 the process ends. Lines are
therefore cut into runs of at most ``_RUN`` corners first, whose ends stay.
"""

from __future__ import annotations

import itertools
from typing import Any

import numpy as np
import shapely

from stileblade.geometry.curves.segments import Floats

_RUN = 2000
"""Corners that are simplified in one go: comparisons are n times this many at most, calls this many deep."""


def simplified(shapes: Any, tolerance: float, *, valid: bool = False) -> Any:
    """A shape of the kernel, or an array of them, with corners within ``tolerance`` mm left out. ``valid``: polygons stay
    valid, so that of some fewer corners are left out; without it they may touch or cross themselves."""
    if _longest(shapes) <= _RUN:
        return shapely.simplify(shapes, tolerance, preserve_topology=valid)
    if isinstance(shapes, np.ndarray):
        return np.array([simplified(shape, tolerance, valid=valid) for shape in shapes])
    made = _made(shapes, tolerance)
    return made if not valid or shapely.is_valid(made) else shapes


def _longest(shapes: Any) -> int:
    """How many corners the longest single line has, rings of polygons being lines."""
    if (
        not isinstance(shapes, np.ndarray)
        and (count := shapely.get_num_coordinates(shapes)) <= _RUN
    ):
        return int(count)
    count = int(np.max(shapely.get_num_coordinates(shapes), initial=0))
    if count <= _RUN:
        return count
    parts = shapely.get_parts(shapes)
    areas = np.isin(shapely.get_type_id(parts), (3, 6))
    lines = [shapely.get_parts(parts[~areas]), shapely.get_rings(shapely.get_parts(parts[areas]))]
    return int(np.max(shapely.get_num_coordinates(np.concatenate(lines)), initial=0))


def _made(shape: Any, tolerance: float) -> Any:
    if isinstance(shape, shapely.Polygon):
        rings = [_ring(ring, tolerance) for ring in shapely.get_rings(shape)]
        return shapely.polygons(rings[0], rings[1:] or None)
    if isinstance(shape, shapely.LinearRing):
        return _ring(shape, tolerance)
    if isinstance(shape, shapely.LineString):
        return shapely.linestrings(_thinned(shapely.get_coordinates(shape), tolerance))
    return type(shape)([_made(part, tolerance) for part in shapely.get_parts(shape)])


def _ring(ring: Any, tolerance: float) -> Any:
    points = _thinned(shapely.get_coordinates(ring), tolerance)
    return shapely.linearrings(points if len(points) > 3 else shapely.get_coordinates(ring))


def _thinned(points: Floats, tolerance: float) -> Floats:
    """The corners (n, 2) of a line that are left, in runs that share their ends."""
    ends = [*range(0, len(points) - 1, _RUN), len(points) - 1]
    runs = [shapely.linestrings(points[a : b + 1]) for a, b in itertools.pairwise(ends)]
    found = [
        shapely.get_coordinates(run)
        for run in shapely.simplify(np.array(runs), tolerance, preserve_topology=False)
    ]
    return np.concatenate([found[0], *(run[1:] for run in found[1:])])
