"""Keeping artworks: one function for each change, used by every door."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from django.contrib.auth.models import User
from django.db import transaction
from django.http import Http404

from server.computing.asking import worked_out
from server.designs.models import Design
from server.shelf.models import Artwork as Row
from stileblade.errors import StilebladeError
from stileblade.outlines.artwork import Artwork
from stileblade.outlines.drawing import Drawing

MOST_TAGS = 20


def keep(
    user: User, drawing: Drawing | Artwork, *, tags: Sequence[str] = (), source: str = ""
) -> Row:
    """The drawing on the user's shelf; one with the same outlines is named and tagged anew. ``NotWorkedOut`` where its
    outlines cannot be read."""
    found = worked_out("artwork", drawing, person=str(user.pk))
    values = {**found, "tags": tidied(tags), "source": source, "binned": False}
    row, _ = Row.objects.update_or_create(owner=user, key=values.pop("key"), defaults=values)
    return row


def change(
    user: User,
    number: int,
    *,
    name: str | None = None,
    tags: list[str] | None = None,
    binned: bool | None = None,
) -> Row:
    with transaction.atomic():
        row = own(user, number)
        if name is not None:
            row.name = name
            row.data = {**row.data, "name": name}
        if tags is not None:
            row.tags = tidied(tags)
        if binned is not None:
            row.binned = binned
        row.save()
    return row


def replace(user: User, number: int, drawing: Drawing, source: str) -> Row:
    """Another file's outlines in place of the artwork's; its name and tags stay, and designs keep
    the old outlines until they are told otherwise."""
    own(user, number)  # or nothing is worked out
    found = worked_out("artwork", drawing, person=str(user.pk))
    key = found["key"]
    with transaction.atomic():
        row = own(user, number)
        if row.key == key:
            return row
        if Row.objects.filter(owner=user, key=key).exclude(pk=row.pk).exists():
            raise StilebladeError(
                "These outlines are on the shelf already.", hint="Use that one.", code="shelf"
            )
        row.earlier = [*row.earlier, row.key]
        found |= {"name": row.name, "data": {**found["data"], "name": row.name}, "source": source}
        for field, value in found.items():
            setattr(row, field, value)
        row.save()
    return row


def remove(user: User, number: int) -> None:
    """For good; only from the bin. Designs keep their own copies."""
    row = own(user, number)
    if not row.binned:
        raise Http404
    row.delete()


def own(user: User, number: int) -> Row:
    try:
        return Row.objects.get(pk=number, owner=user)
    except Row.DoesNotExist:
        raise Http404 from None


def uses(user: User) -> Counter[str]:
    """In how many designs each key is used, designs in the bin not counted."""
    rows = Design.objects.filter(owner=user, binned=False).values_list("artworks", flat=True)
    return Counter(key for keys in rows for key in set(keys))


def designs_with(user: User, row: Row) -> list[Design]:
    keys = {row.key, *row.earlier}
    found = Design.objects.filter(owner=user, binned=False).defer("document")
    return [d for d in found if keys & set(d.artworks)]


def tidied(tags: Sequence[str]) -> list[str]:
    """Tags without blanks around them, each once, in order."""
    words = [" ".join(t.split())[:30].lower() for t in tags]
    return list(dict.fromkeys(w for w in words if w))[:MOST_TAGS]
