"""Corners that lie on, or all but on, another outline's edge are put into that edge.

Without it the kernel sees crossings a nanometre from a corner: slivers and failed overlays.
"""

from __future__ import annotations

from dataclasses import replace
from operator import itemgetter

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import begins, both, neighbours, true_at
from stileblade.geometry.curves.flatten import Flat
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import dots, norms
from stileblade.tolerance import TOLERANCE


def conode(first: Flat, second: Flat) -> tuple[Flat, Flat]:
    """Both outlines' vertices with each other's corners put in or moved on to them."""
    a, b = first, second
    reach = TOLERANCE.conode
    low = np.maximum(a.points.min(axis=0), b.points.min(axis=0)) - reach
    high = np.minimum(a.points.max(axis=0), b.points.max(axis=0)) + reach
    if (low > high).any():
        return a, b
    a, b = _into(a, b, low, high)
    b, a = _into(b, a, low, high)
    return a, b


def conode_all(flat: Flat, group: Ints) -> Flat:
    """The vertices of many outlines with each other's corners put in or moved on to them; ``group``
    (m,) says which outline a vertex is of."""
    low, high = flat.points.min(axis=0), flat.points.max(axis=0)
    _, moved = _into(flat, flat, low, high, group)
    return _into(moved, moved, low, high, group)[0]


def _into(
    host: Flat, guest: Flat, low: Floats, high: Floats, group: Ints | None = None
) -> tuple[Flat, Flat]:
    corner = guest.exact & begins(guest.segment)
    inside = both((guest.points >= low) & (guest.points <= high))
    corners = true_at(corner & inside)
    ends = host.ends
    near = true_at(host.within(low, high))
    if not len(corners) or not len(near):
        return host, guest
    c, e = _near_pairs(guest.points[corners], host.points[near], ends[near])
    if not len(c):
        return host, guest
    vertex, edge = corners[c], near[e]
    if group is not None:
        other = group[vertex] != group[edge]
        vertex, edge = vertex[other], edge[other]
    p, a, b = guest.points[vertex], host.points[edge], ends[edge]
    to_a, to_b = norms(p - a), norms(p - b)
    # nearly on a corner: take that corner's place
    moved = guest.points
    close = (to_a > 0) & (to_a < TOLERANCE.conode) & (to_b > 0)
    if close.any():
        moved = guest.points.copy()
        moved[vertex[close]] = a[close]
    middle = (to_a >= TOLERANCE.conode) & (to_b >= TOLERANCE.conode)
    if close.any():
        guest = replace(guest, points=moved)
        middle &= ~np.isin(vertex, vertex[close])
    if middle.any():
        host = _insert(host, edge[middle], p[middle], a[middle], b[middle])
    return host, guest


def _insert(flat: Flat, edge: Ints, p: Floats, a: Floats, b: Floats) -> Flat:
    """``flat`` with points p put into its edges."""
    d = b - a
    share = dots(p - a, d) / dots(d, d)
    order = np.lexsort((share, edge))
    edge, p, share = edge[order], p[order], share[order]
    once = begins(edge) | begins(p[:, 0]) | begins(p[:, 1])
    edge, p, share = edge[once], p[once], share[once]
    t = flat.t0[edge] + share * (flat.t1[edge] - flat.t0[edge])
    at = edge + 1
    points = np.insert(flat.points, at, p, axis=0)
    t0 = np.insert(flat.t0, at, t)
    segment = np.insert(flat.segment, at, flat.segment[edge])
    ring = np.insert(flat.ring, at, flat.ring[edge])
    exact = np.insert(flat.exact, at, False)
    after, before = neighbours(ring)
    # an edge now ends where the next vertex of the same edge starts
    t1 = np.insert(flat.t1, at, flat.t1[edge])
    is_new = ~exact
    t1[before[is_new]] = t0[is_new]
    chained = is_new & is_new[after]
    t1[chained] = t0[after[chained]]
    return Flat(points, segment, t0, t1, ring, after, before, exact)


_FEW = 4000
"""So few pairs of points and edges are all looked at."""
_MANY = 50
"""So many times as many pairs as there are points and edges are left to a tree to part."""


def _near_pairs(points: Floats, a: Floats, b: Floats) -> tuple[Ints, Ints]:
    """Numbers of points and of edges ab that lie within the tolerance of each other."""
    reach = TOLERANCE.conode
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
    near = _off(points[point], a[edge], b[edge]) <= reach
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
    box = np.repeat(np.arange(len(low)), count)
    nth = np.arange(pairs) - np.repeat(np.cumsum(count) - count, count)
    point = order[first[box] + nth]
    across = points[point, 1 - axis]
    inside = true_at((across >= low[box, 1 - axis]) & (across <= high[box, 1 - axis]))
    return point[inside], box[inside]


def _off(p: Floats, a: Floats, b: Floats) -> Floats:
    """Distances of points from edges, row by row."""
    d = b - a
    size = np.maximum(dots(d, d), 1e-300)
    share = np.clip(dots(p - a, d) / size, 0, 1)
    return norms(a + d * share[:, None] - p)
