"""Union, difference, intersection, slice: on polylines in the kernel, traced back to curves.

Regions that only touch in a point stay two pieces; those that share an edge become one.
An empty region is neutral in unions and empties intersections.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.curves.flatten import Flat
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import concatenate, lines
from stileblade.geometry.regions.conode import conode, conode_all
from stileblade.geometry.regions.estimate import must_cross_seldom
from stileblade.geometry.regions.halving import halved
from stileblade.geometry.regions.region import Region, build_polygons, gather, shell_polygons
from stileblade.geometry.regions.trace import Sources, trace
from stileblade.tolerance import TOLERANCE


def union(a: Region, b: Region) -> Region:
    """All that is in a or in b."""
    if not a or not b:
        return a or b
    return _overlay(shapely.union, a, b)


def union_all(regions: Sequence[Region]) -> Region:
    """All that is in any of them: in one go, where one after the other takes the square of the time."""
    regions = [r for r in regions if r]
    if len(regions) < 3:
        return union(*regions) if len(regions) == 2 else gather(regions)
    whole = gather(regions)
    of_ring = np.repeat(np.arange(len(regions)), [len(r.shell) for r in regions])
    must_cross_seldom(whole.flat.points, whole.flat.ends)
    flat = conode_all(whole.flat, of_ring[whole.flat.ring])
    polygons, _ = shell_polygons(flat.points, flat.ring, whole.shell)
    made = run_kernel(united, *polygons)
    return trace(made, Sources.of([(whole.segments, flat)]))


def united(*shapes: shapely.Geometry, **more: Any) -> shapely.Geometry:
    return shapely.union_all(np.array(shapes, object), **more)


def intersection(a: Region, b: Region) -> Region:
    """All that is in both."""
    if not a or not b or _apart(a, b):
        return Region.empty()
    for outer, inner in ((a, b), (b, a)):
        if _around(outer, inner):
            return inner
    return _overlay(shapely.intersection, a, b)


def difference(a: Region, b: Region) -> Region:
    """What of a is not in b."""
    if not a or not b or _apart(a, b):
        return a
    if _around(b, a):
        return Region.empty()
    if a.pieces == 1 and not b.openings and _around(a, b):
        return _punched(a, b)
    return _overlay(shapely.difference, a, b)


def _apart(a: Region, b: Region) -> bool:
    """Whether their boxes say that they do not even touch."""
    (l0, h0, r0, f0), (l1, h1, r1, f1) = a.bounds.as_tuple(), b.bounds.as_tuple()
    return l1 > r0 or l0 > r1 or h1 > f0 or h0 > f1


def _around(outer: Region, inner: Region) -> bool:
    """Whether ``inner`` lies within ``outer`` and touches its contours nowhere."""
    (l0, h0, r0, f0), (l1, h1, r1, f1) = outer.bounds.as_tuple(), inner.bounds.as_tuple()
    if l1 < l0 or h1 < h0 or r1 > r0 or f1 > f0:
        return False
    return bool(shapely.contains_properly(outer.polygons, inner.polygons))


def _punched(a: Region, b: Region) -> Region:
    """b's contours as openings of a, whose own they touch nowhere."""
    holes = [c.segments.reversed() for c in b.contours]
    offsets = np.cumsum([len(h) for h in holes]) + len(a.segments)
    return Region(
        concatenate([a.segments, *holes]),
        np.concatenate([a.rings, offsets]),
        np.zeros(len(a.shell) + len(holes), np.int64),
    )


def polygon(corners: list[tuple[float, float]]) -> Region:
    """A straight-sided region from its corners, in either order."""
    p = np.array(corners, float)
    x, y = p.T
    if float((x * np.roll(y, -1) - np.roll(x, -1) * y).sum()) < 0:
        p = p[::-1]
    return Region(lines(p, np.roll(p, -1, axis=0)), np.array([0, len(p)]), np.zeros(1, np.int64))


def rectangle(box: Box) -> Region:
    return polygon(box.corners())


def is_rectangle(region: Region) -> bool:
    """Whether it is bounded by two upright and two level lines alone."""
    segments = region.segments
    if len(segments) != 4 or len(region.shell) != 1 or segments.kind.any():
        return False
    upright, level = (segments.start == segments.end).T
    return bool((upright ^ level).all() and upright.sum() == 2)


def half_plane(within: Box, *, axis: str, at: float, keep: str) -> Region:
    """What of ``within`` (grown by 1 mm) lies on one side of x = at or y = at.

    ``keep`` is "less" or "more". The cut's edge lies on the line to the last bit.
    """
    left, head, right, foot = within.shrunk(-1.0).as_list()
    if axis == "x":
        left, right = (min(left, at - 1), at) if keep == "less" else (at, max(right, at + 1))
    else:
        head, foot = (min(head, at - 1), at) if keep == "less" else (at, max(foot, at + 1))
    return rectangle(Box(left, head, right, foot))


def cut_off(region: Region, *, axis: str, at: float, keep: str) -> Region:
    """The part of the region on one side of an upright ("x") or level ("y") line."""
    if not region:
        return region
    box = region.bounds
    low, high = (box.left, box.right) if axis == "x" else (box.head, box.foot)
    if (keep == "less" and at >= high) or (keep == "more" and at <= low):
        return region
    if (keep == "less" and at <= low) or (keep == "more" and at >= high):
        return Region.empty()
    return halved(region, axis=axis, at=at, keep=keep) or intersection(
        region, half_plane(box, axis=axis, at=at, keep=keep)
    )


def _overlay(operation: Callable[..., Any], a: Region, b: Region) -> Region:
    flat_a, flat_b = conode(a.flat, b.flat)
    sources = Sources.of([(a.segments, flat_a), (b.segments, flat_b)])
    pa = a.polygons if flat_a is a.flat else _polygons(a, flat_a)
    pb = b.polygons if flat_b is b.flat else _polygons(b, flat_b)
    return trace(run_kernel(operation, pa, pb), sources)


def _polygons(region: Region, flat: Flat) -> shapely.MultiPolygon:
    return build_polygons(flat.points, flat.ring, region.shell)


def run_kernel(operation: Callable[..., Any], *shapes: shapely.Geometry) -> shapely.Geometry:
    """The kernel's floating-point overlay; on its own grid, which is slower, if that fails."""
    try:
        return operation(*shapes)
    except shapely.GEOSException:
        pass
    valid = [shapely.make_valid(s, method="structure") for s in shapes]
    try:
        return operation(*valid, grid_size=TOLERANCE.grid)
    except shapely.GEOSException as error:
        raise GeometryError(
            "The outlines could not be combined here.",
            hint="Move one of them by a tenth of a millimetre, or simplify the figure.",
        ) from error
