"""From the kernel's buffer back to curves: which parallel or corner is each result edge?

An edge of the buffer lies on the parallel of the source segment that is nearest to it, or
round the corner that is. ``traced`` finds that out and makes curves of it; offsets of
regions and outlines of strokes both come this way.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import compress

import numpy as np
import shapely

from stileblade.geometry.assemble import meet, rejoin
from stileblade.geometry.crossing import feet
from stileblade.geometry.fill import Painted, fill_all
from stileblade.geometry.fit import as_segments
from stileblade.geometry.flatten import Flat, neighbours, run_starts
from stileblade.geometry.leftovers import without_leftovers
from stileblade.geometry.measurement import signed_areas
from stileblade.geometry.offset_bridges import joined, with_bridges
from stileblade.geometry.offset_joints import (
    APART,
    at_their_corners,
    reach_of,
    same_turn,
    strides,
    whole_lengths,
    with_flat_mitres,
    without_points,
)
from stileblade.geometry.offset_kernel import SIDES, Kernel
from stileblade.geometry.parallel import MITRED, ROUNDED, OffsetCurves
from stileblade.geometry.region import Region, gather, shell_polygons
from stileblade.geometry.runs import ResultEdges, join_edges
from stileblade.geometry.segments import (
    Bools,
    Floats,
    Ints,
    Kind,
    Segments,
    concatenate,
    lines,
)
from stileblade.geometry.trace import ResultRings, result_rings, shared_out
from stileblade.geometry.vectors import crosses, dots, norms
from stileblade.tolerance import TOLERANCE


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
    job = np.zeros(len(flat.points), np.int64) if ways is None else ways.job
    there = np.arange(len(flat.points)) if ways is None else np.flatnonzero(~ways.back)
    kernel = Kernel(rings, flat, job, there)
    edges = _match(kernel, curves, corners, ways)
    runs = without_points(join_edges(edges, strides(edges, curves)), curves)
    runs = with_flat_mitres(runs, curves, corners)
    runs = at_their_corners(runs, curves)
    kernels = runs.point
    met = meet(runs, curves, reach_of(runs, curves), apart=APART, own=curves.round_(runs.curve))
    runs = same_turn(met, runs, curves)
    runs, kept = without_leftovers(runs, curves, whole=whole_lengths(curves))
    kernels = kernels[kept]
    after, _ = neighbours(runs.ring)
    # a closed curve by itself, as a circle's parallel; other curves by themselves make a loop,
    # which starts and ends where they cross themselves
    alone = (after == np.arange(len(runs))) & curves.round_(runs.curve)
    runs.point[alone] = curves.points_at(runs.curve[alone], runs.t0[alone])
    t1 = runs.t1.copy()
    forwards = np.where(runs.t1 >= runs.t0, 1.0, -1.0)
    t1[alone] = runs.t0[alone] + forwards[alone] * 2 * np.pi
    whole, astray = runs, np.zeros(len(runs), bool)
    for _ in range(_ROUNDS):
        runs, joints, kept = joined(whole, kernels, t1, curves, kernel, astray)
        made, row = as_segments(curves, runs.curve, joints.t0, joints.t1, joints.start, joints.end)
        strays = kernel.strays(made, row, runs, curves)
        if not len(strays):
            break
        astray[kept[strays]] = True
    lost = np.unique(runs.ring[[*joints.gaps, *strays]])
    _, before = neighbours(runs.ring)
    made, row = with_bridges(made, row, joints, before)
    long_enough = (norms(made.end - made.start) > 1e-7) | (
        np.abs(made.span[:, 1] - made.span[:, 0]) > 1
    )
    made, row = made.take(np.flatnonzero(long_enough)), row[long_enough]
    ring = runs.ring[row]
    group, source = np.divmod(runs.curve[row], curves.n)
    before = neighbours(ring)[1]
    mitred = (group > 2) | (group[before] > 2)
    fresh = mitred | (np.abs(source - source[before]) > 1)
    made, ring, fresh = _with_kernel_rings(made, ring, fresh, lost, kernel, curves)
    region, present = rejoin(made, ring, rings.shell, fresh=fresh)
    found = shared_out(region, rings.origin[present], len(grown))
    if ways is None:
        return _simple(found)
    # of many strokes those alone in which a joint was not found
    doubtful = runs.ring[[bridge.row for bridge in joints.bridges]]
    numbers = np.unique(rings.origin[np.r_[doubtful, lost]]).tolist()
    for number, region in zip(numbers, _simple([found[i] for i in numbers]), strict=True):
        found[number] = region
    return found


def _simple(regions: list[Region]) -> list[Region]:
    """The regions without loops in which contours cross themselves, by less than their curves are
    fitted to: where two parallels run close beside each other."""
    whole = gather(regions)
    if not whole:
        return regions
    owner = np.repeat(np.arange(len(regions)), [len(region.shell) for region in regions])
    polygons, shells = shell_polygons(whole.flat.points, whole.flat.ring, whole.shell)
    present, of = np.unique(owner[shells], return_inverse=True)
    crossing = present[~shapely.is_valid(shapely.multipolygons(polygons, indices=of))].tolist()
    found, anew = list(regions), []
    for i in crossing:
        parts = regions[i].parts()
        valid = shapely.is_valid([part.polygons for part in parts])
        if valid.all():  # they overlap
            valid, parts = np.array([False]), [regions[i]]
        found[i] = gather(list(compress(parts, valid)))
        anew += [(i, Painted([c.segments for c in p.contours])) for p in compress(parts, ~valid)]
    for (i, _), filled in zip(anew, fill_all([painting for _, painting in anew]), strict=True):
        found[i] = gather([found[i], filled])
    return found


_ROUNDS = 2
"""How many times what has gone astray is left out."""


def _with_kernel_rings(
    made: Segments, ring: Ints, fresh: Bools, lost: Ints, kernel: Kernel, curves: OffsetCurves
) -> tuple[Segments, Ints, Bools]:
    """With the kernel's own polygon for rings that are ``lost``, or another size than it: where
    features are finer than the flattening, corners cannot all be found on the curves, and an arc
    may have run the long way round."""
    rings = kernel.rings
    u, v = rings.points, rings.points[rings.after]
    count = len(rings.shell)
    around = np.bincount(rings.ring, norms(v - u), minlength=count)
    wanted = np.bincount(rings.ring, crosses(u, v), minlength=count) / 2
    area = np.bincount(ring, signed_areas(made), minlength=count)
    bad = np.abs(area - wanted) > TOLERANCE.crossing * around + TOLERANCE.leftover
    bad[lost] = True
    if not bad.any():
        return made, ring, fresh
    kept, numbers = np.flatnonzero(~bad[ring]), np.flatnonzero(bad)
    first, last = (np.searchsorted(rings.ring, numbers, side) for side in SIDES)
    ways = [np.r_[u[i:j], u[i : i + 1]] for i, j in zip(first, last, strict=True)]
    ways = kernel.on_outline(ways, rings.origin[numbers], curves)
    parts = [lines(way[:-1], np.r_[way[1:-1], way[:1]]) for way in ways]
    made = concatenate([made.take(kept), *parts])
    count_of = [len(part) for part in parts]
    ring = np.r_[ring[kept], np.repeat(numbers, count_of)]
    fresh = np.r_[fresh[kept], np.zeros(sum(count_of), bool)]
    order = np.argsort(ring, kind="stable")
    return made.take(order), ring[order], fresh[order]


def _without_specks(rings: ResultRings) -> ResultRings:
    """Without edges no longer than the rounding of vertices, which run anywhere."""
    keep = norms(rings.points[rings.after] - rings.points) > 4 * TOLERANCE.grid
    ring = rings.ring[keep]
    return ResultRings(rings.points[keep], ring, rings.shell, neighbours(ring)[0], rings.origin)


def _match(kernel: Kernel, curves: OffsetCurves, corners: Ints, ways: Ways | None) -> ResultEdges:
    """Result edges with the offset curve they lie on, and the parameters at their ends."""
    n, rings, flat = curves.n, kernel.rings, kernel.flat
    u, v = rings.points, rings.points[rings.after]
    middle = (u + v) / 2
    edge = _nearest_edges(kernel, curves, u, v, ways)
    corner, is_corner = _corners_at(flat, curves, edge, middle)
    if ways is not None:  # the corner that the other direction makes of the same place
        other, is_other = _corners_at(flat, curves, ways.twin[edge], middle)
        a, b = curves.bevels
        spot = curves.segments.start[other]
        side = dots(middle - spot, a[other] + b[other] - 2 * spot)
        swap = ~is_corner & is_other & (side >= -1e-9)
        edge = np.where(swap, ways.twin[edge], edge)
        corner, is_corner = np.where(swap, other, corner), is_corner | is_other
    edge = _of_bends(flat, curves, edge, middle, ~is_corner)
    a = flat.points[edge]
    d = flat.ends[edge] - a
    size = np.maximum(dots(d, d), 1e-300)
    segment = flat.segment[edge]
    curve = np.where(is_corner, corner + n, segment)
    straight = is_corner & (corners[corner] != ROUNDED)
    if straight.any():
        curve[straight] = _straight_corner(curves, corner[straight], middle[straight], corners)
    t0, t1 = np.empty(len(middle)), np.empty(len(middle))
    line = curves.segments.kind[segment] == Kind.LINE
    for t, p in ((t0, u), (t1, v)):
        share = dots(p - a, d) / size
        share = np.where(line, share, np.clip(share, 0, 1))
        t[:] = flat.t0[edge] + share * (flat.t1[edge] - flat.t0[edge])
        t[is_corner] = _corner_parameter(curves, curve[is_corner], p[is_corner])
    # arcs run the short way
    arc = (curve >= n) & (curve < 2 * n)
    t1[arc] = t0[arc] + np.remainder(t1[arc] - t0[arc] + np.pi, 2 * np.pi) - np.pi
    # tight bends are hardly longer than the corners of their flattened forms, which the kernel turns
    # about: there is as much of their parallels in that as a person sees
    turned = np.flatnonzero((curve < n) & (t0 == t1) & ~line)
    turned = turned[norms((v - u)[turned]) > 2 * curves.flatness]
    for t, p in ((t0, u), (t1, v)):
        t[turned] = feet(curves, curve[turned], t[turned], p[turned])
    inexact = np.zeros(len(middle), bool)
    t1 = _unwrapped(t0, t1, curve, rings, arc)
    edges = ResultEdges(u, rings.ring, curve, t0, t1, inexact, inexact)
    # an edge that turns round a flattened corner has no length along the parallel
    still = (curve < n) & (t0 == t1)
    left = np.bincount(rings.ring, weights=~still, minlength=int(rings.ring[-1]) + 1)
    keep = ~still | (left[rings.ring] < 1)
    return edges if keep.all() else edges.take(np.flatnonzero(keep))


_BOX = 8
"""Long lines are looked up by boxes of about this many times the reach, slanting ones having large
boxes."""
_FAR = 1e4
"""mm: more than any distance."""


def _nearest(
    lines: Floats,
    line_job: Ints,
    edges: Floats,
    edge_job: Ints,
    distance: Floats,
    flatness: float,
) -> Ints:
    """The number of the line (m, 2, 2) of its job that each edge (k, 2, 2) of a buffer runs along,
    else of the one nearest to it: beside a flat cap or a bevel a corner lies nearer that has no
    part; -1 where none is near. ``distance`` is each job's (jobs,)."""
    # one coordinate after the other goes fastest
    (x0, y0), (dx, dy) = lines[:, 0].T.copy(), (lines[:, 1] - lines[:, 0]).T.copy()
    size = np.maximum(dx * dx + dy * dy, 1e-300)
    length = np.sqrt(size)
    middle, (wx, wy) = (edges[:, 0] + edges[:, 1]) / 2, (edges[:, 1] - edges[:, 0]).T.copy()
    mx, my = middle.T.copy()
    reach = distance + flatness
    spot, line = _close_pairs(lines, length, line_job, middle, edge_job, reach)
    # by the middles of lines first
    most = reach[edge_job]
    x, y = mx.take(spot) - (x0 + dx / 2).take(line), my.take(spot) - (y0 + dy / 2).take(line)
    around = most.take(spot) + (length / 2).take(line)
    near = np.flatnonzero(x * x + y * y <= around * around)
    spot, line = spot[near], line[near]
    x, y = mx.take(spot) - x0.take(line), my.take(spot) - y0.take(line)
    along = dx.take(line), dy.take(line)
    share = (x * along[0] + y * along[1]) / size.take(line)
    inside = np.clip(share, 0, 1)
    x, y = x - inside * along[0], y - inside * along[1]
    away = np.sqrt(x * x + y * y)
    near = np.flatnonzero(away <= most.take(spot))
    spot, line, share, away = spot[near], line[near], share[near], away[near]
    turned = wx.take(spot) * along[1].take(near) - wy.take(spot) * along[0].take(near)
    flat = 0.1 * np.hypot(wx, wy).take(spot) * length.take(line)
    beside = (share > 0) & (share < 1) & (np.abs(turned) < flat)
    beside &= np.abs(away - distance[edge_job].take(spot)) < 2 * flatness
    # of each spot's, which stand together, the nearest of those beside it, else of all
    away[~beside] += _FAR
    starts = run_starts(spot)
    least = np.minimum.reduceat(away, starts) if len(starts) else away
    nearest = np.full(len(edges), -1, np.int64)
    best = np.flatnonzero(away == np.repeat(least, np.diff(np.r_[starts, len(spot)])))[::-1]
    nearest[spot[best]] = line[best]  # the first of those as near
    return nearest


