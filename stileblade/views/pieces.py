"""The pieces of the card as a list shows them: figures that come of the whole card."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from stileblade.card.stock import weight_of
from stileblade.design.evaluation import Evaluation, PieceOutcome, around_of
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, translation
from stileblade.piece.lying import Around


class OtherPanel(BaseModel):
    """A further panel of the host on which the same piece can lie, and the values of its first step there."""

    panel: str
    values: dict[str, Any]


class PieceFigures(BaseModel):
    """parts: separate parts of it; low and high: mm above the base's paper on its side, for a layer; weight in
    grams; problems: how many of its steps were passed over."""

    id: str
    parts: int
    low: float | None
    high: float | None
    weight: float
    problems: int
    others: list[OtherPanel]


def figures_of(evaluation: Evaluation) -> list[PieceFigures]:
    stack, found = evaluation.stack, []
    for made in evaluation.pieces:
        layer = stack.layer(made.piece.id) if stack else None
        found.append(
            PieceFigures(
                id=made.piece.id,
                parts=made.work.paper.pieces if made.work else 0,
                low=layer.low if layer else None,
                high=layer.high if layer else None,
                weight=weight_of_piece(made),
                problems=sum(o.problem is not None for o in made.outcomes),
                others=_others(evaluation, made),
            )
        )
    return found


def _others(evaluation: Evaluation, made: PieceOutcome) -> list[OtherPanel]:
    host = evaluation.piece(made.piece.host)
    start = next((o.step for o in made.outcomes if o.step.on), None)
    if start is None or host is None or host.work is None or made.work is None:
        return []
    lying = made.work.lying
    own = made.piece.panel or (lying.panel if lying else "") or host.work.front
    found = []
    for panel in (p.name for p in host.work.panels if p.name != own):
        values = start.on_panel(panel, made.setting)
        if values is not None:
            found.append(OtherPanel(panel=panel, values=values))
    return found


def weight_of_piece(made: PieceOutcome) -> float:
    """Grams."""
    return weight_of(made.work.paper.area, made.paper) if made.work else 0.0


def card_weight(evaluation: Evaluation, *, posted: bool = False) -> float:
    """Grams of the card with all that lies on it and goes round it; its envelope and what lies in that only
    as it is ``posted``."""
    stack = evaluation.stack
    if stack is None:
        return 0.0
    around, laid = around_of(evaluation.design), {p.key for p in stack.pieces}
    return sum(
        weight_of_piece(p)
        for p in evaluation.pieces
        if _is_of_card(p, laid) and (posted or around[p.piece.id] is not Around.ENVELOPE)
    )


def _is_of_card(made: PieceOutcome, laid: set[str]) -> bool:
    """Whether the piece lies in the card, or is the other half of one that does."""
    taken = (o.step.takes_part for o in made.outcomes if o.step.on)
    return made.piece.id in laid or any(t is not None and t.piece in laid for t in taken)


def placement(evaluation: Evaluation, made: PieceOutcome) -> Floats | None:
    """The 2x3 map from the piece's outline as it is printed, its head left at 0, 0, to its host's as that is
    printed; None where it lies on none."""
    work, host = made.work, evaluation.piece(made.piece.host)
    if work is None or work.lying is None or host is None or host.work is None:
        return None
    own, there = work.paper.bounds, host.work.paper.bounds
    return after(
        translation(-there.left, -there.head),
        after(work.lying.matrix, translation(own.left, own.head)),
    )
