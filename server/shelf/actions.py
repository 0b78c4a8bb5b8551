"""Keeping papers and sizes."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.http import Http404

from server.shelf.defaults import PAPERS
from server.shelf.models import OwnSize, StockPaper
from stileblade.card.sizes import CardSize
from stileblade.card.stock import Paper
from stileblade.words import say


def papers_of(user: User) -> list[StockPaper]:
    """The user's papers; a new user gets the usual ones."""
    found = list(StockPaper.objects.filter(owner=user))
    if not found:
        StockPaper.objects.bulk_create(
            StockPaper(owner=user, data={**p.model_dump(mode="json"), "name": say(p.name)})
            for p in PAPERS
        )
        found = list(StockPaper.objects.filter(owner=user))
    return found


def keep_paper(user: User, paper: Paper) -> StockPaper:
    papers_of(user)
    row = StockPaper.objects.create(owner=user, data=paper.model_dump(mode="json"))
    row.data["id"] = f"paper-{row.pk}"
    row.save()
    return row


def keep_size(user: User, size: CardSize) -> OwnSize:
    return OwnSize.objects.create(owner=user, data=size.model_dump(mode="json"))


def remove(user: User, model: type[StockPaper] | type[OwnSize], number: int) -> None:
    """Taken off the shelf; designs keep their own copies."""
    gone, _ = model.objects.filter(owner=user, pk=number).delete()
    if not gone:
        raise Http404
