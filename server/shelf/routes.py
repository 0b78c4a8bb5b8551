"""The shelf's papers and card sizes."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel

from server.accounts.people import signed_in
from server.computing.wishes import Number
from server.shelf import actions
from server.shelf.models import OwnSize, StockPaper
from stileblade.card.sizes import CardSize
from stileblade.card.stock import Paper

router = Router(tags=["shelf"])


class ShelfPaper(BaseModel):
    id: int
    paper: Paper


class ShelfSize(BaseModel):
    id: int
    size: CardSize


class Gone(BaseModel):
    gone: bool = True


@router.get("/papers", response=list[ShelfPaper])
def list_papers(request: HttpRequest) -> list[ShelfPaper]:
    rows = actions.papers_of(signed_in(request))
    return [ShelfPaper(id=r.pk, paper=Paper.model_validate(r.data)) for r in rows]


@router.post("/papers", response=ShelfPaper)
def keep_paper(request: HttpRequest, paper: Paper) -> ShelfPaper:
    row = actions.keep_paper(signed_in(request), paper)
    return ShelfPaper(id=row.pk, paper=Paper.model_validate(row.data))


@router.delete("/papers/{number}", response=Gone)
def remove_paper(request: HttpRequest, number: Number) -> Gone:
    actions.remove(signed_in(request), StockPaper, number)
    return Gone()


@router.get("/sizes", response=list[ShelfSize])
def list_sizes(request: HttpRequest) -> list[ShelfSize]:
    rows = OwnSize.objects.filter(owner=signed_in(request))
    return [ShelfSize(id=r.pk, size=CardSize.model_validate(r.data)) for r in rows]


@router.post("/sizes", response=ShelfSize)
def keep_size(request: HttpRequest, size: CardSize) -> ShelfSize:
    row = actions.keep_size(signed_in(request), size)
    return ShelfSize(id=row.pk, size=CardSize.model_validate(row.data))


@router.delete("/sizes/{number}", response=Gone)
def remove_size(request: HttpRequest, number: Number) -> Gone:
    actions.remove(signed_in(request), OwnSize, number)
    return Gone()
