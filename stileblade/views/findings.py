"""What the checks found, with its place and its mends."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel

from stileblade.checks.check import Finding, Mend, Severity, open_findings, run_checks
from stileblade.design.changes import Change
from stileblade.design.evaluation import Evaluation
from stileblade.steps.step import Step
from stileblade.unexpected import Attempts
from stileblade.views.places import Stroke, screen_path
from stileblade.views.said import Said
from stileblade.words import named, say, together

MOST_OUTLINES = 200
MOST_SPOTS = 20


class MendView(BaseModel):
    """offered: to be shown at once where the card is seen."""

    title: Said
    changes: list[Change]
    offered: bool = False


class FindingView(BaseModel):
    code: str
    severity: Literal["error", "warning", "note"]
    message: Said
    hint: Said
    piece: str
    where: str
    """Piece, panel and step, as a person reads them; of the piece only where there are several."""
    step: str
    value: float | None
    lines: list[Stroke]
    outlines: list[str]
    mends: list[MendView]
    accepted: str
    """Why the person leaves it as it is; empty while it is open."""


def findings_of(evaluation: Evaluation) -> list[FindingView]:
    """What the checks found; a place that takes too much to draw is left out."""
    attempt = Attempts()
    return [_finding(f, evaluation, attempt) for f in run_checks(evaluation)]


def standing(evaluation: Evaluation) -> dict[str, tuple[str, ...]]:
    """By a piece's key: the open errors and warnings, for a file to say."""
    keys = {p.piece.name: p.piece.id for p in evaluation.pieces}
    found: dict[str, tuple[str, ...]] = {}
    for finding in open_findings(evaluation):
        if finding.severity is not Severity.NOTE and finding.piece in keys:
            key = keys[finding.piece]
            found[key] = (*found.get(key, ()), f"{finding.severity}: {finding.message}")
    return found


def not_computed(what: dict[str, str], piece: str, step: str = "") -> list[FindingView]:
    """Findings of what of a picture could not be made."""
    return [
        FindingView(
            code="not-computed",
            severity=Severity.ERROR.value,
            message=say("The {one} could not be computed.", one=one),
            hint=why,
            piece=piece,
            where="",
            step=step,
            value=None,
            lines=[],
            outlines=[],
            mends=[],
            accepted="",
        )
        for one, why in what.items()
    ]


def _finding(finding: Finding, evaluation: Evaluation, attempt: Attempts) -> FindingView:
    piece = next((p.piece.id for p in evaluation.pieces if p.piece.name == finding.piece), "")
    return FindingView(
        code=finding.code,
        severity=finding.severity.value,
        message=finding.message,
        hint=finding.hint,
        piece=piece,
        where=attempt("place of a finding", lambda: where_of(finding, evaluation), ""),
        step=finding.step,
        value=finding.value,
        lines=[(*a, *b) for a, b in finding.place.lines],
        outlines=attempt(
            "outlines of a finding",
            lambda: [screen_path(r) for r in finding.place.outlines[:MOST_OUTLINES]],
            [],
        ),
        mends=[
            MendView(title=m.title, changes=changes_of(m, piece), offered=m.offered)
            for m in finding.mends
        ],
        accepted=finding.accepted,
    )


def where_of(finding: Finding, evaluation: Evaluation) -> str:
    """The piece, where there are several, the panels that its place lies on, and its step."""
    piece = next((p for p in evaluation.pieces if p.piece.name == finding.piece), None)
    if piece is None:
        return ""
    words = [piece.piece.name] if len(evaluation.pieces) > 1 else []
    spots = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in finding.place.lines]
    boxes = [o.bounds for o in finding.place.outlines[:MOST_SPOTS]]
    panels = piece.work.panels if piece.work else ()
    on = [
        p.name
        for p in panels
        if any(p.box.holds(s) for s in spots)
        or any(p.box.holds((b.left, b.head)) and p.box.holds((b.right, b.foot)) for b in boxes)
    ]
    if 0 < len(on) < max(len(panels), 2):
        words.append(together(map(named, on)))
    for number, outcome in enumerate(piece.outcomes, 1):
        if finding.step and outcome.step.id == finding.step:
            words.append(say("step {number}, {title}", number=number, title=outcome.step.title))
    return ", ".join(words)


def changes_of(mend: Mend, piece: str) -> list[Change]:
    """A mend as changes to the piece with that key, and to the design."""
    found = [*mend.changes]
    if mend.card:
        found.append(Change(op="fold", piece=piece, step="", values=mend.card))
    if mend.size:
        found.append(Change(op="size", piece=piece, step="", values=mend.size))
    for key, order in mend.order.items():
        found.append(Change(op="lay", piece=key, step="", values={"order": order}))
    if mend.paper is not None:
        key, values = mend.paper
        found.append(Change(op="paper", piece=piece, step=key, values=values))
    if mend.add is not None:
        found.append(
            Change(op="add", piece=mend.of or piece, step=mend.before, values=_values(mend.add))
        )
    for name, steps in mend.pieces:
        made = {"name": name, "steps": [_values(s) for s in steps]}
        found.append(Change(op="piece", piece=piece, step="", values=made))
    if mend.values:
        found.append(
            Change(op="set", piece=mend.step_of or piece, step=mend.step, values=mend.values)
        )
    return found


def _values(step: Step) -> dict[str, Any]:
    """A step's values, with its key where it must keep it."""
    return step.model_dump(mode="json", exclude=None if step.id else {"id"})
