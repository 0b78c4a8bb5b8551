"""What a new card can be begun with: each way with its pictures and figures on the card chosen."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.checks.hinges import panel_along
from stileblade.design.beginning import Opening, openings
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.folding.hinge import hinge_length, least_hinge
from stileblade.outlines.figure import Figure
from stileblade.views.cards import CardLook, look_of
from stileblade.views.said import Said


class BegunCard(CardLook):
    """The design to begin with, and how it looks. lap, hinge (of which safe is enough) in mm where the figure
    is mirrored; size is the figure's on the card, None where it has no part in it, own its measures before it
    was fitted."""

    document: Design
    lap: float | None
    hinge: float | None
    safe: float | None
    size: tuple[float, float] | None
    own: tuple[float, float]


class BeginningView(BaseModel):
    """A way to begin; ``why`` where it is not open to this card or figure, and then there is no card."""

    key: str
    title: Said
    about: Said
    why: Said
    card: BegunCard | None


def beginnings_of(
    design: Design,
    figure: Figure,
    margin: float,
    *,
    fits: bool = True,
    cache: OutcomeCache | None = None,
) -> list[BeginningView]:
    """All ways to begin the design's card with the figure."""
    return [
        BeginningView(
            key=o.beginning.key,
            title=o.beginning.title,
            about=o.beginning.about,
            why=o.beginning.why,
            card=_card(o.design, o, cache) if o.design else None,
        )
        for o in openings(design, figure, margin, fits=fits)
    ]


def _card(design: Design, opening: Opening, cache: OutcomeCache | None) -> BegunCard:
    evaluation = evaluate(design, cache)
    lap, hinge, safe = _hinge(evaluation)
    return BegunCard(
        document=design,
        lap=lap,
        hinge=hinge,
        safe=safe,
        size=opening.beginning.size,
        own=opening.own,
        **look_of(evaluation),
    )


def _hinge(evaluation: Evaluation) -> tuple[float | None, float | None, float | None]:
    work = evaluation.pieces[0].work
    if work is None or work.mirrored is None:
        return None, None, None
    fold = work.folds[0]
    hinge = hinge_length(work.spans[fold.name], fold)
    return work.mirrored.lap, hinge, least_hinge(panel_along(work, fold))
