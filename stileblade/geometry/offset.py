"""Regions grown or shrunk by a distance.

The kernel's buffer says what bounds the result; each of its edges is traced to the parallel
of a source segment, or to the arc, bevel or mitre at a corner, and those are put together
like the outcome of any set operation.

Joins: ROUND; MITRE, which beyond its limit (length of the mitre by distance, as SVG counts
it) becomes a bevel; BEVEL.
"""

from __future__ import annotations

from enum import StrEnum

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.assemble import ResultEdges, join_edges, meet, rejoin
from stileblade.geometry.flatten import neighbours
from stileblade.geometry.parallel import OffsetCurves, as_segments, circular
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats, Ints, Segments
from stileblade.geometry.set_operations import run_kernel
from stileblade.geometry.trace import ResultRings, result_rings
from stileblade.tolerance import TOLERANCE


class Join(StrEnum):
    ROUND = "round"
    MITRE = "mitre"
    BEVEL = "bevel"


def largest_inset(region: Region) -> float:
    """The inward distance in mm at which nothing is left."""
    if not region:
        return 0.0
    shapes = shapely.get_parts(region.polygons)
    return float(shapely.length(shapely.maximum_inscribed_circle(shapes, 0.001)).max())


def offset(
    region: Region, distance: float, *, join: Join = Join.ROUND, mitre_limit: float = 2.0
) -> Region:
    """The region grown by ``distance`` mm (negative: shrunk); empty where nothing is left."""
    if not region or distance == 0:
        return region
    if mitre_limit < 1:
        raise GeometryError(f"mitre_limit={mitre_limit}: must be 1 or more.")
    region = _without_closed_segments(region)
    _, before = neighbours(np.repeat(np.arange(len(region.shell)), np.diff(region.rings)))
    curves = OffsetCurves(region.segments, distance, before)
    rings = result_rings(_buffer(region, curves, join, mitre_limit))
    if rings is None:
        return Region.empty()
    edges = _match(rings, region, curves, join, mitre_limit)
    runs = meet(join_edges(edges, np.inf), curves)
    after, _ = neighbours(runs.ring)
    alone = after == np.arange(len(runs))  # a closed curve by itself, as a circle's parallel
    runs.point[alone] = curves.points_at(runs.curve[alone], runs.t0[alone])
    end = runs.point[after]
    t1 = runs.t1.copy()
    t1[alone] = runs.t0[alone] + np.sign(distance_of(runs.t0, runs.t1)[alone]) * 2 * np.pi
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


def _without_closed_segments(region: Region) -> Region:
    """Whole ellipses in four stretches: a fitted curve cannot close on itself."""
    segments = region.segments
    round_, _ = circular(segments)
    whole = (segments.start == segments.end).all(axis=1) & ~round_
    if not whole.any():
        return region
    times = np.where(whole, 4, 1)
    index = np.repeat(np.arange(len(segments)), times)
    part = np.arange(len(index)) - np.repeat(np.cumsum(times) - times, times)
    cut = segments.take(index)
    t0, step = cut.span[:, 0], (cut.span[:, 1] - cut.span[:, 0]) / times[index]
    span = np.stack([t0 + part * step, t0 + (part + 1) * step], axis=1)
    span[~whole[index]] = cut.span[~whole[index]]
    n = np.arange(len(cut))
    start = np.where((part == 0)[:, None], cut.start, cut.points_at(n, span[:, 0]))
    last = part == times[index] - 1
    end = np.where(last[:, None], cut.end, np.roll(start, -1, axis=0))
    rings = np.r_[0, np.cumsum(times)][region.rings]
    return Region(Segments(cut.kind, cut.coef, span, start, end), rings, region.shell)


def distance_of(t0: Floats, t1: Floats) -> Floats:
    """Signed way from t0 to t1, forwards where they are equal."""
    return np.where(t1 >= t0, 1.0, -1.0)


