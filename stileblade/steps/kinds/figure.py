"""Start: a figure."""

from __future__ import annotations

from typing import Literal

from stileblade.geometry.curves.transforms import translation
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.piece.work import Work
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, register_step


@register_step
class StartFigure(Step):
    """A figure as the start of the piece; a mirror makes it a card."""

    stage = Stage.OUTLINE
    title = "Figure"
    words = "start shape outline shelf drawing"
    starts_with = StartsWith.FIGURE
    kind: Literal["figure"] = "figure"
    outline: AnyFigure = figure_field(
        Circle(diameter=110), "Figure", "What the card is shaped like."
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        region = outline_of(self.outline, setting.shelf)
        box = region.bounds
        region = region.transformed(translation(-box.left, -box.head))
        return Work(region, reference=region.bounds)

    def caption(self) -> Caption:
        return Caption(self.outline.title.lower())

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Heart

        return [cls(outline=Heart())]
