"""Where a straight cut leaves an edge of a wished length: for feet that stand."""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

import numpy as np
import shapely

from stileblade.geometry.clipping import clip_line
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats

Side = Literal["head", "foot", "left", "right"]
_SAMPLES = 160


def run_at(region: Region, axis: Literal["x", "y"], at: float) -> float:
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
    box = region.bounds
    axis: Literal["x", "y"] = "y" if side in ("head", "foot") else "x"
    low, high = (box.head, box.foot) if axis == "y" else (box.left, box.right)
    sign, edge = (1.0, low) if side in ("head", "left") else (-1.0, high)
    depths, runs = _sampled(region, axis, edge, sign, high - low)
    long_enough = np.flatnonzero(runs >= run)
    longest = float(runs.max(initial=0.0))
    if not len(long_enough):
        return None, longest
    first = int(long_enough[0])
    short = float(depths[first - 1]) if first else 0.0
    enough = float(depths[first])
    if run_at(region, axis, edge + sign * enough) < run:  # the curve lies within the polyline
        enough = min(enough + (high - low) * 1e-4, high - low)
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


@lru_cache(maxsize=32)
def _sampled(
    region: Region, axis: str, edge: float, sign: float, size: float
) -> tuple[Floats, Floats]:
    """Depths and the longest runs there: the same for every run that is asked for."""
    depths = _depths(region, axis, edge, size)
    return depths, _runs(region, axis, edge + sign * depths)


def _depths(region: Region, axis: str, edge: float, size: float) -> Floats:
    """Depths to look at, dense towards the edge, and just beside the corners."""
    even = np.linspace(0, 1, _SAMPLES)[1:-1]
    column = 1 if axis == "y" else 0
    corners = np.abs(region.segments.start[:, column] - edge)
    corners = corners[:2000]
    near = np.concatenate([corners - 1e-6, corners + 1e-6])
    depths = np.concatenate([even * size, even**3 * size, near])
    return np.unique(depths[(depths > 0) & (depths < size)])


def _runs(region: Region, axis: str, at: Floats) -> Floats:
    """The longest stretch along each line, on the flattened region."""
    box = region.bounds
    ends = np.empty((len(at), 2, 2))
    if axis == "y":
        ends[:, 0, 0], ends[:, 1, 0] = box.left - 1, box.right + 1
        ends[:, :, 1] = at[:, None]
    else:
        ends[:, 0, 1], ends[:, 1, 1] = box.head - 1, box.foot + 1
        ends[:, :, 0] = at[:, None]
    shape = region.polygons
    shapely.prepare(shape)
    cut = shapely.intersection(shapely.linestrings(ends), shape)
    parts, line = shapely.get_parts(cut, return_index=True)
    longest = np.zeros(len(at))
    np.maximum.at(longest, line, shapely.length(parts))
    return longest
