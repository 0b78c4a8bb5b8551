"""From the kernel's polylines back to curves: which source edge is each result edge?

A result vertex that came from a source is found by its key; an edge between two found
vertices that are neighbours in a source is that source edge. The few edges that a crossing
cut are looked up by place. ``assemble`` then makes curves of them.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import (
    begins,
    both,
    neighbours,
    run_sizes,
    run_starts,
    true_at,
)
from stileblade.geometry.curves.flatten import Flat, pack
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments, concatenate, lines
from stileblade.geometry.curves.vectors import dots, extent, norms
from stileblade.geometry.regions.assemble import assemble
from stileblade.geometry.regions.near import near_pairs
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.runs import ResultEdges
from stileblade.tolerance import TOLERANCE


@dataclass(frozen=True, eq=False)
class Sources:
    """The outlines that went into the kernel, one after the other."""

    segments: Segments
    flat: Flat

    @staticmethod
    def of(parts: list[tuple[Segments, Flat]]) -> Sources:
        segment, vertex, ring = 0, 0, 0
        columns: list[list[np.ndarray]] = [[] for _ in range(8)]
        for segments, flat in parts:
            for column, values in zip(
                columns,
                (
                    flat.points,
                    flat.segment + segment,
                    flat.t0,
                    flat.t1,
                    flat.ring + ring,
                    flat.after + vertex,
                    flat.before + vertex,
                    flat.exact,
                ),
                strict=True,
            ):
                column.append(values)
            segment += len(segments)
            vertex += len(flat.points)
            ring += int(flat.ring[-1]) + 1 if len(flat.ring) else 0
        return Sources(
            concatenate([s for s, _ in parts]), Flat(*(np.concatenate(c) for c in columns))
        )


@dataclass(frozen=True, eq=False)
class ResultRings:
    """Rings of the kernel's polygons: vertices (m, 2), without the closing one; of each ring the
    shell (r,) it belongs to, and the number (r,) of the geometry it came from."""

    points: Floats
    ring: Ints
    shell: Ints
    after: Ints
    origin: Ints


def result_rings(result: shapely.Geometry | np.ndarray) -> ResultRings | None:
    """The polygons' rings, shells before their openings, slivers left out; None if none."""
    parts, origin = shapely.get_parts(result, return_index=True)
    kept = (shapely.get_type_id(parts) == 3) & ~shapely.is_empty(parts)
    polygons, origin = parts[kept], origin[kept]
    if not len(polygons):
        return None
    polygons = shapely.orient_polygons(polygons, exterior_cw=False)
    rings, polygon = shapely.get_rings(polygons, return_index=True)
    first = begins(polygon)
    area = shapely.area(shapely.polygons(rings))
    width = 2 * area / shapely.length(rings)
    shaving = (width < TOLERANCE.shaving) & (area <= TOLERANCE.shaving_area)
    wide = (width >= TOLERANCE.sliver) & ~shaving
    wide &= wide[true_at(first)][first.cumsum() - 1]  # openings go with their shell
    if not wide.any():
        return None
    rings, first, origin = rings[wide], first[wide], origin[polygon[wide]]
    points, ring = shapely.get_coordinates(rings, return_index=True)
    closing = begins(ring[::-1])[::-1]
    points, ring = points[~closing], ring[~closing]
    shell = true_at(first)[first.cumsum() - 1]
    return ResultRings(points, ring, shell, neighbours(ring)[0], origin)


def trace(result: shapely.Geometry, sources: Sources) -> Region:
    """The kernel's ``result`` with the source curves put back."""
    return trace_all([result], sources)[0]


def trace_all(results: Sequence[shapely.Geometry], sources: Sources) -> list[Region]:
    """Each of the kernel's ``results`` with the source curves put back."""
    rings = result_rings(np.array(results, object))
    if rings is None:
        return [Region.empty()] * len(results)
    edges, own = match(rings, sources)
    segments = sources.segments if own is None else concatenate([sources.segments, own])
    whole, present = assemble(edges, segments, rings.shell)
    return shared_out(whole, rings.origin[present], len(results))


def shared_out(whole: Region, origin: Ints, count: int) -> list[Region]:
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


