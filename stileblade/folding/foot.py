"""The foot: along which stretches the lowest edge touches a table."""

from __future__ import annotations

from stileblade.geometry.clipping import Point, clip_line
from stileblade.geometry.region import Region
from stileblade.tolerance import TOLERANCE


def contact(region: Region) -> list[tuple[Point, Point]]:
    """What of the outline lies within 0.02 mm of its lowest point, from left to right."""
    if not region:
        return []
    box = region.bounds
    at = box.foot - TOLERANCE.touch
    return clip_line(region, (box.left - 1, at), (box.right + 1, at))


def contact_length(region: Region) -> float:
    """The summed length of ``contact``, in mm."""
    return sum(b[0] - a[0] for a, b in contact(region))
