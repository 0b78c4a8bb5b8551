"""Corners of an outline: where it turns at once, and by how much."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.geometry.curves.arrays import neighbours, true_at
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import crosses, dots
from stileblade.geometry.regions.region import Region

LEAST_TURN = 10.0
"""Degrees: what turns less is a stretch of a curve drawn in straight pieces."""


@dataclass(frozen=True, eq=False)
class Corners:
    """places (n, 2); turn (n,) in degrees, positive where the corner stands out of the paper and
    negative where it runs into it; ring (n,) of the region that each is on."""

    places: Floats
    turn: Floats
    ring: Ints

    def __len__(self) -> int:
        return len(self.turn)

    def inside(self) -> Floats:
        """Angles (n,) of paper at the corners in degrees: 90 at that of a rectangle."""
        return 180.0 - self.turn


def corners_of(region: Region, least: float = LEAST_TURN) -> Corners:
    """All corners that turn by ``least`` degrees or more."""
    ring = np.repeat(np.arange(len(region.shell)), np.diff(region.rings))
    _, before = neighbours(ring)
    first, last = region.segments.end_directions()
    a, b = last[before], first
    turn = np.degrees(np.arctan2(crosses(a, b), dots(a, b)))
    sharp = true_at(np.abs(turn) >= least)
    return Corners(region.segments.start[sharp], turn[sharp], ring[sharp])
