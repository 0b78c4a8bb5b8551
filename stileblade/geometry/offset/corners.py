"""Mitres and bevels of an offset, made of the round one.

A mitre reaches beyond the offset's distance, where other segments may be nearer: what the
kernel makes of it could not be traced back to its corner. Set operations with the corners'
own polygons can.
"""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import begins, true_at
from stileblade.geometry.curves.parallel import Of, OffsetCurves
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import crosses, dots
from stileblade.geometry.offset.source import Source
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, polygon, run_kernel, union
from stileblade.tolerance import TOLERANCE

_BEYOND = 1.2


def with_corners(
    rounded: Region,
    shape: shapely.Geometry,
    distance: float,
    source: Source,
    limit: float,
    *,
    bevelled: bool = True,
) -> Region:
    """The round offset of ``shape`` by ``distance`` mm with mitres put on whose length is up to
    ``limit`` times the distance, and its other corners cut to bevels if they are to be ``bevelled``.

    What is right where a step of the outline is smaller than the distance: all that the outline's own
    stretches sweep over, moved out by the distance, and the bevel or mitre of every corner (decision 21).
    """
    curves = source.curves
    corner = true_at(curves.turns_outwards)
    mitred = curves.mitre_ratio[corner] <= limit
    put_on, cut_off = (union, difference) if distance > 0 else (difference, union)
    flat, sharp = corner[~mitred], corner[mitred]
    if len(flat) and bevelled:
        caps = _caps(curves, flat)
        swept = _swept(source, flat, caps)
        # what other parts of the outline cover of a corner stays covered
        gone = run_kernel(shapely.difference, caps, swept)
        others = shapely.difference if distance > 0 else shapely.intersection
        rounded = cut_off(rounded, _straight(run_kernel(others, gone, shape)))
    if len(sharp):
        a, b = curves.bevels
        tips = [curves.segments.start[sharp], a[sharp], curves.tips[sharp], b[sharp]]
        rounded = put_on(rounded, _straight(_polygons(*tips)))
    return rounded


def _swept(source: Source, bevelled: Ints, caps: shapely.Geometry) -> shapely.Geometry:
    """What the outline's stretches sweep over near ``caps``, moved aside by the distance, and the corners
    that are ``bevelled``."""
    curves, flat = source.curves, source.flat
    first, last = curves.offset_ends
    start, end = flat.points, flat.ends
    whole = flat.segment
    aside = curves.points_at(curves.number(Of.SEGMENT, whole), flat.t0)
    beyond = curves.points_at(curves.number(Of.SEGMENT, whole), flat.t1)
    at_start = begins(flat.segment)
    at_end = begins(flat.segment[::-1])[::-1]
    aside[at_start], beyond[at_end] = first[whole[at_start]], last[whole[at_end]]
    a, b = curves.bevels
    corner = curves.segments.start[bevelled]
    shapes = np.concatenate([
        shapely.polygons(np.stack([start, end, beyond, aside], axis=1)),
        shapely.polygons(np.stack([corner, a[bevelled], b[bevelled]], axis=1)),
    ])  # fmt: skip
    near = shapely.STRtree(shapes).query(shapely.get_parts(caps))[1]
    return run_kernel(shapely.union_all, shapely.make_valid(shapes[np.unique(near)]))


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
