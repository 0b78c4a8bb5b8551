"""An evaluation as the bench shows it: the flat view at the step in hand, and the finished card."""

from __future__ import annotations

from enum import StrEnum

from pydantic import BaseModel

from stileblade.checks.check import Subject
from stileblade.checks.envelope import closed_of as closed_size
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.geometry.curves.places import Box
from stileblade.piece.work import Work
from stileblade.unexpected import Attempts
from stileblade.views.assembled import AssembledView, assembled_of
from stileblade.views.closed import ClosedView, closed_of
from stileblade.views.findings import FindingView, findings_of, not_computed
from stileblade.views.flat import FlatView, flat_of
from stileblade.views.lap import LapCurve, lap_of
from stileblade.views.loupe import LoupePlace, loupe_of
from stileblade.views.pieces import PieceFigures, figures_of
from stileblade.views.places import Stroke, drawn_for
from stileblade.views.readings import EnvelopeRow, Reading, envelopes_of, readings_of
from stileblade.views.scoring import ScoreRow, scoring_of, tick_strokes
from stileblade.views.sheets import card_of
from stileblade.views.space import SpaceView, no_space, space_of
from stileblade.views.strip import StripView, strip_of


class RestView(BaseModel):
    """All but the flat view: of the finished piece, whatever step is in hand."""

    open: tuple[float, float]
    closed: tuple[float, float]
    space: SpaceView
    shut: ClosedView | None
    scoring: list[ScoreRow]
    ticks: list[Stroke]
    lap: LapCurve | None
    loupe: list[LoupePlace]
    readings: list[Reading]
    envelopes: list[EnvelopeRow]
    findings: list[FindingView]
    strip: list[StripView]
    panels: list[str]
    front: str
    """The base's panels, and which of them things lie on where none is named."""
    assembled: AssembledView | None
    pieces: list[PieceFigures]


class Wanted(StrEnum):
    """What is asked for: while something is edited, the flat view alone comes first."""

    ALL = "all"
    FLAT = "flat"
    REST = "rest"


class Evaluated(BaseModel):
    flat: FlatView | None
    rest: RestView | None


def view(
    evaluation: Evaluation,
    piece: PieceOutcome,
    step: str | None,
    known: set[str],
    part: Wanted = Wanted.ALL,
) -> Evaluated:
    """What the bench shows of a piece with a step in hand (None: the last). What of it fails is left
    out and becomes a finding."""
    outcome = piece.outcome_of(step) if step else None
    if outcome is None and piece.outcomes:
        outcome = piece.outcomes[-1]
    attempt = Attempts()
    work = outcome.work if outcome else None
    with drawn_for(work.paper if work else None):
        flat = None if part is Wanted.REST else flat_of(evaluation, piece, outcome, attempt)
    with drawn_for(piece.work.paper if piece.work else None):
        rest = None if part is Wanted.FLAT else _rest(evaluation, piece, known)
    if rest is not None and outcome is not None:
        rest.findings += not_computed(attempt.failed, piece.piece.id, outcome.step.id)
    return Evaluated(flat=flat, rest=rest)


MOST_BYTES = 2_000_000


def as_json(seen: Evaluated) -> bytes:
    """The answer to the browser, of at most MOST_BYTES: beyond them pictures go, and figures stay."""
    content = seen.model_dump_json().encode()
    for leave_out in _PICTURES:
        if len(content) <= MOST_BYTES:
            break
        leave_out(seen)
        content = seen.model_dump_json().encode()
    return content


def _no_outlines(seen: Evaluated) -> None:
    for finding in seen.rest.findings if seen.rest else []:
        finding.outlines = []


def _not_shut(seen: Evaluated) -> None:
    if seen.rest:
        seen.rest.shut = None


def _no_strip(seen: Evaluated) -> None:
    for shown in seen.rest.strip if seen.rest else []:
        shown.picture = None


def _no_handles(seen: Evaluated) -> None:
    if seen.flat:
        seen.flat.before, seen.flat.handles = "", []


def _not_assembled(seen: Evaluated) -> None:
    if seen.rest:
        seen.rest.assembled = None


_PICTURES = (_no_outlines, _not_assembled, _not_shut, _no_strip, _no_handles)


def _closed(
    evaluation: Evaluation, piece: PieceOutcome, shown: PieceOutcome, card: Work
) -> tuple[float, float]:
    """The closed card's, whatever of it is in hand; of a piece by itself its own."""
    stack = evaluation.stack
    if piece.piece.host and stack is not None:
        return stack.closed
    return closed_size(Subject(evaluation, shown), card)


def _rest(evaluation: Evaluation, piece: PieceOutcome, known: set[str]) -> RestView:
    work = piece.work if piece.work and piece.work.paper else None
    box = work.paper.bounds if work else Box(0.0, 0.0, 0.0, 0.0)
    attempt = Attempts()
    strip = [strip_of(o, evaluation.design.units, known, attempt) for o in piece.outcomes]
    base = evaluation.pieces[0].whole
    rest = RestView(
        open=(box.width, box.height),
        closed=(0.0, 0.0),
        space=no_space(piece),
        shut=None,
        scoring=[],
        ticks=[],
        lap=None,
        loupe=[],
        readings=[],
        envelopes=[],
        findings=findings_of(evaluation),
        strip=strip,
        panels=[p.name for p in base.panels] if base else [],
        front=base.front if base else "",
        assembled=attempt("assembled card", lambda: assembled_of(evaluation), None),
        pieces=attempt("list of pieces", lambda: figures_of(evaluation), []),
    )
    if work is not None:
        shown = attempt("whole card", lambda: card_of(evaluation, piece), piece)
        card = shown.whole or work
        rest.closed = attempt(
            "closed size", lambda: _closed(evaluation, piece, shown, card), (0.0, 0.0)
        )
        rest.space = attempt(
            "folded card", lambda: space_of(evaluation, piece, piece.whole or work), rest.space
        )
        rest.shut = attempt("closed card", lambda: closed_of(evaluation, shown, card), None)
        rest.scoring = attempt("scoring table", lambda: scoring_of(work), [])
        rest.ticks = attempt("ticks for scoring", lambda: tick_strokes(work), [])
        rest.lap = attempt("hinge over the lap", lambda: lap_of(work), None)
        rest.loupe = attempt("places for the loupe", lambda: loupe_of(work, piece.paper), [])
        rest.readings = attempt("readings", lambda: readings_of(evaluation, piece), [])
        rest.envelopes = attempt("envelopes", lambda: envelopes_of(evaluation, piece), [])
    rest.findings += not_computed(attempt.failed, piece.piece.id)
    return rest
