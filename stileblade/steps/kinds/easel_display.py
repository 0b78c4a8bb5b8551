"""The display panel of an easel."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import length
from stileblade.geometry.curves.places import Box
from stileblade.geometry.regions.set_operations import rectangle
from stileblade.piece.work import Work
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, register_step


@register_step
class EaselDisplay(Step):
    """The panel that an easel shows: as large as the closed card, glued to the free half of its front. Set
    up, it stands with its foot on the back, against the stop."""

    stage = Stage.OUTLINE
    title = "Display panel"
    words = "easel stand prop show picture start"
    sayings = (
        "easel front",
        "display panel",
    )
    takes = ("margin",)
    starts_with = StartsWith.PROP
    kind: Literal["easel-display"] = "easel-display"
    margin: float = length(0, "Smaller by", "On each side than the closed card.", least=0, most=100)

    @property
    def props_up(self) -> str:
        return "display"

    def apply(self, work: Work | None, setting: Setting) -> Work:
        width, height = (m - 2 * self.margin for m in setting.closed)
        if min(width, height) <= 0:
            raise StepError(
                "Smaller by {} on each side, nothing is left of {}.",
                self.margin,
                min(setting.closed),
                field="margin",
                would_do=0.0,
            )
        paper = rectangle(Box(0.0, 0.0, width, height))
        return Work(paper, reference=paper.bounds)

    def caption(self) -> Caption:
        return Caption("of the card") if not self.margin else Caption("less", self.margin)

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls()]
