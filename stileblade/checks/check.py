"""Checks: small functions that look at an evaluated design and return findings.

A finding has a code that stays, a severity, a message with its figure, its place on the
flat view, and mends: changes to the document that a person can take with one press.
Errors never block an export.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import partial
from itertools import takewhile
from typing import Any

from stileblade.design.changes import Change
from stileblade.design.evaluation import Evaluation, Outcome, PieceOutcome
from stileblade.geometry.curves.places import Point
from stileblade.geometry.regions.region import Region
from stileblade.registry import Registry, import_all
from stileblade.steps.step import Stage, Step
from stileblade.unexpected import Attempts
from stileblade.units import Unit, format_area, format_length
from stileblade.words import say


class Severity(StrEnum):
    ERROR = "error"
    WARNING = "warning"
    NOTE = "note"


@dataclass(frozen=True, eq=False)
class Place:
    """Where on the flat view: lines (pairs of points), or outlines."""

    lines: tuple[tuple[Point, Point], ...] = ()
    outlines: tuple[Region, ...] = ()


@dataclass(frozen=True, eq=False)
class Mend:
    """A change that would help. ``values`` are set on step ``step``, of the piece ``step_of`` where that is
    another one; ``add`` is put in before step ``before`` (at the end where that is empty), of the piece ``of`` where
    that is another one; ``card`` holds values of the way of
    folding; ``pieces`` the names of further pieces of the same paper, each with the steps that make it;
    ``paper`` the key of a paper and values of it; ``size`` values of the card's size; ``order`` places of pieces in the
    stack, by their keys; ``changes`` are any others. One that is ``offered`` is shown at once, where
    the card is seen."""

    title: str
    step: str = ""
    values: dict[str, Any] = field(default_factory=dict)
    step_of: str = ""
    add: Step | None = None
    before: str = ""
    of: str = ""
    card: dict[str, Any] = field(default_factory=dict)
    pieces: tuple[tuple[str, tuple[Step, ...]], ...] = ()
    paper: tuple[str, dict[str, Any]] | None = None
    size: dict[str, Any] = field(default_factory=dict)
    order: dict[str, int] = field(default_factory=dict)
    changes: tuple[Change, ...] = ()
    offered: bool = False


@dataclass(frozen=True, eq=False)
class Finding:
    """value in mm (or a count); ``step`` is the step it is about, if one is; ``accepted`` is why the person
    leaves it as it is, "" while it is open."""

    code: str
    severity: Severity
    message: str
    piece: str = ""
    value: float | None = None
    hint: str = ""
    step: str = ""
    place: Place = Place()
    mends: tuple[Mend, ...] = ()
    accepted: str = ""


@dataclass(frozen=True, eq=False)
class Subject:
    """One piece of an evaluation, and how lengths are to be written."""

    evaluation: Evaluation
    piece: PieceOutcome

    @property
    def name(self) -> str:
        return self.piece.piece.name

    @property
    def is_layer(self) -> bool:
        """Whether it lies on another piece, and is no card by itself."""
        return bool(self.piece.piece.host)

    @property
    def unit(self) -> Unit:
        return self.evaluation.design.units

    @property
    def outline(self) -> tuple[Outcome, str] | None:
        """The last of the steps with which the piece's figure is made, and the key of the step that
        follows, "" for none; None where it begins with no figure: a blank, or a part of another."""
        outcomes = self.piece.outcomes
        made = list(takewhile(lambda o: o.step.stage is Stage.OUTLINE, outcomes))
        live = [o for o in made if o.step.on]
        if not live or live[-1].work is None:
            return None
        begins = live[0].step.starts_with
        if begins is None or not begins.is_figure:
            return None
        return live[-1], outcomes[len(made)].step.id if len(made) < len(outcomes) else ""

    def number(self, step: str) -> int:
        """Which of the piece's steps has the key, from 1; 0 where none has."""
        return next((i for i, o in enumerate(self.piece.outcomes, 1) if o.step.id == step), 0)

    def say(self, length: float) -> str:
        return format_length(length, self.unit)

    def area(self, mm2: float) -> str:
        return format_area(mm2, self.unit)


Check = Callable[[Subject], Iterable[Finding]]
CHECKS: Registry[Check] = Registry("check")
_SEVERITIES = list(Severity)
"""The gravest first."""


def _findings(name: str, subject: Subject) -> list[Finding]:
    return list(CHECKS[name](subject))


def run_checks(evaluation: Evaluation) -> list[Finding]:
    """Findings of all checks on all pieces: the open ones first, then those accepted, errors before warnings."""
    import_all("stileblade.checks")
    found: list[Finding] = []
    for piece in evaluation.pieces:
        subject, attempt = Subject(evaluation, piece), Attempts()
        own: list[Finding] = []
        for name in CHECKS.names():
            own += attempt(f"check of {name}", partial(_findings, name, subject), [])
        own += [
            Finding(
                "not-computed",
                Severity.ERROR,
                say("The {what} could not be computed.", what=what),
                subject.name,
                hint=say("{why} Look at it yourself before you cut.", why=why),
            )
            for what, why in attempt.failed.items()
        ]
        found += [_judged(f, subject) for f in own]
    return sorted(found, key=lambda f: (bool(f.accepted), _SEVERITIES.index(f.severity)))


def open_findings(evaluation: Evaluation) -> list[Finding]:
    """The findings that nobody has accepted, errors first."""
    return [f for f in run_checks(evaluation) if not f.accepted]


def _judged(finding: Finding, subject: Subject) -> Finding:
    """The finding with the reason for which it is accepted, if it is."""
    about = (finding.code, subject.piece.piece.id, finding.step)
    for taken in subject.evaluation.design.accepted:
        severity = _SEVERITIES.index(Severity(taken.severity))
        if about == (taken.code, taken.piece, taken.step) and severity <= _SEVERITIES.index(
            finding.severity
        ):
            return replace(finding, accepted=taken.reason)
    return finding
