"""Slice at an exact place."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.build.step import Caption, Handle, Setting, Stage, Step, kept_whole, register_step
from stileblade.build.work import Work
from stileblade.fields import choice, offset, special
from stileblade.geometry.region import Box
from stileblade.geometry.set_operations import cut_off


class Keep(StrEnum):
    ABOVE = "above"
    BELOW = "below"
    LEFT = "left"
    RIGHT = "right"


class Edge(StrEnum):
    NEAR = "near"
    MIDDLE = "middle"
    FAR = "far"


@register_step
class Slice(Step):
    """A straight cut across the piece at an exact place, one side of which is kept.

    The place is measured from the box of the figure, of a panel or of the open card, inwards.
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
    target: str = special("front", "Measured on", "Whose box it is measured on.", control="target")
    edge: Edge = choice(
        Edge.FAR,
        "Measured from",
        "Where the measure starts.",
        near="head or left",
        middle="the middle",
        far="foot or right",
    )
    distance: float = offset(4, "Distance", "From there inwards; from the middle, down or right.")

    @property
    def axis(self) -> Literal["x", "y"]:
        return "y" if self.keep in (Keep.ABOVE, Keep.BELOW) else "x"

    def _origin(self, box: Box) -> tuple[float, float]:
        """Where the measure starts, and the sign of its direction."""
        low, high = (box.head, box.foot) if self.axis == "y" else (box.left, box.right)
        if self.edge is Edge.NEAR:
            return low, 1.0
        if self.edge is Edge.FAR:
            return high, -1.0
        return (low + high) / 2, 1.0

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        origin, sign = self._origin(work.box_of(self.target))
        at = origin + sign * self.distance
        keep = "less" if self.keep in (Keep.ABOVE, Keep.LEFT) else "more"
        paper = cut_off(work.paper, axis=self.axis, at=at, keep=keep)
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

    def caption(self) -> Caption:
        return Caption(f"{self.keep}", self.distance)

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        origin, sign = self._origin(before.box_of(self.target))
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
