"""What a mirror step did, and where the fold of a lap lies."""

from __future__ import annotations

from dataclasses import dataclass

from stileblade.geometry.curves.places import Axis, Box, Side
from stileblade.geometry.regions.region import Region


def place_at_lap(box: Box, side: Side, lap: float) -> float:
    """x or y of the fold of a figure in ``box`` that is mirrored to ``side``: half a lap inside."""
    return side.inside(box, lap / 2)


@dataclass(frozen=True)
class Mirrored:
    """The step, the figure before it, the half that was kept, towards where, and the lap in mm."""

    step: str
    figure: Region
    half: Region
    towards: Side
    lap: float

    @property
    def axis(self) -> Axis:
        return self.towards.axis

    @property
    def depth(self) -> float:
        """The figure's measure across the fold."""
        return self.towards.depth_of(self.figure.bounds)

    @property
    def loss(self) -> float:
        """Area in mm^2 that the lap costs each half."""
        return self.figure.area - self.half.area

    def place_at(self, lap: float) -> float:
        """x or y of the fold that the figure would have with another lap."""
        return place_at_lap(self.figure.bounds, self.towards, lap)
