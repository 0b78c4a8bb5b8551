"""Folds of a piece: lines, how they are made, and where there is paper on them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

from stileblade.card.creases import PLAIN, Crease, Direction
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Axis, Point


class Made(StrEnum):
    """How a fold is made."""

    SCORE = "score"
    PERFORATE = "perforate"
    NONE = "none"


@dataclass(frozen=True)
class Fold:
    """A line of the piece; where there is paper on it is worked out at the end.

    ``cut`` and ``leave`` are a perforation's lengths, ``setback`` how far a score stops
    before each end of a span, ``spine`` the distance of a double score, 0 for a single one,
    all in mm. What does not ``folds`` is texture, or there to be torn off.
    """

    name: str
    line: Line
    crease: Crease = PLAIN
    made: Made = Made.SCORE
    cut: float = 2.0
    leave: float = 1.0
    setback: float = 0.0
    spine: float = 0.0
    inside: bool = False
    """Scored from the inside."""
    folds: bool = True
    step: str = ""
    """The step that put it in, where one did."""
    apart: float = 0.0
    """mm between the panels on either side, the spine of a thick card: the fold lies in its middle."""

    @property
    def axis(self) -> Axis | None:
        return self.line.axis

    @property
    def at(self) -> float:
        return self.line.at

    @property
    def double(self) -> float:
        """The distance of the two lines that it is scored by, in mm; 0 where it is scored once."""
        return self.spine or self.apart

    def is_side_at(self, place: float, *, within: float = 0.01) -> bool:
        """Whether a panel's side at x or y ``place`` lies on the fold, or on its spine's edge."""
        return abs(abs(self.at - place) - self.apart / 2) < within

    @property
    def direction(self) -> Direction:
        return self.crease.direction


@dataclass(frozen=True)
class Span:
    """A stretch of a fold with paper under it."""

    start: Point
    end: Point
    direction: Direction

    @property
    def length(self) -> float:
        return math.hypot(self.end[0] - self.start[0], self.end[1] - self.start[1])
