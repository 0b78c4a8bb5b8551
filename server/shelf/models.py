"""The shelf: outlines, papers and card sizes of a person's own."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import models

from server.accounts.quotas import Quota


class Artwork(models.Model):
    """An outline or artwork as the core's documents hold it.

    ``key`` is a digest of its outlines, by which documents name it; ``earlier`` are the keys
    that it had before it was replaced by another file.
    """

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="artworks")
    name = models.CharField(max_length=80)
    key = models.CharField(max_length=40)
    earlier = models.JSONField(default=list)
    data = models.JSONField()
    tags = models.JSONField(default=list)
    source = models.CharField(max_length=120, default="")
    width = models.FloatField(default=0.0)
    height = models.FloatField(default=0.0)
    picture = models.JSONField(default=dict)
    binned = models.BooleanField(default=False)
    created = models.DateTimeField(auto_now_add=True)
    modified = models.DateTimeField(auto_now=True)
    quota = Quota(
        "artworks",
        5_000,
        "You have {most} artworks on your shelf, the most that one person can keep here.",
        content=("data", "picture"),
    )

    class Meta:
        ordering = ["name", "id"]
        constraints = [models.UniqueConstraint(fields=["owner", "key"], name="one_artwork_each")]


class StockPaper(models.Model):
    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="papers")
    data = models.JSONField()
    quota = Quota(
        "papers",
        1_000,
        "You have {most} papers, the most that one person can keep here.",
        content=("data",),
    )

    class Meta:
        ordering = ["id"]


class OwnSize(models.Model):
    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="sizes")
    data = models.JSONField()
    quota = Quota(
        "sizes",
        500,
        "You have {most} card sizes, the most that one person can keep here.",
        content=("data",),
    )

    class Meta:
        ordering = ["id"]
