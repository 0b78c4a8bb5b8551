"""Slice at an exact place."""

from __future__ import annotations

import math
from enum import StrEnum
from typing import Final, Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, offset, special
from stileblade.geometry.curves.places import Axis, Side
from stileblade.geometry.measures.flat_run import depth_for_run, run_at
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import cut_off
from stileblade.piece.work import Work
from stileblade.steps.handle import Handle, LineHandle, Moved
from stileblade.steps.measured import Edge, edge_field
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, kept_whole, register_step


class Keep(StrEnum):
    ABOVE = "above"
    BELOW = "below"
    LEFT = "left"
    RIGHT = "right"


class By(StrEnum):
    MEASURE = "measure"
    RUN = "run"


_SIDES: Final[dict[Keep, Side]] = {
    Keep.ABOVE: Side.FOOT,
    Keep.BELOW: Side.HEAD,
    Keep.LEFT: Side.RIGHT,
    Keep.RIGHT: Side.LEFT,
}


@register_step
class Slice(Step):
    """A straight cut across the piece, one side of which is kept: at an exact place, measured from
    the box of the figure, of a panel or of the open card inwards; or where it leaves an edge of
    the length asked for, as a foot to stand on, and takes the least away.
    """

    stage = Stage.OUTLINE
    title = "Slice"
    words = "trim cut flat foot top straight"
    sayings = (
        "crop",
        "trim",
        "cut off",
        "straight bottom",
        "flat bottom",
        "flat foot",
        "make it stand level",
        "chop the top",
        "remove the tip",
        "flatten",
        "level the foot",
        "cut straight",
        "shorten",
    )
    takes = ("distance",)
    kind: Literal["slice"] = "slice"
    keep: Keep = choice(
        Keep.ABOVE,
        "Keep",
        "What stays.",
        above="above it",
        below="below it",
        left="left of it",
        right="right of it",
    )
    by: By = choice(
        By.MEASURE, "Place by", "What the place is given by.", measure="a measure", run="a flat run"
    )
    run: float = length(
        40, "Flat run", "How long the cut edge is without a break.", above=0, when={"by": ["run"]}
    )
    target: str = special(
        "front",
        "Measured on",
        "Whose box it is measured on.",
        control="target",
        when={"by": ["measure"]},
    )
    edge: Edge = edge_field(Edge.FAR, when={"by": ["measure"]})
    distance: float = offset(
        4,
        "Distance",
        "From there inwards; from the middle, down or right.",
        when={"by": ["measure"]},
    )

    @property
    def side(self) -> Side:
        """The side that is cut away."""
        return _SIDES[self.keep]

    @property
    def axis(self) -> Axis:
        return self.side.axis

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        if self.by is By.RUN:
            return work.with_paper(self._cut(work, self._place_for_run(work)))
        origin, sign = self.edge.origin(work.box_of(self.target), self.axis)
        at = origin + sign * self.distance
        paper = self._cut(work, at)
        box = work.paper.bounds
        low, high = (box.head, box.foot) if self.axis == "y" else (box.left, box.right)
        middle = (low + high) / 2
        kept_whole(
            paper,
            "The slice leaves nothing: all of the piece lies on the other side of it.",
            field="distance",
            would_do=round((middle - origin) * sign, 2),
        )
        return work.with_paper(paper)

    def _cut(self, work: Work, at: float) -> Region:
        keep = "more" if self.side.low else "less"
        return cut_off(work.paper, axis=self.axis, at=at, keep=keep)

    def _place_for_run(self, work: Work) -> float:
        depth, longest = depth_for_run(work.paper, self.side, self.run)
        if depth is None:
            raise StepError(
                "No straight cut is {} long without a break; the longest is {}.",
                self.run,
                longest,
                hint="Ask for a shorter run, or weld a foot on.",
                field="run",
                would_do=math.floor(longest * 10) / 10,
            )
        return self.side.inside(work.paper.bounds, depth)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None or not before.paper or not after.paper:
            return []
        old, new = before.paper.bounds, after.paper.bounds
        lost = abs(self.side.at(old) - self.side.at(new))
        word = "Height lost" if self.axis == "y" else "Width lost"
        run = run_at(after.paper, self.axis, self.side.at(new))
        return [
            Told(word, lost),
            Told("Flat run", run, note="its longest unbroken stretch"),
            Told("Area lost", before.paper.area - after.paper.area, "mm2"),
        ]

    def caption(self) -> Caption:
        if self.by is By.RUN:
            return Caption("flat", self.run)
        return Caption(f"{self.keep}", self.distance)

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None or self.by is By.RUN:
            return []
        origin, sign = self.edge.origin(before.box_of(self.target), self.axis)
        sets = Moved("distance", self.distance, sign)
        return [LineHandle(sets, self.axis, origin + sign * self.distance, origin, word="slice")]

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Circle
        from stileblade.steps.kinds.figure import StartFigure

        return [StartFigure(outline=Circle()), cls(distance=14)]
