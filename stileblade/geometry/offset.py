"""Regions grown or shrunk by a distance.

The kernel's buffer says what bounds the result; each of its edges is traced to the parallel
of a source segment, or to the arc, bevel or mitre at a corner, and those are put together
like the outcome of any set operation.

Joins: ROUND; MITRE, which beyond its limit (length of the mitre by distance, as SVG counts
it) becomes a bevel; BEVEL.
"""

from __future__ import annotations

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
from stileblade.geometry.segments import Ints, Segments
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
    grown = buffered(shape, distance, curves, corners, np.arange(curves.n), Join.ROUND, mitre_limit)
    rounded = traced(np.array([grown]), region.flat, curves, corners)[0]
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


def buffered(
    shape: shapely.Geometry,
    distance: float,
    curves: OffsetCurves,
    corners: Ints,
    own: Ints,
    join: Join,
    mitre_limit: float,
    cap: KernelCap = "round",
) -> shapely.Geometry:
    """The kernel's buffer of ``shape``, which has the corners ``own`` of ``curves``.

    The kernel cuts a mitre beyond its limit short; where that would happen it makes bevels, and
    the tips of the other corners are put on.
    """
    flatness = curves.flatness / abs(distance)
    quarter = max(4, int(np.ceil(np.pi / 4 / np.arccos(max(1 - flatness, 0.7)))))
    outer = own[curves.turns_outwards[own]]
    by_hand = join is Join.MITRE and bool((corners[outer] == BEVELLED).any())
    style: KernelJoin = "bevel" if by_hand else _KERNEL_JOINS[join]
    grown = shapely.buffer(
        shape, distance, quad_segs=quarter, cap_style=cap, join_style=style, mitre_limit=mitre_limit
    )
    sharp = outer[corners[outer] == MITRED]
    if not by_hand or not len(sharp):
        return grown
    (a, tip), (_, b) = curves.mitres
    wedges = np.stack([curves.segments.start, a, tip, b], axis=1)[sharp]
    tips = shapely.polygons(np.concatenate([wedges, wedges[:, :1]], axis=1))
    if distance > 0:
        return run_kernel(shapely.union_all, np.r_[[grown], tips])
    return run_kernel(shapely.difference, grown, run_kernel(shapely.union_all, tips))
