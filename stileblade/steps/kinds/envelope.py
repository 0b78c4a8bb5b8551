"""Start: an envelope made to measure."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.card.creases import Crease
from stileblade.card.layout import Panel
from stileblade.fields import choice, length, share
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.paths.pathdata import region_from_path
from stileblade.piece.folds import Fold
from stileblade.piece.lying import Around, Facing, Lies, Lying
from stileblade.piece.work import Work
from stileblade.steps.ground import stack_of
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step

TOP = "top flap"


class Flap(StrEnum):
    POINTED = "pointed"
    ROUNDED = "rounded"
    STRAIGHT = "straight"


@register_step
class EnvelopeStep(Step):
    """An envelope for the closed card with all its layers: a front, flaps at its foot and sides, and one
    to close it."""

    stage = Stage.OUTLINE
    title = "Envelope"
    words = "layer start post mail cover made to measure"
    sayings = (
        "make an envelope",
        "envelope to measure",
    )
    starts_with = StartsWith.LAYER
    sample_lies = Lies("base", "", Facing.AROUND)
    kind: Literal["envelope"] = "envelope"
    room: float = length(
        4, "Room", "More than the card and its thickness, each way.", least=0, most=50
    )
    flap: Flap = choice(
        Flap.POINTED, "Top flap", "Its shape.",
        pointed="pointed", rounded="rounded", straight="straight",
    )  # fmt: skip
    top: float = share(0.45, "Top flap's share", "Of the height.", least=0.1, most=1)
    bottom: float = share(0.6, "Bottom flap's share", "Of the height.", least=0.1, most=0.98)
    sides: float = length(18, "Side flaps", "How wide they are.", above=4, most=150)
    ease: float = length(
        2, "Eased by", "By which flaps are narrower at their ends.", least=0, most=20
    )

    @property
    def goes_round(self) -> Around:
        return Around.ENVELOPE

    def roomier_by(self, more: float) -> dict[str, float]:
        return {"room": round(self.room + more, 2)}

    def inside(self, setting: Setting) -> tuple[float, float]:
        """Width and height inside."""
        stack = stack_of(setting)
        more = stack.bulk + self.room
        return stack.closed[0] + more, stack.closed[1] + more

    def apply(self, work: Work | None, setting: Setting) -> Work:
        wide, high = self.inside(setting)
        s, e = self.sides, min(self.ease, wide / 4)
        left, right = s, s + wide
        head = self.top * high
        foot = head + high
        end = foot + self.bottom * high
        ease = min(e, high / 4, s)
        outline = (
            f"M{left} {head}{self._top(left, right, head, e)}"
            f"L{right + s} {head + ease}V{foot - ease}L{right} {foot}"
            f"L{right - e} {end}H{left + e}L{left} {foot}"
            f"L{left - s} {foot - ease}V{head + ease}Z"
        )
        paper = region_from_path(outline, "nonzero")
        panels = (
            Panel(TOP, Box(left, 0.0, right, head)),
            Panel("left flap", Box(0.0, head, left, foot)),
            Panel("front", Box(left, head, right, foot)),
            Panel("right flap", Box(right, head, right + s, foot)),
            Panel("bottom flap", Box(left, foot, right, end)),
        )
        lines = (
            ("left fold", Line.on("x", left), 1),
            ("right fold", Line.on("x", right), 1),
            ("bottom fold", Line.on("y", foot), 2),
            ("top fold", Line.on("y", head), 3),
        )
        folds = tuple(Fold(n, line, Crease(order=o), step=self.id) for n, line, o in lines)
        return Work(
            paper, panels, folds, reference=paper.bounds, front="front", fronts=("front",),
            lying=Lying(identity()),
        )  # fmt: skip

    def _top(self, left: float, right: float, head: float, ease: float) -> str:
        """The way from the head's left corner round the top flap to its right."""
        middle, half = (left + right) / 2, (right - left) / 2
        if self.flap is Flap.STRAIGHT:
            return f"L{left + ease} 0H{right - ease}L{right} {head}"
        if self.flap is Flap.ROUNDED:
            return f"A{half} {head} 0 0 1 {right} {head}"
        tip = min(half, head) / 4  # a point is rounded off, so that it does not tear
        back = tip * head / half
        return f"L{middle - tip} {back}Q{middle} {-back} {middle + tip} {back}L{right} {head}"

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        wide, high = self.inside(setting)
        box = after.paper.bounds
        return [
            Told("Inside wide", wide),
            Told("Inside high", high),
            Told("Laid open wide", box.width),
            Told("Laid open high", box.height),
        ]

    def caption(self) -> Caption:
        return Caption("room", self.room)

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        from stileblade.steps.kinds.liner import Liner

        liner = NewPiece(
            "Liner", (Liner(),), "front", Facing.INSIDE, colour="#7f9aa3", thin=True, on=1
        )
        made = NewPiece("Envelope", (cls(),), "", Facing.AROUND, colour="#efe6d2", thin=True)
        return [
            Proposal("An envelope", "For the closed card with all its layers", (made,)),
            Proposal("An envelope and its liner", "The liner in another paper", (made, liner)),
        ]

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls()]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank

        return [[Blank()]]
