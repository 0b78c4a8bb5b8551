"""Fill openings."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.build.step import Caption, Setting, Stage, Step, register_step
from stileblade.build.work import Work
from stileblade.fields import area, choice
from stileblade.geometry.fill import filled


class Which(StrEnum):
    ALL = "all"
    BELOW = "below"


@register_step
class Fill(Step):
    """Openings closed with paper: all of them, or those smaller than an area."""

    stage = Stage.OUTLINE
    title = "Fill openings"
    words = "holes close tiny inner contours"
    kind: Literal["fill"] = "fill"
    which: Which = choice(
        Which.ALL, "Fill", "Which openings are closed.", all="all", below="below an area"
    )
    below: float = area(
        4, "Below", "Openings smaller than this are closed.", when={"which": ["below"]}
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        below = self.below if self.which is Which.BELOW else None
        return work.with_paper(filled(work.paper, below=below))

    def caption(self) -> Caption:
        return Caption("all") if self.which is Which.ALL else Caption("below", self.below, "mm2")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.figure import StartFigure
        from stileblade.outlines.figures.round import Ring

        return [StartFigure(outline=Ring()), cls()]
