"""How wide cells are, and how far they reach."""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.geometry.measures.cells import FINE, Cell, coarser, less, points_of
from stileblade.geometry.measures.distances import nearest
from stileblade.geometry.measures.simplification import simplified

_ROUGH = 0.5
"""mm: corners within this are left out of what all places are measured to before some are measured exactly."""
_LARGEST = 12
"""Of the parts of a cell, so many are looked at for how wide it is."""


def thin_rim(lower: Cell, upper: Cell, width: float) -> Cell:
    """Where of the lower shape a rim narrower than ``width`` shows round the upper one."""
    if nearest(shapely.boundary(lower), shapely.boundary(upper))[0] >= width:
        return shapely.Polygon()
    near = shapely.intersection(lower, shapely.buffer(upper, 2 * width, quad_segs=4))
    rim = less(near, upper)
    wide = shapely.buffer(shapely.buffer(rim, -width / 2), width / 2 + FINE)
    narrow = shapely.difference(rim, wide)
    # corners of wide rims are no rims: what counts lies beside the upper shape along a length
    beside = shapely.intersection(narrow, shapely.buffer(upper, width))
    parts = [p for p in shapely.get_parts(beside) if shapely.length(p) > 8 * width]
    return shapely.union_all(parts)


def farthest(cell: Cell, other: Cell, beyond: float = 0.0) -> float:
    """How far the cell's farthest place is from the other; 0 where that is surely not beyond a distance that
    does not count."""
    if shapely.is_empty(cell) or shapely.is_empty(other):
        return 0.0
    points = points_of(cell)
    rough = coarser(other, _ROUGH)
    shapely.prepare([rough, other])
    away = shapely.distance(rough, shapely.points(points))
    if away.max() + _ROUGH < beyond:
        return 0.0
    # only those that may be the farthest are measured on the outline itself
    far = points[away >= away.max() - 2 * _ROUGH]
    spread = far[:: max(1, len(far) // 200)]
    return float(shapely.distance(other, shapely.points(spread)).max())


def reach_out(cell: Cell, other: Cell) -> float:
    """How far the cell reaches out of the other one, in mm, within half of ``_ROUGH``: the distance of its farthest
    place. That lies on the cell's edge or, in a bay of the other one, in the middle of the largest circle."""
    if shapely.is_empty(cell) or shapely.is_empty(other):
        return 0.0
    middle = shapely.get_coordinates(shapely.maximum_inscribed_circle(cell))[:1]
    places = np.concatenate([points_of(shapely.segmentize(cell, _ROUGH)), middle])
    shapely.prepare(other)
    return float(shapely.distance(other, shapely.points(places)).max())


def widest(cell: Cell) -> float:
    """How wide the cell is where it is widest: the diameter of the largest circle in it."""
    parts = shapely.get_parts(cell)
    area = shapely.area(parts)
    kept = (shapely.get_type_id(parts) == 3) & (area > 1e-3)
    parts, area = parts[kept], area[kept]
    left, head, right, foot = shapely.bounds(parts).T
    most = np.minimum(np.minimum(right - left, foot - head), 2 * np.sqrt(area / np.pi))
    found = 0.0
    for i in np.argsort(-most, kind="stable")[:_LARGEST]:
        if most[i] <= found:  # nor do those that come after it have room for a larger one
            break
        if not found or is_wide(parts[i], found):  # which takes a fourth of the time
            circle = shapely.maximum_inscribed_circle(simplified(parts[i], FINE, valid=True), 0.001)
            found = max(found, 2 * float(shapely.length(circle)))
    return found


def at_least_wide(cell: Cell) -> float:
    """A width that ``widest`` is not below: of a shape, the strip along all edges that is as wide as its largest
    circle's radius covers all of it."""
    parts = shapely.get_parts(cell)
    parts = parts[shapely.area(parts) > 0]
    return float(np.max(2 * shapely.area(parts) / shapely.length(parts), initial=0.0))


def is_wide(cell: Cell, width: float) -> bool:
    """Whether a circle of that diameter has room somewhere in the cell; ``widest`` costs far more."""
    # the strip along all edges, as wide as the circle's radius, has less area than this where it has not
    radius = width / 2
    inner = shapely.get_num_interior_rings(shapely.get_parts(cell)).sum()
    least = shapely.length(cell) * radius + inner * np.pi * radius**2
    if shapely.area(cell) > least:
        return True
    return not shapely.is_empty(shapely.buffer(cell, -width / 2, quad_segs=4))
