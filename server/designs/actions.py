"""What can be done with designs: one function for each change, used by every door."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.http import Http404

from server.config.problems import Conflict
from server.designs.models import Design, Revision
from stileblade.design.document import Design as Document
from stileblade.design.document import load_design

KEPT_REVISIONS = 40


def own(user: User, number: int) -> Design:
    """The user's design; Http404 for somebody else's or none."""
    try:
        return Design.objects.get(pk=number, owner=user)
    except Design.DoesNotExist:
        raise Http404 from None


def as_text(document: Document) -> str:
    return document.model_dump_json()


def create(user: User, data: dict[str, Any], *, template: bool = False) -> Design:
    document = load_design(data)
    return Design.objects.create(
        owner=user,
        name=document.name,
        document=as_text(document),
        artworks=list(document.artworks),
        template=template,
    )


def save(user: User, number: int, data: dict[str, Any], base: int) -> Design:
    """The document as the next revision after ``base``.

    Where the design has moved on since, the document is kept as a refused revision and
    Conflict is raised: nothing is overwritten.
    """
    document = load_design(data)
    text = as_text(document)
    with transaction.atomic():
        design = own(user, number)
        late = design.revision != base
        if late:
            kept = Revision.objects.create(
                design=design, number=base, document=text, conflicting=True
            )
            _forget_old(design)
        elif text != design.document:
            Revision.objects.create(design=design, number=design.revision, document=design.document)
            design.document, design.name = text, document.name
            design.artworks = list(document.artworks)
            design.revision += 1
            design.save()
            _forget_old(design)
    if late:
        raise Conflict(
            "This design was changed elsewhere in the meantime. Both versions are kept.",
            revision=design.revision,
            kept=kept.pk,
            hint="Choose which one to go on with.",
        )
    return design


def _forget_old(design: Design) -> None:
    """Only so many earlier revisions stay, and so many refused ones."""
    for refused in (False, True):
        old = design.revisions.filter(conflicting=refused).values_list("pk", flat=True)
        gone = list(old[KEPT_REVISIONS:])
        if gone:
            Revision.objects.filter(pk__in=gone).delete()


def kept_version(user: User, number: int, kept: int) -> dict[str, Any]:
    """The document of a revision."""
    design = own(user, number)
    try:
        return json.loads(design.revisions.get(pk=kept).document)
    except Revision.DoesNotExist:
        raise Http404 from None


def duplicate(user: User, number: int, *, from_template: bool = False) -> Design:
    design = own(user, number)
    data = json.loads(design.document)
    data["name"] = design.name if from_template else f"{design.name[:110]} copy"
    return create(user, data)


def rename(user: User, number: int, name: str) -> Design:
    with transaction.atomic():
        design = own(user, number)
        data = {**json.loads(design.document), "name": name}
        return save(user, number, data, design.revision)


def mark(
    user: User, number: int, *, template: bool | None = None, binned: bool | None = None
) -> Design:
    with transaction.atomic():
        design = own(user, number)
        if template is not None:
            design.template = template
        if binned is not None:
            design.binned = binned
        design.save(update_fields=["template", "binned"])
    return design


def remove(user: User, number: int) -> None:
    """For good; only from the bin."""
    design = own(user, number)
    if not design.binned:
        raise Http404
    design.delete()
