"""Figures aimed at."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.config.documents import Document
from server.designs.evaluating import CACHE, evaluated
from stileblade.design.document import load_design
from stileblade.views.aims import (
    AimView,
    FigureView,
    KeptView,
    RelationName,
    aim_at,
    figures_of,
    kept_again,
    wish_of,
)

router = Router(tags=["aims"])


class Figures(BaseModel):
    document: Document
    piece: str = Field(max_length=40)


class AimWish(BaseModel):
    """A document, and a figure of one of its pieces with what it is to be."""

    document: Document
    piece: str = Field(max_length=40)
    figure: str = Field(max_length=120)
    relation: RelationName = "least"
    target: float = Field(allow_inf_nan=False, ge=-1e7, le=1e7)


class Kept(BaseModel):
    document: Document


@router.post("/figures", response=list[FigureView])
def figures(request: HttpRequest, wish: Figures) -> list[FigureView]:
    """The figures of a piece that can be aimed at."""
    signed_in(request)
    return figures_of(evaluated(load_design(wish.document)), wish.piece)


@router.post("/aim", response=AimView)
def aim(request: HttpRequest, wish: AimWish) -> AimView:
    """The values with which a figure becomes what is wished for."""
    signed_in(request)
    wanted = wish_of(wish.piece, wish.figure, wish.relation, wish.target)
    return aim_at(load_design(wish.document), wanted, CACHE)


@router.post("/aims", response=KeptView)
def aims(request: HttpRequest, wish: Kept) -> KeptView:
    """The changes with which a document's kept aims are reached again."""
    signed_in(request)
    return kept_again(load_design(wish.document), CACHE)
