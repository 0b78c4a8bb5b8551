"""How a fold is folded: its direction, its turn, and where along its line it is creased."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from enum import StrEnum


class Direction(StrEnum):
    MOUNTAIN = "mountain"
    VALLEY = "valley"


@dataclass(frozen=True)
class Stretch:
    """A part of a fold, from ``low`` to ``high`` along it, with a direction of its own."""

    low: float
    high: float
    direction: Direction


@dataclass(frozen=True)
class Crease:
    """How one fold is folded: ``order`` (equal numbers together), whether it is shut when the card
    is closed, and by how many degrees it is folded when the card is half open and when it stands.
    """

    direction: Direction = Direction.MOUNTAIN
    order: int = 1
    shut: bool = True
    half: float = 116.0
    stand: float = 140.0
    stretches: tuple[Stretch, ...] = ()
    inner: bool = False
    gain: float = 1.0
    """How much faster it turns than the fold that it hangs on: tan of half its angle is so many times that
    of half the other's."""
    level: int = 0
    """How many boxes it stands on: 1 for those of a step on the card's own fold."""
    """Of a step that stands forward between two panels: it lies between them when they close."""

    def geared(self, degrees: float) -> float:
        """Its angle where the fold that it hangs on is folded by so many degrees."""
        if self.gain == 1.0 or degrees in (0.0, 180.0):
            return degrees
        return math.degrees(2 * math.atan(self.gain * math.tan(math.radians(degrees) / 2)))

    def ungeared(self, degrees: float) -> float:
        """The angle of the fold that it hangs on where it is folded by so many degrees itself."""
        if self.gain == 1.0 or degrees in (0.0, 180.0):
            return degrees
        return math.degrees(2 * math.atan(math.tan(math.radians(degrees) / 2) / self.gain))

    def without(self, low: float, high: float) -> Crease:
        """The crease with a gap from ``low`` to ``high`` along it."""
        found = []
        for s in self.stretches or (Stretch(-ENDLESS, ENDLESS, self.direction),):
            if s.low < low:
                found.append(replace(s, high=min(s.high, low)))
            if s.high > high:
                found.append(replace(s, low=max(s.low, high)))
        return replace(self, stretches=tuple(found) or (Stretch(0.0, 0.0, self.direction),))


ENDLESS = 1e6
"""mm: beyond the ends of any fold."""
PLAIN = Crease()
