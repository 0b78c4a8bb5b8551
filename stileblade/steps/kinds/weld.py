"""Weld on a further figure."""

from __future__ import annotations

from typing import Literal

from stileblade.geometry.regions.set_operations import union
from stileblade.piece.work import Work
from stileblade.steps.placing import Anchor, PlacedStep, anchor_at
from stileblade.steps.slivers import drop_field, least_field, slivers_of
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step
from stileblade.words import within


@register_step
class Weld(PlacedStep):
    """A further figure made one with the piece where they overlap or share an edge."""

    stage = Stage.MIRROR
    title = "Weld on"
    words = "add unite join figure overhang union"
    sayings = (
        "add a shape",
        "join a shape",
        "merge",
        "attach",
        "unite",
        "combine",
        "weld",
        "glue shapes together",
        "put ears on",
        "add a tail",
    )
    takes = ("outline",)
    kind: Literal["weld"] = "weld"
    at: Anchor = anchor_at(Anchor.RIGHT)
    least: float = least_field()
    drop: bool = drop_field()

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        paper = union(work.paper, self.placed(work, setting))
        slivers = slivers_of(work.paper, paper, self.least)
        if not slivers:
            return work.with_paper(paper)
        if self.drop:
            return work.with_paper(slivers.dropped(paper))
        return work.with_paper(paper, notes=(*work.notes, slivers.note(self.id)))

    def caption(self) -> Caption:
        return Caption(within(self.outline.title))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Circle
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(outline=Circle(diameter=70))]
