"""Slits: cut through, with nothing taken out."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from stileblade.checks.check import CHECKS, Finding, Place, Severity, Subject
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures import distances
from stileblade.geometry.regions.along import points_along_each
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.words import named, say

MEETS = 0.05
"""mm: a slit that ends this near to a fold or an edge ends at it."""
CLOSE = 1.0


@CHECKS.register("slits")
def slits(subject: Subject) -> Iterator[Finding]:
    """A slit across a fold, or one that runs beside an edge at less than 1 mm without meeting it:
    warning."""
    work = subject.piece.work
    if work is None or not work.paper:
        return
    for line in work.lines_on_paper:
        if line.how is How.CUT:
            yield from _across(subject, work, line)
            yield from _beside(subject, work, line)


def crossings(work: Work, points: Floats) -> list[tuple[str, Point]]:
    """Folds that a polyline (k, 2) runs across where they are creased, and the places."""
    found = []
    for fold in work.folds:
        if not fold.folds:
            continue
        off = fold.line.off(points)
        for i in np.flatnonzero(off[:-1] * off[1:] < 0).tolist():
            share = off[i] / (off[i] - off[i + 1])
            spot = points[i] + share * (points[i + 1] - points[i])
            if min(np.hypot(*(spot - points[0])), np.hypot(*(spot - points[-1]))) < MEETS:
                continue
            at = fold.line.place_of((float(spot[0]), float(spot[1])))
            for span in work.spans[fold.name]:
                low, high = sorted(fold.line.place_of(p) for p in (span.start, span.end))
                if low + MEETS < at < high - MEETS:
                    found.append((fold.name, (float(spot[0]), float(spot[1]))))
    return found


def _across(subject: Subject, work: Work, line: DrawnLine) -> Iterator[Finding]:
    hit = [c for way in points_along_each([w for w, _ in line.ways]) for c in crossings(work, way)]
    if hit:
        names = ", ".join(map(named, dict.fromkeys(name for name, _ in hit)))
        yield Finding(
            "slit.across",
            Severity.WARNING,
            say("A slit runs across {names}: it opens when the card is folded.", names=names),
            subject.name,
            len(hit),
            step=line.step,
            hint="Move it to one side of the fold.",
            place=Place(lines=tuple(((x - 2, y), (x + 2, y)) for _, (x, y) in hit)),
        )


def _beside(subject: Subject, work: Work, line: DrawnLine) -> Iterator[Finding]:
    outline = distances.outline_of(work.paper)
    nearest = None
    for start, end in line.edges:
        gap, a, b = distances.nearest(distances.line_of(start, end), outline)
        if gap > MEETS and (nearest is None or gap < nearest[0]):
            nearest = (gap, a, b)
        if gap <= MEETS:
            return  # it meets the edge
    if nearest and nearest[0] < CLOSE:
        yield Finding(
            "slit.near",
            Severity.WARNING,
            say(
                "A slit runs {away} from a cut edge; {least} is safe.",
                away=subject.say(nearest[0]),
                least=subject.say(CLOSE),
            ),
            subject.name,
            nearest[0],
            step=line.step,
            hint="Move it away from the edge.",
            place=Place(lines=((nearest[1], nearest[2]),)),
        )
