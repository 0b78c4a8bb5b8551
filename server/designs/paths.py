"""Outlines as path data for the screen. Lengths in mm, y downwards."""

from __future__ import annotations

from server.designs.shown import Bounds, Point
from stileblade.geometry.distances import rings_of, thin
from stileblade.geometry.pathdata import path_data
from stileblade.geometry.region import Box, Region

MOST_ON_SCREEN = 1500
"""Outlines with more segments are drawn without what is finer than 0.005 mm."""


def box_of(box: Box) -> Bounds:
    return (box.left, box.head, box.right, box.foot)


def screen_path(region: Region) -> str:
    """The outline as the flat view draws it, its curves kept where there are not too many."""
    if region.nodes <= MOST_ON_SCREEN:
        return path_data(region, 3)
    return ring_path(rings_of(thin(region, 0.005)), 3)


def ring_path(rings: list[list[Point]], decimals: int) -> str:
    """Closed polylines as path data."""
    one = f"%.{decimals}f %.{decimals}f"
    found = []
    for ring in rings:
        numbers = tuple(v for point in ring for v in point)
        found.append("M" + "L".join([one] * len(ring)) % numbers + "Z")
    return "".join(found)
