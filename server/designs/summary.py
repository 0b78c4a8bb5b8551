"""What the list of designs shows of each: folded picture, closed size, state of its checks."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from server.designs.evaluating import evaluated
from server.designs.folded_of import folded_picture
from server.designs.models import Design
from server.designs.shown import FoldedPicture
from stileblade.build.document import read_design
from stileblade.checks.check import Severity, run_checks
from stileblade.errors import StilebladeError
from stileblade.report import card_measures


class Summary(BaseModel):
    size: str
    way: str
    units: str
    closed: tuple[float, float]
    errors: int
    warnings: int
    notes: int
    picture: FoldedPicture | None
    problem: str


def summary_of(design: Design) -> dict[str, Any]:
    """The design's summary, made anew and kept where a newer revision has none."""
    if design.summary_revision != design.revision:
        design.summary = _make(design).model_dump(mode="json")
        design.summary_revision = design.revision
        # not save(): looking at a list does not make a design newer
        Design.objects.filter(pk=design.pk, revision=design.revision).update(
            summary=design.summary, summary_revision=design.revision
        )
    return design.summary


def _make(design: Design) -> Summary:
    try:
        document = read_design(design.document)
        evaluation = evaluated(document)
        findings = run_checks(evaluation)
    except StilebladeError as error:
        return Summary(
            size="", way="", units="mm", closed=(0, 0), errors=1, warnings=0, notes=0,
            picture=None, problem=str(error),
        )  # fmt: skip
    base = evaluation.pieces[0]
    width, height = card_measures(evaluation)["closed_mm"]
    count = {s: sum(f.severity is s for f in findings) for s in Severity}
    return Summary(
        size=document.card.size.name,
        way=document.card.folding.way.title,
        units=document.units,
        closed=(width, height),
        errors=count[Severity.ERROR],
        warnings=count[Severity.WARNING],
        notes=count[Severity.NOTE],
        picture=folded_picture(base.work, base.paper) if base.work else None,
        problem="",
    )
