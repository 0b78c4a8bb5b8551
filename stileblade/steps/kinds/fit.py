"""Fit to a measure."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from stileblade.fields import choice
from stileblade.geometry.curves.transforms import after, scaling, translation
from stileblade.piece.work import Work
from stileblade.steps.fitting import (
    FitTo,
    factors,
    fitted_length,
    fitted_margin,
    present_fit,
    scaled_fit,
)
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, register_step


@register_step
class Fit(Step):
    """The figure as it stands, scaled about its centre to a width, a height, both, or to the
    closed card less a margin all round."""

    needs_before = Needs.FIGURE
    stage = Stage.OUTLINE
    title = "Fit"
    words = "scale resize width height margin panel proportion"
    sayings = (
        "bigger",
        "huge",
        "blow up",
        "larger",
        "enlarge",
        "smaller",
        "resize",
        "scale",
        "make it fit",
        "stretch",
        "make it wider",
        "set the width",
        "set the height",
        "change size",
        "size of the figure",
    )
    takes = ("width",)
    kind: Literal["fit"] = "fit"
    to: FitTo = choice(
        FitTo.WIDTH,
        "Fit to",
        "What the figure is fitted to.",
        {"as-read": "as it is"},
        width="a width",
        height="a height",
        both="width and height",
        panel="the closed card",
    )
    width: float = fitted_length("Width", "The width it gets.", FitTo.WIDTH)
    height: float = fitted_length("Height", "The height it gets.", FitTo.HEIGHT)
    margin: float = fitted_margin()
    proportions: bool = Field(
        True, title="Keep proportions", description="Off: only what is fitted is stretched."
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs_figure(work)
        box = work.paper.bounds
        sx, sy = factors(
            box,
            self.to,
            width=self.width,
            height=self.height,
            closed=setting.closed,
            margin=self.margin,
            proportions=self.proportions,
        )
        matrix = scaling(sx, sy, about=box.centre)
        if self.to is FitTo.PANEL:
            w, h = setting.closed
            x, y = box.centre
            matrix = after(translation(w / 2 - x, h / 2 - y), matrix)
        return work.moved(matrix)

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        return scaled_fit(self.to, self.width, self.height, factor)

    @property
    def sizes_anew(self) -> bool:
        return self.to is not FitTo.READ

    def present(self, after: Work) -> dict[str, float]:
        return present_fit(after.paper.bounds)

    def caption(self) -> Caption:
        if self.to is FitTo.PANEL:
            return Caption("margin", self.margin)
        if self.to is FitTo.HEIGHT:
            return Caption("high", self.height)
        return Caption("wide", self.width)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.straight import Star
        from stileblade.steps.kinds.figure import StartFigure

        return [StartFigure(outline=Star(diameter=60)), cls(width=90)]
