"""From the kernel's buffer back to curves: which parallel or corner is each result edge?

An edge of the buffer lies on the parallel of the source segment that is nearest to it, or
round the corner that is. ``traced`` finds that out and makes curves of it; offsets of
regions and outlines of strokes both come this way.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from dataclasses import fields as dataclass_fields
from itertools import pairwise
from typing import Final

import numpy as np
import shapely

from stileblade.geometry.assemble import ResultEdges, Runs, join_edges, meet, rejoin
from stileblade.geometry.fit import as_segments
from stileblade.geometry.flatten import Flat, neighbours
from stileblade.geometry.parallel import OffsetCurves
from stileblade.geometry.region import Region
from stileblade.geometry.segments import TAU, Bools, Floats, Ints, Kind, lines
from stileblade.geometry.trace import ResultRings, result_rings
from stileblade.tolerance import TOLERANCE

ROUNDED: Final = 0
BEVELLED: Final = 1
MITRED: Final = 2
_MISSING: Final = 4
_BAYS: Final = 0.15
"""By how much of the distance the kernel may misplace a corner, having left out a bay."""
_POINT: Final = 1e-4
"""mm: a parallel whose ends are this close is a point."""


@dataclass(frozen=True, eq=False)
class Ways:
    """How the edges (m,) of a flattened source belong together where it is many ways side by
    side, each run forwards and back: ``job`` is the number of the buffer that an edge bounds,
    ``twin`` the edge that is the same one backwards, ``back`` whether it is that one itself."""

    job: Ints
    twin: Ints
    back: Bools


def traced(
    grown: np.ndarray, flat: Flat, curves: OffsetCurves, corners: Ints, ways: Ways | None = None
) -> list[Region]:
    """The buffers ``grown`` (k,) as curves: of ``flat`` as a whole, or of the jobs in ``ways``.

    corners (n,) says how each segment's start corner is gone round: ROUNDED, BEVELLED or
    MITRED.
    """
    rings = result_rings(grown)
    if rings is None:
        return [Region.empty()] * len(grown)
    rings = _without_specks(rings)
    edges = _match(rings, flat, curves, corners, ways)
    runs = _without_points(join_edges(edges, _slack(curves)[edges.curve]), curves)
    runs = _with_flat_mitres(runs, curves, corners)
    runs = _at_their_corners(runs, curves)
    runs = _same_turn(meet(runs, curves, _reach(runs, curves)), runs, curves)
    after, _ = neighbours(runs.ring)
    # a closed curve by itself, as a circle's parallel; other curves by themselves make a loop,
    # which starts and ends where they cross themselves
    alone = (after == np.arange(len(runs))) & curves.round_(runs.curve)
    runs.point[alone] = curves.points_at(runs.curve[alone], runs.t0[alone])
    end = runs.point[after]
    t1 = runs.t1.copy()
    forwards = np.where(runs.t1 >= runs.t0, 1.0, -1.0)
    t1[alone] = runs.t0[alone] + forwards[alone] * 2 * np.pi
    lost = _lost(runs, curves, t1, end, rings.origin)
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
    whole, present = rejoin(made, ring, rings.shell, fresh=fresh)
    found = _shared_out(whole, rings.origin[present], len(grown))
    return [
        r if g not in lost and _covers(r, grown[g]) else _as_lines(rings, g)
        for g, r in enumerate(found)
    ]


def _lost(runs: Runs, curves: OffsetCurves, t1: Floats, end: Floats, origin: Ints) -> set[int]:
    """The buffers of which a corner could not be found on the curves that meet there."""
    off = np.maximum(
        np.hypot(*(curves.points_at(runs.curve, runs.t0) - runs.point).T),
        np.hypot(*(curves.points_at(runs.curve, t1) - end).T),
    )
    return set(origin[runs.ring[off > TOLERANCE.crossing]].tolist())


def _covers(region: Region, shape: shapely.Geometry) -> bool:
    """Whether it is as large as the kernel's polygon: no arc runs the long way round."""
    return abs(region.area - shape.area) <= TOLERANCE.crossing * shape.length + TOLERANCE.leftover


def _as_lines(rings: ResultRings, group: int) -> Region:
    """The kernel's own polygon: where features are finer than what it leaves out of its input,
    its corners cannot all be found on the curves."""
    mine = np.flatnonzero(rings.origin == group)
    edges = np.flatnonzero(np.isin(rings.ring, mine))
    sizes = np.bincount(rings.ring, minlength=len(rings.origin))[mine]
    points = rings.points
    first = np.searchsorted(mine, rings.shell[mine])
    return Region(
        lines(points[edges], points[rings.after[edges]]), np.r_[0, np.cumsum(sizes)], first
    )


