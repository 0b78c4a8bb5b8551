"""Steps that could not be applied, and what steps want to be known."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import ValidationError

from stileblade.checks.check import CHECKS, Finding, Mend, Severity, Subject
from stileblade.errors import StepError
from stileblade.outlines.figure import Figure
from stileblade.steps.step import Step


@CHECKS.register("applied")
def applied(subject: Subject) -> Iterator[Finding]:
    """An error for each step that was passed over; notes that steps left."""
    if not any(step.on for step in subject.piece.piece.steps):
        yield Finding(
            "piece.empty",
            Severity.ERROR,
            "The piece has no step that makes anything.",
            subject.name,
            0,
            hint="Start it with a blank or a figure.",
        )
    elif subject.piece.work is None or not subject.piece.work.paper:
        yield Finding(
            "piece.no-paper",
            Severity.ERROR,
            "It has no paper, so it is in no file.",
            subject.name,
            0,
            hint="Mend the step that was passed over, or take the piece away.",
        )
    for outcome in subject.piece.outcomes:
        problem = outcome.problem
        if problem is None:
            continue
        message, hint = problem.said(subject.say)
        yield Finding(
            "step.not-applied",
            Severity.ERROR,
            f"{outcome.step.title}: {message}",
            subject.name,
            problem.would_do,
            hint=hint,
            step=outcome.step.id,
            mends=tuple(_would_do(subject, outcome.step, problem)),
        )
    work = subject.piece.work
    if work is not None:
        for note in work.notes:
            severity = Severity.WARNING if note.warning else Severity.NOTE
            mends = () if note.mend is None else (Mend(note.mend[0], note.step, note.mend[1]),)
            yield Finding(
                note.code, severity, note.message, subject.name, step=note.step, mends=mends
            )


def _would_do(subject: Subject, step: Step, problem: StepError) -> Iterator[Mend]:
    """The value that would do, set on the step or on the figure that it holds."""
    name, value = problem.field, problem.would_do
    if not name or value is None:
        return
    title = f"{name} {subject.say(value)}"
    figure = getattr(step, "outline", None)
    now = getattr(step, name, getattr(figure, name, None))
    if isinstance(now, int | float) and abs(now - value) < 1e-9:
        return
    if isinstance(getattr(step, name, None), int | float):
        values: dict[str, object] = {name: value}
    elif isinstance(figure, Figure) and name in type(figure).model_fields:
        values = {"outline": {**figure.model_dump(mode="json"), name: value}}
    else:
        return
    try:
        type(step).model_validate({**step.model_dump(mode="json"), **values})
    except ValidationError:
        return  # the step takes no such value
    yield Mend(title, step.id, values)
