"""Families: designs that are kept in step with each other. What is changed in one is offered to the others."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from itertools import permutations
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from server.config.problems import Conflict
from server.designs.actions import own, save
from server.designs.models import Design, Kin, read_row
from stileblade.errors import StilebladeError
from stileblade.words import say

MOST = 12
"""Members of a family."""


class TooMany(StilebladeError):
    code = "family"


def linked(user: User, number: int, others: Sequence[int]) -> Design:
    """The design and others as one family, with all that were of theirs already. Those that are in step with each
    other stay so; to the rest it begins now."""
    with transaction.atomic():
        design = own(user, number)
        members = {m.pk: m for one in {number, *others} for m in _family(own(user, one))}
        if len(members) > MOST:
            raise TooMany(
                say("A family of {n} designs would be too large.", n=len(members)),
                hint=say("Up to {most} can be kept in step; let some go first.", most=MOST),
            )
        for one, other in permutations(members.values(), 2):
            Kin.objects.get_or_create(design=one, other=other, defaults={"taken": _kept(one)})
    return design


def unlinked(user: User, number: int) -> Design:
    """The design goes its own way; the others stay a family."""
    design = own(user, number)
    with transaction.atomic():
        design.kin.all().delete()
        design.kin_of.all().delete()
    return design


def pairs(user: User, number: int) -> list[tuple[Kin, Kin]]:
    """The design with each other one of its family that is not in the bin, and the other way round."""
    design = own(user, number)
    back = {k.design_id: k for k in design.kin_of.all()}
    rows = design.kin.filter(other__binned=False).select_related("other", "design")
    return [(row, back[row.other_id]) for row in rows.order_by("other_id")]


def pair(user: User, number: int, other: int) -> tuple[Kin, Kin]:
    own(user, other)
    found = next((p for p in pairs(user, number) if p[0].other_id == other), None)
    if found is None:
        raise TooMany(
            "These two designs are no family any more.", hint="Open the family again.", code="kin"
        )
    return found


def wish_of(to: Kin, back: Kin, how: Mapping[str, str]) -> dict[str, Any]:
    """What the workers are asked with."""
    return {
        "before": read_row(to.taken),
        "source": read_row(to.design.document),
        "target": read_row(to.other.document),
        "behind": read_row(back.taken),
        "names": to.names,
        "how": how,
    }


def took(
    user: User, to: Kin, back: Kin, told: Mapping[str, Any], revisions: tuple[int, int]
) -> Design:
    """The other design saved with what it took over, and the two in step. Conflict where one of them was changed
    meanwhile: then nothing is."""
    with transaction.atomic():
        design, other = own(user, to.design_id), own(user, to.other_id)
        if (design.revision, other.revision) != revisions:
            raise Conflict(
                "One of the two designs was changed in the meantime.",
                revision=other.revision,
                kept=0,
                hint="Look at the changes once more.",
            )
        saved = save(user, other.pk, told["document"], other.revision)
        Kin.objects.filter(pk=to.pk).update(taken=_kept(design), names=told["names"])
        bare = {**told["behind"], "artworks": {}}
        Kin.objects.filter(pk=back.pk).update(taken=json.dumps(bare), names=told["back"])
    return saved


def _family(design: Design) -> list[Design]:
    return [design, *(k.other for k in design.kin.select_related("other"))]


def _kept(design: Design) -> str:
    return json.dumps({**read_row(design.document), "artworks": {}})
