"""Start: a band round the closed card."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.card.creases import Crease
from stileblade.card.layout import Panel
from stileblade.fields import choice, length
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.regions.set_operations import rectangle
from stileblade.piece.folds import Fold
from stileblade.piece.lying import Around, Facing, Lies, Lying
from stileblade.piece.work import Work
from stileblade.steps.ground import stack_of
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step

THICK = 1.5
"""mm: round a card from this bulk on, folds are double, the bulk apart."""
_EASE = 0.5
"""mm by which each panel is wider than the card and its bulk."""


class Goes(StrEnum):
    ACROSS = "across"
    ALONG = "along"


@register_step
class Band(Step):
    """A band round the closed card, made to measure from its size and its thickness with all layers."""

    stage = Stage.OUTLINE
    title = "Band"
    words = "layer start belly round wrap closed ribbon sleeve"
    sayings = (
        "belly band",
        "sleeve round the card",
        "paper ribbon round it",
    )
    takes = ("wide",)
    starts_with = StartsWith.LAYER
    sample_lies = Lies("base", "", Facing.AROUND)
    kind: Literal["band"] = "band"
    goes: Goes = choice(
        Goes.ACROSS, "Runs", "Round the card's width, or round its height.",
        across="round the width", along="round the height",
    )  # fmt: skip
    wide: float = length(40, "Wide", "Of the band itself.", above=1, most=500)
    overlap: float = length(20, "Overlap", "That is glued to its other end.", above=0, most=200)

    @property
    def goes_round(self) -> Around:
        return Around.BAND

    def apply(self, work: Work | None, setting: Setting) -> Work:
        stack = stack_of(setting)
        round_ = stack.closed[0 if self.goes is Goes.ACROSS else 1]
        panel = round_ + stack.bulk + _EASE
        stops = [0.0, panel, 2 * panel, 2 * panel + self.overlap]
        names = ("front", "back", "overlap")
        spine = stack.bulk if stack.bulk >= THICK else 0.0
        axis: Literal["x", "y"] = "x" if self.goes is Goes.ACROSS else "y"

        def box(low: float, high: float) -> Box:
            return Box(low, 0.0, high, self.wide) if axis == "x" else Box(0.0, low, self.wide, high)

        return Work(
            rectangle(box(stops[0], stops[-1])),
            tuple(Panel(n, box(a, b)) for n, a, b in zip(names, stops, stops[1:], strict=False)),
            tuple(
                Fold(
                    f"fold {i}",
                    Line.on(axis, stops[i]),
                    Crease(order=i),
                    spine=spine,
                    step=self.id,
                )
                for i in (1, 2)
            ),
            reference=box(stops[0], stops[-1]),
            front="front",
            fronts=("front",),
            lying=Lying(identity()),
        )

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        stack = stack_of(setting)
        return [
            Told("Long", max(box.width, box.height)),
            Told("Card's thickness", stack.bulk),
        ]

    def caption(self) -> Caption:
        return Caption("wide", self.wide)

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        made = NewPiece("Band", (cls(),), "", Facing.AROUND, colour="#c9a15a")
        return [
            Proposal("A band", "Round the closed card, made to measure", (made,)),
        ]

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls()]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank

        return [[Blank()]]
