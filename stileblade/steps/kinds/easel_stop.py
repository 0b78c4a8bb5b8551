"""The stop that an easel's display panel stands against."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import length
from stileblade.geometry.curves.places import Box
from stileblade.geometry.regions.set_operations import rectangle
from stileblade.piece.work import Work
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step


@register_step
class EaselStop(Step):
    """A strip glued to the back of an easel, which its display panel stands against: half a panel from
    the fold, where the display's foot comes to stand."""

    stage = Stage.OUTLINE
    title = "Stop of an easel"
    words = "easel stand prop strip hold foot start"
    sayings = (
        "stopper",
        "stop of the easel",
    )
    takes = ("deep",)
    starts_with = StartsWith.PROP
    kind: Literal["easel-stop"] = "easel-stop"
    deep: float = length(12, "Depth", "Of the strip.", above=1, most=200)
    margin: float = length(10, "Shorter by", "At either end than the card.", least=0, most=200)

    @property
    def props_up(self) -> str:
        return "stop"

    def apply(self, work: Work | None, setting: Setting) -> Work:
        along, _ = self._measures(setting)
        wide = along - 2 * self.margin
        if wide <= 0:
            raise StepError(
                "Shorter by {} at either end, nothing is left of {}.",
                self.margin,
                along,
                field="margin",
                would_do=round(along / 10, 1),
            )
        box = Box(0.0, 0.0, wide, self.deep)
        if setting.folding.axis == "x":
            box = Box(0.0, 0.0, self.deep, wide)
        paper = rectangle(box)
        return Work(paper, reference=paper.bounds)

    def _measures(self, setting: Setting) -> tuple[float, float]:
        """The card's measure along its fold, and across it."""
        width, height = setting.closed
        return (height, width) if setting.folding.axis == "x" else (width, height)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        _, across = self._measures(setting)
        return [Told("Glued on the back", across / 2, note="its near edge, from the fold")]

    def caption(self) -> Caption:
        return Caption("", self.deep)

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls()]
