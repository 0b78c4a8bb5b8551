"""Which points lie near which edges: swept along an axis, where a tree takes five times as long."""

from __future__ import annotations

from operator import itemgetter

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import both, nth_of, true_at
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import dots, norms

_FEW = 4000
"""So few pairs of points and edges are all looked at."""
_MANY = 50
"""So many times as many pairs as there are points and edges are left to a tree to part."""


def near_pairs(points: Floats, a: Floats, b: Floats, reach: float) -> tuple[Ints, Ints]:
    """Numbers of points (m, 2) and of edges from a (n, 2) to b (n, 2) that lie within ``reach`` mm of
    each other."""
    low, high = np.minimum(a, b) - reach, np.maximum(a, b) + reach
    if len(points) * len(a) <= _FEW:
        each = points[:, None]
        point, edge = both((each >= low) & (each <= high)).nonzero()
    else:
        found = _swept(points, low, high)
        if found is None:
            tree = shapely.STRtree(shapely.linestrings(np.stack([a, b], axis=1)))
            point, edge = tree.query(shapely.points(points), predicate="dwithin", distance=reach)
        else:
            point, edge = found
    near = _off(points.take(point, axis=0), a.take(edge, axis=0), b.take(edge, axis=0)) <= reach
    return point[near], edge[near]


def _swept(points: Floats, low: Floats, high: Floats) -> tuple[Ints, Ints] | None:
    """Numbers of points and of the boxes that they lie in, along the axis on which boxes have fewer points
    in their reach; None where these are many on both."""
    sweeps = []
    for axis in (0, 1):
        order = np.argsort(points[:, axis])
        along = points[order, axis]
        first = np.searchsorted(along, low[:, axis], "left")
        count = np.searchsorted(along, high[:, axis], "right") - first
        sweeps.append((int(count.sum()), axis, order, first, count))
    pairs, axis, order, first, count = min(sweeps, key=itemgetter(0))
    if pairs > _MANY * (len(points) + len(low)):
        return None
    box = np.arange(len(low)).repeat(count)
    nth = nth_of(count)
    point = order[first[box] + nth]
    across = points[point, 1 - axis]
    inside = true_at((across >= low[box, 1 - axis]) & (across <= high[box, 1 - axis]))
    return point[inside], box[inside]


def _off(p: Floats, a: Floats, b: Floats) -> Floats:
    """Distances of points from edges, row by row."""
    d = b - a
    size = np.maximum(dots(d, d), 1e-300)
    share = np.minimum(np.maximum(dots(p - a, d) / size, 0), 1)
    return norms(a + d * share[:, None] - p)
