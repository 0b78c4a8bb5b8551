"""The same design on other cards, and the best join of a figure to its image."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.config.documents import Document
from server.designs.evaluating import CACHE
from stileblade.design.document import Card, load_design
from stileblade.folding.joins import Wish
from stileblade.views.cards import OtherCard, on_card
from stileblade.views.joins import JoinView, joins_of

router = Router(tags=["folding"])
MOST_CARDS = 24


class Refold(BaseModel):
    """A document and the cards that it is wanted on."""

    document: Document
    cards: list[Card] = Field(min_length=1, max_length=MOST_CARDS)


class Joins(BaseModel):
    """The piece with the mirror in question, the area in mm^2 that each half may lose, laps in mm and
    turns in degrees either way, and how many spans are wished for, 0 for any number."""

    document: Document
    piece: str
    loss: float = Field(ge=0.1, le=1e6)
    least_lap: float = Field(0.1, ge=0.1, le=1000)
    most_lap: float = Field(1000, ge=0.1, le=1000)
    most_turn: float = Field(180, ge=0, le=180)
    spans: int = Field(0, ge=0, le=40)


@router.post("/refold", response=list[OtherCard])
def refolded(request: HttpRequest, wish: Refold) -> list[OtherCard]:
    """The design on each of the cards, in their order."""
    signed_in(request)
    design = load_design(wish.document)
    return [on_card(design, card, CACHE) for card in wish.cards]


@router.post("/joins", response=list[JoinView])
def joins(request: HttpRequest, wish: Joins) -> list[JoinView]:
    """The best joins of the piece's mirrored figure, the longest hinge first."""
    signed_in(request)
    limits = Wish(wish.loss, wish.least_lap, wish.most_lap, wish.most_turn, wish.spans)
    return joins_of(load_design(wish.document), wish.piece, limits, CACHE)
