"""Whether an easel has what it stands by."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Severity, Subject
from stileblade.steps.kinds.easel_display import EaselDisplay
from stileblade.steps.kinds.easel_stop import EaselStop
from stileblade.words import say, together


@CHECKS.register("easel")
def easel(subject: Subject) -> Iterator[Finding]:
    """A note while its display panel or its stop is missing: the free half of its front hangs in the air."""
    if subject.is_layer:
        return
    work = subject.piece.whole
    if work is None or not work.paper or not work.lies_on:
        return
    there = {s.props_up for p in subject.evaluation.design.pieces for s in p.steps if s.on}
    missing = [
        (a, no, made)
        for key, a, no, made in (
            (
                "display",
                "a display panel",
                "no display panel",
                ("Display panel", (EaselDisplay(),)),
            ),
            ("stop", "a stop", "no stop", ("Stop", (EaselStop(),))),
        )
        if key not in there
    ]
    if missing:
        wanted = together(say(a) for a, _, _ in missing)
        yield Finding(
            "easel.bare",
            Severity.NOTE,
            say(
                "An easel stands by a display panel on the free half of its front and a stop on its back; "
                "there is {parts} yet.",
                parts=together(say(no) for _, no, _ in missing),
            ),
            subject.name,
            len(missing),
            mends=(
                Mend(
                    say("make {parts}", parts=wanted),
                    pieces=tuple((say(name), steps) for _, _, (name, steps) in missing),
                ),
            ),
        )
