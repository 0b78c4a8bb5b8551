"""The same design on other cards, and the best join of a figure to its image."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.designs.evaluating import evaluated
from server.designs.folded_of import folded_picture
from server.designs.shown import Change, FoldedPicture, PictureView
from server.designs.views_of import small_picture
from stileblade.build.document import Card, Design, load_design
from stileblade.build.evaluation import PieceOutcome
from stileblade.build.refold import refold
from stileblade.build.steps.turn import Turn
from stileblade.checks.check import Severity, run_checks
from stileblade.errors import DocumentError
from stileblade.folding.joins import Join, best_joins
from stileblade.report import card_measures

router = Router(tags=["folding"])
MOST_CARDS = 24


class Refold(BaseModel):
    """A document and the cards that it is wanted on."""

    document: dict[str, Any]
    cards: list[Card] = Field(min_length=1, max_length=MOST_CARDS)


class StepChange(BaseModel):
    piece: str
    step: str
    title: str
    what: Literal["placed", "off"]
    why: str


class OtherCard(BaseModel):
    """The design on one of the cards: the document, what changed, and how it looks."""

    document: dict[str, Any]
    changes: list[StepChange]
    kept: int
    open: tuple[float, float]
    closed: tuple[float, float]
    errors: int
    warnings: int
    findings: list[str]
    flat: PictureView | None
    folded: FoldedPicture | None


class Joins(BaseModel):
    """The piece with the mirror in question, and the area in mm^2 that each half may lose."""

    document: dict[str, Any]
    piece: str
    loss: float = Field(ge=0.1, le=1e6)


class JoinView(BaseModel):
    """A way to join the halves, with the changes that make it and its picture."""

    turn_deg: float
    lap: float
    hinge: float
    spans: int
    loss: float
    picture: PictureView | None
    changes: list[Change]


@router.post("/refold", response=list[OtherCard])
def refolded(request: HttpRequest, wish: Refold) -> list[OtherCard]:
    """The design on each of the cards, in their order."""
    signed_in(request)
    design = load_design(wish.document)
    return [_on(design, card) for card in wish.cards]


def _on(design: Design, card: Card) -> OtherCard:
    found = refold(design, card)
    evaluation = evaluated(found.design)
    base = evaluation.pieces[0]
    work = base.work if base.work and base.work.paper else None
    measures = card_measures(evaluation)
    findings = run_checks(evaluation)
    return OtherCard(
        document=found.design.model_dump(mode="json"),
        changes=[StepChange(**vars(c)) for c in found.changes],
        kept=found.kept,
        open=(measures["open_mm"][0], measures["open_mm"][1]),
        closed=(measures["closed_mm"][0], measures["closed_mm"][1]),
        errors=sum(f.severity is Severity.ERROR for f in findings),
        warnings=sum(f.severity is Severity.WARNING for f in findings),
        findings=[f.message for f in findings if f.severity is not Severity.NOTE][:6],
        flat=small_picture(work) if work else None,
        folded=folded_picture(work, base.paper) if work else None,
    )


@router.post("/joins", response=list[JoinView])
def joins(request: HttpRequest, wish: Joins) -> list[JoinView]:
    """The best joins of the piece's mirrored figure, the longest hinge first."""
    signed_in(request)
    design = load_design(wish.document)
    piece = next((p for p in evaluated(design).pieces if p.piece.id == wish.piece), None)
    if piece is None or piece.work is None or piece.work.mirrored is None:
        raise DocumentError(
            "There is no mirrored figure in the piece to be joined.",
            hint="Add a mirror step first.",
            where="piece",
        )
    found = best_joins(piece.work.mirrored, wish.loss)
    return [_join(design, piece, join) for join in found]


def _join(design: Design, piece: PieceOutcome, join: Join) -> JoinView:
    changes = _changes(piece, join)
    steps = [s.model_dump(mode="json") for s in piece.piece.steps]
    for change in changes:
        at = next((i for i, s in enumerate(steps) if s["id"] == change.step), len(steps))
        if change.op == "add":
            steps.insert(at, {**change.values, "id": ""})
        else:
            steps[at] = {**steps[at], **change.values}
    data = design.model_dump(mode="json")
    for made in data["pieces"]:
        if made["id"] == piece.piece.id:
            made["steps"] = steps
    work = next(p.work for p in evaluated(load_design(data)).pieces if p.piece.id == piece.piece.id)
    return JoinView(
        turn_deg=join.turn_deg,
        lap=join.lap,
        hinge=join.hinge,
        spans=join.spans,
        loss=join.loss,
        picture=small_picture(work) if work and work.paper else None,
        changes=changes,
    )


def _changes(piece: PieceOutcome, join: Join) -> list[Change]:
    """The lap set on the mirror; the figure turned by the step before it, or by a new one."""
    assert piece.work is not None
    assert piece.work.mirrored is not None
    mirror = piece.work.mirrored.step
    steps = piece.piece.steps
    at = next(i for i, s in enumerate(steps) if s.id == mirror)
    found = []
    if join.turn_deg:
        before = steps[at - 1] if at else None
        if isinstance(before, Turn) and before.on:
            angle = round((before.angle + join.turn_deg + 180) % 360 - 180, 3)
            found.append(
                Change(op="set", piece=piece.piece.id, step=before.id, values={"angle": angle})
            )
        else:
            turn = Turn(angle=join.turn_deg).model_dump(mode="json", exclude={"id"})
            found.append(Change(op="add", piece=piece.piece.id, step=mirror, values=turn))
    found.append(Change(op="set", piece=piece.piece.id, step=mirror, values={"lap": join.lap}))
    return found
