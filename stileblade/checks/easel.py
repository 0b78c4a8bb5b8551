"""Whether an easel has what it stands by."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Severity, Subject
from stileblade.steps.kinds.easel_display import EaselDisplay
from stileblade.steps.kinds.easel_stop import EaselStop


@CHECKS.register("easel")
def easel(subject: Subject) -> Iterator[Finding]:
    """A note while its display panel or its stop is missing: the free half of its front hangs in the air."""
    if subject.is_layer:
        return
    work = subject.piece.work
    if work is None or not work.paper or not work.lies_on:
        return
    there = {s.props_up for p in subject.evaluation.design.pieces for s in p.steps if s.on}
    missing = [
        (word, made)
        for key, word, made in (
            ("display", "display panel", ("Display panel", (EaselDisplay(),))),
            ("stop", "stop", ("Stop", (EaselStop(),))),
        )
        if key not in there
    ]
    if missing:
        words = " and a ".join(word for word, _ in missing)
        yield Finding(
            "easel.bare",
            Severity.NOTE,
            f"An easel stands by a display panel on the free half of its front and a stop on its back; "
            f"there is no {words.replace(' and a ', ' and no ')} yet.",
            subject.name,
            len(missing),
            mends=(Mend(f"make a {words}", pieces=tuple(made for _, made in missing)),),
        )
