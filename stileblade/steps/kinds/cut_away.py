"""Cut away a further figure."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.geometry.regions.set_operations import difference, intersection
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.placing import Anchor, PlacedStep, anchor_at
from stileblade.steps.step import Caption, Setting, Stage, Step, kept_whole, register_step
from stileblade.words import within


@register_step
class CutAway(PlacedStep):
    """What of the piece lies under a further figure is taken away: notches, shaped sides."""

    stage = Stage.WINDOWS
    title = "Cut away"
    words = "subtract notch remove bite waist difference"
    sayings = (
        "subtract",
        "bite out",
        "notch",
        "take a piece out of the edge",
        "thumb notch",
        "cut a shape off",
    )
    takes = ("outline",)
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
        opened = Opened(self.id, self.target, figure, crosses=True, before=work.paper)
        return work.with_paper(paper, windows=(*work.windows, opened))

    @property
    def opens(self) -> bool:
        return True

    def caption(self) -> Caption:
        return Caption(within(self.outline.title))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Circle
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(outline=Circle(diameter=60))]
