"""Which line runs beside an edge, of very many: looked up in grids, one for each job."""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.arrays import run_sizes, run_starts, true_at
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.tolerance import TOLERANCE

_BOX = 8
"""Long lines are looked up by boxes of about this many times the reach, slanting ones having large
boxes."""


def nearest_lines(
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
    near = true_at(x * x + y * y <= around * around)
    spot, line = spot[near], line[near]
    x, y = mx.take(spot) - x0.take(line), my.take(spot) - y0.take(line)
    along = dx.take(line), dy.take(line)
    share = (x * along[0] + y * along[1]) / size.take(line)
    inside = np.clip(share, 0, 1)
    x, y = x - inside * along[0], y - inside * along[1]
    away = np.sqrt(x * x + y * y)
    near = true_at(away <= most.take(spot))
    spot, line, share, away = spot[near], line[near], share[near], away[near]
    turned = wx.take(spot) * along[1].take(near) - wy.take(spot) * along[0].take(near)
    flat = 0.1 * np.hypot(wx, wy).take(spot) * length.take(line)
    beside = (share > 0) & (share < 1) & (np.abs(turned) < flat)
    beside &= np.abs(away - distance[edge_job].take(spot)) < 2 * flatness
    # of each spot's, which stand together, the nearest of those beside it, else of all
    away[~beside] += TOLERANCE.aside
    starts = run_starts(spot)
    least = np.minimum.reduceat(away, starts) if len(starts) else away
    nearest = np.full(len(edges), -1, np.int64)
    best = true_at(away == np.repeat(least, run_sizes(starts, len(spot))))[::-1]
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
        there = true_at((low[0] + x <= high[0]) & (low[1] + y <= high[1]))
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