def _slack(curves: OffsetCurves) -> Floats:
    """How far t may jump within a run of each curve (5n,): a few edges of the flattened source may
    be missing, but where a curve meets itself again, two of its stretches stay apart."""
    own = np.where(curves.segments.kind == Kind.ARC, TAU, 1.0) / curves.segments.pieces_per_parent
    own = np.where(curves.segments.kind == Kind.LINE, np.inf, _MISSING * own)
    return np.concatenate([own, np.full(4 * curves.n, np.inf)])


def _reach(runs: Runs, curves: OffsetCurves) -> Floats:
    """How far the kernel's corners may be off: it leaves out bays that are shallow against the
    distance, which moves corners along, most where parallels of neighbours, or a straight corner
    and its sides, meet at a flat angle."""
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    n = curves.n
    follow = (p < n) & ((q < n) | (q >= 2 * n)) & (curves.before[q % n] == p)
    follow |= (p >= 2 * n) & (q < n) & (p % n == q)
    beside = np.maximum(TOLERANCE.crossing, _BAYS * np.abs(curves.distance)[q % n])
    return np.where(follow, TOLERANCE.grazing, beside)


def _same_turn(met: Runs, runs: Runs, curves: OffsetCurves) -> Runs:
    """Arcs that end in the turn in which the kernel's corner is: a search may go round and round."""
    n = curves.n
    arc = (runs.curve // n == 1) | (runs.curve < n) & (
        curves.segments.kind[runs.curve % n] == Kind.ARC
    )
    ends = []
    for found, near in ((met.t0, runs.t0), (met.t1, runs.t1)):
        ends.append(np.where(arc, found - TAU * np.rint((found - near) / TAU), found))
    return replace(met, t0=ends[0], t1=ends[1])


def _without_points(runs: Runs, curves: OffsetCurves) -> Runs:
    """Without the arcs whose radius is the distance: their parallel is a point, and what comes
    before it meets what comes after."""
    start, end = curves.offset_ends
    point = (curves.segments.kind == Kind.ARC) & (np.hypot(*(end - start).T) < _POINT)
    point &= (curves.segments.start != curves.segments.end).any(axis=1)
    gone = (runs.curve < curves.n) & point[runs.curve % curves.n]
    left = np.bincount(runs.ring[~gone], minlength=int(runs.ring.max(initial=0)) + 1)
    gone &= left[runs.ring] >= 2
    if not gone.any():
        return runs
    after, _ = neighbours(runs.ring)
    meeting = runs.point.copy()
    meeting[after[gone]] = start[runs.curve[gone]]
    return replace(runs, point=meeting).take(np.flatnonzero(~gone))


