"""Regions grown or shrunk by a distance.

The kernel's buffer says what bounds the result; each of its edges is traced to the parallel
of a source segment, or to the arc, bevel or mitre at a corner, and those are put together
like the outcome of any set operation.

Joins: ROUND; MITRE, which beyond its limit (length of the mitre by distance, as SVG counts
it) becomes a bevel, or stays round; BEVEL. A bevel is nearer to its corner than the distance: where
the distance is what is wanted, corners beyond the limit are to stay round.
"""

from __future__ import annotations

from enum import StrEnum

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.curves.arrays import neighbours
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import Corner, OffsetCurves
from stileblade.geometry.curves.vectors import crosses
from stileblade.geometry.measures.simplification import simplified
from stileblade.geometry.offset.corners import with_corners
from stileblade.geometry.offset.fine import with_longer_curves
from stileblade.geometry.offset.hairs import region_without_hairs
from stileblade.geometry.offset.kernel import Join, KernelStyle, buffered
from stileblade.geometry.offset.shallow import stretches_between_shallow
from stileblade.geometry.offset.source import Source, without_closed_segments
from stileblade.geometry.offset.tracing import traced
from stileblade.geometry.regions.loops import without_loops
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import polygon, run_kernel, united
from stileblade.tolerance import TOLERANCE

_FEW = 64

__all__ = ["BeyondLimit", "Join", "clearance", "largest_inset", "offset"]


def largest_inset(region: Region) -> float:
    """The inward distance in mm at which nothing is left."""
    if not region:
        return 0.0
    shapes = shapely.get_parts(region.polygons)
    return float(shapely.length(shapely.maximum_inscribed_circle(shapes, 0.001)).max())


class BeyondLimit(StrEnum):
    """What a corner becomes whose mitre would be longer than the limit."""

    BEVEL = "bevel"
    ROUND = "round"


def offset(
    region: Region,
    distance: float,
    *,
    join: Join = Join.ROUND,
    mitre_limit: float = 2.0,
    beyond_limit: BeyondLimit = BeyondLimit.BEVEL,
) -> Region:
    """The region grown by ``distance`` mm (negative: shrunk); empty where nothing is left."""
    if not region or distance == 0:
        return region
    if mitre_limit < 1:
        raise GeometryError(f"mitre_limit={mitre_limit}: must be 1 or more.")
    if distance < 0 and (straight := _convex_inset(region, -distance)) is not None:
        return straight
    region = with_longer_curves(without_closed_segments(region))
    if join is not Join.ROUND:
        region = region_without_hairs(region)
    source, shape, grown = bounded(region, distance)
    rounded = traced(grown, source)[0]
    if join is Join.ROUND:
        return without_loops(rounded)
    limit = mitre_limit if join is Join.MITRE else 0.0
    bevelled = join is Join.BEVEL or beyond_limit is BeyondLimit.BEVEL
    return without_loops(with_corners(rounded, shape, distance, source, limit, bevelled=bevelled))


def clearance(region: Region, distance: float, *, mitre_limit: float = 2.0) -> Region:
    """The region grown by a distance that is kept everywhere: corners are mitred as far as the limit, and
    round beyond it.

    >>> from stileblade.geometry.regions.set_operations import polygon
    >>> sharp = polygon([(0, 0), (40, 3), (0, 6)])
    >>> round(clearance(sharp, 5).bounds.right, 3)
    45.0
    """
    return offset(
        region, distance, join=Join.MITRE, mitre_limit=mitre_limit, beyond_limit=BeyondLimit.ROUND
    )


def _convex_inset(region: Region, distance: float) -> Region | None:
    """A convex outline of straight lines made smaller: of parallels alone, which need no tracing. None
    for any other."""
    segments = region.segments
    if len(region.shell) != 1 or len(segments) > _FEW or (segments.kind != Kind.LINE).any():
        return None
    way = segments.end - segments.start
    if (crosses(way, np.roll(way, -1, axis=0)) < 0).any():
        return None
    shape = shapely.polygons(segments.start)
    made = shapely.buffer(shape, -distance, join_style="mitre", mitre_limit=1e6)
    corners = shapely.get_coordinates(made)[:-1].tolist()
    return polygon([(x, y) for x, y in corners]) if len(corners) > 2 else Region.empty()


def bounded(region: Region, distance: float) -> tuple[Source, shapely.Geometry, np.ndarray]:
    """What the offset is of, its flattened form, and the kernel's one buffer of that, rounded at the
    corners, which says what bounds the result."""
    _, before = neighbours(np.repeat(np.arange(len(region.shell)), np.diff(region.rings)))
    curves = OffsetCurves(region.segments, np.full(len(region.segments), distance), before)
    corners = np.full(curves.n, Corner.ROUNDED)
    shape = simplified(region.polygons, TOLERANCE.flatten / 2, valid=True)
    source = Source(region.flat, curves, corners)
    whole = np.zeros(curves.n, np.int64)
    stretches = stretches_between_shallow(shape, distance, curves)
    if stretches is None:
        size, shapes = np.array([distance]), np.array([shape])
        return source, shape, buffered(shapes, size, [KernelStyle()], curves, corners, whole)
    size = np.full(len(stretches), abs(distance))
    swept = buffered(stretches, size, [KernelStyle()] * len(stretches), curves, corners, whole)
    combined = shapely.union if distance > 0 else shapely.difference
    grown = run_kernel(combined, shape, run_kernel(united, *swept))
    return source, shape, np.array([grown])
