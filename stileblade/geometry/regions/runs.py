"""Edges of the kernel's outcome that know their curves, and the runs that they make along those."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.geometry.curves.arrays import neighbours, run_ends, run_sizes, run_starts, true_at
from stileblade.geometry.curves.segments import Bools, Floats, Ints


@dataclass(frozen=True, eq=False)
class ResultEdges:
    """Edges of closed rings: start vertex (m, 2), ring (m,), source curve (m,), stretch of it,
    and whether start and end are vertices of that source."""

    points: Floats
    ring: Ints
    curve: Ints
    t0: Floats
    t1: Floats
    exact0: Bools
    exact1: Bools

    def take(self, index: Ints) -> ResultEdges:
        return ResultEdges(
            self.points.take(index, axis=0),
            self.ring[index],
            self.curve[index],
            self.t0[index],
            self.t1[index],
            self.exact0[index],
            self.exact1[index],
        )


@dataclass(frozen=True, eq=False)
class Runs:
    """Stretches of curves in rings; ``point`` is where each starts."""

    curve: Ints
    t0: Floats
    t1: Floats
    exact0: Bools
    exact1: Bools
    point: Floats
    ring: Ints

    def take(self, index: Ints) -> Runs:
        return Runs(
            self.curve[index],
            self.t0[index],
            self.t1[index],
            self.exact0[index],
            self.exact1[index],
            self.point.take(index, axis=0),
            self.ring[index],
        )

    def __len__(self) -> int:
        return len(self.curve)


def join_edges(edges: ResultEdges, slack: float | Floats) -> Runs:
    """Runs of edges along one curve; t may jump by ``slack``, one for all or one for each edge."""
    after, before = neighbours(edges.ring)
    rising = edges.t1 >= edges.t0
    goes_on = (
        (edges.curve == edges.curve[before])
        & (rising == rising[before])
        & (np.abs(edges.t0 - edges.t1[before]) <= slack)
    )
    # turn each ring so that it starts with a run
    ring_start = run_starts(edges.ring)
    size = run_sizes(ring_start, len(edges.ring))
    number = np.arange(len(ring_start)).repeat(size)
    within = np.arange(len(edges.ring)) - ring_start[number]
    candidates = np.where(goes_on, size[number], within)
    first = np.minimum.reduceat(candidates, ring_start) % size
    if first.any():
        order = ring_start[number] + (within + first[number]) % size[number]
        edges, goes_on = edges.take(order), goes_on[order]
    goes_on[ring_start] = False
    head = true_at(~goes_on)
    tail = run_ends(head, len(goes_on)) - 1
    return Runs(
        edges.curve[head],
        edges.t0[head],
        edges.t1[tail],
        edges.exact0[head],
        edges.exact1[tail],
        edges.points.take(head, axis=0),
        edges.ring[head],
    )
