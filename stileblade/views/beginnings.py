"""What a new card can be begun with: each way with its pictures and figures on the card chosen."""

from __future__ import annotations

from functools import partial

from pydantic import BaseModel

from stileblade.checks.check import Severity, run_checks
from stileblade.design.beginning import Opening, openings
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.folding.hinge import hinge_length, least_hinge
from stileblade.outlines.figure import Figure
from stileblade.unexpected import Attempts
from stileblade.views.cards import NOTHING
from stileblade.views.folded import FoldedPicture, folded_picture
from stileblade.views.report import card_measures
from stileblade.views.strip import PictureView, small_picture

MOST_TOLD = 3


class BegunCard(BaseModel):
    """The design to begin with, and how it looks. lap, hinge (of which safe is enough) in mm where the figure
    is mirrored; size is the figure's on the card, None where it has no part in it, own its measures before it
    was fitted."""

    document: Design
    flat: PictureView | None
    folded: FoldedPicture | None
    closed: tuple[float, float]
    open: tuple[float, float]
    lap: float | None
    hinge: float | None
    safe: float | None
    size: tuple[float, float] | None
    own: tuple[float, float]
    errors: int
    warnings: int
    findings: list[str]


class BeginningView(BaseModel):
    """A way to begin; ``why`` where it is not open to this card or figure, and then there is no card."""

    key: str
    title: str
    about: str
    why: str
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
    evaluation, attempt = evaluate(design, cache), Attempts()
    base = evaluation.pieces[0]
    work = base.work if base.work and base.work.paper else None
    measures = attempt("measures", lambda: card_measures(evaluation), NOTHING)
    told = [f for f in run_checks(evaluation) if f.severity is not Severity.NOTE]
    lap, hinge, safe = _hinge(evaluation)
    return BegunCard(
        document=design,
        flat=attempt("picture", partial(small_picture, work), None) if work else None,
        folded=attempt("folded card", partial(folded_picture, work, base.paper), None)
        if work
        else None,
        closed=(measures["closed_mm"][0], measures["closed_mm"][1]),
        open=(measures["open_mm"][0], measures["open_mm"][1]),
        lap=lap,
        hinge=hinge,
        safe=safe,
        size=opening.beginning.size,
        own=opening.own,
        errors=sum(f.severity is Severity.ERROR for f in told),
        warnings=sum(f.severity is Severity.WARNING for f in told),
        findings=[f.message for f in told][:MOST_TOLD],
    )


def _hinge(evaluation: Evaluation) -> tuple[float | None, float | None, float | None]:
    work = evaluation.pieces[0].work
    if work is None or work.mirrored is None:
        return None, None, None
    fold = work.folds[0]
    safe = least_hinge(work.mirrored.towards.length_in(work.mirrored.figure.bounds))
    return work.mirrored.lap, hinge_length(work.spans[fold.name], fold), safe
