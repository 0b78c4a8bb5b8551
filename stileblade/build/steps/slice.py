"""Slice at an exact place."""

from __future__ import annotations

import math
from enum import StrEnum
from typing import Final, Literal

from stileblade.build.measured import Edge, edge_field
from stileblade.build.step import (
    Caption,
    Handle,
    Setting,
    Stage,
    Step,
    Told,
    kept_whole,
    register_step,
)
from stileblade.build.work import Work
from stileblade.errors import StepError
from stileblade.fields import choice, length, offset, special
from stileblade.geometry.flat_run import Side, depth_for_run, run_at
from stileblade.geometry.region import Box, Region
from stileblade.geometry.set_operations import cut_off


class Keep(StrEnum):
    ABOVE = "above"
    BELOW = "below"
    LEFT = "left"
    RIGHT = "right"


class By(StrEnum):
    MEASURE = "measure"
    RUN = "run"


_SIDES: Final[dict[Keep, Side]] = {
    Keep.ABOVE: "foot",
    Keep.BELOW: "head",
    Keep.LEFT: "right",
    Keep.RIGHT: "left",
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
    def axis(self) -> Literal["x", "y"]:
        return "y" if self.keep in (Keep.ABOVE, Keep.BELOW) else "x"

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
        keep = "less" if self.keep in (Keep.ABOVE, Keep.LEFT) else "more"
        return cut_off(work.paper, axis=self.axis, at=at, keep=keep)

    def _edge(self, box: Box) -> float:
        """The extreme on the side that is cut away."""
        side = _SIDES[self.keep]
        return {"head": box.head, "foot": box.foot, "left": box.left, "right": box.right}[side]

    def _place_for_run(self, work: Work) -> float:
        depth, longest = depth_for_run(work.paper, _SIDES[self.keep], self.run)
        if depth is None:
            raise StepError(
                "No straight cut is {} long without a break; the longest is {}.",
                self.run,
                longest,
                hint="Ask for a shorter run, or weld a foot on.",
                field="run",
                would_do=math.floor(longest * 10) / 10,
            )
        sign = 1.0 if self.keep in (Keep.BELOW, Keep.RIGHT) else -1.0
        return self._edge(work.paper.bounds) + sign * depth

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None or not before.paper or not after.paper:
            return []
        old, new = before.paper.bounds, after.paper.bounds
        lost = abs(self._edge(old) - self._edge(new))
        word = "Height lost" if self.axis == "y" else "Width lost"
        run = run_at(after.paper, self.axis, self._edge(new))
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
        return [
            Handle(
                "line",
                "distance",
                self.distance,
                axis=self.axis,
                at=origin + sign * self.distance,
                origin=origin,
                factor=sign,
                word="slice",
            )
        ]

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.figure import StartFigure
        from stileblade.outlines.figures.round import Circle

        return [StartFigure(outline=Circle()), cls(distance=14)]
