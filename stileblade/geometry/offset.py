"""Regions grown or shrunk by a distance.

The kernel's buffer says what bounds the result; each of its edges is traced to the parallel
of a source segment, or to the arc, bevel or mitre at a corner, and those are put together
like the outcome of any set operation.

Joins: ROUND; MITRE, which beyond its limit (length of the mitre by distance, as SVG counts
it) becomes a bevel; BEVEL.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final, Literal

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.corners import with_corners
from stileblade.geometry.flatten import neighbours
from stileblade.geometry.offset_tracing import traced
from stileblade.geometry.parallel import BEVELLED, MITRED, ROUNDED, OffsetCurves, circular
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats, Ints, Segments
from stileblade.geometry.set_operations import run_kernel
from stileblade.tolerance import TOLERANCE


class Join(StrEnum):
    ROUND = "round"
    MITRE = "mitre"
    BEVEL = "bevel"


CORNERS = {Join.ROUND: ROUNDED, Join.MITRE: MITRED, Join.BEVEL: BEVELLED}
KernelCap = Literal["round", "flat"]
KernelJoin = Literal["round", "mitre", "bevel"]
_KERNEL_JOINS: Final[dict[Join, KernelJoin]] = {
    Join.ROUND: "round",
    Join.MITRE: "mitre",
    Join.BEVEL: "bevel",
}


def largest_inset(region: Region) -> float:
    """The inward distance in mm at which nothing is left."""
    if not region:
        return 0.0
    shapes = shapely.get_parts(region.polygons)
    return float(shapely.length(shapely.maximum_inscribed_circle(shapes, 0.001)).max())


def offset(
    region: Region, distance: float, *, join: Join = Join.ROUND, mitre_limit: float = 2.0
) -> Region:
    """The region grown by ``distance`` mm (negative: shrunk); empty where nothing is left."""
    if not region or distance == 0:
        return region
    if mitre_limit < 1:
        raise GeometryError(f"mitre_limit={mitre_limit}: must be 1 or more.")
    region = without_closed_segments(region)
    _, before = neighbours(np.repeat(np.arange(len(region.shell)), np.diff(region.rings)))
    curves = OffsetCurves(region.segments, np.full(len(region.segments), distance), before)
    corners = np.full(curves.n, ROUNDED)
    shape = shapely.simplify(region.polygons, TOLERANCE.flatten / 2, preserve_topology=True)
    whole = np.zeros(curves.n, np.int64)
    grown = buffered(
        np.array([shape]), np.array([distance]), [KernelStyle()], curves, corners, whole
    )
    rounded = traced(grown, region.flat, curves, corners)[0]
    if join is Join.ROUND:
        return rounded
    limit = mitre_limit if join is Join.MITRE else 0.0
    return with_corners(rounded, shape, distance, curves, limit)


def without_closed_segments(region: Region) -> Region:
    """Whole ellipses in four stretches: a fitted curve cannot close on itself."""
    segments = region.segments
    round_, _ = circular(segments)
    whole = (segments.start == segments.end).all(axis=1) & ~round_
    if not whole.any():
        return region
    times = np.where(whole, 4, 1)
    index = np.repeat(np.arange(len(segments)), times)
    part = np.arange(len(index)) - np.repeat(np.cumsum(times) - times, times)
    cut = segments.take(index)
    t0, step = cut.span[:, 0], (cut.span[:, 1] - cut.span[:, 0]) / times[index]
    span = np.stack([t0 + part * step, t0 + (part + 1) * step], axis=1)
    span[~whole[index]] = cut.span[~whole[index]]
    n = np.arange(len(cut))
    start = np.where((part == 0)[:, None], cut.start, cut.points_at(n, span[:, 0]))
    last = part == times[index] - 1
    end = np.where(last[:, None], cut.end, np.roll(start, -1, axis=0))
    rings = np.r_[0, np.cumsum(times)][region.rings]
    return Region(Segments(cut.kind, cut.coef, span, start, end), rings, region.shell)


@dataclass(frozen=True)
class KernelStyle:
    """How the kernel goes round corners and ends of one shape."""

    join: Join = Join.ROUND
    mitre_limit: float = 2.0
    cap: KernelCap = "round"


def buffered(
    shapes: np.ndarray,
    distance: Floats,
    styles: Sequence[KernelStyle],
    curves: OffsetCurves,
    corners: Ints,
    owner: Ints,
) -> np.ndarray:
    """The kernel's buffers (k,) of ``shapes`` (k,) by ``distance`` (k,); ``owner`` (n,) is the number
    of the shape that each of the ``corners`` of ``curves`` is of, -1 where it is an end.

    The kernel cuts a mitre beyond its limit short; where that would happen it makes bevels, and
    the tips of the other corners are put on.
    """
    flatness = curves.flatness / np.abs(distance)
    quarter = np.ceil(np.pi / 4 / np.arccos(np.maximum(1 - flatness, 0.7)))
    outer = np.flatnonzero(curves.turns_outwards & (owner >= 0))
    cut_short = np.zeros(len(shapes), bool)
    cut_short[owner[outer[corners[outer] == BEVELLED]]] = True
    alike: dict[tuple[int, KernelJoin, KernelStyle], list[int]] = {}
    for i, style in enumerate(styles):
        cut_short[i] &= style.join is Join.MITRE
        join = "bevel" if cut_short[i] else _KERNEL_JOINS[style.join]
        alike.setdefault((max(4, int(quarter[i])), join, style), []).append(i)
    grown = np.empty(len(shapes), object)
    for (quad_segs, join, style), rows in alike.items():
        grown[rows] = shapely.buffer(
            shapes[rows], distance[rows], quad_segs=quad_segs, cap_style=style.cap,
            join_style=join, mitre_limit=style.mitre_limit,
        )  # fmt: skip
    sharp = outer[(corners[outer] == MITRED) & cut_short[owner[outer]]]
    for i in np.unique(owner[sharp]).tolist():
        grown[i] = _with_tips(grown[i], float(distance[i]), sharp[owner[sharp] == i], curves)
    return grown


def _with_tips(
    grown: shapely.Geometry, distance: float, sharp: Ints, curves: OffsetCurves
) -> shapely.Geometry:
    (a, tip), (_, b) = curves.mitres
    wedges = np.stack([curves.segments.start, a, tip, b], axis=1)[sharp]
    tips = shapely.polygons(np.concatenate([wedges, wedges[:, :1]], axis=1))
    if distance > 0:
        return run_kernel(shapely.union_all, np.r_[[grown], tips])
    return run_kernel(shapely.difference, grown, run_kernel(shapely.union_all, tips))
