"""Computing: what can be built, an evaluation, and files."""

from __future__ import annotations

from typing import Annotated
from urllib.parse import quote

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.config.documents import Document
from server.designs.evaluating import evaluated
from stileblade.design.document import load_design
from stileblade.design.evaluation import PieceOutcome
from stileblade.errors import DocumentError
from stileblade.formats.files import File, as_one, file_name, files_of
from stileblade.formats.options import FileOptions
from stileblade.views.bench import Evaluated, Wanted, view
from stileblade.views.catalogue import Catalogue, catalogue
from stileblade.views.cuts import CutView, PlacedThing, cuts_of, placed_of
from stileblade.views.findings import standing
from stileblade.views.posed import posed_svg

router = Router(tags=["work"])


class Evaluate(BaseModel):
    """A document, the piece looked at, the step in hand, and the pictures already known."""

    document: Document
    piece: str
    step: str | None = None
    known: list[str] = Field(default_factory=list, max_length=2000)
    part: Wanted = Wanted.ALL


class Export(BaseModel):
    """A document, the piece in hand, a format, and what was chosen about the files."""

    document: Document
    piece: str
    format: str = Field(max_length=20)
    options: FileOptions = Field(default_factory=FileOptions)


@router.get("/catalogue", response=Catalogue)
def get_catalogue(request: HttpRequest) -> Catalogue:
    signed_in(request)
    return catalogue()


@router.post("/evaluate", response=Evaluated)
def evaluate(request: HttpRequest, wish: Evaluate) -> HttpResponse:
    signed_in(request)
    # the flat view shows the piece at the step in hand: what comes after it can wait
    until = (wish.piece, wish.step) if wish.step and wish.part is Wanted.FLAT else None
    evaluation = evaluated(load_design(wish.document), until=until)
    piece = _piece(evaluation.pieces, wish.piece)
    seen = view(evaluation, piece, wish.step, set(wish.known), wish.part)
    # written here: the framework would check each of its numbers a second time
    return HttpResponse(seen.model_dump_json(), content_type="application/json")


class Looked(BaseModel):
    """A document and the piece looked at."""

    document: Document
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


Finite = Annotated[float, Field(allow_inf_nan=False, ge=-1e4, le=1e4)]


class Picture(BaseModel):
    """A document, the piece in hand, its folds' angles in degrees, and where the eye and up are, as
    directions in the frame of the flat view turned upwards."""

    document: Document
    piece: str
    angles: Annotated[list[Finite], Field(max_length=1000)]
    eye: tuple[Finite, Finite, Finite]
    up: tuple[Finite, Finite, Finite] = (0.0, 1.0, 0.0)


@router.post("/picture")
def picture(request: HttpRequest, wish: Picture) -> HttpResponse:
    """The folded card as an SVG."""
    signed_in(request)
    evaluation = evaluated(load_design(wish.document))
    piece = _piece(evaluation.pieces, wish.piece)
    content = posed_svg(evaluation, piece, wish.angles, wish.eye, wish.up)
    name = f"{file_name(evaluation.design.name)}-folded.svg"
    return attached(File(name, content, "image/svg+xml"))


@router.post("/export")
def export(request: HttpRequest, wish: Export) -> HttpResponse:
    signed_in(request)
    evaluation = evaluated(load_design(wish.document))
    piece = _piece(evaluation.pieces, wish.piece)
    files = files_of(
        evaluation,
        wish.format,
        wish.options,
        piece=piece.piece.id,
        findings=standing(evaluation),
        date=timezone.localdate().isoformat(),
    )
    return attached(as_one(files, evaluation.design.name))


def attached(file: File) -> HttpResponse:
    """A file as an answer that is saved, not shown."""
    response = HttpResponse(file.content, content_type=file.media_type)
    plain = file.name.encode("ascii", "replace").decode().replace("?", "_")
    response["Content-Disposition"] = (
        f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(file.name)}"
    )
    response["X-Content-Type-Options"] = "nosniff"
    return response


def _piece(pieces: tuple[PieceOutcome, ...], name: str) -> PieceOutcome:
    for piece in pieces:
        if piece.piece.id == name:
            return piece
    raise DocumentError(f"piece={name[:40]!r} is not in the design.", where="piece")
