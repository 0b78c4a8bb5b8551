"""The axis about which an outline is its own mirror image."""

from __future__ import annotations

import math

import numpy as np
import shapely

from stileblade.geometry.curves.line import Line
from stileblade.geometry.measures.cells import Cell, area_of, mapped
from stileblade.geometry.measures.distances import thin
from stileblade.geometry.regions.region import Region

_ENOUGH = 0.97
"""Share of the area that must fall on itself."""


def symmetry_axis(region: Region) -> Line | None:
    """The best axis through the centre of mass, upright and level ones preferred; None where less
    than 97 % of the area falls on itself."""
    if not region:
        return None
    shape = shapely.make_valid(thin(region, 0.05))
    x, y = region.centroid
    angles = [90.0, 0.0, *_principal(shape, (x, y)), *np.arange(0.0, 180.0, 5.0).tolist()]
    best, share = None, 0.0
    for angle in angles:
        line = _line(x, y, angle)
        found = _share(shape, line)
        if found > share + 1e-3:
            best, share = angle, found
    if best is None or share < _ENOUGH:
        return None
    if best % 90 == 0:
        return _line(x, y, best)
    fine = max(np.linspace(best - 4, best + 4, 81), key=lambda a: _share(shape, _line(x, y, a)))
    return _line(x, y, float(fine))


def _line(x: float, y: float, angle_deg: float) -> Line:
    a = math.radians(angle_deg)
    return Line.through((x, y), (x + 100 * math.cos(a), y + 100 * math.sin(a)))


def _share(shape: Cell, line: Line) -> float:
    common = shapely.intersection(shape, shapely.make_valid(mapped(shape, line.mirror())))
    return area_of(common) / max(area_of(shape), 1e-9)


def _principal(shape: Cell, centre: tuple[float, float]) -> list[float]:
    """Directions of the principal axes of the outline's corners, in degrees."""
    points = np.asarray(shapely.get_coordinates(shapely.segmentize(shape, 2.0))) - centre
    _, vectors = np.linalg.eigh(points.T @ points)
    return [math.degrees(math.atan2(v[1], v[0])) % 180 for v in vectors.T]
