"""Corners that lie on, or all but on, another outline's edge are put into that edge.

Without it the kernel sees crossings a nanometre from a corner: slivers and failed overlays.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from stileblade.geometry.curves.arrays import begins, both, neighbours, true_at
from stileblade.geometry.curves.flatten import Flat
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import dots, norms
from stileblade.geometry.regions.near import near_pairs
from stileblade.tolerance import TOLERANCE


def conode(first: Flat, second: Flat) -> tuple[Flat, Flat]:
    """Both outlines' vertices with each other's corners put in or moved on to them."""
    a, b = first, second
    reach = TOLERANCE.conode
    (low_a, high_a), (low_b, high_b) = a.extent, b.extent
    low, high = np.maximum(low_a, low_b) - reach, np.minimum(high_a, high_b) + reach
    if (low > high).any():
        return a, b
    a, b = _into(a, b, low, high)
    b, a = _into(b, a, low, high)
    return a, b


def conode_all(flat: Flat, group: Ints) -> Flat:
    """The vertices of many outlines with each other's corners put in or moved on to them; ``group``
    (m,) says which outline a vertex is of."""
    low, high = flat.extent
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
    c, e = near_pairs(guest.points[corners], host.points[near], ends[near], TOLERANCE.conode)
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
