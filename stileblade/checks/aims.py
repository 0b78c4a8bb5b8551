"""Aims that were kept."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Severity, Subject
from stileblade.checks.measures import Measured, measures_of
from stileblade.design.document import Relation
from stileblade.words import say

NEAR = 0.005
"""Of the figure's unit: what is this near to its aim has reached it."""


@CHECKS.register("aims")
def aims(subject: Subject) -> Iterator[Finding]:
    """An aim that is missed: warning; one whose figure or value is gone: note."""
    own = [a for a in subject.evaluation.design.aims if a.piece == subject.piece.piece.id]
    if not own:
        return
    known = measures_of(subject.evaluation, subject.piece.piece.id)
    for aim in own:
        measured = known.get(aim.figure)
        value = measured.measure() if measured else None
        if measured is None or value is None:
            yield Finding(
                "aim.gone",
                Severity.NOTE,
                "A figure that was aimed at is not there any more.",
                subject.name,
                step=aim.step,
                hint="Take the aim away, or bring the figure back.",
            )
        elif not is_met(aim.relation, value, aim.target):
            yield Finding(
                "aim.missed",
                Severity.WARNING,
                say(
                    "{title} is {now}; the aim is {relation}{target}.",
                    title=measured.title,
                    now=said(subject, measured, value),
                    relation=_WORDS[aim.relation],
                    target=said(subject, measured, aim.target),
                ),
                subject.name,
                value,
                step=aim.step,
            )


_WORDS = {Relation.LEAST: "at least ", Relation.EXACTLY: "", Relation.MOST: "at most "}


def is_met(relation: Relation, value: float, target: float) -> bool:
    """Whether a value has the relation to a target, to five thousandths."""
    return {
        Relation.LEAST: value >= target - NEAR,
        Relation.EXACTLY: abs(value - target) <= NEAR,
        Relation.MOST: value <= target + NEAR,
    }[relation]


def said(subject: Subject, measured: Measured, value: float) -> str:
    if measured.unit == "mm2":
        return subject.area(value)
    return f"{value:.2f} g" if measured.unit == "g" else subject.say(value)
