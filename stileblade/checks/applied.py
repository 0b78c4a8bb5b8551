"""Steps that could not be applied, and what steps want to be known."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Severity, Subject


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
    for outcome in subject.piece.outcomes:
        problem = outcome.problem
        if problem is None:
            continue
        mends: tuple[Mend, ...] = ()
        if problem.field and problem.would_do is not None:
            value = getattr(outcome.step, problem.field, None)
            if isinstance(value, int | float):
                mends = (
                    Mend(
                        f"{problem.field} {subject.say(problem.would_do)}",
                        outcome.step.id,
                        {problem.field: problem.would_do},
                    ),
                )
        yield Finding(
            "step.not-applied",
            Severity.ERROR,
            f"{outcome.step.title}: {problem.message}",
            subject.name,
            problem.would_do,
            hint=problem.hint,
            step=outcome.step.id,
            mends=mends,
        )
    work = subject.piece.work
    if work is not None:
        for code, message in work.notes:
            yield Finding(code, Severity.NOTE, message, subject.name)
