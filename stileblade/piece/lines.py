"""Lines and slits on a piece: what is drawn, stitched, scored or cut, and is no outline."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import pairwise
from typing import TYPE_CHECKING

from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.regions.along import points_along_each, within
from stileblade.geometry.regions.region import Region

if TYPE_CHECKING:
    from stileblade.piece.work import Work

Ways = tuple[tuple[Segments, bool], ...]
"""Ways, each with whether it is a closed contour."""


class How(StrEnum):
    """How a line that is no outline is made. ``CUT`` is a slit: cut through, nothing taken out.
    ``PRICK`` are holes for a thread."""

    DRAW = "draw"
    STITCH = "stitch"
    PRICK = "prick"
    SCORE = "score"
    PERFORATE = "perforate"
    CUT = "cut"


@dataclass(frozen=True, eq=False)
class DrawnLine:
    """Lines and slits that a step put on the paper. What ``follows`` the finished outline has no ways
    of its own: they come of the piece as it is in the end. ``pen`` is the pen's number, from 1."""

    step: str
    how: How
    ways: Ways
    pen: int = 1
    follows: Callable[[Work], Ways] | None = None

    @property
    def edges(self) -> list[tuple[Point, Point]]:
        """Its lines flattened, each edge as its ends."""
        found: list[tuple[Point, Point]] = []
        for points in points_along_each([way for way, _ in self.ways]):
            ends = pairwise((x, y) for x, y in points.tolist())
            found += [(a, b) for a, b in ends if a != b]
        return found

    def moved(self, matrix: Floats) -> DrawnLine:
        return replace(self, ways=tuple((w.transformed(matrix), c) for w, c in self.ways))

    def on(self, paper: Region) -> DrawnLine:
        """What of it lies on a paper."""
        if self.follows is not None:
            return self
        found = [part for way, closed in self.ways for part in within(paper, way, closed=closed)]
        return replace(self, ways=tuple(found))
