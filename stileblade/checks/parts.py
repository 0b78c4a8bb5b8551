"""Whether the parts of a split are each in one piece."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.geometry.regions.region import Region
from stileblade.steps.step import PartTaken, Step, taking_part
from stileblade.words import say


@CHECKS.register("parts")
def parts(subject: Subject) -> Iterator[Finding]:
    """A part that is in no piece is waste: note. One that is in two is cut twice: warning."""
    own = subject.piece.piece
    taken = subject.evaluation.design.taken_of(own)
    for outcome in subject.piece.outcomes:
        work, step = outcome.work, outcome.step
        if not step.parts_piece or not step.on or outcome.problem is not None or work is None:
            continue
        parted = next((p for p in reversed(work.parted) if p.step == step.id), None)
        if parted is None:
            continue
        # a later step may have made the whole piece anew, as a mirror does
        finished = subject.piece.work
        there = finished is not None and any(p.step == step.id for p in finished.parted)
        count = {n: taken.get(step.id, ()).count(n) for n in range(1, len(parted.parts) + 1)}
        for number in parted.kept:
            count[number + 1] += 1
        lost = [n for n, times in count.items() if times == 0]
        twice = [n for n, times in count.items() if times > 1]
        if lost:
            yield Finding(
                "parts.lost",
                Severity.NOTE,
                say(
                    "Part {numbers} of {all} of the split is in no piece: {list}."
                    " | Parts {numbers} of {all} of the split are in no piece: {list}.",
                    n=len(lost),
                    numbers=", ".join(map(str, lost)),
                    all=len(parted.parts),
                    list="; ".join(_size(subject, parted.parts[n - 1]) for n in lost[:3]),
                ),
                subject.name,
                len(lost),
                hint="It is waste, or a piece of its own.",
                step=step.id,
                place=Place(outlines=tuple(parted.parts[n - 1] for n in lost)),
                mends=tuple(_piece(own.id, own.name, step, n) for n in lost[:4] if there),
            )
        if twice:
            yield Finding(
                "parts.twice",
                Severity.WARNING,
                say(
                    "Part {numbers} of {all} of the split is in more than one piece."
                    " | Parts {numbers} of {all} of the split are in more than one piece.",
                    n=len(twice),
                    numbers=", ".join(map(str, twice)),
                    all=len(parted.parts),
                ),
                subject.name,
                len(twice),
                hint="Keep other parts here, or take one of the pieces away.",
                step=step.id,
                place=Place(outlines=tuple(parted.parts[n - 1] for n in twice)),
            )


def _size(subject: Subject, part: Region) -> str:
    box = part.bounds
    return f"{subject.say(box.width)} x {subject.say(box.height)}"


def _piece(key: str, name: str, step: Step, number: int) -> Mend:
    start = taking_part(PartTaken(key, step.id, number))
    made = (say("{name}, part {number}", name=name, number=number)[:60], (start,))
    return Mend(say("make part {number} a piece", number=number), pieces=(made,))
