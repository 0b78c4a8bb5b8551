"""What can be done with designs: one function for each change, used by every door."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.http import Http404

from server.config.problems import Conflict
from server.designs.keeping import thin_history
from server.designs.models import Design, Revision, read_row
from stileblade.design.document import Design as Document
from stileblade.design.document import load_design
from stileblade.formats.files import named_apart
from stileblade.words import say

_SAVED = ("document", "name", "artworks", "revision", "modified")
"""What a save writes of a design: not its summary, which is of the revision before."""


def own(user: User, number: int) -> Design:
    """The user's design; Http404 for somebody else's or none."""
    try:
        return Design.objects.get(pk=number, owner=user)
    except Design.DoesNotExist:
        raise Http404 from None


def as_text(document: Document) -> str:
    return document.model_dump_json()


def create(user: User, data: dict[str, Any], *, template: bool = False, folder: str = "") -> Design:
    document = load_design(data)
    return Design.objects.create(
        owner=user,
        name=document.name,
        document=as_text(document),
        artworks=list(document.artworks),
        template=template,
        folder=folder,
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
        elif text != design.document:
            Revision.objects.create(
                design=design,
                number=design.revision,
                document=design.document,
                saved=design.modified,
            )
            design.document, design.name = text, document.name
            design.artworks = list(document.artworks)
            design.revision += 1
            design.save(update_fields=_SAVED)
    thin_history(design)
    if late:
        raise Conflict(
            "This design was changed elsewhere in the meantime. Both versions are kept.",
            revision=design.revision,
            kept=kept.pk,
            hint="Choose which one to go on with.",
        )
    return design


def version(user: User, number: int, kept: int) -> Revision:
    """A version of the user's design; Http404 for another one's or none."""
    try:
        return own(user, number).revisions.get(pk=kept)
    except Revision.DoesNotExist:
        raise Http404 from None


def name_version(user: User, number: int, kept: int, name: str) -> Revision:
    """A version by a name, which is kept for ever; without one it is kept as others are."""
    row = version(user, number, kept)
    row.name = name
    row.save(update_fields=["name"])
    return row


def from_version(user: User, number: int, kept: int) -> Design:
    """A design of its own, made of a version."""
    row = version(user, number, kept)
    data = read_row(row.document)
    data["name"] = row.name or say(
        "{what} (version {number})", what=str(data.get("name", "Card"))[:100], number=row.number
    )
    return create(user, data)


def duplicate(
    user: User, number: int, *, from_template: bool = False, as_template: bool = False
) -> Design:
    """A design of its own; one that begins with a template, or is one, has its name."""
    design = own(user, number)
    data = read_row(design.document)
    named = from_template or as_template
    data["name"] = design.name if named else say("{name} copy", name=design.name[:100])
    return create(user, data, template=as_template, folder=design.folder)


def rename(user: User, number: int, name: str) -> Design:
    with transaction.atomic():
        design = own(user, number)
        data = {**read_row(design.document), "name": name}
        return save(user, number, data, design.revision)


def mark(user: User, number: int, **marks: bool | str | None) -> Design:
    """Whether it is a template or in the bin, and its folder; what is None stays as it is."""
    with transaction.atomic():
        design = own(user, number)
        set_ = {name: value for name, value in marks.items() if value is not None}
        for name, value in set_.items():
            setattr(design, name, value)
        design.save(update_fields=list(set_))
    return design


def mark_several(user: User, numbers: Sequence[int], **marks: bool | str | None) -> None:
    """All of them, or none where one of them is not the user's. Each is written by itself, so that others' saves
    come in between."""
    names_of(user, numbers)
    for number in numbers:
        mark(user, number, **marks)


def copy_several(user: User, numbers: Sequence[int], *, as_template: bool) -> None:
    """Copies of all, or of none where one of them is not the user's; each is written by itself. Where a quota is
    full, the copies made so far stay."""
    names_of(user, numbers)
    for number in numbers:
        duplicate(user, number, as_template=as_template)


def names_of(user: User, numbers: Sequence[int]) -> list[str]:
    """The names of the user's designs; Http404 where one of them is somebody else's or none."""
    rows = Design.objects.filter(owner=user, pk__in=numbers).values_list("pk", "name")
    found = dict(rows)
    if any(number not in found for number in numbers):
        raise Http404
    return [found[number] for number in numbers]


def as_files(user: User, numbers: Sequence[int]) -> Iterator[tuple[str, bytes]]:
    """The designs by file names, each read when its turn comes; Http404 at once where one is not the user's."""
    names = named_apart(names_of(user, numbers), "json")

    def read() -> Iterator[tuple[str, bytes]]:
        for number, name in zip(numbers, names, strict=True):
            rows = Design.objects.filter(owner=user, pk=number)
            for document in rows.values_list("document", flat=True):
                yield name, document.encode()

    return read()


def remove(user: User, number: int) -> None:
    """For good; only from the bin."""
    design = own(user, number)
    if not design.binned:
        raise Http404
    design.delete()
