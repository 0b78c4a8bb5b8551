"""Cut away a further figure."""

from __future__ import annotations

from typing import Literal

from stileblade.build.placement import Anchor, PlacedStep, anchor_at
from stileblade.build.step import Caption, Setting, Stage, Step, kept_whole, register_step
from stileblade.build.work import Opened, Work
from stileblade.errors import StepError
from stileblade.geometry.set_operations import difference, intersection


@register_step
class CutAway(PlacedStep):
    """What of the piece lies under a further figure is taken away: notches, shaped sides."""

    stage = Stage.WINDOWS
    title = "Cut away"
    words = "subtract notch remove bite waist difference"
    kind: Literal["cut-away"] = "cut-away"
    at: Anchor = anchor_at(Anchor.RIGHT)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        figure = self.placed(work, setting)
        if not intersection(work.paper, figure):
            raise StepError(
                "The figure does not touch the piece: nothing is cut away.",
                hint="Move it on to the paper.",
                field="dx",
            )
        paper = kept_whole(
            difference(work.paper, figure),
            "The figure covers the whole piece: nothing would be left.",
            field="outline",
        )
        opened = Opened(self.id, self.target, figure, crosses=True)
        return work.with_paper(paper, windows=(*work.windows, opened))

    def caption(self) -> Caption:
        return Caption(self.outline.title.lower())

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.blank import Blank
        from stileblade.outlines.figures.round import Circle

        return [Blank(), cls(outline=Circle(diameter=60))]