def _buffer(
    region: Region, curves: OffsetCurves, join: Join, mitre_limit: float
) -> shapely.Geometry:
    shape = shapely.simplify(region.polygons, TOLERANCE.flatten / 2, preserve_topology=True)
    radius = abs(curves.distance)
    quarter = max(4, int(np.ceil(np.pi / 4 / np.arccos(max(1 - TOLERANCE.flatten / radius, 0.7)))))
    style = "round" if join is Join.ROUND else "bevel"
    grown = shapely.buffer(shape, curves.distance, quad_segs=quarter, join_style=style)
    if join is not Join.MITRE:
        return grown
    sharp = np.flatnonzero(curves.turns_outwards & (curves.mitre_ratio <= mitre_limit))
    if not len(sharp):
        return grown
    (a, tip), (_, b) = curves.mitres
    corner = curves.segments.start
    wedges = np.stack([corner, a, tip, b], axis=1)[sharp]
    wedges = shapely.polygons(np.concatenate([wedges, wedges[:, :1]], axis=1))
    if curves.distance > 0:
        return run_kernel(shapely.union_all, np.r_[[grown], wedges])
    outside = run_kernel(shapely.union_all, wedges)
    return run_kernel(shapely.difference, grown, outside)


def _match(
    rings: ResultRings, region: Region, curves: OffsetCurves, join: Join, mitre_limit: float
) -> ResultEdges:
    """Result edges with the offset curve they lie on, and the parameters at their ends."""
    flat, n = region.flat, curves.n
    u, v = rings.points, rings.points[rings.after]
    middle = (u + v) / 2
    tree = shapely.STRtree(shapely.linestrings(np.stack([flat.points, flat.ends], axis=1)))
    which, hit = tree.query_nearest(shapely.points(middle), all_matches=False)
    edge = np.empty(len(middle), np.int64)
    edge[which] = hit
    a, b = flat.points[edge], flat.ends[edge]
    d = b - a
    size = np.maximum((d * d).sum(axis=1), 1e-300)
    share = ((middle - a) * d).sum(axis=1) / size
    segment = flat.segment[edge]
    first = np.r_[True, flat.segment[1:] != flat.segment[:-1]]
    last = first[flat.after]
    following = flat.segment[flat.after]
    # corners: nearest is the end of an edge that starts or ends a segment
    at_head, at_tail = (share <= 1e-9) & first[edge], (share >= 1 - 1e-9) & last[edge]
    corner = np.where(at_head, segment, following[edge])
    is_corner = (at_head | at_tail) & curves.turns_outwards[corner]
    curve = np.where(is_corner, corner + n, segment)
    if join is not Join.ROUND and is_corner.any():
        curve[is_corner] = _straight_corner(
            curves, corner[is_corner], middle[is_corner], join, mitre_limit
        )
    t0, t1 = np.empty(len(middle)), np.empty(len(middle))
    for t, p in ((t0, u), (t1, v)):
        s = np.clip(((p - a) * d).sum(axis=1) / size, 0, 1)
        straight = np.isin(region.segments.kind[segment], [0])
        along = flat.t0[edge] + s * (flat.t1[edge] - flat.t0[edge])
        free = flat.t0[edge] + ((p - a) * d).sum(axis=1) / size * (flat.t1[edge] - flat.t0[edge])
        t[:] = np.where(straight, free, along)
        t[is_corner] = _corner_parameter(curves, curve[is_corner], p[is_corner])
    # an edge that turns round a flattened corner has no length along the parallel
    own = ~is_corner & (t0 == t1)
    t1[own] += 1e-12 * np.sign(region.segments.span[segment[own]] @ np.array([-1.0, 1.0]))
    # arcs run the short way
    arc = (curve >= n) & (curve < 2 * n)
    t1[arc] = t0[arc] + np.remainder(t1[arc] - t0[arc] + np.pi, 2 * np.pi) - np.pi
    inexact = np.zeros(len(middle), bool)
    return ResultEdges(
        u, rings.ring, curve, t0, _unwrapped(t0, t1, curve, rings, arc), inexact, inexact
    )


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


def _straight_corner(
    curves: OffsetCurves, corner: Ints, middle: Floats, join: Join, mitre_limit: float
) -> Ints:
    n = curves.n
    out = corner + 2 * n
    if join is Join.MITRE:
        sharp = curves.mitre_ratio[corner] <= mitre_limit
        (a, tip), (_, b) = curves.mitres
        to_first = _off_line(a[corner], tip[corner], middle)
        to_second = _off_line(tip[corner], b[corner], middle)
        out = np.where(sharp, corner + np.where(to_first <= to_second, 3, 4) * n, out)
    return out


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
