"""What a list of designs shows of each: folded picture, closed size, state of its checks."""

from __future__ import annotations

from collections import Counter

from pydantic import BaseModel

from stileblade.checks.check import Severity, run_checks
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import read_design
from stileblade.design.evaluation import evaluate
from stileblade.errors import StilebladeError
from stileblade.unexpected import SORRY, Attempts, logger
from stileblade.views.cards import NOTHING
from stileblade.views.folded import FoldedPicture, folded_picture, layers_on
from stileblade.views.report import card_measures


class Summary(BaseModel):
    size: str
    way: str
    units: str
    papers: list[str]
    closed: tuple[float, float]
    errors: int
    warnings: int
    notes: int
    accepted: int
    picture: FoldedPicture | None
    problem: str


def unseen(*problem: str) -> Summary:
    """Of a design that cannot be shown; what is said of that is kept in lines of its own, to be said in any language."""
    return Summary(
        size="",
        way="",
        units="mm",
        papers=[],
        closed=(0.0, 0.0),
        errors=1,
        warnings=0,
        notes=0,
        accepted=0,
        picture=None,
        problem="\n".join(filter(None, problem)),
    )


def summary_of(text: str, cache: OutcomeCache | None = None) -> Summary:
    """The summary of a document's text: of one that cannot be read it says why, and what of it
    cannot be computed is left out."""
    try:
        return _summary(text, cache)
    except StilebladeError as error:
        return unseen(error.message, error.hint)
    except Exception:
        logger.exception("the summary of a design could not be computed")
        return unseen("The design could not be computed.", SORRY)


def _summary(text: str, cache: OutcomeCache | None) -> Summary:
    attempt = Attempts()
    design = read_design(text)
    evaluation = evaluate(design, cache)
    findings = run_checks(evaluation)
    count = Counter(f.severity for f in findings if not f.accepted)
    base = evaluation.pieces[0]
    work = base.whole
    width, height = attempt("measures", lambda: card_measures(evaluation), NOTHING)["closed_mm"]
    picture = (
        attempt(
            "folded card",
            lambda: folded_picture(work, base.paper, layers_on(evaluation, base)),
            None,
        )
        if work
        else None
    )
    return Summary(
        size=design.card.size.name,
        way=design.card.folding.way.title,
        units=design.units,
        papers=[paper.name for paper in design.papers],
        closed=(width, height),
        errors=count[Severity.ERROR] + bool(attempt.failed),
        warnings=count[Severity.WARNING],
        notes=count[Severity.NOTE],
        accepted=sum(1 for f in findings if f.accepted),
        picture=picture,
        problem="",
    )
