"""Start: a liner of an envelope."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from stileblade.card.creases import Direction
from stileblade.errors import StepError
from stileblade.fields import length
from stileblade.geometry.curves.transforms import mirror_across
from stileblade.geometry.regions.set_operations import union
from stileblade.piece.lying import AtFolds, Facing, Lies, Lying
from stileblade.piece.work import Work
from stileblade.steps.ground import ground_on
from stileblade.steps.kinds.envelope import TOP
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step


@register_step
class Liner(Step):
    """A liner for the envelope that it lies in: front and top flap less a margin, folded with it."""

    stage = Stage.OUTLINE
    title = "Liner"
    words = "layer start envelope lining inside patterned"
    sayings = (
        "envelope liner",
        "lining of the envelope",
    )
    takes = ("margin",)
    starts_with = StartsWith.LAYER
    sample_lies = Lies("piece-1", "", Facing.INSIDE)
    kind: Literal["liner"] = "liner"
    margin: float = length(
        5, "Margin", "By which it is smaller than front and top flap.", least=0, most=60
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        host = setting.host
        names = [p.name for p in host.panels]
        if TOP not in names:
            raise StepError(
                "A liner lies in an envelope, and this lies on something else.",
                hint="Let it lie on the card's envelope, in the list of pieces.",
            )
        front, top = ground_on(host, host.front), ground_on(host, TOP)
        shared = frozenset(f.name for _, f in top.folds)
        parts = [g.less(self.margin, self.margin, shared) for g in (top, front)]
        if not all(parts):
            raise StepError(
                "A margin of {} leaves nothing.", self.margin, field="margin", would_do=5.0
            )
        # its outside is what is seen when the envelope is opened
        mirror = mirror_across(axis="x", at=front.box.centre[0])
        paper = union(*parts).transformed(mirror)
        return Work(
            paper,
            tuple(p for p in host.panels if p.name in (TOP, host.front)),
            tuple(
                replace(f, step=self.id, crease=replace(f.crease, direction=Direction.VALLEY))
                for f in host.folds
                if f.name in shared
            ),
            reference=paper.bounds,
            front=host.front,
            fronts=(host.front,),
            lying=Lying(mirror, "", AtFolds.CREASED),
        )

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        return [Told("Wide", box.width), Told("High", box.height)]

    def caption(self) -> Caption:
        return Caption("margin", self.margin)

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls()]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.envelope import EnvelopeStep

        return [[Blank()], [EnvelopeStep()]]
