"""Computing: what can be built, an evaluation, and files."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.designs.catalogue import Catalogue, catalogue
from server.designs.cuts_of import cuts_of, placed_of
from server.designs.evaluating import evaluated
from server.designs.shown import CutView, Evaluated, Part, PlacedThing
from server.designs.views_of import view
from stileblade.__main__ import file_name
from stileblade.build.document import load_design
from stileblade.build.evaluation import PieceOutcome
from stileblade.errors import DocumentError
from stileblade.formats.plan import formats, plan_of

router = Router(tags=["work"])
TYPES = {
    "svg": "image/svg+xml",
    "pdf": "application/pdf",
    "dxf": "image/vnd.dxf",
    "png": "image/png",
}


class Evaluate(BaseModel):
    """A document, the piece looked at, the step in hand, and the pictures already known."""

    document: dict[str, Any]
    piece: str
    step: str | None = None
    known: list[str] = Field(default_factory=list, max_length=2000)
    part: Part = Part.ALL


class Export(BaseModel):
    document: dict[str, Any]
    piece: str
    format: Literal["svg", "pdf", "dxf", "png"]


@router.get("/catalogue", response=Catalogue)
def get_catalogue(request: HttpRequest) -> Catalogue:
    signed_in(request)
    return catalogue()


@router.post("/evaluate", response=Evaluated)
def evaluate(request: HttpRequest, wish: Evaluate) -> HttpResponse:
    signed_in(request)
    # the flat view shows the piece at the step in hand: what comes after it can wait
    until = (wish.piece, wish.step) if wish.step and wish.part is Part.FLAT else None
    evaluation = evaluated(load_design(wish.document), until=until)
    piece = _piece(evaluation.pieces, wish.piece)
    seen = view(evaluation, piece, wish.step, set(wish.known), wish.part)
    # written here: the framework would check each of its numbers a second time
    return HttpResponse(seen.model_dump_json(), content_type="application/json")


class Looked(BaseModel):
    """A document and the piece looked at."""

    document: dict[str, Any]
    piece: str


@router.post("/cuts", response=list[CutView])
def cuts(request: HttpRequest, wish: Looked) -> list[CutView]:
    """The bare lines that the machine gets."""
    signed_in(request)
    evaluation = evaluated(load_design(wish.document))
    return cuts_of(_piece(evaluation.pieces, wish.piece))


@router.post("/placed", response=list[PlacedThing])
def placed(request: HttpRequest, wish: Looked) -> list[PlacedThing]:
    """The things of all steps that can be moved, to line them up and spread them out."""
    signed_in(request)
    evaluation = evaluated(load_design(wish.document))
    return placed_of(_piece(evaluation.pieces, wish.piece))


@router.post("/export")
def export(request: HttpRequest, wish: Export) -> HttpResponse:
    signed_in(request)
    evaluation = evaluated(load_design(wish.document))
    piece = _piece(evaluation.pieces, wish.piece)
    content = formats()[wish.format](plan_of(evaluation, piece))
    response = HttpResponse(content, content_type=TYPES[wish.format])
    name = file_name(f"{evaluation.design.name}-{piece.piece.name}")
    ascii_name = name.encode("ascii", "replace").decode().replace("?", "_")
    response["Content-Disposition"] = f'attachment; filename="{ascii_name}.{wish.format}"'
    response["X-Content-Type-Options"] = "nosniff"
    return response


def _piece(pieces: tuple[PieceOutcome, ...], name: str) -> PieceOutcome:
    for piece in pieces:
        if piece.piece.id == name:
            return piece
    raise DocumentError(f"piece={name[:40]!r} is not in the design.", where="piece")
