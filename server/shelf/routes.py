"""The shelf, and reading outlines from files."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import File, Router
from ninja.files import UploadedFile
from pydantic import BaseModel

from server.accounts.people import signed_in
from server.designs.shown import PictureView
from server.shelf import actions
from server.shelf.models import Outline, OwnSize, StockPaper
from stileblade.build.document import DrawnOutline
from stileblade.card.sizes import CardSize
from stileblade.card.stock import Paper
from stileblade.outlines.reading.child import read_bounded

router = Router(tags=["shelf"])


class ShelfOutline(BaseModel):
    id: int
    key: str
    name: str
    path: str
    rule: str
    picture: PictureView


class ShelfPaper(BaseModel):
    id: int
    paper: Paper


class ShelfSize(BaseModel):
    id: int
    size: CardSize


class FoundOutline(BaseModel):
    """path has all digits, picture a few; box and area in mm."""

    name: str
    path: str
    picture: str
    box: tuple[float, float, float, float]
    area: float
    openings: int
    nodes: int


class FoundOutlines(BaseModel):
    width: float
    height: float
    outlines: list[FoundOutline]
    remarks: list[str]


class Gone(BaseModel):
    gone: bool = True


def _outline(row: Outline) -> ShelfOutline:
    return ShelfOutline(
        id=row.pk,
        key=row.key,
        name=row.name,
        path=row.path,
        rule=row.rule,
        picture=PictureView.model_validate(row.picture),
    )


@router.post("/read-outlines", response=FoundOutlines)
def read_outlines(request: HttpRequest, file: File[UploadedFile]) -> dict[str, Any]:
    """The filled outlines of an SVG file; nothing is kept yet."""
    signed_in(request)
    return read_bounded(file.read())


@router.get("/outlines", response=list[ShelfOutline])
def list_outlines(request: HttpRequest) -> list[ShelfOutline]:
    return [_outline(row) for row in Outline.objects.filter(owner=signed_in(request))]


@router.post("/outlines", response=ShelfOutline)
def keep_outline(request: HttpRequest, drawn: DrawnOutline) -> ShelfOutline:
    return _outline(actions.keep_outline(signed_in(request), drawn))


@router.delete("/outlines/{number}", response=Gone)
def remove_outline(request: HttpRequest, number: int) -> Gone:
    actions.remove(signed_in(request), Outline, number)
    return Gone()


@router.get("/papers", response=list[ShelfPaper])
def list_papers(request: HttpRequest) -> list[ShelfPaper]:
    rows = actions.papers_of(signed_in(request))
    return [ShelfPaper(id=r.pk, paper=Paper.model_validate(r.data)) for r in rows]


@router.post("/papers", response=ShelfPaper)
def keep_paper(request: HttpRequest, paper: Paper) -> ShelfPaper:
    row = actions.keep_paper(signed_in(request), paper)
    return ShelfPaper(id=row.pk, paper=Paper.model_validate(row.data))


@router.delete("/papers/{number}", response=Gone)
def remove_paper(request: HttpRequest, number: int) -> Gone:
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
def remove_size(request: HttpRequest, number: int) -> Gone:
    actions.remove(signed_in(request), OwnSize, number)
    return Gone()
