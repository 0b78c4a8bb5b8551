"""Turn the figure."""

from __future__ import annotations

from typing import Literal

from stileblade.build.step import Caption, Setting, Stage, Step, register_step
from stileblade.build.work import Work
from stileblade.fields import angle
from stileblade.geometry.transforms import rotation


@register_step
class Turn(Step):
    """The figure turned about the centre of its box."""

    stage = Stage.OUTLINE
    title = "Turn"
    words = "rotate angle lean"
    kind: Literal["turn"] = "turn"
    angle: float = angle(90, "Angle", "Clockwise.")

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs_figure(work)
        turned = work.moved(rotation(self.angle, about=work.paper.bounds.centre))
        return turned.with_paper(turned.paper, reference=turned.paper.bounds)

    def caption(self) -> Caption:
        return Caption("", self.angle, "deg")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.figure import StartFigure
        from stileblade.outlines.figures.shaped import Tag

        return [StartFigure(outline=Tag()), cls(angle=60)]
