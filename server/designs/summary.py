"""Summaries of designs for their list, kept until a newer revision."""

from __future__ import annotations

from typing import Any

from server.designs.evaluating import CACHE
from server.designs.models import Design
from stileblade.views.summary import summary_of as made_of


def summary_of(design: Design) -> dict[str, Any]:
    """The design's summary, made anew and kept where a newer revision has none."""
    if design.summary_revision != design.revision:
        design.summary = made_of(design.document, CACHE).model_dump(mode="json")
        design.summary_revision = design.revision
        # not save(): looking at a list does not make a design newer
        Design.objects.filter(pk=design.pk, revision=design.revision).update(
            summary=design.summary, summary_revision=design.revision
        )
    return design.summary
