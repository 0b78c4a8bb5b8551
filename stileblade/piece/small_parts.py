"""Small parts of a piece: which they are, and what joins them to the next one."""

from __future__ import annotations

import math

from stileblade.geometry.curves.places import Point
from stileblade.geometry.measures.cells import flattened
from stileblade.geometry.measures.distances import nearest, nearest_middle
from stileblade.geometry.measures.widths import is_wide
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import polygon, union

SMALL = 25.0
"""mm^2: a part that is smaller is lost on the table."""
NARROW = 2.0
"""mm: so is one that is narrower everywhere."""
_INTO = 1.0
"""mm by which a bridge runs into what it joins."""


def is_small(part: Region) -> bool:
    return part.area < SMALL or not is_wide(flattened(part), NARROW)


def joined(own: Region, width: float) -> Region:
    """Each small part made one with the part that is nearest to it, large ones before others, by a bridge of
    a width in mm. What is all of one part stays as it is."""
    parts = own.parts()
    small = [is_small(part) for part in parts]
    large = [part for part, little in zip(parts, small, strict=True) if not little]
    for part, little in zip(parts, small, strict=True):
        others = large or [p for p in parts if p is not part]
        if little and others:
            other = min(others, key=lambda p: nearest(part.polygons, p.polygons)[0])
            _, start, end = nearest_middle(part.polygons, other.polygons)
            own = union(own, _bridge(start, end, width))
    return own


def _bridge(start: Point, end: Point, width: float) -> Region:
    (ax, ay), (bx, by) = start, end
    long = math.hypot(bx - ax, by - ay)
    ux, uy = ((bx - ax) / long, (by - ay) / long) if long > 1e-9 else (1.0, 0.0)
    ax, ay, bx, by = ax - ux * _INTO, ay - uy * _INTO, bx + ux * _INTO, by + uy * _INTO
    sx, sy = -uy * width / 2, ux * width / 2
    return polygon([(ax + sx, ay + sy), (bx + sx, by + sy), (bx - sx, by - sy), (ax - sx, ay - sy)])
