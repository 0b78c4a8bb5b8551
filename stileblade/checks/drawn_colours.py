"""Colours of a drawing that are drawn on the base but not made by any piece of the card."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from stileblade.checks.check import CHECKS, Finding, Mend, Severity, Subject
from stileblade.design.adding import changes_adding, on_card, proposals
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.regions.region import Region
from stileblade.piece.work import Work
from stileblade.words import listed, say

_NAMED = 4
_SEEN = 1.0
"""mm^2 on the paper: less is not seen."""


def drawn_only(evaluation: Evaluation, piece: PieceOutcome) -> tuple[int, ...]:
    """Numbers of the layers of a base's artwork that are shown on it but are not pieces of the card."""
    work = piece.work
    if work is None or work.artwork is None or work.lying is not None:
        return ()
    steps = [step for other in evaluation.design.pieces for step in other.steps if step.on]
    rest = [n for n in work.artwork.printed if not any(step.is_of_layer(n) for step in steps)]
    drawn = piece.setting.shelf.get(work.artwork.ref)
    return tuple(n for n in rest if drawn is not None and _is_seen(work, drawn.layers[n]))


@lru_cache(maxsize=256)
def _is_seen(work: Work, layer: Region) -> bool:
    """Whether some of a layer of the work's artwork lies on its paper."""
    if work.artwork is None or not layer:
        return False
    there = kernel.flattened(layer.transformed(work.artwork.matrix))
    return kernel.overlap(there, kernel.flattened(work.paper)) > _SEEN


@CHECKS.register("drawn-colours")
def drawn_colours(subject: Subject) -> Iterator[Finding]:
    """They are in pictures and in no file to cut from: warning."""
    work, numbers = subject.piece.work, drawn_only(subject.evaluation, subject.piece)
    if work is None or work.artwork is None or not numbers:
        return
    artwork = subject.evaluation.design.artworks.get(work.artwork.ref)
    start = next((o.step for o in subject.piece.outcomes if o.step.on), None)
    if artwork is None or start is None:
        return
    names = [artwork.layers[n].name for n in numbers]
    card = on_card(subject.evaluation)
    whole = next((p for p in proposals(card) if p.of_whole_card), None) if card else None
    made = [] if whole is None else [
        Mend("make pieces of them, and an insert",
             changes=changes_adding(subject.evaluation.design, whole), offered=True)
    ]  # fmt: skip
    yield Finding(
        "artwork.drawn",
        Severity.WARNING,
        say(
            "{names} is shown on the paper and is in no file: no piece is made of it."
            " | {names} are shown on the paper and are in no file: no pieces are made of them.",
            n=len(names),
            names=listed(names[:_NAMED]) + (" …" if len(names) > _NAMED else ""),
        ),
        subject.name,
        len(names),
        hint="Add pieces of these layers, or do not show them.",
        step=start.id,
        mends=(
            *made,
            Mend("do not show them", start.id, {"printed": False}),
        ),
    )
