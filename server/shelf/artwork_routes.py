"""Reading files, and the shelf's artworks."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.computing.wishes import Number
from server.shelf import artworks
from server.shelf.models import Artwork as Row
from server.shelf.routes import Gone
from stileblade.fields import PlainText
from stileblade.outlines.artwork import Artwork
from stileblade.outlines.drawing import Drawing
from stileblade.views.places import Bounds

router = Router(tags=["artworks"])
Name = Annotated[PlainText, Field(min_length=1, max_length=80)]
Tags = Annotated[
    list[Annotated[PlainText, Field(max_length=30)]], Field(max_length=artworks.MOST_TAGS)
]


class LayerPicture(BaseModel):
    name: str
    colour: str
    path: str
    contours: int
    openings: int
    nodes: int


class ArtworkPicture(BaseModel):
    box: Bounds
    layers: list[LayerPicture]


class ShelfArtwork(BaseModel):
    """An artwork without its outlines; width and height as read, in mm."""

    id: int
    key: str
    earlier: list[str]
    name: str
    tags: list[str]
    source: str
    width: float
    height: float
    picture: ArtworkPicture
    binned: bool
    modified: datetime
    uses: int


class FullArtwork(ShelfArtwork):
    artwork: Artwork


class KeepArtwork(BaseModel):
    drawing: Drawing
    tags: Tags = []
    source: PlainText = Field("", max_length=120)


class ArtworkChange(BaseModel):
    """Only what is given is changed; ``drawing`` replaces its outlines."""

    name: Name | None = None
    tags: Tags | None = None
    binned: bool | None = None
    drawing: Drawing | None = None
    source: PlainText = Field("", max_length=120)


class UsedIn(BaseModel):
    id: int
    name: str


def _row(row: Row, uses: int) -> dict[str, Any]:
    plain = ("id", "key", "earlier", "name", "tags", "source", "width", "height", "picture")
    found = {name: getattr(row, name) for name in (*plain, "binned", "modified")}
    return {**found, "uses": uses}


def _full(row: Row, request: HttpRequest) -> dict[str, Any]:
    uses = len(artworks.designs_with(signed_in(request), row))
    return {**_row(row, uses), "artwork": row.data}


@router.get("/artworks", response=list[ShelfArtwork])
def list_artworks(request: HttpRequest) -> list[dict[str, Any]]:
    """All of the shelf, the bin included, without outlines."""
    user = signed_in(request)
    used = artworks.uses(user)
    rows = Row.objects.filter(owner=user).defer("data")
    return [_row(row, sum(used[k] for k in {row.key, *row.earlier})) for row in rows]


@router.get("/artworks/{number}", response=FullArtwork)
def get_artwork(request: HttpRequest, number: Number) -> dict[str, Any]:
    return _full(artworks.own(signed_in(request), number), request)


@router.get("/artworks/{number}/uses", response=list[UsedIn])
def artwork_uses(request: HttpRequest, number: Number) -> list[UsedIn]:
    user = signed_in(request)
    found = artworks.designs_with(user, artworks.own(user, number))
    return [UsedIn(id=d.pk, name=d.name) for d in found]


@router.post("/artworks", response=FullArtwork)
def keep_artwork(request: HttpRequest, wish: KeepArtwork) -> dict[str, Any]:
    user = signed_in(request)
    return _full(artworks.keep(user, wish.drawing, tags=wish.tags, source=wish.source), request)


@router.patch("/artworks/{number}", response=FullArtwork)
def change_artwork(request: HttpRequest, number: Number, wish: ArtworkChange) -> dict[str, Any]:
    user = signed_in(request)
    if wish.drawing is not None:
        artworks.replace(user, number, wish.drawing, wish.source)
    row = artworks.change(user, number, name=wish.name, tags=wish.tags, binned=wish.binned)
    return _full(row, request)


@router.delete("/artworks/{number}", response=Gone)
def remove_artwork(request: HttpRequest, number: Number) -> Gone:
    artworks.remove(signed_in(request), number)
    return Gone()
