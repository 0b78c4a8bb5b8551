"""Start: a plain blank."""

from __future__ import annotations

from typing import Literal

from stileblade.card.layout import FoldAxis
from stileblade.errors import StepError
from stileblade.geometry.curves.places import Box
from stileblade.geometry.regions.region import gather
from stileblade.geometry.regions.set_operations import rectangle, union
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.steps.beginning import Beginning, Begun
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, register_step

LARGEST_OPEN = 1800.0
"""mm: outlines are kept exact within this."""


@register_step
class Blank(Step):
    """The open card with the panels and folds that its way of folding gives."""

    stage = Stage.OUTLINE
    title = "Blank"
    words = "start plain base panels rectangle"
    sayings = (
        "plain card",
        "rectangle card",
        "empty base",
    )
    starts_with = StartsWith.CARD
    kind: Literal["blank"] = "blank"

    def apply(self, work: Work | None, setting: Setting) -> Work:
        layout = setting.layout()
        paper = gather([])
        right, foot = (max(getattr(p.box, s) for p in layout.panels) for s in ("right", "foot"))
        if max(right, foot) > LARGEST_OPEN:
            raise StepError(
                "Open, the card is {} x {}: no side may be longer than {}.",
                right,
                foot,
                LARGEST_OPEN,
                hint="Take fewer panels, or a smaller card.",
            )
        for panel in layout.panels:
            paper = union(paper, rectangle(panel.box))
        for fold in layout.folds:
            if fold.apart:
                paper = union(paper, rectangle(_spine(fold, paper.bounds)))
        folds = tuple(Fold(f.name, f.line, f.crease, apart=f.apart) for f in layout.folds)
        return Work(
            paper,
            layout.panels,
            folds,
            reference=paper.bounds,
            front=layout.front,
            fronts=layout.fronts,
            lies_on=layout.lies_on,
        )

    def caption(self) -> Caption:
        return Caption("of the card")

    @classmethod
    def begun_plain(cls) -> tuple[Step, ...]:
        return (cls(),)

    @classmethod
    def beginnings(cls, begun: Begun) -> list[Beginning]:
        about = "The panels and folds alone, to build on."
        return [Beginning("plain", 0, "Plain", about, (cls(),))]

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls()]


def _spine(fold: FoldAxis, box: Box) -> Box:
    """What lies between the panels on either side of a fold."""
    low, high = fold.line.at - fold.apart / 2, fold.line.at + fold.apart / 2
    if fold.line.axis == "x":
        return Box(low, box.head, high, box.foot)
    return Box(box.left, low, box.right, high)
