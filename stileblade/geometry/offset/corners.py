"""Mitres and bevels of an offset, made of the round one.

A mitre reaches beyond the offset's distance, where other segments may be nearer: what the
kernel makes of it could not be traced back to its corner. Set operations with the corners'
own polygons can.
"""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.parallel import OffsetCurves
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import crosses, dots
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, polygon, run_kernel, union
from stileblade.tolerance import TOLERANCE

_BEYOND = 1.2


def with_corners(
    rounded: Region, shape: shapely.Geometry, distance: float, curves: OffsetCurves, limit: float
) -> Region:
    """The round offset of ``shape`` by ``distance`` mm with mitres put on whose length is up to
    ``limit`` times the distance, and its other corners cut to bevels."""
    corner = true_at(curves.turns_outwards)
    mitred = curves.mitre_ratio[corner] <= limit
    put_on, cut_off = (union, difference) if distance > 0 else (difference, union)
    flat, sharp = corner[~mitred], corner[mitred]
    if len(flat):
        # what other parts of the outline cover of a corner stays covered
        bevelled = shapely.buffer(shape, distance, join_style="bevel")
        others = shapely.difference if distance > 0 else shapely.intersection
        rounded = cut_off(rounded, _straight(run_kernel(others, _caps(curves, flat), bevelled)))
    if len(sharp):
        a, b = curves.bevels
        tips = [curves.segments.start[sharp], a[sharp], curves.tips[sharp], b[sharp]]
        rounded = put_on(rounded, _straight(_polygons(*tips)))
    return rounded


def _caps(curves: OffsetCurves, corner: Ints) -> shapely.Geometry:
    """What lies beyond the bevels of corners, out to a little beyond their arcs."""
    start = curves.segments.start[corner]
    a, b = (side[corner] for side in curves.bevels)
    u, v = a - start, b - start
    turn = np.abs(np.arctan2(crosses(u, v), dots(u, v)))
    turn *= np.sign(curves.distance[corner])
    rim = []
    for share in (1.0, 2 / 3, 1 / 3, 0.0):
        c, s = np.cos(turn * share), np.sin(turn * share)
        spoke = np.stack([u[:, 0] * c - u[:, 1] * s, u[:, 0] * s + u[:, 1] * c], axis=1)
        rim.append(start + _BEYOND * spoke)
    return _polygons(a, b, *rim)


def _polygons(*corners: Floats) -> shapely.Geometry:
    """The union of polygons, each with one corner from every array (k, 2)."""
    shapes = shapely.polygons(np.stack([*corners, corners[0]], axis=1))
    return run_kernel(shapely.union_all, shapely.make_valid(shapes))


def _straight(shape: shapely.Geometry) -> Region:
    """The kernel's polygons as a region, without slivers."""
    parts = shapely.get_parts(shape)
    parts = parts[shapely.area(parts) > TOLERANCE.flatten * shapely.length(parts) / 2]
    rings = [ring for part in parts for ring in (part.exterior, *part.interiors)]
    return fill(
        [polygon(shapely.get_coordinates(r)[:-1].tolist()).segments for r in rings], "evenodd"
    )
