"""Loops: places where an outline crosses itself by a hair, as where two curves that all but touch meet
in the wrong order. A paper has none."""

from __future__ import annotations

import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region, gather

_LOOP = 0.02
"""mm^2: what is larger than that is no loop, but a figure."""


def crosses_itself(region: Region) -> bool:
    """Whether a contour crosses itself or another."""
    return bool(region) and not bool(shapely.is_valid(region.polygons))


def without_loops(region: Region) -> Region:
    """The region with its loops undone; the same one where it has none, or where they are too large to
    be told from what is meant."""
    if not crosses_itself(region):
        return region
    try:
        made = fill([c.segments for c in region.contours], "nonzero")
    except GeometryError:
        return region
    parts = made.parts()
    kept = [p for p in parts if p.area > _LOOP] if len(parts) > region.pieces else parts
    made = gather(kept) if len(kept) < len(parts) else made
    lost = abs(made.area - region.area)
    return made if made and lost <= _LOOP * max(len(region.shell), 1) else region
