"""Designs and their revisions. Documents are kept as JSON text, as the core wrote them."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth.models import User
from django.db import models
from django.utils import timezone

from server.accounts.quotas import Quota
from stileblade.errors import DocumentError


class Design(models.Model):
    """A person's design at its newest revision."""

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="designs")
    name = models.CharField(max_length=120)
    document = models.TextField()
    artworks = models.JSONField(default=list)
    """Keys of the artworks in the document: what the shelf counts uses by."""
    revision = models.PositiveIntegerField(default=1)
    template = models.BooleanField(default=False)
    binned = models.BooleanField(default=False)
    folder = models.CharField(max_length=60, default="", blank=True)
    """Where the person put it; "" for none."""
    created = models.DateTimeField(auto_now_add=True)
    modified = models.DateTimeField(auto_now=True)
    summary = models.JSONField(default=dict)
    """What the list shows; of ``summary_revision``, made anew when that is behind."""
    summary_revision = models.PositiveIntegerField(default=0)
    quota = Quota(
        "designs",
        5_000,
        "You have {most} designs, the most that one person can keep here.",
        content=("document",),
    )

    class Meta:
        ordering = ["-modified", "-id"]


class Kin(models.Model):
    """A design of a family, and another one that is kept in step with it."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="kin")
    other = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="kin_of")
    taken = models.TextField()
    """The design's document, without its artworks, as the other one last took it over."""
    names = models.JSONField(default=dict)
    """Keys of pieces and steps that the other one has by other ones."""
    quota = Quota("families", content=("taken",), owner="design__owner_id")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["design", "other"], name="kin_once")]


class Revision(models.Model):
    """An earlier document of a design, or one that was refused because it came too late."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    document = models.TextField()
    conflicting = models.BooleanField(default=False)
    saved = models.DateTimeField(default=timezone.now)
    """When it became the design's document; when it came, for one that was refused."""
    name = models.CharField(max_length=120, default="", blank=True)
    """What a person calls it; such a one is kept for ever."""
    summary = models.JSONField(default=dict)
    """What the history shows of it; empty until it is asked for."""
    quota = Quota("versions", content=("document",), owner="design__owner_id")

    class Meta:
        ordering = ["-id"]  # not by time: a clock may be set back


def read_row(text: str) -> Any:
    """A row's JSON. DocumentError where it is broken, as a damaged database may have it."""
    try:
        return json.loads(text)
    except ValueError as error:
        raise DocumentError(
            "What is kept of this design on the server is damaged.",
            hint="Take an earlier version of it under History, or restore a backup.",
        ) from error
