"""Where something of a drawing is: its matrix, its viewport, its clips."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.regions.region import Region


@dataclass(frozen=True)
class Place:
    """From user units to drawing units, the size of the viewport, and the clips in force."""

    matrix: Floats
    width: float
    height: float
    clips: tuple[Region, ...] = ()

    @property
    def diagonal(self) -> float:
        """What percentages that are neither widths nor heights are parts of."""
        return math.hypot(self.width, self.height) / math.sqrt(2)

    @cached_property
    def scale(self) -> float:
        (a, c, _), (b, d, _) = self.matrix.tolist()
        return math.sqrt(abs(a * d - b * c))

    @cached_property
    def farthest(self) -> float:
        """The largest number in the matrix."""
        return float(np.abs(self.matrix).max())

    @cached_property
    def even(self) -> bool:
        """Whether it keeps shapes: scaled alike in all directions."""
        (a, c, _), (b, d, _) = self.matrix.tolist()
        most = 1e-9 * max(a * a + b * b, c * c + d * d)
        return abs(a * c + b * d) <= most and abs(a * a + b * b - c * c - d * d) <= most

    @cached_property
    def hidden(self) -> bool:
        return any(not clip for clip in self.clips)

    def clipped(self, clip: Region) -> Place:
        return replace(self, clips=(*self.clips, clip))
