"""The foot: along which stretches the lowest edge touches a table."""

from __future__ import annotations

from stileblade.geometry.clipping import Point, clip_line
from stileblade.geometry.region import Box, Region
from stileblade.tolerance import TOLERANCE


def contact(region: Region, within: Box | None = None) -> list[tuple[Point, Point]]:
    """What of the outline lies within 0.02 mm of its lowest point, from left to right.

    ``within`` is the box of the part that stands, a face's; all of the region where it is None.
    """
    if not region:
        return []
    box = within or region.bounds
    at = box.foot - TOLERANCE.touch
    ends = (box.left - 1, box.right + 1) if within is None else (box.left, box.right)
    return clip_line(region, (ends[0], at), (ends[1], at))


def contact_length(region: Region, within: Box | None = None) -> float:
    """The summed length of ``contact``, in mm."""
    return sum(b[0] - a[0] for a, b in contact(region, within))