def _with_flat_mitres(runs: Runs, curves: OffsetCurves, corners: Ints) -> Runs:
    """With the sides of mitres beside curves whose corner is so flat that the kernel has its tip
    on the first edge of the flattened curve."""
    n, kind = curves.n, curves.segments.kind
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    k = q % n
    flat = (p < n) & (q < n) & (curves.before[k] == p % n) & (before != np.arange(len(runs)))
    flat &= (corners[k] == MITRED) & curves.turns_outwards[k]
    slack, span = _slack(curves)[:n], curves.segments.span
    flat &= np.abs(runs.t1[before] - span[p % n, 1]) <= slack[p % n]
    flat &= np.abs(runs.t0 - span[k, 0]) <= slack[k]
    # one side of a mitre may lie so close to the curve beside it that its edges were taken for it
    lone = (corners[k] == MITRED) & (before != np.arange(len(runs)))
    to_tip = lone & (p < n) & (q // n == 4) & (curves.before[k] == p % n)
    from_tip = lone & (p // n == 3) & (q < n) & (p % n == k)
    sides = [
        (np.flatnonzero(flat & (kind[p % n] != Kind.LINE) | to_tip), 3),
        (np.flatnonzero(flat & (kind[k] != Kind.LINE) | from_tip), 4),
    ]
    count = sum(len(rows) for rows, _ in sides)
    if not count:
        return runs
    row = np.concatenate([rows for rows, _ in sides])
    group = np.concatenate([np.full(len(rows), g) for rows, g in sides])
    put_in = Runs(
        k[row] + group * n,
        np.zeros(count),
        np.ones(count),
        np.zeros(count, bool),
        np.zeros(count, bool),
        runs.point[row],
        runs.ring[row],
    )
    # before the run at ``row``, the incoming side first
    place = np.concatenate([np.arange(len(runs)) + 0.9, row + 0.1 * (group - 2)])
    fields = {
        f.name: np.concatenate([getattr(runs, f.name), getattr(put_in, f.name)])
        for f in dataclass_fields(Runs)
    }
    return Runs(**fields).take(np.argsort(place, kind="stable"))


def _at_their_corners(runs: Runs, curves: OffsetCurves) -> Runs:
    """Where a parallel goes over into the arc or mitre at its own corner, or that into the next,
    they meet at the parallel's own end: no search for a touch finds it better. Parallels of
    neighbours that run on into each other do as well."""
    n = curves.n
    _, before = neighbours(runs.ring)
    p, q = runs.curve[before], runs.curve
    start, end = curves.offset_ends
    into = ((q // n == 1) | (q // n == 3)) & (p < n) & (curves.before[q % n] == p)
    out = ((p // n == 1) | (p // n == 4)) & (q < n) & (p % n == q)
    slack, span = np.minimum(_slack(curves)[:n], 0.5), curves.segments.span
    into &= np.abs(runs.t1[before] - span[p % n, 1]) <= slack[p % n]
    out &= np.abs(runs.t0 - span[q % n, 0]) <= slack[q % n]
    t0, t1 = runs.t0.copy(), runs.t1.copy()
    exact0, exact1 = runs.exact0.copy(), runs.exact1.copy()
    for rows, arc_t, spots in (
        (np.flatnonzero(into), t0, end[p[into]]),
        (np.flatnonzero(out), t1, start[q[out]]),
    ):
        on_arc = rows if arc_t is t0 else before[rows]
        on_line = before[rows] if arc_t is t0 else rows
        gap = spots - curves.segments.start[runs.curve[on_arc] % n]
        angle = np.arctan2(gap[:, 1], gap[:, 0])
        turned = np.remainder(angle - arc_t[on_arc] + np.pi, 2 * np.pi) - np.pi
        is_arc = runs.curve[on_arc] // n == 1
        arc_t[on_arc] = np.where(is_arc, arc_t[on_arc] + turned, 0.0 if arc_t is t0 else 1.0)
        own = curves.segments.span[runs.curve[on_line]]
        if arc_t is t0:
            t1[on_line] = own[:, 1]
        else:
            t0[on_line] = own[:, 0]
        exact0[rows] = exact1[before[rows]] = True
    # where the source runs on smoothly so do its parallels
    smooth = (p < n) & (q < n) & (curves.before[q % n] == p) & curves.runs_on[q % n]
    smooth &= np.abs(runs.t1[before] - span[p % n, 1]) <= slack[p % n]
    smooth &= np.abs(runs.t0 - span[q % n, 0]) <= slack[q % n]
    rows = np.flatnonzero(smooth)
    t1[before[rows]], t0[rows] = span[p[rows], 1], span[q[rows], 0]
    exact0[rows] = exact1[before[rows]] = True
    return replace(runs, t0=t0, t1=t1, exact0=exact0, exact1=exact1)


def _shared_out(whole: Region, origin: Ints, count: int) -> list[Region]:
    """The rings of ``whole`` as one region for each origin (r,), which does not decrease."""
    if count == 1:
        return [whole]
    first = np.searchsorted(origin, np.arange(count + 1))
    found = []
    for a, b in pairwise(first.tolist()):
        rings = whole.rings[a : b + 1]
        segments = whole.segments.take(slice(int(rings[0]), int(rings[-1])))
        found.append(Region(segments, rings - rings[0], whole.shell[a:b] - a))
    return found


def _without_specks(rings: ResultRings) -> ResultRings:
    """Without edges no longer than the rounding of vertices, which run anywhere."""
    keep = np.hypot(*(rings.points[rings.after] - rings.points).T) > 4 * TOLERANCE.grid
    ring = rings.ring[keep]
    return ResultRings(rings.points[keep], ring, rings.shell, neighbours(ring)[0], rings.origin)


def _match(
    rings: ResultRings, flat: Flat, curves: OffsetCurves, corners: Ints, ways: Ways | None
) -> ResultEdges:
    """Result edges with the offset curve they lie on, and the parameters at their ends."""
    n = curves.n
    u, v = rings.points, rings.points[rings.after]
    middle = (u + v) / 2
    edge = _nearest_edges(flat, curves, u, v, rings.origin[rings.ring], ways)
    corner, is_corner = _corners_at(flat, curves, edge, middle)
    if ways is not None:  # the corner that the other direction makes of the same place
        other, is_other = _corners_at(flat, curves, ways.twin[edge], middle)
        a, b = curves.bevels
        spot = curves.segments.start[other]
        side = ((middle - spot) * (a[other] + b[other] - 2 * spot)).sum(axis=1)
        swap = ~is_corner & is_other & (side >= -1e-9)
        edge = np.where(swap, ways.twin[edge], edge)
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
    # arcs run the short way
    arc = (curve >= n) & (curve < 2 * n)
    t1[arc] = t0[arc] + np.remainder(t1[arc] - t0[arc] + np.pi, 2 * np.pi) - np.pi
    inexact = np.zeros(len(middle), bool)
    t1 = _unwrapped(t0, t1, curve, rings, arc)
    edges = ResultEdges(u, rings.ring, curve, t0, t1, inexact, inexact)
    # an edge that turns round a flattened corner has no length along the parallel
    still = (curve < n) & (t0 == t1)
    left = np.bincount(rings.ring, weights=~still, minlength=int(rings.ring[-1]) + 1)
    keep = ~still | (left[rings.ring] < 1)
    return edges if keep.all() else edges.take(np.flatnonzero(keep))


def _nearest(lines: Floats, edges: Floats, distance: float) -> Ints:
    """The number of the line (m, 2, 2) that each edge (k, 2, 2) of the buffer runs along, else of
    the one nearest to it: beside a flat cap or a bevel a corner lies nearer that has no part."""
    shapes = shapely.linestrings(lines)
    tree = shapely.STRtree(shapes)
    spots = shapely.points(edges.mean(axis=1))
    spot, line = tree.query(spots, predicate="dwithin", distance=distance + TOLERANCE.flatten)
    away = shapely.distance(spots[spot], shapes[line])
    a, b = lines[line, 0], lines[line, 1]
    size = np.maximum(((b - a) ** 2).sum(axis=1), 1e-300)
    share = ((edges[spot].mean(axis=1) - a) * (b - a)).sum(axis=1) / size
    way = edges[spot, 1] - edges[spot, 0]
    turned = np.abs(way[:, 0] * (b - a)[:, 1] - way[:, 1] * (b - a)[:, 0])
    length = np.hypot(*way.T) * np.sqrt(size)
    beside = (share > 0) & (share < 1) & (turned < 0.1 * length)
    beside &= np.abs(away - distance) < 2 * TOLERANCE.flatten
    order = np.lexsort((away, ~beside, spot))
    first = order[np.r_[True, spot[order][1:] != spot[order][:-1]]] if len(order) else order
    nearest = np.full(len(spots), -1, np.int64)
    nearest[spot[first]] = line[first]
    far = np.flatnonzero(nearest < 0)
    if len(far):
        which, hit = tree.query_nearest(spots[far], all_matches=False)
        nearest[far[which]] = hit
    return nearest


def _nearest_edges(
    flat: Flat, curves: OffsetCurves, u: Floats, v: Floats, origin: Ints, ways: Ways | None
) -> Ints:
    """The source edge nearest to each result edge; of twins the one that runs its way."""
    lines = np.stack([flat.points, flat.ends], axis=1)
    edges = np.stack([u, v], axis=1)
    distance = np.abs(curves.distance)[flat.segment]
    if ways is None:
        return _nearest(lines, edges, float(distance[0]))
    edge = np.empty(len(u), np.int64)
    there = np.flatnonzero(~ways.back)
    first = np.searchsorted(ways.job[there], np.arange(ways.job[-1] + 2))
    bounds = np.searchsorted(origin, np.arange(len(first)))
    for job in np.unique(origin):
        own = there[first[job] : first[job + 1]]
        part = slice(bounds[job], bounds[job + 1])
        edge[part] = own[_nearest(lines[own], edges[part], float(distance[own[0]]))]
    along = ((v - u) * (flat.ends[edge] - flat.points[edge])).sum(axis=1)
    return np.where(along >= 0, edge, ways.twin[edge])


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
    goes_on = arc & arc[before] & (curve == curve[before]) & (before < np.arange(len(arc)))
    turn = np.where(goes_on, np.rint((t1[before] - t0) / (2 * np.pi)), 0.0)
    if turn.any():
        turn = np.cumsum(turn)
        head = np.maximum.accumulate(np.where(goes_on, 0, np.arange(len(arc))))
        turn -= turn[head]
        t0 += turn * 2 * np.pi
        t1 += turn * 2 * np.pi
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
