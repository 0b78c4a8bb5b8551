"""The same design on other cards: what changes, and how it looks there."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from stileblade.checks.check import Severity, open_findings
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Card, Design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.design.refold import refold
from stileblade.unexpected import Attempts
from stileblade.views.folded import FoldedPicture, folded_picture, layers_on
from stileblade.views.report import card_measures
from stileblade.views.said import Said
from stileblade.views.strip import PictureView, small_picture

MOST_TOLD = 6


class StepChange(BaseModel):
    piece: str
    step: str
    title: Said
    what: Literal["placed", "off", "stayed"]
    why: Said


class CardLook(BaseModel):
    """How a whole card looks: its measures in mm, what the checks count and say first, and its pictures."""

    open: tuple[float, float]
    closed: tuple[float, float]
    errors: int
    warnings: int
    findings: list[Said]
    flat: PictureView | None
    folded: FoldedPicture | None


class OtherCard(CardLook):
    """The design on one of the cards: the document, what changed, and how it looks."""

    document: Annotated[dict[str, Any], Field(json_schema_extra={"x-document": True})]
    changes: list[StepChange]
    kept: int
    factor: float
    """How many times as large as the card it was the new one is."""


def look_of(evaluation: Evaluation) -> dict[str, Any]:
    """The values of a CardLook; what cannot be computed is left out."""
    attempt, base = Attempts(), evaluation.pieces[0]
    work = base.whole if base.whole and base.whole.paper else None
    measures = attempt("measures", lambda: card_measures(evaluation), NOTHING)
    findings = open_findings(evaluation)

    def folded() -> FoldedPicture | None:
        return folded_picture(work, base.paper, layers_on(evaluation, base)) if work else None

    return {
        "open": measures["open_mm"],
        "closed": measures["closed_mm"],
        "errors": sum(f.severity is Severity.ERROR for f in findings),
        "warnings": sum(f.severity is Severity.WARNING for f in findings),
        "findings": [f.message for f in findings if f.severity is not Severity.NOTE][:MOST_TOLD],
        "flat": attempt("picture", lambda: small_picture(work), None) if work else None,
        "folded": attempt("folded card", folded, None),
    }


def on_card(
    design: Design,
    card: Card,
    cache: OutcomeCache | None = None,
    *,
    along: bool = False,
    factor: float | None = None,
) -> OtherCard:
    """The design on another card, with what that does to its steps; its figures made larger or smaller with the card
    (``along``), or ``factor`` times as large."""
    found = refold(design, card, cache, along=along, factor=factor)
    return OtherCard(
        document=found.design.model_dump(mode="json"),
        changes=[StepChange(**vars(c)) for c in found.changes],
        kept=found.kept,
        factor=found.factor,
        **look_of(evaluate(found.design, cache)),
    )


NOTHING = {"open_mm": [0.0, 0.0], "closed_mm": [0.0, 0.0]}
