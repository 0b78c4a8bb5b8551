"""Lines that follow the outline, where there is nothing left to follow."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Severity, Subject
from stileblade.words import say


@CHECKS.register("lines")
def lines(subject: Subject) -> Iterator[Finding]:
    """An error for each line that cannot be where it is meant to be on the finished piece."""
    work = subject.piece.work
    if work is None or not work.paper:
        return
    for line, problem in work.lines_lost:
        message, hint = problem.said(subject.say)
        yield Finding(
            "line.lost",
            Severity.ERROR,
            say("A line is left out of the finished piece: {message}", message=message),
            subject.name,
            hint=hint,
            step=line.step,
        )
