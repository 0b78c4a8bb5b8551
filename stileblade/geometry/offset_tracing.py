"""From the kernel's buffer back to curves: which parallel or corner is each result edge?

An edge of the buffer lies on the parallel of the source segment that is nearest to it, or
round the corner that is. ``traced`` finds that out and makes curves of it; offsets of
regions and outlines of strokes both come this way.
"""

from __future__ import annotations

from typing import Final

import numpy as np
import shapely

from stileblade.geometry.assemble import ResultEdges, join_edges, meet, rejoin
from stileblade.geometry.flatten import Flat, neighbours
from stileblade.geometry.parallel import OffsetCurves, as_segments
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Bools, Floats, Ints, Kind
from stileblade.geometry.trace import ResultRings, result_rings
from stileblade.tolerance import TOLERANCE

ROUNDED: Final = 0
BEVELLED: Final = 1
MITRED: Final = 2


def traced(
    grown: shapely.Geometry,
    flat: Flat,
    curves: OffsetCurves,
    corners: Ints,
    twins: Ints | None = None,
) -> Region:
    """The buffer ``grown`` of ``flat`` as curves.

    corners (n,) says how each segment's start corner is gone round: ROUNDED, BEVELLED or
    MITRED. twins (m,) gives, where the source runs every way in both directions, the edge of
    ``flat`` that is the same edge backwards; then only the first half is searched.
    """
    rings = result_rings(grown)
    if rings is None:
        return Region.empty()
    rings = _without_specks(rings)
    edges = _match(rings, flat, curves, corners, twins)
    runs = meet(join_edges(edges, np.inf), curves)
    after, _ = neighbours(runs.ring)
    alone = after == np.arange(len(runs))  # a closed curve by itself, as a circle's parallel
    runs.point[alone] = curves.points_at(runs.curve[alone], runs.t0[alone])
    end = runs.point[after]
    t1 = runs.t1.copy()
    forwards = np.where(runs.t1 >= runs.t0, 1.0, -1.0)
    t1[alone] = runs.t0[alone] + forwards[alone] * 2 * np.pi
    made, row = as_segments(curves, runs.curve, runs.t0, t1, runs.point, end)
    long_enough = (np.hypot(*(made.end - made.start).T) > 1e-7) | (
        np.abs(made.span[:, 1] - made.span[:, 0]) > 1
    )
    made, row = made.take(np.flatnonzero(long_enough)), row[long_enough]
    ring = runs.ring[row]
    group, source = np.divmod(runs.curve[row], curves.n)
    before = neighbours(ring)[1]
    mitred = (group > 2) | (group[before] > 2)
    fresh = mitred | (np.abs(source - source[before]) > 1)
    return rejoin(made, ring, rings.shell, fresh=fresh)


def _without_specks(rings: ResultRings) -> ResultRings:
    """Without edges no longer than the rounding of vertices, which run anywhere."""
    keep = np.hypot(*(rings.points[rings.after] - rings.points).T) > 4 * TOLERANCE.grid
    ring = rings.ring[keep]
    return ResultRings(rings.points[keep], ring, rings.shell, neighbours(ring)[0])


def _match(
    rings: ResultRings, flat: Flat, curves: OffsetCurves, corners: Ints, twins: Ints | None
) -> ResultEdges:
    """Result edges with the offset curve they lie on, and the parameters at their ends."""
    n = curves.n
    u, v = rings.points, rings.points[rings.after]
    middle = (u + v) / 2
    edge = _nearest_edges(flat, u, v, twins)
    corner, is_corner = _corners_at(flat, curves, edge, middle)
    if twins is not None:  # the corner that the other direction makes of the same place
        other, is_other = _corners_at(flat, curves, twins[edge], middle)
        swap = ~is_corner & is_other
        edge = np.where(swap, twins[edge], edge)
        corner, is_corner = np.where(swap, other, corner), is_corner | is_other
    a = flat.points[edge]
    d = flat.ends[edge] - a
    size = np.maximum((d * d).sum(axis=1), 1e-300)
    segment = flat.segment[edge]
    curve = np.where(is_corner, corner + n, segment)
    straight = is_corner & (corners[corner] != ROUNDED)
    if straight.any():
        curve[straight] = _straight_corner(curves, corner[straight], middle[straight], corners)
    t0, t1 = np.empty(len(middle)), np.empty(len(middle))
    line = curves.segments.kind[segment] == Kind.LINE
    for t, p in ((t0, u), (t1, v)):
        share = ((p - a) * d).sum(axis=1) / size
        share = np.where(line, share, np.clip(share, 0, 1))
        t[:] = flat.t0[edge] + share * (flat.t1[edge] - flat.t0[edge])
        t[is_corner] = _corner_parameter(curves, curve[is_corner], p[is_corner])
    # an edge that turns round a flattened corner has no length along the parallel
    own = ~is_corner & (t0 == t1)
    t1[own] += 1e-12 * np.sign(curves.segments.span[segment[own]] @ np.array([-1.0, 1.0]))
    # arcs run the short way
    arc = (curve >= n) & (curve < 2 * n)
    t1[arc] = t0[arc] + np.remainder(t1[arc] - t0[arc] + np.pi, 2 * np.pi) - np.pi
    inexact = np.zeros(len(middle), bool)
    return ResultEdges(
        u, rings.ring, curve, t0, _unwrapped(t0, t1, curve, rings, arc), inexact, inexact
    )


