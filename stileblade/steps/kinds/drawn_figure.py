"""A figure, a word or an artwork as a line."""

from __future__ import annotations

from typing import Literal

from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figures.round import Heart
from stileblade.piece.work import Work
from stileblade.steps.lining import LiningStep
from stileblade.steps.placing import PlacedStep
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step


@register_step
class DrawnFigure(PlacedStep, LiningStep):
    """The outline of a figure, a word or an artwork drawn, stitched, scored or perforated where
    there is paper under it, but not cut."""

    stage = Stage.WINDOWS
    title = "Drawn figure"
    words = "pen draw stitch word letter sketch line"
    kind: Literal["drawn-figure"] = "drawn-figure"
    outline: AnyFigure = figure_field(Heart(), "Figure", "What is drawn.")

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        return self.lined(work, self.placed(work, setting), "dx")

    def caption(self) -> Caption:
        return Caption(self.outline.title.lower())

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls()]
