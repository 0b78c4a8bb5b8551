"""Which offset curve is each edge of the kernel's polygon on?

An edge of the buffer lies on the parallel of the source edge that is nearest to it, or round the
corner that is. Invariant of what comes out: every edge's curve is of its own job, and from the places
of that curve nearest to them its ends are off by no more than twice the flattening, but where the
kernel is: in a few edges, where it rounds bends or closes bays, by up to a fifth of the distance.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.geometry.curves.arrays import begins, neighbours, true_at
from stileblade.geometry.curves.crossing import feet
from stileblade.geometry.curves.flatten import Flat
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import Corner, Of, OffsetCurves
from stileblade.geometry.curves.segments import TAU, Bools, Floats, Ints
from stileblade.geometry.curves.vectors import crosses, dots, norms
from stileblade.geometry.offset.near import run_along
from stileblade.geometry.offset.polygon import Polygon
from stileblade.geometry.regions.runs import ResultEdges
from stileblade.geometry.regions.trace import ResultRings


@dataclass(frozen=True, eq=False)
class _Beside:
    """What each result edge (m,) runs beside: a source edge, and the segment whose start corner that
    is at, where ``is_corner``."""

    edge: Ints
    corner: Ints
    is_corner: Bools


def match(polygon: Polygon) -> ResultEdges:
    """Result edges with the offset curve they lie on, and the parameters at their ends."""
    source, rings = polygon.source, polygon.rings
    curves, flat = source.curves, source.flat
    u, v = rings.points, rings.points[rings.after]
    beside = _beside(polygon, u, v)
    edge, is_corner, middle = beside.edge, beside.is_corner, (u + v) / 2
    segment = flat.segment[edge]
    curve = np.where(is_corner, curves.number(Of.ARC, beside.corner), segment)
    straight = is_corner & (source.corners[beside.corner] != Corner.ROUNDED)
    if straight.any():
        at = beside.corner[straight]
        curve[straight] = _straight_corner(curves, at, middle[straight], source.corners)
    line = curves.segments.kind[segment] == Kind.LINE
    t0, t1 = (_parameters(source.flat, curves, beside, curve, p) for p in (u, v))
    # arcs run the short way
    arc = curves.of(curve) == Of.ARC
    t1[arc] = t0[arc] + np.remainder(t1[arc] - t0[arc] + np.pi, TAU) - np.pi
    # tight bends are hardly longer than the corners of their flattened forms, which the kernel turns
    # about: there is as much of their parallels in that as a person sees
    own = curves.of(curve) == Of.SEGMENT
    turned = true_at(own & (t0 == t1) & ~line)
    turned = turned[norms((v - u)[turned]) > 2 * curves.flatness]
    for t, p in ((t0, u), (t1, v)):
        t[turned] = feet(curves, curve[turned], t[turned], p[turned])
    inexact = np.zeros(len(middle), bool)
    t1 = _unwrapped(t0, t1, curve, rings, arc)
    edges = ResultEdges(u, rings.ring, curve, t0, t1, inexact, inexact)
    # an edge that turns round a flattened corner has no length along the parallel
    still = own & (t0 == t1)
    left = np.bincount(rings.ring, weights=~still, minlength=int(rings.ring[-1]) + 1)
    keep = ~still | (left[rings.ring] < 1)
    return edges if keep.all() else edges.take(true_at(keep))


def _beside(polygon: Polygon, u: Floats, v: Floats) -> _Beside:
    """What the edges from u to v (m, 2) run beside."""
    source, middle = polygon.source, (u + v) / 2
    curves, flat, pairs = source.curves, source.flat, source.pairs
    edge = _nearest_edges(polygon, u, v)
    corner, is_corner = _corners_at(flat, curves, edge, middle)
    if pairs is not None:  # the corner that the other direction makes of the same place
        other, is_other = _corners_at(flat, curves, pairs.twin[edge], middle)
        a, b = curves.bevels
        spot = curves.segments.start[other]
        side = dots(middle - spot, a[other] + b[other] - 2 * spot)
        swap = ~is_corner & is_other & (side >= -1e-9)
        edge = np.where(swap, pairs.twin[edge], edge)
        corner, is_corner = np.where(swap, other, corner), is_corner | is_other
    return _Beside(_of_bends(source.flat, curves, edge, middle, ~is_corner), corner, is_corner)


def _parameters(
    flat: Flat, curves: OffsetCurves, beside: _Beside, curve: Ints, p: Floats
) -> Floats:
    """Where on their curves places (m, 2) are."""
    edge, is_corner = beside.edge, beside.is_corner
    a = flat.points[edge]
    d = flat.ends[edge] - a
    share = dots(p - a, d) / np.maximum(dots(d, d), 1e-300)
    line = curves.segments.kind[flat.segment[edge]] == Kind.LINE
    share = np.where(line, share, np.clip(share, 0, 1))
    t = flat.t0[edge] + share * (flat.t1[edge] - flat.t0[edge])
    t[is_corner] = _corner_parameter(curves, curve[is_corner], p[is_corner])
    return t


def _nearest_edges(polygon: Polygon, u: Floats, v: Floats) -> Ints:
    """The source edge nearest to each result edge; of twins the one that runs its way."""
    source, origin = polygon.source, polygon.rings.origin[polygon.rings.ring]
    flat, there, pairs = source.flat, source.edges, source.pairs
    near = run_along(polygon.lines, u, v, origin, source.reach, 2 * source.curves.flatness)
    edge, far = there[near], true_at(near < 0)
    if len(far):
        edge[far] = polygon.nearest_edges((u + v)[far] / 2, origin[far])
    if pairs is None:
        return edge
    along = dots(v - u, flat.ends[edge] - flat.points[edge])
    return np.where(along >= 0, edge, pairs.twin[edge])


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
    first = begins(flat.segment)
    last = first[flat.after]
    at_head, at_tail = (share <= 1e-9) & first[edge], (share >= 1 - 1e-9) & last[edge]
    corner = np.where(at_head, flat.segment[edge], flat.segment[flat.after][edge])
    return corner, (at_head | at_tail) & curves.turns_outwards[corner]


def _unwrapped(t0: Floats, t1: Floats, curve: Ints, rings: ResultRings, arc: np.ndarray) -> Floats:
    """Corner arcs across the half turn: angles made to run on from edge to edge, in place."""
    _, before = neighbours(rings.ring)
    goes_on = arc & arc[before] & (curve == curve[before]) & (before < np.arange(len(arc)))
    turn = np.where(goes_on, np.rint((t1[before] - t0) / (TAU)), 0.0)
    if turn.any():
        turn = np.cumsum(turn)
        head = np.maximum.accumulate(np.where(goes_on, 0, np.arange(len(arc))))
        turn -= turn[head]
        t0 += turn * TAU
        t1 += turn * TAU
    return t1


def _straight_corner(curves: OffsetCurves, corner: Ints, middle: Floats, corners: Ints) -> Ints:
    """The bevel of each corner, or the side of its mitre that is nearer."""
    (a, tip), (_, b) = curves.mitres
    into = _off_line(a[corner], tip[corner], middle)
    back = _off_line(tip[corner], b[corner], middle)
    side = curves.number(np.where(into <= back, Of.INTO_TIP, Of.FROM_TIP), corner)
    mitred = corners[corner] == Corner.MITRED
    return np.where(mitred, side, curves.number(Of.BEVEL, corner))


def _off_line(a: Floats, b: Floats, p: Floats) -> Floats:
    d = b - a
    size = np.maximum(norms(d), 1e-12)
    return np.abs(crosses(d, p - a)) / size


def _corner_parameter(curves: OffsetCurves, curve: Ints, p: Floats) -> Floats:
    """Angles on arcs round corners, and shares of the straight lines there."""
    corner = curves.segment(curve)
    gap = p - curves.segments.start[corner]
    t = np.arctan2(gap[:, 1], gap[:, 0])
    lines = zip((Of.BEVEL, Of.INTO_TIP, Of.FROM_TIP), curves.corner_lines, strict=True)
    for of, (a, b) in lines:
        m = curves.of(curve) == of
        k = corner[m]
        d = b[k] - a[k]
        t[m] = dots(p[m] - a[k], d) / np.maximum(dots(d, d), 1e-300)
    return t
