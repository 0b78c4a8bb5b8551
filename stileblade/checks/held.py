"""Whether every part of the card is held by one beside it."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from stileblade.checks.check import CHECKS, Finding, Place, Severity, Subject
from stileblade.folding.flat import fold_flat
from stileblade.geometry.curves.places import Box, Point
from stileblade.piece.lines import How
from stileblade.words import say, together


@CHECKS.register("held")
def held(subject: Subject) -> Iterator[Finding]:
    """A part that hangs on nothing is an error, whether slits cut it loose or no fold reaches it. Where
    the paper itself is in several pieces, that is said by itself."""
    if subject.is_layer:
        return
    work = subject.piece.whole
    if work is None or not work.paper or work.paper.pieces > 1:
        return
    loose = [face for face in fold_flat(work).faces if face.loose]
    if not loose:
        return
    smallest = min(face.box.width * face.box.height for face in loose)
    cut = [line for line in work.lines_on_paper if line.how is How.CUT]
    if cut:
        yield Finding(
            "slit.loose",
            Severity.ERROR,
            say(
                "A part is cut loose: nothing holds it. | {n} parts are cut loose: nothing holds them.",
                n=len(loose),
            ),
            subject.name,
            smallest,
            step=cut[-1].step,
            hint="Shorten the slit, or move it.",
            place=Place(lines=tuple(e for line in cut for e in line.edges)),
        )
        return
    names = together(say("the {name}", name=face.name) for face in loose)
    yield Finding(
        "fold.loose",
        Severity.ERROR,
        say("No fold holds {names}: the card does not fold there.", names=names),
        subject.name,
        smallest,
        hint="Leave paper on both sides of the fold.",
        place=Place(lines=tuple(e for face in loose for e in _around(face.box))),
    )


def _around(box: Box) -> list[tuple[Point, Point]]:
    corners = box.corners()
    return list(pairwise([*corners, corners[0]]))
