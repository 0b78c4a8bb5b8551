"""A figure of a design as a function of one of its values, tried within a budget."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from time import process_time

from stileblade.aims.variables import Variable
from stileblade.checks.aims import is_met
from stileblade.checks.measures import OF_THE_WHOLE_CARD, measures_of
from stileblade.design.cache import OutcomeCache
from stileblade.design.changes import Change, with_changes
from stileblade.design.document import Design, Relation
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.errors import DocumentError

MOST_EVALUATIONS = 90
clock = process_time
"""Seconds of this process's own work: other programs beside it take nothing from a search."""


@dataclass(frozen=True)
class Wish:
    """The key of a figure of a piece, and what it is to be."""

    piece: str
    figure: str
    relation: Relation
    target: float


@dataclass(frozen=True)
class Reached:
    """A value, the figure that it gives, and whether that is what was wished for."""

    variable: Variable
    value: float
    figure: float
    met: bool


Tried = dict[tuple[str, str], dict[float, float | None]]
"""By a value's step and field: the figures that were found with other values of it, None where there is none. With them a
search goes on where one before it was broken off."""


class Spent(Exception):
    """No more evaluations, or no more time for now."""


@dataclass
class Budget:
    """What a search may cost: evaluations in all, those of ``spent`` included, and seconds of work until it is broken off,
    to go on later."""

    evaluations: int = MOST_EVALUATIONS
    seconds: float = math.inf
    spent: int = 0
    begun: float = field(default_factory=lambda: clock())

    @property
    def share_spent(self) -> float:
        """How much of the evaluations is gone."""
        return self.spent / self.evaluations

    @property
    def is_empty(self) -> bool:
        """Whether all evaluations are spent."""
        return self.spent >= self.evaluations

    def take(self) -> None:
        if self.is_empty or clock() - self.begun > self.seconds:
            raise Spent
        self.spent += 1


@dataclass(frozen=True, eq=False)
class Trial:
    """The figure as a function of one value; ``figures`` are those known."""

    design: Design
    wish: Wish
    variable: Variable
    cache: OutcomeCache
    budget: Budget
    figures: dict[float, float | None] = field(default_factory=dict)

    def off(self, value: float) -> float | None:
        """How far the figure is from its target with a value; None where it is not there."""
        if value not in self.figures:
            self.budget.take()
            change = self.variable.change(self.design, self.wish.piece, value)
            self.figures[value] = figure_of(self.design, self.wish, self.cache, change=[change])
        figure = self.figures[value]
        return None if figure is None else figure - self.wish.target

    def good(self, off: float) -> bool:
        return is_met(self.wish.relation, off, 0.0)


def figure_of(
    design: Design, wish: Wish, cache: OutcomeCache, *, change: list[Change] | None = None
) -> float | None:
    """The figure of a design, or of it with a change; None where it is not there, or a step that was
    applied is passed over then."""
    try:
        changed = with_changes(design, change) if change else design
    except DocumentError:
        return None
    # what lies on the piece has a say in few of its figures
    until = None if wish.figure in OF_THE_WHOLE_CARD else (wish.piece, "")
    evaluation = evaluate(changed, cache, until=until)
    before = evaluate(design, cache, until=until)
    if change and not _passed_over(evaluation) <= _passed_over(before):
        return None
    measured = measures_of(evaluation, wish.piece).get(wish.figure)
    value = measured.measure() if measured else None
    return value if value is not None and math.isfinite(value) else None


def _passed_over(evaluation: Evaluation) -> set[tuple[str, str]]:
    return {(p.piece.id, o.step.id) for p in evaluation.pieces for o in p.outcomes if o.problem}
