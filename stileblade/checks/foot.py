"""Whether the card stands."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.folding.stand import LEAST_RUN, stand_of
from stileblade.geometry.curves.places import Side
from stileblade.geometry.measures.flat_run import rough_depth_for_run
from stileblade.piece.work import Work
from stileblade.steps.kinds.slice import By, Keep, Slice
from stileblade.words import say, together


@CHECKS.register("foot")
def foot(subject: Subject) -> Iterator[Finding]:
    """It rocks where a panel touches the table along less than 10 mm, or where one does not reach
    it; it tips where its centre of mass lies beyond its feet. Both are warnings."""
    if subject.is_layer or any(o.step.on and o.step.takes_part for o in subject.piece.outcomes):
        return  # it lies on something, or is glued to what it was parted from
    work = subject.piece.whole
    if work is None or not work.paper:
        return
    stand = stand_of(work)
    if stand is None:
        return
    trims = _trims(subject, work) if stand.rocks or stand.tips else ()
    if stand.rocks:
        least = min(stand.rocks, key=lambda f: f.touching)
        names = together(say("the {name}", name=f.panel) for f in stand.rocks)
        yield Finding(
            "foot.rocks",
            Severity.WARNING,
            say(
                "It rocks: {names} touches the table along {touching}; {least_run} is steady."
                " | It rocks: {names} touch the table along {touching}; {least_run} is steady.",
                n=len(stand.rocks),
                names=names,
                touching=subject.say(least.touching),
                least_run=subject.say(LEAST_RUN),
            ),
            subject.name,
            least.touching,
            hint="Trim the foot flat.",
            place=Place(lines=tuple(s for f in stand.rocks for s in f.stretches)),
            mends=trims,
        )
    if stand.tips:
        yield Finding(
            "foot.tips",
            Severity.WARNING,
            say(
                "It falls over: its centre of mass lies {safe} beyond its feet.",
                safe=subject.say(-stand.safe),
            ),
            subject.name,
            stand.safe,
            hint="Give it a broader foot, or move weight towards the fold.",
            place=Place(lines=tuple(s for f in stand.feet for s in f.stretches)),
            mends=trims,
        )


def _trims(subject: Subject, work: Work) -> tuple[Mend, ...]:
    """Slices of the figure before its mirror, with the flat run that each gives and what it costs."""
    if work.mirrored is None:
        return ()
    figure = work.mirrored.figure
    below = work.mirrored.towards is Side.FOOT
    keep, side = (Keep.BELOW, Side.HEAD) if below else (Keep.ABOVE, Side.FOOT)
    found = []
    for share in (0.25, 0.4):
        run = round(figure.bounds.width * share)
        depth = rough_depth_for_run(figure, side, run)
        if depth is None or depth < 0.02 or depth > figure.bounds.height / 4:
            continue
        step = Slice(keep=keep, by=By.RUN, run=run)
        title = say(
            "foot flat for {run}, {depth} lost", run=subject.say(run), depth=subject.say(depth)
        )
        found.append(Mend(title, add=step, before=work.mirrored.step))
    return tuple(found)
