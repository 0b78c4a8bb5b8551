"""Lines and slits on a piece: what is drawn, stitched, scored or cut, and is no outline."""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import pairwise

from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.regions.along import points_along, within
from stileblade.geometry.regions.region import Region


class How(StrEnum):
    """How a line that is no outline is made. ``CUT`` is a slit: cut through, nothing taken out."""

    DRAW = "draw"
    STITCH = "stitch"
    SCORE = "score"
    PERFORATE = "perforate"
    CUT = "cut"


@dataclass(frozen=True, eq=False)
class DrawnLine:
    """Lines and slits that a step put on the paper: each way with whether it is a closed contour."""

    step: str
    how: How
    ways: tuple[tuple[Segments, bool], ...]

    @property
    def edges(self) -> list[tuple[Point, Point]]:
        """Its lines flattened, each edge as its ends."""
        found: list[tuple[Point, Point]] = []
        for way, _ in self.ways:
            found += pairwise((x, y) for x, y in points_along(way).tolist())
        return found

    def moved(self, matrix: Floats) -> DrawnLine:
        return replace(self, ways=tuple((w.transformed(matrix), c) for w, c in self.ways))

    def on(self, paper: Region) -> DrawnLine:
        """What of it lies on a paper."""
        found = [part for way, closed in self.ways for part in within(paper, way, closed=closed)]
        return replace(self, ways=tuple(found))
