"""A figure, a word or an artwork as a line."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import length, number_of, offset
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.region import Contour
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figures.round import Heart
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.steps.lining import LiningStep
from stileblade.steps.placing import PlacedStep
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step
from stileblade.words import within


@register_step
class DrawnFigure(PlacedStep, LiningStep):
    """The outline of a figure, a word or an artwork drawn, stitched, scored or perforated where
    there is paper under it, but not cut."""

    stage = Stage.WINDOWS
    title = "Drawn figure"
    words = "pen draw stitch word letter sketch line"
    sayings = (
        "draw a shape with a pen",
        "outline drawn with a pen",
        "sketch",
        "score a shape",
        "emboss a shape",
        "stitched shape",
        "perforate a shape",
        "write a word in outline",
    )
    takes = ("outline",)
    kind: Literal["drawn-figure"] = "drawn-figure"
    outline: AnyFigure = figure_field(Heart(), "Figure", "What is drawn.")
    margin: float = offset(
        0, "Round it by", "The line lies so far outside the figure; negative is inside."
    )
    lines: int = number_of(1, "Lines", "How many, each further out.", least=1, most=20)
    apart: float = length(3, "Apart", "From one line to the next.", least=0.2, most=100)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        figure = self.placed(work, setting)
        contours: list[Contour] = []
        for number in range(self.lines):
            contours += grown_by(figure, self.margin + number * self.apart).contours
        if not contours:
            raise StepError(
                "Inside by {}, nothing is left of the figure.",
                -self.margin,
                field="margin",
                would_do=0.0,
            )
        ways = self.made_of(work.paper, [(c.segments, True) for c in contours])
        line = DrawnLine(self.id, How(self.how), ways, self.pen)
        return self.with_line(work, line, bool(ways), "dx")

    def caption(self) -> Caption:
        return Caption(within(self.outline.title))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls()]