def _close_pairs(
    lines: Floats, length: Floats, line_job: Ints, spots: Floats, spot_job: Ints, reach: Floats
) -> tuple[Ints, Ints]:
    """Numbers of spots and of lines of the same job that may be nearer than its reach, to be sorted
    out by their distances: those that share a cell of a grid, of which each job has its own."""
    step = np.clip(float(length.mean()) * _BOX, reach / 2, _BOX * reach)
    step = np.maximum(step, float(length.sum()) / len(spots))
    cell = step + 2 * reach
    times = np.ceil(np.maximum(length / step[line_job], 1)).astype(np.int64)
    owner = np.repeat(np.arange(len(lines)), times)
    part = np.arange(len(owner)) - np.repeat(np.cumsum(times) - times, times)
    shift = (lines[:, 1] - lines[:, 0])[owner] / times[owner, None]
    start = lines[owner, 0] + part[:, None] * shift
    job = line_job[owner]
    wide, size = reach[job], cell[job]
    low, high = [], []
    for a, way in zip(start.T, shift.T, strict=True):
        b = a + way
        low.append(np.floor((np.minimum(a, b) - wide) / size).astype(np.int64))
        high.append(np.floor((np.maximum(a, b) + wide) / size).astype(np.int64))
    keys, owners = [], []
    for x, y in ((0, 0), (1, 0), (0, 1), (1, 1)):  # a part of a line reaches no further
        there = np.flatnonzero((low[0] + x <= high[0]) & (low[1] + y <= high[1]))
        keys.append(_cell_key(job[there], low[0][there] + x, low[1][there] + y))
        owners.append(owner[there])
    key, line = np.concatenate(keys), np.concatenate(owners)
    order = np.argsort(key, kind="stable")
    key, line = key[order], line[order]
    column, row = (np.floor(v / cell[spot_job]).astype(np.int64) for v in spots.T)
    wanted = _cell_key(spot_job, column, row)
    first = np.searchsorted(key, wanted, "left")
    count = np.searchsorted(key, wanted, "right") - first
    spot = np.repeat(np.arange(len(spots)), count)
    nth = np.arange(len(spot)) - np.repeat(np.cumsum(count) - count, count)
    return spot, line[np.repeat(first, count) + nth]