def _nearest_edges(flat: Flat, u: Floats, v: Floats, twins: Ints | None) -> Ints:
    """The source edge nearest to each result edge; of twins the one that runs its way."""
    own = slice(None) if twins is None else slice(len(flat.points) // 2)
    source = np.stack([flat.points[own], flat.ends[own]], axis=1)
    tree = shapely.STRtree(shapely.linestrings(source))
    which, hit = tree.query_nearest(shapely.points((u + v) / 2), all_matches=False)
    edge = np.empty(len(u), np.int64)
    edge[which] = hit
    if twins is not None:
        along = ((v - u) * (flat.ends[edge] - flat.points[edge])).sum(axis=1)
        edge = np.where(along >= 0, edge, twins[edge])
    return edge


def _corners_at(flat: Flat, curves: OffsetCurves, edge: Ints, middle: Floats) -> tuple[Ints, Bools]:
    """The segment whose start corner is nearest to each place, and where one counts.

    It does where the nearest place of the edge is the end of a segment, and the offset goes
    round the corner there.
    """
    a = flat.points[edge]
    d = flat.ends[edge] - a
    share = ((middle - a) * d).sum(axis=1) / np.maximum((d * d).sum(axis=1), 1e-300)
    first = np.r_[True, flat.segment[1:] != flat.segment[:-1]]
    last = first[flat.after]
    at_head, at_tail = (share <= 1e-9) & first[edge], (share >= 1 - 1e-9) & last[edge]
    corner = np.where(at_head, flat.segment[edge], flat.segment[flat.after][edge])
    return corner, (at_head | at_tail) & curves.turns_outwards[corner]


def _unwrapped(t0: Floats, t1: Floats, curve: Ints, rings: ResultRings, arc: np.ndarray) -> Floats:
    """Corner arcs across the half turn: angles made to run on from edge to edge, in place."""
    _, before = neighbours(rings.ring)
    for i in np.flatnonzero(arc):
        j = before[i]
        if j < i and arc[j] and curve[j] == curve[i]:
            turn = np.rint((t1[j] - t0[i]) / (2 * np.pi)) * 2 * np.pi
            t0[i] += turn
            t1[i] += turn
    return t1


def _straight_corner(curves: OffsetCurves, corner: Ints, middle: Floats, corners: Ints) -> Ints:
    """The bevel of each corner, or the side of its mitre that is nearer."""
    n = curves.n
    (a, tip), (_, b) = curves.mitres
    to_first = _off_line(a[corner], tip[corner], middle)
    to_second = _off_line(tip[corner], b[corner], middle)
    mitre = corner + np.where(to_first <= to_second, 3, 4) * n
    return np.where(corners[corner] == MITRED, mitre, corner + 2 * n)


def _off_line(a: Floats, b: Floats, p: Floats) -> Floats:
    d = b - a
    size = np.maximum(np.hypot(*d.T), 1e-12)
    return np.abs(d[:, 0] * (p - a)[:, 1] - d[:, 1] * (p - a)[:, 0]) / size


def _corner_parameter(curves: OffsetCurves, curve: Ints, p: Floats) -> Floats:
    n = curves.n
    corner = curve % n
    gap = p - curves.segments.start[corner]
    t = np.arctan2(gap[:, 1], gap[:, 0])
    for group, (a, b) in ((2, curves.bevels), (3, curves.mitres[0]), (4, curves.mitres[1])):
        m = curve // n == group
        k = corner[m]
        d = b[k] - a[k]
        t[m] = ((p[m] - a[k]) * d).sum(axis=1) / np.maximum((d * d).sum(axis=1), 1e-300)
    return t
