"""How a line that is not cut is made: the values that the steps for lines share."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable
from dataclasses import replace
from enum import StrEnum

from stileblade.errors import StepError
from stileblade.fields import When, choice, length, number_of
from stileblade.geometry.curves.segments import Segments
from stileblade.geometry.regions.along import holes_along, length_of, stitches, within
from stileblade.geometry.regions.region import Region
from stileblade.piece.lines import DrawnLine, How, Ways
from stileblade.piece.work import Work
from stileblade.steps.step import Step, Told

PENS = 8
_KEPT = 8


class Lining(StrEnum):
    """How such a line is made; never cut through."""

    DRAW = "draw"
    STITCH = "stitch"
    PRICK = "prick"
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
        prick="pricking holes for a thread",
        score="scoring",
        perforate="perforating",
    )
    return how


def pen_field(*, when: When | None = None) -> int:
    """The field for the pen that draws."""
    pen: int = number_of(
        1, "Pen", "Its number; each pen is a group of its own in files.", least=1, most=PENS,
        when=when,
    )  # fmt: skip
    return pen


_DASHED = {"how": [Lining.STITCH.value, Lining.PERFORATE.value]}
_DRAWN = {"how": [Lining.DRAW.value, Lining.STITCH.value]}
_PRICKED = {"how": [Lining.PRICK.value]}


class LiningStep(Step):
    """A step that draws lines on the paper: with a pen, as stitches, pricked, scored or perforated;
    never cut through."""

    how: Lining = lined_by()
    pen: int = pen_field(when=_DRAWN)
    stitch: float = length(
        4, "Stitch", "Of each; changed a little, so that they come out even.", least=0.3, most=100,
        when=_DASHED,
    )  # fmt: skip
    between: float = length(
        2, "Between", "From one stitch to the next.", least=0.3, most=100, when=_DASHED,
    )  # fmt: skip
    spacing: float = length(
        5, "Hole to hole", "Changed a little, so that there is one in each corner.", least=0.5,
        most=100, when=_PRICKED,
    )  # fmt: skip
    diameter: float = length(
        1, "Hole", "Its diameter; 0 is a prick of a needle.", least=0, most=10, when=_PRICKED
    )

    def made_of(self, paper: Region, contours: Iterable[tuple[Segments, bool]]) -> Ways:
        """The lines along contours, where there is paper under them."""
        ways: list[tuple[Segments, bool]] = []
        for contour, whole in contours:
            for way, closed in within(paper, contour, closed=whole):
                if self.how in (Lining.STITCH, Lining.PERFORATE):
                    parts = stitches(way, self.stitch, self.between, closed=closed)
                    ways += [(part, False) for part in parts]
                elif self.how is Lining.PRICK:
                    ways += holes_along(way, self.spacing, self.diameter, closed=closed)
                else:
                    ways.append((way, closed))
        return tuple(ways)

    def lined(self, work: Work, outline: Region, field: str) -> Work:
        """The work with the outline's contours as lines, where there is paper under them."""
        ways = self.made_of(work.paper, [(c.segments, True) for c in outline.contours])
        line = DrawnLine(self.id, How(self.how), ways, self.pen)
        return self.with_line(work, line, bool(ways), field)

    def following(
        self, work: Work, trace: Callable[[Work], list[tuple[Segments, bool]]], field: str
    ) -> Work:
        """The work with lines that follow its outline as it is in the end: ``trace`` finds them on any
        work, and raises StepError where there are none."""

        # steps after this one that leave the paper as it is ask for the same lines again
        kept: dict[Hashable, Ways] = {}

        def ways(finished: Work) -> Ways:
            key = (finished.paper, finished.panels, finished.windows, finished.reference)
            found = kept.get(key)
            if found is None:
                if len(kept) >= _KEPT:
                    kept.clear()
                found = kept[key] = self.made_of(finished.paper, trace(finished))
            return found

        line = DrawnLine(self.id, How(self.how), (), self.pen, follows=ways)
        return self.with_line(work, line, bool(ways(work)), field)

    def with_line(self, work: Work, line: DrawnLine, found: bool, field: str) -> Work:
        """The work with the line. StepError where nothing of it was found on the paper."""
        if not found:
            raise StepError("There is no paper under the line.", field=field)
        return replace(work, lines=(*work.lines, line))

    def tells(self, before: Work | None, after: Work, setting: object) -> list[Told]:
        mine = [w for line in after.lines_on_paper if line.step == self.id for w in line.ways]
        length = sum(length_of(way) for way, _ in mine)
        if self.how in (Lining.STITCH, Lining.PERFORATE):
            return [Told("Stitches", len(mine), "count"), Told("Together", length)]
        if self.how is Lining.PRICK:
            return [Told("Holes", len(mine), "count")]
        return [Told("Length", length)]
