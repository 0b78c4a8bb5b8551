"""Whether the card can be folded as it is meant to."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.card.folding import allowance_of
from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.folding.faces import Sheet, sheet_of
from stileblade.folding.flat import fold_flat
from stileblade.folding.troubles import Trouble
from stileblade.geometry.curves.places import Box
from stileblade.piece.work import Work
from stileblade.words import say


@CHECKS.register("folding")
def folding(subject: Subject) -> Iterator[Finding]:
    """A panel that would pass through another, or creases that do not come together: error. A
    panel without room inside, or one longer than the panel it folds on to: warning."""
    if subject.is_layer:
        return
    work = subject.piece.whole
    if work is None or not work.paper or not work.folds:
        return
    need = allowance_of(subject.piece.paper.thickness)
    for trouble in fold_flat(work).troubles:
        if trouble.what != "tight" or trouble.by < need - 1e-3:
            yield _of(subject, trouble, need)
    yield from _longer(subject, work)


def _of(subject: Subject, trouble: Trouble, need: float) -> Finding:
    face, fold, place = trouble.face, trouble.fold, Place(lines=(trouble.at,))
    if trouble.what == "tight":
        room = subject.say(trouble.by)
        return Finding(
            "fold.tight",
            Severity.WARNING,
            say(
                "The panel {face!r} has {room} of room in {fold}; it needs {need} to lie flat.",
                face=face,
                room=room,
                fold=fold,
                need=subject.say(need),
            ),
            subject.name,
            trouble.by,
            hint=say("Make it {need} narrower.", need=subject.say(need - trouble.by)),
            place=place,
        )
    if trouble.what == "apart":
        return Finding(
            "fold.apart",
            Severity.ERROR,
            say(
                "The card does not fold flat: at {fold} the parts of the crease do not come together.",
                fold=fold,
            ),
            subject.name,
            trouble.by,
            hint="Change the fold's direction, its place, or the order of folding.",
            place=place,
        )
    measure = say(" by {by}", by=subject.say(trouble.by)) if trouble.by > 0.05 else ""
    return Finding(
        "fold.through",
        Severity.ERROR,
        say(
            "Folded in this order, the panel {face!r} would pass through {fold}{measure}.",
            face=face,
            fold=fold,
            measure=measure,
        ),
        subject.name,
        trouble.by,
        hint="Fold in another order or direction, or make the panel narrower.",
        place=place,
    )


def _longer(subject: Subject, work: Work) -> Iterator[Finding]:
    sheet = sheet_of(work)
    boxes = {p.name: p.box for p in work.panels}
    for face, name in enumerate(sheet.names):
        joints = [j for j in sheet.joints if face in (j.a, j.b)]
        if len(joints) != 1 or name not in boxes:
            continue
        fold, other = work.folds[joints[0].fold], sheet.names[joints[0].other(face)]
        if fold.axis is None or other not in boxes or not fold.crease.shut:
            continue
        if name not in work.fronts and other in work.fronts:
            continue  # a front that is shorter on purpose: what is seen round it is a reading
        own, under = _across(boxes[name], fold.axis), _reach(work, sheet, other, boxes, fold.axis)
        if own > under + 0.01:
            yield Finding(
                "fold.longer",
                Severity.WARNING,
                say(
                    "The panel {name!r} is {own} longer than {other!r}, on to which it folds: it stands out.",
                    name=name,
                    own=subject.say(own - under),
                    other=other,
                ),
                subject.name,
                own - under,
                hint=say("{under} would do.", under=subject.say(under)),
                place=Place(lines=((joints[0].start, joints[0].end),)),
                mends=_shorter(subject, name, under),
            )


def _reach(work: Work, sheet: Sheet, name: str, boxes: dict[str, Box], axis: str) -> float:
    """The measure of a panel, with those beyond creases that stay flat when the card is closed."""
    found, waiting = {name}, [name]
    while waiting:
        at = waiting.pop()
        for joint in sheet.joints:
            ends = sheet.names[joint.a], sheet.names[joint.b]
            if at in ends and not work.folds[joint.fold].crease.shut:
                more = {n for n in ends if n in boxes} - found
                found |= more
                waiting += more
    return sum(_across(boxes[n], axis) for n in found)


def _across(box: Box, axis: str) -> float:
    return box.width if axis == "x" else box.height


def _shorter(subject: Subject, name: str, measure: float) -> tuple[Mend, ...]:
    if name != "flap":
        return ()
    return (
        Mend(say("flap {measure}", measure=subject.say(measure)), card={"flap": round(measure, 3)}),
    )
