"""Whether the base is one piece of paper."""

from __future__ import annotations

import math
from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.geometry.measures.distances import joining_gap
from stileblade.steps.kinds.grow import Grow
from stileblade.words import say

NECK = 5.0
"""mm: how wide the paper is at least where a surround joins two parts."""
WIDEST = 20.0
"""mm: a surround wider than this is another card."""
MOST_PARTS = 60


@CHECKS.register("pieces")
def pieces(subject: Subject) -> Iterator[Finding]:
    """An error where the paper is in more than one part; parts that only touch are two."""
    if subject.is_layer:
        return
    work = subject.piece.work
    if work is None or work.paper.pieces < 2:
        return
    parts = work.paper.parts()
    smallest = parts[-1].area
    yield Finding(
        "pieces.apart",
        Severity.ERROR,
        say(
            "It is {n} separate pieces; the smallest has {smallest}.",
            n=len(parts),
            smallest=subject.area(smallest),
        ),
        subject.name,
        len(parts),
        hint="Weld them, or let them overlap.",
        place=Place(outlines=tuple(parts[1:])),
        mends=_surrounds(subject),
    )


def _surrounds(subject: Subject) -> tuple[Mend, ...]:
    """A surround that joins the parts of an outline: two round margins that meet over a gap g are
    2 sqrt(m^2 - (g / 2)^2) wide there."""
    outline = subject.outline
    if outline is None or outline[0].work is None:
        return ()
    paper, last = outline[0].work.paper, outline[0].step
    if not 2 <= paper.pieces <= MOST_PARTS:
        return ()
    wanted = math.hypot(joining_gap(paper.parts()) / 2, NECK / 2)
    own = max(last.surrounds_by, 0.0)
    margin = math.ceil(2 * (wanted + own)) / 2
    if margin > WIDEST:
        return ()
    title = say("surround of {margin}", margin=subject.say(margin))
    if own > 0:
        return (Mend(title, last.id, last.grown_to(margin)),)
    return (Mend(title, add=Grow(margin=margin), before=outline[1]),)
