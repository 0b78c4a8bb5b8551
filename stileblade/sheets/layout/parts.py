"""Pieces as a layout sees them: a shape, how it may be turned, how often it is wanted."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property

from stileblade.formats.plan import REGISTER_HOLE
from stileblade.geometry.measures import rows
from stileblade.geometry.measures.rows import Shape


class Turns(StrEnum):
    """How a piece may be turned on its sheet."""

    FREE = "free"
    QUARTERS = "quarters"
    HALVES = "halves"
    """So that its folds run with the grain."""
    NONE = "none"

    @property
    def angles(self) -> tuple[float, ...]:
        return _ANGLES[self]


_ANGLES: dict[Turns, tuple[float, ...]] = {
    Turns.FREE: tuple(30.0 * k for k in range(12)),
    Turns.QUARTERS: (0.0, 90.0, 180.0, 270.0),
    Turns.HALVES: (0.0, 180.0),
    Turns.NONE: (0.0,),
}


_ALIKE = 0.5
"""Degrees: turns that are nearer to each other are not both tried."""


@dataclass(frozen=True, eq=False)
class Part:
    """A shape with its box at 0, 0. ``first`` is the turn from which it is turned further, such as the
    quarter that brings its folds along the grain."""

    key: str
    shape: Shape
    turns: Turns = Turns.QUARTERS
    first: float = 0.0
    flipped: bool = False
    _made: dict[float, Shape] = field(default_factory=dict, repr=False)

    @cached_property
    def area(self) -> float:
        return rows.area_of(self.shape)

    @cached_property
    def angles(self) -> tuple[float, ...]:
        """In degrees, as its folds and the job allow; freely, those that lay its narrowest box upright
        or across are among them."""
        found = [(self.first + a) % 360 for a in self.turns.angles]
        if self.turns is Turns.FREE:
            own = rows.narrowest(self.at(0.0))
            if min(own % 30, 30 - own % 30) > _ALIKE:
                found += [round((k - own) % 360, 3) for k in (0.0, 90.0, 180.0, 270.0)]
        return tuple(found)

    @cached_property
    def boxed(self) -> tuple[float, ...]:
        """The turn in which its box is smallest, and the quarter further where that is allowed."""
        sizes = {a: self.size(a) for a in self.angles}
        best = min(
            self.angles, key=lambda a: (round(sizes[a][0] * sizes[a][1], 3), self.angles.index(a))
        )
        quarter = round((best + 90.0) % 360, 3)
        return (best, quarter) if quarter in self.angles else (best,)

    def at(self, turn: float) -> Shape:
        """The shape turned, its box at 0, 0."""
        if turn not in self._made:
            self._made[turn] = rows.turned(self.shape, turn, flipped=self.flipped)
        return self._made[turn]

    def size(self, turn: float) -> tuple[float, float]:
        return rows.size_of(self.at(turn))


@dataclass(frozen=True, eq=False)
class Placed:
    """A part on a sheet: its box' left and head in mm from the sheet's, and its turn."""

    part: Part
    sheet: int
    x: float
    y: float
    turn: float
    locked: bool = False

    @cached_property
    def shape(self) -> Shape:
        return rows.moved(self.part.at(self.turn), self.x, self.y)


@dataclass(frozen=True, eq=False)
class Format:
    """A sheet: its size, the edge that the machine cannot reach, the gap between pieces, in mm; what is
    taken already of the first sheets; the middles of ``holes`` by which it is turned over. Of a ``roll``
    the height is the most that lies on the bed; what is not needed is not cut off."""

    width: float
    height: float
    edge: float = 5.0
    gap: float = 2.0
    taken: tuple[tuple[Shape, ...], ...] = ()
    holes: tuple[tuple[float, float], ...] = ()
    roll: bool = False

    @property
    def inner(self) -> tuple[float, float]:
        return self.width - 2 * self.edge, self.height - 2 * self.edge

    def blocked(self, sheet: int) -> tuple[Shape, ...]:
        """What is taken on a sheet."""
        own = self.taken[sheet] if sheet < len(self.taken) else ()
        return (*(rows.disc(x, y, REGISTER_HOLE / 2) for x, y in self.holes), *own)

    def fits(self, part: Part) -> bool:
        """Whether it fits on an empty sheet in one of its turns."""
        w, h = self.inner
        sizes = (part.size(turn) for turn in part.angles)
        return any(a <= w + 1e-6 and b <= h + 1e-6 for a, b in sizes)
