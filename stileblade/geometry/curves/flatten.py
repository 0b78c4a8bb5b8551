"""Segments as polylines on their parents' own parameter grids.

Stretches of one parent share its grid, so equal parts of two outlines get bit-identical
vertices; those are rounded to ``TOLERANCE.grid`` and packed into one integer each, by which
what the kernel returns is traced back.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from stileblade.errors import GeometryError
from stileblade.geometry.curves.arrays import both, neighbours, nth_of
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import TAU, Bools, Floats, Ints, Segments
from stileblade.geometry.curves.vectors import extent
from stileblade.tolerance import TOLERANCE


@dataclass(frozen=True, eq=False)
class Flat:
    """Vertices of closed rings, each starting an edge to the next vertex of its ring.

    points (m, 2) rounded; segment (m,) that the edge belongs to; t0, t1 (m,) its parameters
    there; ring (m,) the ring's number; after, before (m,) the neighbours' positions.
    """

    points: Floats
    segment: Ints
    t0: Floats
    t1: Floats
    ring: Ints
    after: Ints
    before: Ints
    exact: Bools
    """Whether the vertex is a vertex of the source (False: put in from another outline)."""

    @cached_property
    def keys(self) -> Ints:
        return pack(self.points)

    @cached_property
    def extent(self) -> tuple[Floats, Floats]:
        """The least and the largest x and y (2,)."""
        return extent(self.points)

    @cached_property
    def ends(self) -> Floats:
        """End points (m, 2) of the edges."""
        return self.points.take(self.after, axis=0)

    def only(self, first: int, last: int) -> Flat:
        """Rings ``first`` up to ``last``, numbered from 0 as their segments are."""
        a, b = np.searchsorted(self.ring, [first, last])
        own = slice(int(a), int(b))
        segment = self.segment[own]
        return Flat(
            self.points[own],
            segment - segment[:1],
            self.t0[own],
            self.t1[own],
            self.ring[own] - first,
            self.after[own] - a,
            self.before[own] - a,
            self.exact[own],
        )

    @cached_property
    def _boxes(self) -> tuple[Floats, Floats]:
        ends = self.ends
        return np.minimum(self.points, ends), np.maximum(self.points, ends)

    def within(self, low: Floats, high: Floats) -> Bools:
        """Which edges' boxes (m,) meet the box from ``low`` (2,) to ``high`` (2,)."""
        least, most = self._boxes
        return both((least <= high) & (most >= low))


def rounded(points: Floats) -> Floats:
    """Points on the grid; an error beyond the reach of the keys."""
    if len(points) and not float(np.abs(points).max()) <= TOLERANCE.reach:
        raise GeometryError(
            "The outline reaches beyond 2 m from the origin.",
            hint="Make it smaller, or move it nearer.",
        )
    return np.rint(points / TOLERANCE.grid) * TOLERANCE.grid


def pack(points: Floats) -> Ints:
    """One integer for each rounded point; equal if and only if the points are."""
    whole = np.rint(points / TOLERANCE.grid).astype(np.int64) + (1 << 31)
    return (whole[:, 0] << 32) | whole[:, 1]


def subdivide(segments: Segments, pieces: Ints | None = None) -> tuple[Ints, Floats]:
    """Segment numbers and parameters of all vertices but each segment's last.

    ``pieces`` (n,) are the grid steps of the parents, by default those of the tolerance.
    """
    n = len(segments)
    t0, t1 = segments.span[:, 0], segments.span[:, 1]
    if not segments.kind.any():  # lines alone
        return np.arange(n), t0
    count = segments.pieces_per_parent if pieces is None else pieces
    step = np.where(segments.kind == Kind.ARC, TAU, 1.0) / count
    eps = 1e-9
    up = t1 >= t0
    # grid numbers strictly inside the stretch, first to last in the direction of running
    low, high = np.minimum(t0, t1) / step, np.maximum(t0, t1) / step
    k_low = np.floor(low + eps).astype(np.int64) + 1
    k_high = np.ceil(high - eps).astype(np.int64) - 1
    inner = np.maximum(k_high - k_low + 1, 0)
    inner[segments.kind == Kind.LINE] = 0
    total = inner + 1
    index = np.arange(n).repeat(total)
    offset = nth_of(total)
    t = t0[index]
    grid = offset > 0
    i = index[grid]
    k = np.where(up[i], k_low[i] + offset[grid] - 1, k_high[i] - offset[grid] + 1)
    t[grid] = k * step[i]
    return index, t


def flatten(segments: Segments, offsets: Ints, pieces: Ints | None = None) -> Flat:
    """Rings ``segments[offsets[r]:offsets[r + 1]]`` as polylines; ``pieces`` as for subdivide."""
    index, t = subdivide(segments, pieces)
    m = len(index)
    points = np.empty((m, 2))
    first = np.ones(m, bool)
    first[1:] = index[1:] != index[:-1]
    points[first] = segments.start
    inner = ~first
    if inner.any():
        i, ti = index[inner], t[inner]
        arcs = segments.kind[i] == Kind.ARC
        ti = np.where(arcs, np.mod(ti + 1e-12, TAU) - 1e-12, ti)  # same bits whatever the turn
        points[inner] = segments.points_at(i, ti)
    t1 = np.empty(m)
    t1[:-1] = np.where(first[1:], segments.span[index[:-1], 1], t[1:])
    if m:
        t1[-1] = segments.span[index[-1], 1]
    ring_of_segment = np.repeat(np.arange(len(offsets) - 1), np.diff(offsets))
    ring = ring_of_segment[index]
    after, before = neighbours(ring)
    return Flat(rounded(points), index, t, t1, ring, after, before, np.ones(m, bool))