def match(rings: ResultRings, sources: Sources) -> tuple[ResultEdges, Segments | None]:
    """Result edges with their source segment and stretch; and lines for those found nowhere."""
    flat = sources.flat
    m = len(rings.points)
    order = np.argsort(flat.keys, kind="stable")
    table = flat.keys[order]
    key = pack(rings.points)
    first = run_starts(table)
    place = np.minimum(np.searchsorted(table[first], key), len(first) - 1)
    low = first[place]
    # only vertices that are bit-identical count: a crossing rounds to a grid point, too
    known = (table[low] == key) & both(flat.points.take(order[low], axis=0) == rings.points)
    count = np.where(known, run_sizes(first, len(table))[place], 0)
    key_end = key[rings.after]
    edge = np.full(m, -1, np.int64)
    back = np.zeros(m, bool)
    after_key, before_key = flat.keys[flat.after], flat.keys[flat.before]
    open_ = true_at((count > 0) & (count[rings.after] > 0))
    k = 0
    while len(open_):
        source = order[low[open_] + k]
        ahead = after_key[source] == key_end[open_]
        behind = ~ahead & (before_key[source] == key_end[open_])
        edge[open_[ahead]] = source[ahead]
        edge[open_[behind]] = flat.before[source[behind]]
        back[open_[behind]] = True
        k += 1
        open_ = open_[~(ahead | behind)]
        open_ = open_[count[open_] > k]
    t0 = np.where(back, flat.t1[edge], flat.t0[edge])
    t1 = np.where(back, flat.t0[edge], flat.t1[edge])
    head = flat.exact[edge]
    tail = flat.exact[flat.after[edge]]
    exact0, exact1 = np.where(back, tail, head), np.where(back, head, tail)
    curve = flat.segment[edge]
    own = None
    missing = true_at(edge < 0)
    if len(missing):
        found = _locate(rings, missing, sources)
        edge[missing] = found.edge
        curve[missing] = flat.segment[found.edge]
        t0[missing], t1[missing] = found.t0, found.t1
        exact0[missing], exact1[missing] = found.exact0, found.exact1
        lost = missing[found.edge < 0]
        if len(lost):
            own = lines(rings.points[lost], rings.points[rings.after[lost]])
            curve[lost] = len(sources.segments) + np.arange(len(lost))
            t0[lost], t1[lost] = 0.0, 1.0
            exact0[lost] = exact1[lost] = True
    return ResultEdges(rings.points, rings.ring, curve, t0, t1, exact0, exact1), own


@dataclass(frozen=True, eq=False)
class _Located:
    edge: Ints
    t0: Floats
    t1: Floats
    exact0: Bools
    exact1: Bools


def _locate(rings: ResultRings, missing: Ints, sources: Sources) -> _Located:
    """Source edges on which the result edges ``missing`` lie, by place; -1 where none does."""
    flat = sources.flat
    u, v = (rings.points.take(n, axis=0) for n in (missing, rings.after[missing]))
    middle = (u + v) / 2
    reach = TOLERANCE.on_edge
    low, high = extent(middle)
    a, b = flat.points, flat.ends
    near = true_at(flat.within(low - reach, high + reach) & (flat.keys != flat.keys[flat.after]))
    n = len(missing)
    edge = np.full(n, -1, np.int64)
    t0, t1 = np.zeros(n), np.ones(n)
    exact0, exact1 = np.zeros(n, bool), np.zeros(n, bool)
    if not len(near):
        return _Located(edge, t0, t1, exact0, exact1)
    which, hit = near_pairs(middle, a[near], b[near], reach)
    source = near[hit]
    su, du = _foot_on_edges(a[source], b[source], u[which])
    sv, dv = _foot_on_edges(a[source], b[source], v[which])
    off = np.maximum(du, dv)
    pick = np.lexsort((source, np.round(off / (reach / 50)), which))
    pick = pick[begins(which[pick])]
    pick = pick[off[pick] <= 2 * reach]
    row, chosen = which[pick], source[pick]
    edge[row] = chosen
    span = flat.t1[chosen] - flat.t0[chosen]
    t0[row] = flat.t0[chosen] + su[pick] * span
    t1[row] = flat.t0[chosen] + sv[pick] * span
    for s, t, exact in ((su[pick], t0, exact0), (sv[pick], t1, exact1)):
        at_head, at_tail = s <= 0, s >= 1
        t[row[at_head]] = flat.t0[chosen[at_head]]
        t[row[at_tail]] = flat.t1[chosen[at_tail]]
        exact[row] = (at_head & flat.exact[chosen]) | (at_tail & flat.exact[flat.after[chosen]])
    return _Located(edge, t0, t1, exact0, exact1)


def _foot_on_edges(a: Floats, b: Floats, p: Floats) -> tuple[Floats, Floats]:
    """Share along edge ab (0 to 1) of the point nearest to p, and its distance."""
    d = b - a
    s = np.minimum(np.maximum(dots(p - a, d) / np.maximum(dots(d, d), 1e-300), 0), 1)
    s = np.where(both(p == a), 0.0, np.where(both(p == b), 1.0, s))
    return s, norms(a + d * s[:, None] - p)
