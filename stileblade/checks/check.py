"""Checks: small functions that look at an evaluated design and return findings.

A finding has a code that stays, a severity, a message with its figure, its place on the
flat view, and mends: changes to the document that a person can take with one press.
Errors never block an export.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import takewhile
from typing import Any

from stileblade.build.evaluation import Evaluation, Outcome, PieceOutcome
from stileblade.build.step import Stage, Step
from stileblade.build.steps.artwork import StartArtwork
from stileblade.build.steps.figure import StartFigure
from stileblade.geometry.clipping import Point
from stileblade.geometry.region import Region
from stileblade.registry import Registry, import_all
from stileblade.units import Unit, format_length


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
    """A change that would help. ``values`` are set on step ``step``; or ``add`` is put in
    before step ``before`` (at the end where that is empty); ``card`` holds values of the way of
    folding."""

    title: str
    step: str = ""
    values: dict[str, Any] = field(default_factory=dict)
    add: Step | None = None
    before: str = ""
    card: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, eq=False)
class Finding:
    """value in mm (or a count); ``step`` is the step it is about, if one is."""

    code: str
    severity: Severity
    message: str
    piece: str = ""
    value: float | None = None
    hint: str = ""
    step: str = ""
    place: Place = Place()
    mends: tuple[Mend, ...] = ()


@dataclass(frozen=True, eq=False)
class Subject:
    """One piece of an evaluation, and how lengths are to be written."""

    evaluation: Evaluation
    piece: PieceOutcome

    @property
    def name(self) -> str:
        return self.piece.piece.name

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
        if not isinstance(live[0].step, StartFigure | StartArtwork):
            return None
        return live[-1], outcomes[len(made)].step.id if len(made) < len(outcomes) else ""

    def say(self, length: float) -> str:
        return format_length(length, self.unit)


Check = Callable[[Subject], Iterable[Finding]]
CHECKS: Registry[Check] = Registry("check")


def run_checks(evaluation: Evaluation) -> list[Finding]:
    """Findings of all checks on all pieces, errors first."""
    import_all("stileblade.checks")
    found = []
    for piece in evaluation.pieces:
        subject = Subject(evaluation, piece)
        for check in CHECKS:
            found += list(check(subject))
    order = list(Severity)
    return sorted(found, key=lambda f: order.index(f.severity))
