"""The shelf: outlines, papers and card sizes of a person's own."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import models


class Outline(models.Model):
    """Path data in mm; ``key`` is a digest of it, by which documents name it."""

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="outlines")
    name = models.CharField(max_length=80)
    key = models.CharField(max_length=40)
    path = models.TextField()
    rule = models.CharField(max_length=10, default="nonzero")
    picture = models.JSONField(default=dict)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "id"]
        constraints = [models.UniqueConstraint(fields=["owner", "key"], name="one_outline_each")]


class StockPaper(models.Model):
    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="papers")
    data = models.JSONField()

    class Meta:
        ordering = ["id"]


class OwnSize(models.Model):
    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="sizes")
    data = models.JSONField()

    class Meta:
        ordering = ["id"]
