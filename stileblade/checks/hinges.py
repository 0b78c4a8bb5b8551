"""Whether the panels hold together at the folds."""

from __future__ import annotations

import math
from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.folding.faces import BESIDE
from stileblade.folding.hinge import LEAST_SPAN, hinge_length, lap_for, least_hinge
from stileblade.piece.folds import Fold, Span
from stileblade.piece.work import Work


@CHECKS.register("hinges")
def hinges(subject: Subject) -> Iterator[Finding]:
    """No hinge: error. Shorter than 20 mm and a fifth of the panel, or a span under 6 mm: warning."""
    if subject.is_layer:
        return
    work = subject.piece.work
    if work is None:
        return
    for fold in work.folds:
        if fold.folds and not fold.crease.inner and _parts_paper(work, fold):
            yield from _fold(subject, work, fold)


def _parts_paper(work: Work, fold: Fold) -> bool:
    """Whether there is paper on both sides of the fold's line at all: none where the piece was split
    there."""
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
            f"What lies on either side of {_named(work, fold)} does not hold together: there is no hinge.",
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
            f"The hinge {_at(work, fold)}is {subject.say(total)} long; {subject.say(least)} is safe.",
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


def _named(work: Work, fold: Fold) -> str:
    return "the fold" if fold.name == "fold" else fold.name


def _at(work: Work, fold: Fold) -> str:
    return "" if fold.name == "fold" else f"at {fold.name} "


def panel_along(work: Work, fold: Fold) -> float:
    """The panels' measure along the fold; a figure's own where it has no panels."""
    boxes = [p.box for p in work.panels] or [work.paper.bounds]
    if fold.axis is None:
        return max(math.hypot(b.width, b.height) for b in boxes)
    return max(b.height if fold.axis == "x" else b.width for b in boxes)


def _spans_in_words(subject: Subject, short: list[Span]) -> str:
    least = subject.say(min(s.length for s in short))
    if len(short) == 1:
        return f"The paper crosses the fold in a span of only {least}: it tears."
    return f"{len(short)} spans at the fold are short, the shortest {least}: they tear."


def _axis(work: Work, fold: Fold) -> tuple[tuple[tuple[float, float], tuple[float, float]], ...]:
    return (fold.line.ends_beyond(work.paper.bounds),)


def _more_lap(subject: Subject, work: Work, wanted: float) -> tuple[Mend, ...]:
    if work.mirrored is None:
        return ()
    lap = lap_for(work.mirrored, wanted)
    if lap is None:
        return ()
    return (Mend(f"lap {subject.say(lap)}", work.mirrored.step, {"lap": lap}),)
