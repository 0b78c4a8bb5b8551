"""Fit to a measure."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from pydantic import Field

from stileblade.build.step import Caption, Setting, Stage, Step, register_step
from stileblade.build.work import Work
from stileblade.errors import StepError
from stileblade.fields import choice, length
from stileblade.geometry.region import Box
from stileblade.geometry.transforms import after, scaling, translation


class FitTo(StrEnum):
    WIDTH = "width"
    HEIGHT = "height"
    BOTH = "both"
    PANEL = "panel"


@register_step
class Fit(Step):
    """The figure as it stands, scaled about its centre to a width, a height, both, or to the
    closed card less a margin all round."""

    stage = Stage.OUTLINE
    title = "Fit"
    words = "scale resize width height margin panel proportion"
    reads_card = True
    kind: Literal["fit"] = "fit"
    to: FitTo = choice(
        FitTo.WIDTH,
        "Fit to",
        "What the figure is fitted to.",
        width="a width",
        height="a height",
        both="width and height",
        panel="the closed card",
    )
    width: float = length(
        100, "Width", "The width it gets.", above=0, when={"to": ["width", "both"]}
    )
    height: float = length(
        100, "Height", "The height it gets.", above=0, when={"to": ["height", "both"]}
    )
    margin: float = length(
        6,
        "Margin",
        "Left free on all sides of the closed card.",
        least=0,
        when={"to": ["panel"]},
    )
    proportions: bool = Field(
        True, title="Keep proportions", description="Off: only what is fitted is stretched."
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs_figure(work)
        box = work.paper.bounds
        sx, sy = self._factors(box, setting)
        matrix = scaling(sx, sy, about=box.centre)
        if self.to is FitTo.PANEL:
            w, h = setting.closed
            x, y = box.centre
            matrix = after(translation(w / 2 - x, h / 2 - y), matrix)
        return work.with_paper(
            work.paper.transformed(matrix), reference=work.reference.transformed(matrix)
        )

    def _factors(self, box: Box, setting: Setting) -> tuple[float, float]:
        if self.to is FitTo.WIDTH:
            s = self.width / box.width
            return s, s if self.proportions else 1.0
        if self.to is FitTo.HEIGHT:
            s = self.height / box.height
            return s if self.proportions else 1.0, s
        if self.to is FitTo.BOTH:
            w, h = self.width, self.height
        else:
            w, h = (m - 2 * self.margin for m in setting.closed)
            if min(w, h) <= 0:
                least = min(setting.closed)
                raise StepError(
                    "A margin of {} on both sides leaves nothing of {}.",
                    self.margin,
                    least,
                    hint="Make the margin smaller.",
                    field="margin",
                    would_do=least / 10,
                )
        sx, sy = w / box.width, h / box.height
        return (min(sx, sy),) * 2 if self.proportions else (sx, sy)

    def caption(self) -> Caption:
        if self.to is FitTo.PANEL:
            return Caption("margin", self.margin)
        if self.to is FitTo.HEIGHT:
            return Caption("high", self.height)
        return Caption("wide", self.width)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.figure import StartFigure
        from stileblade.outlines.figures.straight import Star

        return [StartFigure(outline=Star(diameter=60)), cls(width=90)]
