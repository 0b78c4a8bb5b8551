"""Flip the figure."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.fields import choice
from stileblade.geometry.curves.transforms import mirror_across
from stileblade.piece.work import Work
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, register_step


class Sides(StrEnum):
    LEFT_RIGHT = "left-right"
    HEAD_FOOT = "head-foot"


@register_step
class Flip(Step):
    """The figure turned over in its place: left for right, or head for foot."""

    needs_before = Needs.FIGURE
    stage = Stage.OUTLINE
    title = "Flip"
    words = "reverse reflect turn over"
    sayings = (
        "flip",
        "reverse",
        "other way round",
        "mirror it in place",
        "turn over",
        "left for right",
        "upside down",
    )
    kind: Literal["flip"] = "flip"
    swap: Sides = choice(
        Sides.LEFT_RIGHT,
        "Swap",
        "Which sides change places.",
        {"left-right": "left and right", "head-foot": "head and foot"},
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs_figure(work)
        x, y = work.paper.bounds.centre
        upright = self.swap is Sides.LEFT_RIGHT
        matrix = mirror_across(axis="x" if upright else "y", at=x if upright else y)
        return work.moved(matrix)

    def caption(self) -> Caption:
        return Caption("left, right" if self.swap is Sides.LEFT_RIGHT else "head, foot")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.shaped import Tag
        from stileblade.steps.kinds.figure import StartFigure
        from stileblade.steps.kinds.turn import Turn

        return [StartFigure(outline=Tag()), Turn(angle=40), cls()]
