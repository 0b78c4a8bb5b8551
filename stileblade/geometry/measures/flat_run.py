"""Where a straight cut leaves an edge of a wished length: for feet that stand."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.geometry.curves.arrays import nth_of, true_at
from stileblade.geometry.curves.places import Axis, Side
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.regions.clipping import clip_line
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import with_figures

_SAMPLES = 160


def run_at(region: Region, axis: Axis, at: float) -> float:
    """Length in mm of the longest unbroken stretch of the region along x = at or y = at."""
    box = region.bounds
    if axis == "y":
        spans = clip_line(region, (box.left - 1, at), (box.right + 1, at))
    else:
        spans = clip_line(region, (at, box.head - 1), (at, box.foot + 1))
    return max((abs(b[0] - a[0]) + abs(b[1] - a[1]) for a, b in spans), default=0.0)


def depth_for_run(region: Region, side: Side, run: float) -> tuple[float | None, float]:
    """How far inside the extreme at ``side`` a level or upright cut must lie so that its edge is
    ``run`` mm long without a break, the least such depth; and the longest run there is.

    The first is None where no cut gives it. Exact on the curves to 1e-9 mm.
    """
    found = _bracket(region, side, run)
    axis, edge, sign, size = found.axis, found.edge, found.sign, found.size
    if found.enough is None:
        return None, found.longest
    # the curve and its polyline are not the same: room for both, or all that was looked at
    enough = found.enough + 5e-3 if found.short else found.enough
    short, longest = max(found.short - 5e-3, 0.0), found.longest
    if short and run_at(region, axis, edge + sign * short) >= run:
        short = found.sampled[0]
    if run_at(region, axis, edge + sign * enough) < run:
        enough = min(found.sampled[1] + size * 1e-4, size)
    over, under = run_at(region, axis, edge + sign * enough) - run, -run
    if short:
        under = run_at(region, axis, edge + sign * short) - run
    for turn in range(60):
        if enough - short < 1e-9:
            break
        share = -under / (over - under) if turn % 3 and over > under else 0.5
        middle = short + (enough - short) * min(max(share, 0.001), 0.999)
        off = run_at(region, axis, edge + sign * middle) - run
        if abs(off) < 1e-10:
            return middle, longest
        if off >= 0:
            enough, over = middle, off
        else:
            short, under = middle, off
    return enough, longest


def rough_depth_for_run(region: Region, side: Side, run: float) -> float | None:
    """As ``depth_for_run``, on the flattened outline: to about 0.01 mm, and much quicker."""
    return _bracket(region, side, run).enough


@dataclass(frozen=True)
class _Bracket:
    """Depths on the flattened outline, 0.0001 mm apart, with too short and with enough of a run;
    ``enough`` is None where no cut gives it; ``sampled`` are the depths looked at
    first, about them. A depth d lies at edge + sign d."""

    axis: Axis
    edge: float
    sign: float
    size: float
    short: float
    enough: float | None
    longest: float
    sampled: tuple[float, float] = (0.0, 0.0)


def _bracket(region: Region, side: Side, run: float) -> _Bracket:
    box = region.bounds
    axis, sign, edge, size = side.axis, float(-side.outwards), side.at(box), side.depth_of(box)
    depths, runs = _sampled(region, axis, edge, sign, size)
    longest = float(runs.max(initial=0.0))
    long_enough = true_at(runs >= run)
    if not len(long_enough):
        return _Bracket(axis, edge, sign, size, 0.0, None, longest)
    first = int(long_enough[0])
    short, enough = float(depths[first - 1]) if first else 0.0, float(depths[first])
    sampled = (short, enough)
    while enough - short > 1e-4:
        middle = (short + enough) / 2
        if _runs(region, axis, np.array([edge + sign * middle]))[0] >= run:
            enough = middle
        else:
            short = middle
    return _Bracket(axis, edge, sign, size, short, enough, longest, sampled)


@with_figures
def _sampled(
    region: Region, axis: Axis, edge: float, sign: float, size: float
) -> tuple[Floats, Floats]:
    """Depths and the longest runs there: the same for every run that is asked for."""
    depths = _depths(region, axis, edge, size)
    return depths, _runs(region, axis, edge + sign * depths)


def _depths(region: Region, axis: Axis, edge: float, size: float) -> Floats:
    """Depths to look at, dense towards the edge, and just beside the corners."""
    even = np.linspace(0, 1, _SAMPLES)[1:-1]
    column = 1 if axis == "y" else 0
    corners = np.abs(region.segments.start[:, column] - edge)
    corners = corners[:2000]
    near = np.concatenate([corners - 1e-6, corners + 1e-6])
    depths = np.concatenate([even * size, even**3 * size, near])
    return np.unique(depths[(depths > 0) & (depths < size)])


def _runs(region: Region, axis: Axis, at: Floats) -> Floats:
    """The longest stretch along each line, on the flattened region."""
    flat = region.flat
    across, along = (1, 0) if axis == "y" else (0, 1)
    a, b = flat.points[:, across], flat.ends[:, across]
    p, q = flat.points[:, along], flat.ends[:, along]
    order = np.argsort(at)
    lines = at[order]
    first = np.searchsorted(lines, np.minimum(a, b))
    count = np.searchsorted(lines, np.maximum(a, b)) - first
    edge = np.arange(len(a)).repeat(count)
    line = first.repeat(count) + nth_of(count)
    share = (lines[line] - a[edge]) / (b[edge] - a[edge])
    places = p[edge] + share * (q[edge] - p[edge])
    in_order = np.lexsort((places, line))
    line, places = line[in_order], places[in_order]
    # rings are closed, so each line goes in as often as out
    found = np.zeros(len(at))
    np.maximum.at(found, order[line[::2]], places[1::2] - places[::2])
    return found