def _cell_key(job: Ints, column: Ints, row: Ints) -> Ints:
    """One integer for each cell (m,) of each job; of cells so far out that they share one the
    distances tell."""
    return (job << 42) + ((column & 0x1FFFFF) << 21) + (row & 0x1FFFFF)


def _nearest_edges(
    kernel: Kernel, curves: OffsetCurves, u: Floats, v: Floats, ways: Ways | None
) -> Ints:
    """The source edge nearest to each result edge; of twins the one that runs its way."""
    flat, there, origin = kernel.flat, kernel.edges, kernel.rings.origin[kernel.rings.ring]
    job = kernel.job[there]
    lines = np.stack([flat.points[there], flat.ends[there]], axis=1)
    edges, reach = np.stack([u, v], axis=1), kernel.distances(curves)
    near = _nearest(lines, job, edges, origin, reach, curves.flatness)
    edge, far = there[near], np.flatnonzero(near < 0)
    if len(far):
        edge[far] = kernel.nearest_edges((u + v)[far] / 2, origin[far])
    if ways is None:
        return edge
    along = dots(v - u, flat.ends[edge] - flat.points[edge])
    return np.where(along >= 0, edge, ways.twin[edge])


def _of_bends(flat: Flat, curves: OffsetCurves, edge: Ints, middle: Floats, free: Bools) -> Ints:
    """The edges (k,), but for those of lines that a place is beyond the end of, where a curve goes on:
    a bend as small as the flattening is a corner to the kernel, and turned about as part of either."""
    kind = curves.segments.kind[flat.segment]
    a = flat.points[edge]
    d = flat.ends[edge] - a
    length = np.maximum(norms(d), 1e-300)
    along = dots(middle - a, d) / length
    free = free & (kind[edge] == Kind.LINE)
    found = edge.copy()
    for beyond, beside in (
        (along < -curves.flatness, flat.before),
        (along > length + curves.flatness, flat.after),
    ):
        other = beside[edge]
        bend = free & beyond & (kind[other] != Kind.LINE)
        found[bend] = other[bend]
    return found


def _corners_at(flat: Flat, curves: OffsetCurves, edge: Ints, middle: Floats) -> tuple[Ints, Bools]:
    """The segment whose start corner is nearest to each place, and where one counts.

    It does where the nearest place of the edge is the end of a segment, and the offset goes
    round the corner there.
    """
    a = flat.points[edge]
    d = flat.ends[edge] - a
    share = dots(middle - a, d) / np.maximum(dots(d, d), 1e-300)
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
    size = np.maximum(norms(d), 1e-12)
    return np.abs(crosses(d, p - a)) / size


def _corner_parameter(curves: OffsetCurves, curve: Ints, p: Floats) -> Floats:
    n = curves.n
    corner = curve % n
    gap = p - curves.segments.start[corner]
    t = np.arctan2(gap[:, 1], gap[:, 0])
    for group, (a, b) in ((2, curves.bevels), (3, curves.mitres[0]), (4, curves.mitres[1])):
        m = curve // n == group
        k = corner[m]
        d = b[k] - a[k]
        t[m] = dots(p[m] - a[k], d) / np.maximum(dots(d, d), 1e-300)
    return t
