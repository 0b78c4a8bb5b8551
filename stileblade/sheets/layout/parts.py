"""Pieces as a layout sees them: a shape, how it may be turned, how often it is wanted."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property

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
        """Those that give different shapes of box or outline."""
        return tuple((self.first + a) % 360 for a in self.turns.angles)

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
    """A sheet: its size, the edge that the machine cannot reach, the gap between pieces, in mm, and what
    is taken already, on all sheets or on the first ones."""

    width: float
    height: float
    edge: float = 5.0
    gap: float = 2.0
    everywhere: tuple[Shape, ...] = ()
    taken: tuple[tuple[Shape, ...], ...] = ()

    @property
    def inner(self) -> tuple[float, float]:
        return self.width - 2 * self.edge, self.height - 2 * self.edge

    def blocked(self, sheet: int) -> tuple[Shape, ...]:
        """What is taken on a sheet."""
        own = self.taken[sheet] if sheet < len(self.taken) else ()
        return (*self.everywhere, *own)

    def fits(self, part: Part) -> bool:
        """Whether it fits on an empty sheet in one of its turns."""
        w, h = self.inner
        sizes = (part.size(turn) for turn in part.angles)
        return any(a <= w + 1e-6 and b <= h + 1e-6 for a, b in sizes)
