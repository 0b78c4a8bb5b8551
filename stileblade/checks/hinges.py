"""Whether the panels hold together at the folds."""

from __future__ import annotations

import math
from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.folding.faces import BESIDE
from stileblade.folding.hinge import LEAST_SPAN, hinge_length, lap_for, least_hinge
from stileblade.piece.folds import Fold, Span
from stileblade.piece.work import Work
from stileblade.words import named, say


@CHECKS.register("hinges")
def hinges(subject: Subject) -> Iterator[Finding]:
    """No hinge: error. Shorter than 20 mm and a fifth of the panel, or a span under 6 mm: warning."""
    if subject.is_layer:
        return
    work = subject.piece.whole
    if work is None:
        return
    for fold in work.folds:
        if fold.folds and not fold.crease.inner and _parts_paper(work, fold):
            yield from _fold(subject, work, fold)


def _parts_paper(work: Work, fold: Fold) -> bool:
    """Whether there is paper on both sides of the fold's line at all: none where the piece was split
    there."""
    if not work.paper:
        return False
    off = fold.line.off(work.paper.flat.points)
    return bool(off.min() < -BESIDE and off.max() > BESIDE)


def _fold(subject: Subject, work: Work, fold: Fold) -> Iterator[Finding]:
    spans = work.spans[fold.name]
    total = hinge_length(spans, fold)
    height = panel_along(work, fold)
    least = least_hinge(height)
    # a perforation leaves only a part of what crosses the fold
    share = total / max(sum(s.length for s in spans), 1e-9) or 1.0
    whole = Place(lines=tuple((s.start, s.end) for s in spans) or _axis(work, fold))
    if total <= 0:
        yield Finding(
            "hinge.none",
            Severity.ERROR,
            say(
                "What lies on either side of {fold} does not hold together: there is no hinge.",
                fold=_named(fold),
            ),
            subject.name,
            0.0,
            hint="Give the mirror more lap."
            if work.mirrored and work.mirrored.axis == fold.axis
            else "Let the paper run on across it.",
            place=whole,
            mends=_more_lap(subject, work, least / share),
        )
    elif total < least:
        yield Finding(
            "hinge.short",
            Severity.WARNING,
            _short(subject, fold, total, least),
            subject.name,
            total,
            place=whole,
            mends=_more_lap(subject, work, least / share),
        )
    short = [s for s in spans if s.length < LEAST_SPAN]
    if short:
        yield Finding(
            "hinge.span",
            Severity.WARNING,
            _spans_in_words(subject, short),
            subject.name,
            min(s.length for s in short),
            place=Place(lines=tuple((s.start, s.end) for s in short)),
            mends=_more_lap(subject, work, max(total + 0.1, least) / share),
        )


def _named(fold: Fold) -> str:
    return say("the fold") if fold.name == "fold" else named(fold.name)


def _short(subject: Subject, fold: Fold, total: float, least: float) -> str:
    lengths = {"total": subject.say(total), "least": subject.say(least)}
    if fold.name == "fold":
        return say("The hinge is {total} long; {least} is safe.", **lengths)
    where = named(fold.name)
    return say("The hinge at {fold} is {total} long; {least} is safe.", fold=where, **lengths)


def panel_along(work: Work, fold: Fold) -> float:
    """The panels' measure along the fold; a figure's own where it has no panels."""
    boxes = [p.box for p in work.panels] or [work.paper.bounds]
    if fold.axis is None:
        return max(math.hypot(b.width, b.height) for b in boxes)
    return max(b.height if fold.axis == "x" else b.width for b in boxes)


def _spans_in_words(subject: Subject, short: list[Span]) -> str:
    least = subject.say(min(s.length for s in short))
    if len(short) == 1:
        return say("The paper crosses the fold in a span of only {least}: it tears.", least=least)
    return say(
        "{n} spans at the fold are short, the shortest {least}: they tear.",
        n=len(short),
        least=least,
    )


def _axis(work: Work, fold: Fold) -> tuple[tuple[tuple[float, float], tuple[float, float]], ...]:
    return (fold.line.ends_beyond(work.paper.bounds),)


def _more_lap(subject: Subject, work: Work, wanted: float) -> tuple[Mend, ...]:
    if work.mirrored is None:
        return ()
    lap = lap_for(work.mirrored, wanted)
    if lap is None:
        return ()
    return (Mend(say("lap {lap}", lap=subject.say(lap)), work.mirrored.step, {"lap": lap}),)
