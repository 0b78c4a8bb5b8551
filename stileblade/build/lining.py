"""How a line that is not cut is made: the values that the steps for lines share."""

from __future__ import annotations

from dataclasses import replace

from stileblade.build.step import Step, Told
from stileblade.build.work import DrawnLine, How, Work
from stileblade.errors import StepError
from stileblade.fields import choice, length
from stileblade.geometry.along import length_of, stitches, within
from stileblade.geometry.region import Region


class LiningStep(Step):
    """A step that draws lines on the paper: with a pen, as stitches, scored or perforated; never
    cut through."""

    how: How = choice(
        How.DRAW,
        "Made by",
        "How the line is made.",
        draw="drawing with a pen",
        stitch="drawing stitches",
        score="scoring",
        perforate="perforating",
    )
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
                if self.how in (How.STITCH, How.PERFORATE):
                    parts = stitches(way, self.stitch, self.between, closed=closed)
                    ways += [(part, False) for part in parts]
                else:
                    ways.append((way, closed))
        if not ways:
            raise StepError("There is no paper under the line.", field=field)
        line = DrawnLine(self.id, self.how, tuple(ways))
        return replace(work, lines=(*work.lines, line))

    def tells(self, before: Work | None, after: Work, setting: object) -> list[Told]:
        mine = [w for line in after.lines if line.step == self.id for w in line.ways]
        length = sum(length_of(way) for way, _ in mine)
        if self.how in (How.STITCH, How.PERFORATE):
            return [Told("Stitches", len(mine), "count"), Told("Together", length)]
        return [Told("Length", length)]
