"""How a line that is not cut is made: the values that the steps for lines share."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum

from stileblade.errors import StepError
from stileblade.fields import When, choice, length
from stileblade.geometry.regions.along import length_of, stitches, within
from stileblade.geometry.regions.region import Region
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.steps.step import Step, Told


class Lining(StrEnum):
    """How such a line is made; never cut through."""

    DRAW = "draw"
    STITCH = "stitch"
    SCORE = "score"
    PERFORATE = "perforate"


def lined_by(default: Lining = Lining.DRAW, *, when: When | None = None) -> Lining:
    """The field for how a line is made."""
    how: Lining = choice(
        default,
        "Made by",
        "How the line is made.",
        when=when,
        draw="drawing with a pen",
        stitch="drawing stitches",
        score="scoring",
        perforate="perforating",
    )
    return how


class LiningStep(Step):
    """A step that draws lines on the paper: with a pen, as stitches, scored or perforated; never
    cut through."""

    how: Lining = lined_by()
    stitch: float = length(
        4, "Stitch", "Of each; changed a little, so that they come out even.", least=0.3, most=100,
        when={"how": ["stitch", "perforate"]},
    )  # fmt: skip
    between: float = length(
        2, "Between", "From one stitch to the next.", least=0.3, most=100,
        when={"how": ["stitch", "perforate"]},
    )  # fmt: skip

    def lined(self, work: Work, outline: Region, field: str) -> Work:
        """The work with the outline's contours as lines, where there is paper under them."""
        ways = []
        for contour in outline.contours:
            for way, closed in within(work.paper, contour.segments, closed=True):
                if self.how in (Lining.STITCH, Lining.PERFORATE):
                    parts = stitches(way, self.stitch, self.between, closed=closed)
                    ways += [(part, False) for part in parts]
                else:
                    ways.append((way, closed))
        if not ways:
            raise StepError("There is no paper under the line.", field=field)
        line = DrawnLine(self.id, How(self.how), tuple(ways))
        return replace(work, lines=(*work.lines, line))

    def tells(self, before: Work | None, after: Work, setting: object) -> list[Told]:
        mine = [w for line in after.lines if line.step == self.id for w in line.ways]
        length = sum(length_of(way) for way, _ in mine)
        if self.how in (Lining.STITCH, Lining.PERFORATE):
            return [Told("Stitches", len(mine), "count"), Told("Together", length)]
        return [Told("Length", length)]
