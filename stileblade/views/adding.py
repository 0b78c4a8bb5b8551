"""What can be added to a card, each with its picture on this card."""

from __future__ import annotations

from functools import partial

from pydantic import BaseModel

from stileblade.card.stock import Paper
from stileblade.design.adding import on_card, proposals, with_added
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, Piece
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.errors import StilebladeError
from stileblade.geometry.curves.places import Box, around
from stileblade.unexpected import Attempts
from stileblade.views.assembled import AssembledSheet, assembled_of
from stileblade.views.places import Bounds, box_of, screen_path
from stileblade.views.said import Said

_ABOUT = 0.12
"""Share of what is added that is seen round it."""


class OfferView(BaseModel):
    """``pieces`` and ``papers`` are all of the design's with those added, whose keys are ``added``; ``sheets``
    show them where they lie."""

    title: Said
    about: Said
    pieces: list[Piece]
    papers: list[Paper]
    added: list[str]
    box: Bounds
    sheets: list[AssembledSheet]


def offers_of(design: Design, panel: str, cache: OutcomeCache | None = None) -> list[OfferView]:
    """What all kinds of layers propose; what of it cannot be made on this card is left out."""
    card = on_card(evaluate(design, cache), panel)
    if card is None:
        return []
    found, attempt = [], Attempts(quiet=True)
    for proposal in proposals(card):
        try:
            made, keys = with_added(design, proposal)
        except StilebladeError:
            continue
        evaluation = evaluate(made, cache)
        works = [p.work for p in evaluation.pieces if p.piece.id in keys]
        if not works or any(w is None or not w.paper for w in works):
            continue
        nothing: tuple[Bounds, list[AssembledSheet]] = ((0.0, 0.0, 1.0, 1.0), [])
        box, sheets = attempt("picture", partial(_picture, evaluation, keys), nothing)
        found.append(
            OfferView(
                title=proposal.title,
                about=proposal.about,
                pieces=made.pieces,
                papers=made.papers,
                added=keys,
                box=box,
                sheets=sheets,
            )
        )
    return found


def _picture(evaluation: Evaluation, keys: list[str]) -> tuple[Bounds, list[AssembledSheet]]:
    """The side that the first of the added pieces lies on; by itself what goes round the card."""
    stack, seen = evaluation.stack, assembled_of(evaluation)
    layer = stack.layer(keys[0]) if stack else None
    if layer is None or seen is None:
        pieces = [p for p in evaluation.pieces if p.piece.id in keys and p.work]
        sheets = [
            AssembledSheet(
                piece=p.piece.id, name=p.piece.name, path=screen_path(p.work.paper),
                box=box_of(p.work.paper.bounds), fill=p.paper.outside, light=p.paper.light,
                height=0.0, moves=None,
            )
            for p in pieces
            if p.work
        ]  # fmt: skip
        return box_of(around([p.work.paper.bounds for p in pieces if p.work])), sheets
    side = seen.inside if layer.inside else seen.outside
    return _around([s.box for s in side.sheets if s.piece in keys]), side.sheets


def _around(boxes: list[Bounds]) -> Bounds:
    """What is added, with some of what it lies on."""
    box = around([Box(*b) for b in boxes])
    more = max(box.width, box.height) * _ABOUT
    return box_of(box.shrunk(-more))
