"""Strips of paper across a window, and where they stand at both ends."""

from __future__ import annotations

import math
from dataclasses import dataclass

from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.transforms import rotation, translation
from stileblade.geometry.measures.distances import holds
from stileblade.geometry.offset.offset import offset
from stileblade.geometry.regions.clipping import clip_line
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection, rectangle, union

Run = tuple[float, float]
_LOOKED_AT = (-0.77, 0.03, 0.83)
"""Where across a strip it is looked at how far it runs, as shares of half its width."""
_ON = 0.03
"""mm beyond a strip's end where there must be paper."""


@dataclass(frozen=True, eq=False)
class Barred:
    """A window's ground, of which bars may be made, what of it stands, and how many bars do and how
    many would end in the air."""

    ground: Region
    standing: Region
    count: int
    left_out: int


@dataclass(frozen=True)
class Strip:
    """A straight strip ``width`` wide. It runs in a direction (clockwise, 0 to the right) past
    ``centre`` at a distance ``aside`` to the right of that direction, from ``low`` to ``high``."""

    centre: Point
    turn: float
    aside: float
    width: float
    low: float
    high: float

    def place(self, along: float, aside: float) -> Point:
        c, s = math.cos(math.radians(self.turn)), math.sin(math.radians(self.turn))
        return self.centre[0] + along * c - aside * s, self.centre[1] + along * s + aside * c

    def part(self, low: float, high: float) -> Region:
        """The strip between two places along it."""
        half = self.width / 2
        box = rectangle(Box(low, self.aside - half, high, self.aside + half))
        return box.transformed(translation(*self.centre)).transformed(
            rotation(self.turn, about=self.centre)
        )

    def runs(self, ground: Region, paper: Region) -> tuple[list[Run], int]:
        """Between which places it runs across the ground and ends on paper at either end, and how many
        such runs end in the air. What begins at the strip's own beginning ends well there."""
        found: list[tuple[float, float, bool]] = []
        for share in _LOOKED_AT:
            aside = self.aside + share * self.width / 2
            start = self.place(self.low, aside)
            spans = clip_line(ground, start, self.place(self.high, aside))
            if not spans:
                continue
            along = [
                (math.dist(start, a) + self.low, math.dist(start, b) + self.low) for a, b in spans
            ]
            ends = [self.place(p, aside) for a, b in along for p in (a - _ON, b + _ON)]
            held = holds(paper, ends).reshape(-1, 2)
            for (a, b), (first, last) in zip(along, held.tolist(), strict=True):
                begins = self.low >= 0 and a <= self.low + 1e-6
                found.append((a, b, (first or begins) and last))
        runs: list[tuple[float, float, bool]] = []
        for a, b, stands in sorted(found):
            if runs and a <= runs[-1][1]:
                low, high, before = runs[-1]
                runs[-1] = (low, max(high, b), before and stands)
            else:
                runs.append((a, b, stands))
        # a curved end reaches further at a strip's edge than where it is looked at
        more = self.width
        good = [(a if self.low >= 0 and a <= self.low + 1e-6 else a - more, b + more)
                for a, b, stands in runs if stands]  # fmt: skip
        return good, sum(1 for _, _, stands in runs if not stands)


def held_at_both_ends(band: Region, standing: Region, paper: Region) -> list[Region]:
    """The parts of a band between what stands that touch it, or the paper, at two places or more."""
    frame = union(standing, paper)
    found = []
    for part in difference(band, standing).parts() if band else []:
        touched = intersection(offset(part, _ON), frame)
        if touched.pieces >= 2:
            found.append(part)
    return found
