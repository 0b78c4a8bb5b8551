"""Reading files, and words set in the shipped fonts: nothing is kept."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja import File, Form, Query, Router
from ninja.files import UploadedFile
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.computing.asking import worked_out
from server.computing.drawings import WordPicture
from stileblade.fields import PlainText, plain
from stileblade.outlines.reading.child import read_bounded
from stileblade.views.places import Bounds

router = Router(tags=["reading"])
Word = Annotated[PlainText, Field(max_length=80)]


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
    """shapes are numbers; page where it is the page's own background, shade where it is of shapes that
    are translucent all over, beside others that are not."""

    name: str
    colour: str
    shapes: list[int]
    page: bool
    shade: bool


class FoundOpen(BaseModel):
    """A line that encloses nothing: its corners in drawing units, the gap of its ends in mm."""

    points: list[tuple[float, float]]
    gap: float


class FoundDrawing(BaseModel):
    """What a file holds; width and height are its page's in drawing units. nests: a line inside
    another bounds an opening where the two are put together."""

    kind: Literal["svg", "dxf", "font"]
    width: float
    height: float
    sizes: list[FoundSize]
    lines: str
    nests: bool
    shapes: list[FoundShape]
    layers: list[FoundLayer]
    open: list[FoundOpen]
    open_count: int
    remarks: list[str]


@router.post("/read-file", response=FoundDrawing)
def read_file(
    request: HttpRequest,
    file: File[UploadedFile],
    text: Form[str] = "",
    lines: Form[Literal["auto", "painted", "contours"]] = "auto",
) -> dict[str, Any]:
    """What an SVG, DXF or font file holds; nothing is kept yet."""
    signed_in(request)
    return read_bounded(file.read(), plain(text), lines)


@router.get("/words", response=list[WordPicture])
def words(request: HttpRequest, text: Query[Word]) -> Any:
    """A word in each of the shipped fonts, capitals 20 mm high."""
    person = signed_in(request)
    return worked_out("words", text, person=str(person.pk))
