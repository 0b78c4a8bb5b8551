"""Which line lies near a place, or runs beside an edge, of very many: looked up in grids, one for
each job."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from stileblade.geometry.curves.arrays import (
    begins,
    both,
    nth_of,
    run_sizes,
    run_starts,
    true_at,
)
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import norms
from stileblade.tolerance import TOLERANCE

_BOX = 8
"""Long lines are looked up by boxes of about this many times the reach, slanting ones having large
boxes."""
_BUNDLED = 16
"""Lines are looked up together as far as they are so many times shorter than the reach."""


@dataclass(frozen=True, eq=False)
class Near:
    """Spots (p,) and the lines (p,) within reach of them, each spot's together: how far away, and the
    share along the line of the foot on it, below 0 and beyond 1 off its ends."""

    spot: Ints
    line: Ints
    away: Floats
    share: Floats

    @cached_property
    def first(self) -> Ints:
        """Where those of each spot begin."""
        return run_starts(self.spot)


@dataclass(frozen=True, eq=False)
class Lines:
    """Lines from ``start`` (m, 2) to ``end`` (m, 2) of jobs (m,), to be looked up within each job's
    ``reach`` (jobs,); ``about`` how many spots."""

    start: Floats
    end: Floats
    job: Ints
    reach: Floats
    about: int

    @cached_property
    def way(self) -> Floats:
        return self.end - self.start

    @cached_property
    def length(self) -> Floats:
        return norms(self.way)

    def near(self, spots: Floats, job: Ints) -> Near:
        """What lies within the reach of ``spots`` (k, 2), of jobs (k,)."""
        spot, line = self._candidates(spots, job)
        # one coordinate after the other goes fastest
        (x0, y0), (dx, dy), (px, py) = self._start, self._way, np.ascontiguousarray(spots.T)
        x, y = px.take(spot) - x0.take(line), py.take(spot) - y0.take(line)
        along = dx.take(line), dy.take(line)
        share = (x * along[0] + y * along[1]) / self._size.take(line)
        inside = np.clip(share, 0, 1)
        x, y = x - inside * along[0], y - inside * along[1]
        away = np.sqrt(x * x + y * y)
        near = true_at(away <= self.reach[job].take(spot))
        return Near(spot[near], line[near], away[near], share[near])

    @cached_property
    def _start(self) -> Floats:
        return np.ascontiguousarray(self.start.T)

    @cached_property
    def _way(self) -> Floats:
        return np.ascontiguousarray(self.way.T)

    @cached_property
    def _size(self) -> Floats:
        return np.maximum(self.length**2, 1e-300)

    def _candidates(self, spots: Floats, job: Ints) -> tuple[Ints, Ints]:
        """Numbers of spots and of lines of the same job: all that lie within its reach, and others."""
        grid = self._grid
        column, row = np.floor(spots.T / grid.cell[job]).astype(np.int64)
        wanted = _cell_key(job, column, row)
        first = np.searchsorted(grid.key, wanted, "left")
        count = np.searchsorted(grid.key, wanted, "right") - first
        spot = np.arange(len(spots)).repeat(count)
        bundle = grid.bundle.take(first.repeat(count) + nth_of(count))
        apart = spots.take(spot, axis=0) - grid.middle.take(bundle, axis=0)
        near = true_at(norms(apart) <= self.reach[job].take(spot) + grid.half.take(bundle))
        spot, bundle = spot[near], bundle[near]
        count = run_sizes(self._bundles, len(self.job)).take(bundle)
        return spot.repeat(count), self._bundles.take(bundle).repeat(count) + nth_of(count)

    @cached_property
    def _bundles(self) -> Ints:
        """Where bundles of lines begin: lines of one job, one going on from the other, together hardly
        longer than a fourth of its reach; longer ones by themselves."""
        most = self.reach[self.job] / _BUNDLED
        new = begins(self.job) | begins((np.cumsum(self.length) / most).astype(np.int64))
        new[1:] |= ~both(self.start[1:] == self.end[:-1])
        alone = self.length > most
        new |= alone
        new[1:] |= alone[:-1]
        return true_at(new)

    @cached_property
    def _grid(self) -> _Grid:
        bundles = self._bundles
        a, b = self.start.take(bundles, axis=0), self.end.take(bundles, axis=0)
        many = run_sizes(bundles, len(self.job)) > 1
        # of bundles a diagonal of the box about them
        low, high = np.minimum(self.start, self.end), np.maximum(self.start, self.end)
        a[many] = np.minimum.reduceat(low, bundles, axis=0)[many]
        b[many] = np.maximum.reduceat(high, bundles, axis=0)[many]
        step = np.clip(float(self.length.mean()) * _BOX, self.reach / 2, _BOX * self.reach)
        step = np.maximum(step, float(self.length.sum()) / self.about)
        return _Grid.of(a, b, self.job[bundles], self.reach, step)


@dataclass(frozen=True, eq=False)
class _Grid:
    """``key`` (q,) of cells, in order, and ``bundle`` (q,) what is to be looked at there; ``middle``
    (b, 2) of each, and ``half`` (b,) its length; cell (jobs,) their sizes."""

    key: Ints
    bundle: Ints
    middle: Floats
    half: Floats
    cell: Floats

    @staticmethod
    def of(a: Floats, b: Floats, job: Ints, reach: Floats, step: Floats) -> _Grid:
        way = b - a
        length = norms(way)
        cell = step + 2 * reach
        times = np.ceil(np.maximum(length / step[job], 1)).astype(np.int64)
        owner = np.repeat(np.arange(len(a)), times)
        shift = way.take(owner, axis=0) / times[owner, None]
        start = a.take(owner, axis=0) + nth_of(times)[:, None] * shift
        wide, size = reach[job[owner]], cell[job[owner]]
        low, high = [], []
        for head, part in zip(start.T, shift.T, strict=True):
            tail = head + part
            low.append(np.floor((np.minimum(head, tail) - wide) / size).astype(np.int64))
            high.append(np.floor((np.maximum(head, tail) + wide) / size).astype(np.int64))
        keys, owners = [], []
        for x, y in ((0, 0), (1, 0), (0, 1), (1, 1)):  # a part of a line reaches no further
            there = true_at((low[0] + x <= high[0]) & (low[1] + y <= high[1]))
            keys.append(_cell_key(job[owner[there]], low[0][there] + x, low[1][there] + y))
            owners.append(owner[there])
        key, bundle = np.concatenate(keys), np.concatenate(owners)
        order = np.argsort(key, kind="stable")
        return _Grid(key[order], bundle[order], (a + b) / 2, length / 2, cell)


def _cell_key(job: Ints, column: Ints, row: Ints) -> Ints:
    """One integer for each cell (m,) of each job; of cells so far out that they share one the
    distances tell."""
    return (job << 42) + ((column & 0x1FFFFF) << 21) + (row & 0x1FFFFF)


def run_along(
    lines: Lines, u: Floats, v: Floats, job: Ints, distance: Floats, within: float
) -> Ints:
    """The number of the line that each edge from ``u`` (k, 2) to ``v`` (k, 2) of the buffers of jobs (k,)
    runs along, else of the one nearest to it: beside a flat cap or a bevel a corner lies nearer that
    has no part; -1 where none is near. ``distance`` is each job's (jobs,), met ``within`` mm."""
    middle, way = (u + v) / 2, v - u
    near = lines.near(middle, job)
    spot, line, away = near.spot, near.line, near.away.copy()
    (wx, wy), (dx, dy) = np.ascontiguousarray(way.T), lines.way.take(line, axis=0).T
    turned = np.abs(wx.take(spot) * dy - wy.take(spot) * dx)
    along = (near.share > 0) & (near.share < 1)
    along &= turned < 0.1 * norms(way).take(spot) * lines.length.take(line)
    along &= np.abs(away - distance[job].take(spot)) < within
    # of each spot's the nearest of those that it runs along, else of all
    away[~along] += TOLERANCE.aside
    least = np.minimum.reduceat(away, near.first) if len(spot) else away
    nearest = np.full(len(u), -1, np.int64)
    best = true_at(away == least.repeat(run_sizes(near.first, len(spot))))[::-1]
    nearest[spot[best]] = line[best]  # the first of those as near
    return nearest
