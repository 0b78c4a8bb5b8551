"""Families of designs: who belongs to one, what is offered to whom, and taking it over."""

from __future__ import annotations

import json
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.computing.asking import answered, computed
from server.computing.jobs import Answer
from server.computing.wishes import Kin as KinWish
from server.computing.wishes import Number
from server.config.problems import problem
from server.designs import kin
from server.designs.models import read_row
from server.designs.routes import MOST_REVISIONS, Saved
from stileblade.design.kin.differences import How
from stileblade.views.kin import KinOffer

router = Router(tags=["families"])
RevisionNumber = Annotated[int, Field(ge=0, le=MOST_REVISIONS)]


class KinMember(BaseModel):
    """``changes``: how many the design in hand has for it."""

    id: int
    name: str
    size: str
    revision: int
    changes: int


class KinLink(BaseModel):
    others: list[Number] = Field(max_length=kin.MOST)


class KinChoice(BaseModel):
    """How changes are taken over, by their keys; those that are not named, as is usual."""

    how: dict[str, How] = Field(default_factory=dict, max_length=2000)


class KinTake(KinChoice):
    """``revisions``: of the design in hand and of the other, as they were looked at."""

    revisions: tuple[RevisionNumber, RevisionNumber]


@router.get("/designs/{number}/kin", response=list[KinMember])
def list_kin(request: HttpRequest, number: Number) -> HttpResponse:
    """The others of the design's family; none where it has none."""
    user = signed_in(request)
    found = kin.pairs(user, number)
    counts: list[int] = []
    if found:
        wishes = [KinWish.model_validate(kin.wish_of(*pair, {})) for pair in found]
        done = computed("kin-count", wishes, person=f"families of {user.pk}")
        counts = json.loads(done.content) if isinstance(done, Answer) else [0] * len(found)
    members = [
        KinMember(
            id=to.other_id,
            name=to.other.name,
            size=read_row(to.other.document)["card"]["size"]["name"],
            revision=to.other.revision,
            changes=count,
        ).model_dump()
        for (to, _), count in zip(found, counts, strict=True)
    ]
    return HttpResponse(json.dumps(members), content_type="application/json")


@router.post("/designs/{number}/kin", response=Saved)
def link_kin(request: HttpRequest, number: Number, link: KinLink) -> Saved:
    """The design and others as one family."""
    made = kin.linked(signed_in(request), number, link.others)
    return Saved(id=made.pk, revision=made.revision, modified=made.modified)


@router.delete("/designs/{number}/kin", response=Saved)
def leave_kin(request: HttpRequest, number: Number) -> Saved:
    """The design goes its own way."""
    left = kin.unlinked(signed_in(request), number)
    return Saved(id=left.pk, revision=left.revision, modified=left.modified)


@router.post("/designs/{number}/kin/{other}/offer", response=KinOffer)
def offer_to_kin(
    request: HttpRequest, number: Number, other: Number, choice: KinChoice
) -> HttpResponse:
    """What the design's changes are for the other one, and how that would look with them."""
    to, back = kin.pair(signed_in(request), number, other)
    wish = KinWish.model_validate(kin.wish_of(to, back, choice.how))
    return answered(request, "kin-offer", wish)


@router.post("/designs/{number}/kin/{other}", response=Saved)
def give_to_kin(request: HttpRequest, number: Number, other: Number, take: KinTake) -> HttpResponse:
    """The other design takes the changes over; it has them in its history."""
    user = signed_in(request)
    to, back = kin.pair(user, number, other)
    wish = KinWish.model_validate(kin.wish_of(to, back, take.how))
    done = computed("kin-take", wish, person=str(user.pk))
    if not isinstance(done, Answer):
        return problem(done.status, done.code, done.message, done.hint)
    made = kin.took(user, to, back, json.loads(done.content), take.revisions)
    saved = Saved(id=made.pk, revision=made.revision, modified=made.modified)
    return HttpResponse(saved.model_dump_json(), content_type="application/json")
