"""What of a figure is seen of each of those below it."""

from __future__ import annotations

from collections.abc import Sequence

import shapely

from stileblade.geometry.regions.region import Region

_ENOUGH = 1e-4
"""Share of the figure that is not looked at any more."""


def seen_below(figure: Region, below: Sequence[Region]) -> list[float]:
    """The share of the figure's area under which each of the figures ``below``, given from the lowest
    to the topmost, is the first that is met; what is left of 1 has nothing below it."""
    found = [0.0] * len(below)
    rest = figure.polygons
    whole = float(shapely.area(rest))
    box = figure.bounds
    for number in range(len(below) - 1, -1, -1):
        other = below[number]
        b = other.bounds
        apart = (
            b.left >= box.right or b.right <= box.left or b.head >= box.foot or b.foot <= box.head
        )
        if apart or not whole:
            continue
        try:
            left = shapely.difference(rest, other.polygons)
        except shapely.GEOSException:
            left = shapely.difference(rest, shapely.make_valid(other.polygons), grid_size=1e-6)
        found[number] = max(float(shapely.area(rest) - shapely.area(left)), 0.0) / whole
        rest = left
        if shapely.area(rest) < _ENOUGH * whole:
            break
    return found
