"""What an offset is of: its curves, its flattened edges, and how its corners are gone round."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from stileblade.geometry.curves.arrays import both, nth_of, offsets_of, true_at
from stileblade.geometry.curves.flatten import Flat
from stileblade.geometry.curves.parallel import OffsetCurves, circular
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments
from stileblade.geometry.regions.region import Region


@dataclass(frozen=True, eq=False)
class Pairs:
    """How the edges (m,) of a flattened source belong together where it is many ways side by
    side, each run forwards and back: ``job`` is the number of the buffer that an edge bounds,
    ``twin`` the edge that is the same one backwards, ``back`` whether it is that one itself."""

    job: Ints
    twin: Ints
    back: Bools


@dataclass(frozen=True, eq=False)
class Source:
    """``curves`` of segments and ``flat``, those flattened; ``corners`` (n,) say how each segment's
    start corner is gone round (``Corner``). Without ``pairs`` all of it is one job.

    Invariant: an edge, its segment and its twin are of one job.
    """

    flat: Flat
    curves: OffsetCurves
    corners: Ints
    pairs: Pairs | None = None

    @cached_property
    def job(self) -> Ints:
        """The job that each edge (m,) is of."""
        return np.zeros(len(self.flat.points), np.int64) if self.pairs is None else self.pairs.job

    @cached_property
    def edges(self) -> Ints:
        """Numbers of the edges that are looked at: of twins one."""
        if self.pairs is None:
            return np.arange(len(self.flat.points))
        return true_at(~self.pairs.back)

    @cached_property
    def job_of_segment(self) -> Ints:
        job = np.zeros(int(self.flat.segment.max(initial=-1)) + 1, np.int64)
        job[self.flat.segment] = self.job
        return job

    @cached_property
    def reach(self) -> Floats:
        """How far the buffer of each job (jobs,) reaches, in mm."""
        found = np.zeros(int(self.job.max()) + 1)
        found[self.job] = np.abs(self.curves.distance)[self.flat.segment]
        return found


def without_closed_segments(region: Region) -> Region:
    """Whole ellipses in four stretches: a fitted curve cannot close on itself."""
    segments = region.segments
    round_, _ = circular(segments)
    whole = both(segments.start == segments.end) & ~round_
    if not whole.any():
        return region
    times = np.where(whole, 4, 1)
    index = np.repeat(np.arange(len(segments)), times)
    part = nth_of(times)
    cut = segments.take(index)
    t0, step = cut.span[:, 0], (cut.span[:, 1] - cut.span[:, 0]) / times[index]
    span = np.stack([t0 + part * step, t0 + (part + 1) * step], axis=1)
    span[~whole[index]] = cut.span[~whole[index]]
    n = np.arange(len(cut))
    start = np.where((part == 0)[:, None], cut.start, cut.points_at(n, span[:, 0]))
    last = part == times[index] - 1
    end = np.where(last[:, None], cut.end, np.roll(start, -1, axis=0))
    rings = offsets_of(times)[region.rings]
    return Region(Segments(cut.kind, cut.coef, span, start, end), rings, region.shell)
