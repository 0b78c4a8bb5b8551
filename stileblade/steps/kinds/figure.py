"""Start: a figure."""

from __future__ import annotations

from typing import Any, Literal

from stileblade.geometry.curves.transforms import translation
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import GivenBy, outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.piece.work import Work
from stileblade.steps.beginning import Beginning, Begun
from stileblade.steps.fitting import FitTo
from stileblade.steps.kinds.fit import Fit
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, register_step
from stileblade.words import within


@register_step
class StartFigure(Step):
    """A figure as the start of the piece; a mirror makes it a card."""

    stage = Stage.OUTLINE
    title = "Figure"
    words = "start shape outline shelf drawing"
    by_figure = 1.0
    sayings = (
        "start with a shape",
        "shaped card",
    )
    takes = ("outline",)
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

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        return {"outline": self.outline.scaled(factor, setting.shelf)}

    @property
    def sizes_anew(self) -> bool:
        return True

    def caption(self) -> Caption:
        return Caption(within(self.outline.title))

    @classmethod
    def begun_with(cls, begun: Begun) -> tuple[Step, ...]:
        if begun.figure.given_by is GivenBy.ARTWORK:
            return ()
        start = cls(outline=begun.figure)
        return (start, Fit(to=FitTo.PANEL, margin=begun.margin)) if begun.fits else (start,)

    @classmethod
    def beginnings(cls, begun: Begun) -> list[Beginning]:
        about = "The figure flat and by itself: the mirror is added by hand."
        if not begun.setting.folding.way.mirrors:
            return [Beginning("half", 4, "One half", about, why=begun.no_halves)]
        box = begun.made(begun.figure_steps).paper.bounds
        size = (box.width, box.height)
        return [Beginning("half", 4, "One half", about, begun.figure_steps, size)]

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Heart

        return [cls(outline=Heart())]
