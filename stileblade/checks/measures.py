"""The figures of a finished piece that a person may aim at, by their keys."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from stileblade.card.stock import weight_of
from stileblade.checks.check import Subject
from stileblade.checks.envelope import bulk_of, closed_of, room_of
from stileblade.checks.windows import gap_to
from stileblade.design.evaluation import Evaluation
from stileblade.folding.closed import closed_card
from stileblade.folding.hinge import hinge_length
from stileblade.folding.stand import stand_of
from stileblade.piece.work import Work
from stileblade.words import say

Measure = Callable[[], float | None]


@dataclass(frozen=True)
class Measured:
    """A figure that can be aimed at: its key, its name, its unit, and how it is measured."""

    key: str
    title: str
    unit: str
    measure: Measure


OF_THE_WHOLE_CARD = frozenset({"closed.width", "closed.height", "room", "bulk"})
"""Figures of a base in which its layers have a say."""


def measures_of(evaluation: Evaluation, piece: str) -> dict[str, Measured]:
    """All figures of a piece, by their keys; none while it has no paper. Nothing is measured yet."""
    outcome = next((p for p in evaluation.pieces if p.piece.id == piece), None)
    if outcome is None or outcome.work is None or not outcome.work.paper:
        return {}
    work, subject = outcome.work, Subject(evaluation, outcome)
    found = [
        Measured("closed.width", "Closed, wide", "mm", lambda: closed_of(subject, work)[0]),
        Measured("closed.height", "Closed, high", "mm", lambda: closed_of(subject, work)[1]),
        Measured("open.width", "Open, wide", "mm", lambda: work.paper.bounds.width),
        Measured("open.height", "Open, high", "mm", lambda: work.paper.bounds.height),
    ]
    folds = [f for f in work.folds if f.folds and not f.crease.inner]
    for fold in folds:
        title = "Hinge" if len(folds) == 1 else say("Hinge, {fold}", fold=fold.name)
        found.append(Measured(f"hinge:{fold.name}", title, "mm", partial(_hinge, work, fold.name)))
    found += [
        Measured("room", "Room in the envelope", "mm", lambda: _room(subject)),
        Measured("bulk", "Bulk", "mm", lambda: bulk_of(subject, work)),
        Measured("stands", "Stands safe by", "mm", lambda: _stands(work)),
        Measured("foot", "Foot, the shortest", "mm", lambda: _foot(work)),
        Measured("reveal", "Reveal", "mm", lambda: closed_card(work).reveal_by),
        Measured("out", "Stands out", "mm", lambda: closed_card(work).out_by),
        Measured("area", "Area", "mm2", lambda: work.paper.area),
        Measured("weight", "Weight", "g", lambda: weight_of(work.paper.area, outcome.paper)),
    ]
    if work.mirrored:
        found.append(Measured("loss", "Lost to the lap", "mm2", partial(_loss, work)))
    for step in dict.fromkeys(w.step for w in work.windows):
        number = subject.number(step)
        for to in ("fold", "edge"):
            title = say("Window of step {number} to the {to}", number=number, to=to)
            found.append(
                Measured(f"window:{step}:{to}", title, "mm", partial(_gap, work, step, to))
            )
    return {m.key: m for m in found}


def _hinge(work: Work, name: str) -> float | None:
    fold = next((f for f in work.folds if f.name == name), None)
    return None if fold is None else hinge_length(work.spans[name], fold)


def _room(subject: Subject) -> float | None:
    found = room_of(subject)
    return found[1].least if found else None


def _stands(work: Work) -> float | None:
    stand = stand_of(work)
    return stand.safe if stand else None


def _foot(work: Work) -> float | None:
    stand = stand_of(work)
    return min((max(f.run, 0.0) for f in stand.feet), default=None) if stand else None


def _loss(work: Work) -> float | None:
    return work.mirrored.loss if work.mirrored else None


def _gap(work: Work, step: str, to: str) -> float | None:
    gaps = (gap_to(work, w.outline, to) for w in work.windows if w.step == step)
    return min((g.distance for g in gaps if g is not None), default=None)
