"""Reading files, and the shelf's artworks."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja import File, Form, Query, Router
from ninja.files import UploadedFile
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.designs.paths import box_of
from server.designs.shown import Bounds
from server.shelf import artworks
from server.shelf.models import Artwork as Row
from server.shelf.routes import Gone
from stileblade.geometry.fill import fill
from stileblade.geometry.pathdata import path_data
from stileblade.outlines.artwork import Artwork
from stileblade.outlines.reading.child import read_bounded
from stileblade.outlines.text.shipped import KINDS, Face, shipped

router = Router(tags=["artworks"])
Name = Annotated[str, Field(min_length=1, max_length=80)]
Word = Annotated[str, Field(max_length=80)]
Tags = Annotated[list[Annotated[str, Field(max_length=30)]], Field(max_length=artworks.MOST_TAGS)]


class FoundSize(BaseModel):
    """scale is mm per drawing unit."""

    title: str
    scale: float


class FoundShape(BaseModel):
    """path has all digits, picture a few; in drawing units."""

    name: str
    path: str
    picture: str
    box: Bounds
    contours: int
    openings: int
    nodes: int
    area: float


class FoundLayer(BaseModel):
    """shapes are numbers; page where it is the page's own background."""

    name: str
    colour: str
    shapes: list[int]
    page: bool


class FoundOpen(BaseModel):
    """A line that encloses nothing: its corners in drawing units, the gap of its ends in mm."""

    points: list[tuple[float, float]]
    gap: float


class FoundDrawing(BaseModel):
    """What a file holds; width and height are its page's in drawing units."""

    kind: Literal["svg", "dxf", "font"]
    width: float
    height: float
    sizes: list[FoundSize]
    lines: str
    shapes: list[FoundShape]
    layers: list[FoundLayer]
    open: list[FoundOpen]
    open_count: int
    remarks: list[str]


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
    artwork: Artwork
    tags: Tags = []
    source: str = Field("", max_length=120)


class ArtworkChange(BaseModel):
    """Only what is given is changed; ``artwork`` replaces its outlines."""

    name: Name | None = None
    tags: Tags | None = None
    binned: bool | None = None
    artwork: Artwork | None = None
    source: str = Field("", max_length=120)


class WordPicture(BaseModel):
    """islands: whether there are counters, which drop out where the word is cut as a window."""

    font: str
    title: str
    path: str
    box: Bounds
    missing: str
    islands: bool


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


@router.post("/read-file", response=FoundDrawing)
def read_file(
    request: HttpRequest,
    file: File[UploadedFile],
    text: Form[str] = "",
    lines: Form[Literal["auto", "painted", "contours"]] = "auto",
) -> dict[str, Any]:
    """What an SVG, DXF or font file holds; nothing is kept yet."""
    signed_in(request)
    return read_bounded(file.read(), text, lines)


@router.get("/words", response=list[WordPicture])
def words(request: HttpRequest, text: Query[Word]) -> list[WordPicture]:
    """A word in each of the shipped fonts, capitals 20 mm high."""
    signed_in(request)
    found = []
    for face in Face:
        line = shipped(face).set_line(" ".join(text.split()), 20 / shipped(face).cap_height)
        region = fill(line.contours)
        found.append(
            WordPicture(
                font=face,
                title=KINDS[face].title,
                path=path_data(region, 2),
                box=box_of(region.bounds),
                missing="".join(dict.fromkeys(line.missing.strip())),
                islands=region.pieces > 0 and len(region.openings) > 0,
            )
        )
    return found


@router.get("/artworks", response=list[ShelfArtwork])
def list_artworks(request: HttpRequest) -> list[dict[str, Any]]:
    """All of the shelf, the bin included, without outlines."""
    user = signed_in(request)
    used = artworks.uses(user)
    rows = Row.objects.filter(owner=user).defer("data")
    return [_row(row, sum(used[k] for k in {row.key, *row.earlier})) for row in rows]


@router.get("/artworks/{number}", response=FullArtwork)
def get_artwork(request: HttpRequest, number: int) -> dict[str, Any]:
    return _full(artworks.own(signed_in(request), number), request)


@router.get("/artworks/{number}/uses", response=list[UsedIn])
def artwork_uses(request: HttpRequest, number: int) -> list[UsedIn]:
    user = signed_in(request)
    found = artworks.designs_with(user, artworks.own(user, number))
    return [UsedIn(id=d.pk, name=d.name) for d in found]


@router.post("/artworks", response=FullArtwork)
def keep_artwork(request: HttpRequest, wish: KeepArtwork) -> dict[str, Any]:
    user = signed_in(request)
    return _full(artworks.keep(user, wish.artwork, tags=wish.tags, source=wish.source), request)


@router.patch("/artworks/{number}", response=FullArtwork)
def change_artwork(request: HttpRequest, number: int, wish: ArtworkChange) -> dict[str, Any]:
    user = signed_in(request)
    if wish.artwork is not None:
        artworks.replace(user, number, wish.artwork, wish.source)
    row = artworks.change(user, number, name=wish.name, tags=wish.tags, binned=wish.binned)
    return _full(row, request)


@router.delete("/artworks/{number}", response=Gone)
def remove_artwork(request: HttpRequest, number: int) -> Gone:
    artworks.remove(signed_in(request), number)
    return Gone()
