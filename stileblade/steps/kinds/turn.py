"""Turn the figure."""

from __future__ import annotations

from typing import Literal

from stileblade.fields import angle
from stileblade.geometry.curves.transforms import rotation
from stileblade.piece.work import Work
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, register_step


@register_step
class Turn(Step):
    """The figure turned about the centre of its box."""

    needs_before = Needs.FIGURE
    stage = Stage.OUTLINE
    title = "Turn"
    words = "rotate angle lean"
    sayings = (
        "rotate",
        "turn",
        "tilt",
        "lean",
        "straighten",
        "spin",
        "on its side",
    )
    takes = ("angle",)
    kind: Literal["turn"] = "turn"
    angle: float = angle(90, "Angle", "Clockwise.")

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs_figure(work)
        turned = work.moved(rotation(self.angle, about=work.paper.bounds.centre))
        return turned.with_paper(turned.paper, reference=turned.paper.bounds)

    def turned_by(self, angle: float) -> dict[str, float]:
        return {"angle": round((self.angle + angle + 180) % 360 - 180, 3)}

    def caption(self) -> Caption:
        return Caption("", self.angle, "deg")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.shaped import Tag
        from stileblade.steps.kinds.figure import StartFigure

        return [StartFigure(outline=Tag()), cls(angle=60)]
