"""What is computed of a design: its evaluation, its files, other cards, joins, aims. Nothing is kept;
all of it is done by the workers."""

from __future__ import annotations

from typing import Annotated, Any

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from server.accounts.people import signed_in
from server.computing import wishes
from server.computing.asking import answered, catalogue_in, worked_out
from stileblade.steps.said_values import LONGEST
from stileblade.units import Unit
from stileblade.views.adding import OfferView
from stileblade.views.aims import AimView, FigureView, KeptView
from stileblade.views.beginnings import BeginningView
from stileblade.views.bench import Evaluated
from stileblade.views.cards import OtherCard
from stileblade.views.catalogue import Catalogue
from stileblade.views.cuts import CutView, PlacedThing
from stileblade.views.joins import JoinView
from stileblade.views.searching import HitView
from stileblade.words import spoken

router = Router(tags=["work"])
Said = Annotated[str, Field(max_length=LONGEST)]


@router.get("/catalogue", response=Catalogue)
def get_catalogue(request: HttpRequest) -> HttpResponse:
    person = signed_in(request)
    return HttpResponse(catalogue_in(spoken(), str(person.pk)), content_type="application/json")


@router.get("/steps", response=list[HitView])
def steps_said(request: HttpRequest, said: Said, unit: Unit = Unit.MM) -> Any:
    """The steps that may be meant by what was said, the likeliest first."""
    return worked_out("steps", said, unit, person=str(signed_in(request).pk))


@router.post("/evaluate", response=Evaluated)
def evaluate(request: HttpRequest, wish: wishes.Evaluate) -> HttpResponse:
    return answered(request, "evaluate", wish)


@router.post("/cuts", response=list[CutView])
def cuts(request: HttpRequest, wish: wishes.Looked) -> HttpResponse:
    """The bare lines that the machine gets."""
    return answered(request, "cuts", wish)


@router.post("/placed", response=list[PlacedThing])
def placed(request: HttpRequest, wish: wishes.Looked) -> HttpResponse:
    """The things of all steps that can be moved, to line them up and spread them out."""
    return answered(request, "placed", wish)


@router.post("/picture")
def picture(request: HttpRequest, wish: wishes.Picture) -> HttpResponse:
    """The folded card as an SVG."""
    return answered(request, "picture", wish)


@router.post("/export")
def export(request: HttpRequest, wish: wishes.Export) -> HttpResponse:
    return answered(request, "export", wish, timezone.localdate().isoformat())


@router.post("/offers", response=list[OfferView])
def offers(request: HttpRequest, wish: wishes.Offers) -> HttpResponse:
    """What can be added to the card, each with its picture on this card."""
    return answered(request, "offers", wish)


@router.post("/refold", response=list[OtherCard])
def refolded(request: HttpRequest, wish: wishes.Refold) -> HttpResponse:
    """The design on each of the cards, in their order."""
    return answered(request, "refold", wish)


@router.post("/beginnings", response=list[BeginningView])
def beginnings(request: HttpRequest, wish: wishes.Begin) -> HttpResponse:
    """The ways to begin a card with a figure, each with its pictures and figures."""
    return answered(request, "beginnings", wish)


@router.post("/joins", response=list[JoinView])
def joins(request: HttpRequest, wish: wishes.Joins) -> HttpResponse:
    """The best joins of the piece's mirrored figure, the longest hinge first."""
    return answered(request, "joins", wish)


@router.post("/figures", response=list[FigureView])
def figures(request: HttpRequest, wish: wishes.Looked) -> HttpResponse:
    """The figures of a piece that can be aimed at."""
    return answered(request, "figures", wish)


@router.post("/aim", response=AimView)
def aim(request: HttpRequest, wish: wishes.AimWish) -> HttpResponse:
    """The values with which a figure becomes what is wished for."""
    return answered(request, "aim", wish)


@router.post("/aims", response=KeptView)
def aims(request: HttpRequest, wish: wishes.Wish) -> HttpResponse:
    """The changes with which a document's kept aims are reached again."""
    return answered(request, "aims", wish)
