"""The whole card: layers that nobody sees, rims too narrow, what is in the way when it closes, thickness."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from stileblade.card.folding import MOST_SPINE
from stileblade.checks.check import CHECKS, Finding, Mend, Severity, Subject
from stileblade.folding.flat import Face, fold_flat
from stileblade.folding.stack import Stack
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.widths import thin_rim
from stileblade.piece.work import Work
from stileblade.words import Own, say

SLIVER = 0.4
"""mm: a rim of the paper below that is narrower looks like a mistake."""
THICK = 1.5
"""mm: a card with more than this between its panels wants a spine."""
STANDS = 0.6
"""mm: what stands higher inside keeps from closing what folds down onto it."""
_AREA = 0.5
"""mm^2: what overlaps, shows or stands out by less does not count."""
_MEETS = 5.0
"""mm^2 that a standing part and a layer share when the card is closed."""


@CHECKS.register("stack")
def stack_(subject: Subject) -> Iterator[Finding]:
    """The whole card: layers that nobody will see, rims too narrow, inserts in the way, a thick card."""
    stack = subject.evaluation.stack
    if stack is None or stack.base.key != subject.piece.piece.id or len(stack.pieces) < 2:
        return
    names = {p.id: Own(p.name) for p in subject.evaluation.design.pieces}
    yield from _hidden(subject, stack, names)
    yield from _slivers(subject, stack, names)
    yield from _in_the_way(subject, stack, names)
    yield from _meeting(subject, stack, names)
    yield from _spine(subject, stack)


def _spine(subject: Subject, stack: Stack) -> Iterator[Finding]:
    """A fold with much between its panels that is scored once, or not as far apart as that is thick."""
    between = stack.between
    shut = [f for f in stack.base.work.folds if f.folds and f.crease.shut and not f.crease.inner]
    if between <= THICK or all(f.double >= between - 0.05 for f in shut):
        return
    wide = math.ceil(between * 10 - 1e-6) / 10
    folding = subject.evaluation.design.card.folding
    mends = (
        (Mend(say("spine of {wide}", wide=subject.say(wide)), card={"spine": wide}),)
        if folding.way.spined and wide <= MOST_SPINE
        else ()
    )
    yield Finding(
        "stack.thick",
        Severity.WARNING,
        say(
            "{between} thick between the panels when closed: a single score line will not close on that.",
            between=subject.say(between),
        ),
        subject.name,
        between,
        hint="Score the fold twice, as far apart as what lies between is thick.",
        mends=mends,
    )


def _hidden(subject: Subject, stack: Stack, names: Mapping[str, str]) -> Iterator[Finding]:
    for i, lower in enumerate(stack.layers):
        for upper in stack.layers[i + 1 :]:
            if upper.inside != lower.inside or not _opaque(subject, upper.key):
                continue
            if not kernel.within(lower.shape, upper.shape):
                continue
            seen = kernel.less(lower.shape, kernel.flattened(stack.base.work.paper))
            if kernel.area_of(seen) > _AREA:  # from the other side
                continue
            yield Finding(
                "stack.hidden",
                Severity.WARNING,
                say(
                    "{upper!r} hides all of {lower!r}.",
                    upper=names[upper.key],
                    lower=names[lower.key],
                ),
                subject.name,
                hint="Change their order, make the upper one smaller, or take the lower one away.",
            )


def _opaque(subject: Subject, key: str) -> bool:
    made = subject.evaluation.piece(key)
    return made is None or made.paper.light <= 0


def _slivers(subject: Subject, stack: Stack, names: Mapping[str, str]) -> Iterator[Finding]:
    """Rims of the paper below a layer that show by less than SLIVER: of the layer right below it."""
    for i, upper in enumerate(stack.layers):
        under = [
            la for la in stack.layers[:i] if la.inside == upper.inside and la.high <= upper.low
        ]
        for lower in under:
            rim = thin_rim(lower.shape, upper.shape, SLIVER)
            if kernel.area_of(rim) > _AREA:
                yield Finding(
                    "stack.sliver",
                    Severity.WARNING,
                    say(
                        "{lower!r} shows beside {upper!r} by less than {sliver}.",
                        lower=names[lower.key],
                        upper=names[upper.key],
                        sliver=subject.say(SLIVER),
                    ),
                    subject.name,
                    SLIVER,
                    hint="Let it show by more, or not at all.",
                )


def _in_the_way(subject: Subject, stack: Stack, names: Mapping[str, str]) -> Iterator[Finding]:
    """Inserts and other layers inside that lie on parts of the base which stand or are slit."""
    base = stack.base.work
    moving = [face.cell for face in _standing(base)]
    if not moving and not base.slits:
        return
    for layer in stack.layers:
        if not layer.inside:
            continue
        on = sum(kernel.overlap(layer.shape, cell) for cell in moving)
        cut = sum(kernel.length_in(layer.shape, a, b) for a, b in zip(*_ends(base), strict=True))
        if on > _AREA or cut > 1.0:
            what = "stands forward" if on > _AREA else "is slit"
            yield Finding(
                "stack.clear",
                Severity.WARNING,
                say("{layer!r} lies where the base {what}.", layer=names[layer.key], what=what),
                subject.name,
                max(on, cut),
                hint="Cut it out there, or let it end before.",
            )


def _standing(base: Work) -> list[Face]:
    """Faces that stand forward when the card opens: those that hang on folds within a panel."""
    inner = {f.name for f in base.folds if f.crease.inner}
    if not inner:
        return []
    return [
        f
        for f in fold_flat(base).faces
        if f.joint is not None and base.folds[f.joint.fold].name in inner
    ]


def _meeting(subject: Subject, stack: Stack, names: Mapping[str, str]) -> Iterator[Finding]:
    """Layers inside that stand high where a part that stands forward lies in the closed card."""
    moving = _standing(stack.base.work)
    if not moving:
        return
    faces = fold_flat(stack.base.work).faces
    for layer in stack.layers:
        if not layer.inside or layer.high - layer.thickness < STANDS:
            continue
        shared = 0.0
        for number, cell in layer.cells:
            face = faces[number]
            shut = kernel.mapped(cell, face.closed)
            shared += sum(kernel.overlap(shut, m.closed_cell) for m in moving if m is not face)
        if shared > _MEETS:
            yield Finding(
                "stack.meet",
                Severity.WARNING,
                say(
                    "{layer!r} stands {high} high where a standing part lies when the card is closed.",
                    layer=names[layer.key],
                    high=subject.say(layer.high),
                ),
                subject.name,
                layer.high,
                hint="Fix it with glue, or put it where nothing folds down onto it.",
            )


def _ends(base: Work) -> tuple[list[tuple[float, float]], list[tuple[float, float]]]:
    starts = [(float(x), float(y)) for way in base.slits for x, y in way.start]
    return starts, [(float(x), float(y)) for way in base.slits for x, y in way.end]
