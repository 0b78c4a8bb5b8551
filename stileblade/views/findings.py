"""What the checks found, with its place and its mends."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from stileblade.checks.check import Finding, Mend, Severity, run_checks
from stileblade.design.changes import Change
from stileblade.design.evaluation import Evaluation
from stileblade.geometry.paths.pathdata import path_data
from stileblade.unexpected import SORRY
from stileblade.views.places import Stroke

MOST_OUTLINES = 200


class MendView(BaseModel):
    title: str
    changes: list[Change]


class FindingView(BaseModel):
    code: str
    severity: Literal["error", "warning", "note"]
    message: str
    hint: str
    piece: str
    step: str
    value: float | None
    lines: list[Stroke]
    outlines: list[str]
    mends: list[MendView]


def findings_of(evaluation: Evaluation) -> list[FindingView]:
    return [_finding(f, evaluation) for f in run_checks(evaluation)]


def not_computed(what: list[str], piece: str, step: str = "") -> list[FindingView]:
    """Findings of what of a picture could not be made."""
    return [
        FindingView(
            code="not-computed",
            severity=Severity.ERROR.value,
            message=f"The {one} could not be computed.",
            hint=SORRY,
            piece=piece,
            step=step,
            value=None,
            lines=[],
            outlines=[],
            mends=[],
        )
        for one in what
    ]


def _finding(finding: Finding, evaluation: Evaluation) -> FindingView:
    piece = next((p.piece.id for p in evaluation.pieces if p.piece.name == finding.piece), "")
    return FindingView(
        code=finding.code,
        severity=finding.severity.value,
        message=finding.message,
        hint=finding.hint,
        piece=piece,
        step=finding.step,
        value=finding.value,
        lines=[(*a, *b) for a, b in finding.place.lines],
        outlines=[path_data(r, 3) for r in finding.place.outlines[:MOST_OUTLINES]],
        mends=[MendView(title=m.title, changes=[change_of(m, piece)]) for m in finding.mends],
    )


def change_of(mend: Mend, piece: str) -> Change:
    """A mend as a change to the piece with that key."""
    if mend.card:
        return Change(op="fold", piece=piece, step="", values=mend.card)
    if mend.piece is not None:
        name, steps = mend.piece
        made = [s.model_dump(mode="json", exclude={"id"}) for s in steps]
        return Change(op="piece", piece=piece, step="", values={"name": name, "steps": made})
    if mend.add is not None:
        values = mend.add.model_dump(mode="json", exclude={"id"})
        return Change(op="add", piece=piece, step=mend.before, values=values)
    return Change(op="set", piece=piece, step=mend.step, values=mend.values)
