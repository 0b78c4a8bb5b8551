"""Computing: what can be built, an evaluation, and files."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.config.documents import Document
from server.designs.evaluating import evaluated
from stileblade.design.document import load_design
from stileblade.design.evaluation import PieceOutcome
from stileblade.errors import DocumentError
from stileblade.formats.files import file_name
from stileblade.formats.format import formats
from stileblade.formats.plan import plan_of
from stileblade.views.bench import Evaluated, Wanted, view
from stileblade.views.catalogue import Catalogue, catalogue
from stileblade.views.cuts import CutView, PlacedThing, cuts_of, placed_of

router = Router(tags=["work"])


class Evaluate(BaseModel):
    """A document, the piece looked at, the step in hand, and the pictures already known."""

    document: Document
    piece: str
    step: str | None = None
    known: list[str] = Field(default_factory=list, max_length=2000)
    part: Wanted = Wanted.ALL


class Export(BaseModel):
    document: Document
    piece: str
    format: str = Field(max_length=20)


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


@router.post("/export")
def export(request: HttpRequest, wish: Export) -> HttpResponse:
    signed_in(request)
    evaluation = evaluated(load_design(wish.document))
    piece = _piece(evaluation.pieces, wish.piece)
    form = formats()[wish.format]
    response = HttpResponse(form.write(plan_of(evaluation, piece)), content_type=form.media_type)
    name = file_name(f"{evaluation.design.name}-{piece.piece.name}")
    ascii_name = name.encode("ascii", "replace").decode().replace("?", "_")
    response["Content-Disposition"] = f'attachment; filename="{ascii_name}.{form.extension}"'
    response["X-Content-Type-Options"] = "nosniff"
    return response


def _piece(pieces: tuple[PieceOutcome, ...], name: str) -> PieceOutcome:
    for piece in pieces:
        if piece.piece.id == name:
            return piece
    raise DocumentError(f"piece={name[:40]!r} is not in the design.", where="piece")
