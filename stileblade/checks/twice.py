"""Lines that two steps make in one place."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.lines import along_others
from stileblade.geometry.regions.along import points_along_each
from stileblade.piece.lines import DrawnLine
from stileblade.words import say

NEAR = 0.02
"""mm: a machine hardly sets its tool down in another place."""
LEAST = 4.0
"""mm along each other: less is where lines cross, or a circle of 100 mm touches one."""


@CHECKS.register("twice")
def twice(subject: Subject) -> Iterator[Finding]:
    """A line or a slit that an earlier step makes already, of the same operation and pen: warning."""
    work = subject.piece.work
    if work is None or not work.paper:
        return
    known: dict[object, list[tuple[DrawnLine, list[Floats]]]] = {}
    for line in work.lines_on_paper:
        ways = points_along_each([way for way, _ in line.ways if len(way)])
        earlier = known.setdefault((line.how, line.pen), [])
        for other, theirs in earlier:
            if other.step == line.step:
                continue
            common = along_others(ways, theirs, NEAR, LEAST)
            if common:
                yield _told(subject, line, other, common)
                break
        earlier.append((line, ways))


def _told(subject: Subject, line: DrawnLine, other: DrawnLine, common: list[Floats]) -> Finding:
    length = sum(float(np.hypot(*np.diff(way, axis=0).T).sum()) for way in common)
    number = subject.number(line.step)
    edges = [((a[0], a[1]), (b[0], b[1])) for way in common for a, b in pairwise(way.tolist())]
    return Finding(
        "line.twice",
        Severity.WARNING,
        say(
            "Steps {first} and {second} make the same line: the machine goes over {length} of it twice.",
            first=subject.number(other.step),
            second=number,
            length=subject.say(length),
        ),
        subject.name,
        length,
        hint="Switch one of them off, or move it.",
        step=line.step,
        place=Place(lines=tuple(edges)),
        mends=(Mend(say("switch off step {number}", number=number), line.step, {"on": False}),),
    )
