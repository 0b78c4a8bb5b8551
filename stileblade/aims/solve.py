"""A figure aimed at, solved on the evaluation itself: bracketing, then false position that cannot get
stuck (the Illinois variant; Dowell and Jarratt 1971), stepwise for whole numbers."""

from __future__ import annotations

import math
import time
from collections.abc import Callable
from dataclasses import dataclass, field

from stileblade.aims.variables import SIZE, Variable, variables_of
from stileblade.checks.aims import NEAR, is_met
from stileblade.checks.measures import measures_of
from stileblade.design.cache import OutcomeCache
from stileblade.design.changes import Change, with_changes
from stileblade.design.document import Design, Relation
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.errors import DocumentError

MOST_EVALUATIONS = 60
MOST_SECONDS = 1.5
MOST_PROBES = 26
MOST_SOLVED = 5
"""Values that are solved for, of all that change the figure."""
_PROBING = 0.5
"""Of what a solve may cost, so much is for finding out which values matter."""
_EXACT = 5e-4
_FLAT = 1e-7


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


class Spent(Exception):
    """No more evaluations, or no more time."""


@dataclass
class Budget:
    """What a solve may cost."""

    evaluations: int = MOST_EVALUATIONS
    seconds: float = MOST_SECONDS
    spent: int = 0
    begun: float = field(default_factory=time.monotonic)

    @property
    def share_spent(self) -> float:
        """How much of the time, or of the evaluations, is gone."""
        gone = (time.monotonic() - self.begun) / self.seconds
        return max(gone, self.spent / self.evaluations)

    def take(self) -> None:
        if self.spent >= self.evaluations or time.monotonic() - self.begun > self.seconds:
            raise Spent
        self.spent += 1


@dataclass(frozen=True, eq=False)
class Trial:
    """The figure as a function of one value."""

    design: Design
    wish: Wish
    variable: Variable
    cache: OutcomeCache
    budget: Budget
    known: dict[float, float | None] = field(default_factory=dict)

    def off(self, value: float) -> float | None:
        """How far the figure is from its target with a value; None where it is not there."""
        if value not in self.known:
            self.budget.take()
            change = self.variable.change(self.design, self.wish.piece, value)
            found = figure_of(self.design, self.wish, self.cache, change=[change])
            self.known[value] = None if found is None else found - self.wish.target
        return self.known[value]

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
    evaluation = evaluate(changed, cache)
    if change and not _passed_over(evaluation) <= _passed_over(evaluate(design, cache)):
        return None
    measured = measures_of(evaluation, wish.piece).get(wish.figure)
    value = measured.measure() if measured else None
    return value if value is not None and math.isfinite(value) else None


def _likeliest(design: Design, wish: Wish) -> list[Variable]:
    """All values, those first that are likeliest to matter: the card's size for its measures."""
    sizes = wish.figure.startswith(("closed", "open", "room"))
    return sorted(
        variables_of(design, wish.piece),
        key=lambda v: (
            v.is_place,
            not v.field.startswith(SIZE) if sizes else v.field.startswith(SIZE),
        ),
    )


def _passed_over(evaluation: Evaluation) -> set[tuple[str, str]]:
    return {(p.piece.id, o.step.id) for p in evaluation.pieces for o in p.outcomes if o.problem}


def solve(
    design: Design, wish: Wish, cache: OutcomeCache | None = None, *, budget: Budget | None = None
) -> list[Reached]:
    """The values that reach what is wished for, those first that do and change the least; of the
    others how near they come. None where the figure is so already, or depends on nothing."""
    cache, budget = cache or OutcomeCache(), budget or Budget()
    now = figure_of(design, wish, cache)
    if now is None or is_met(wish.relation, now, wish.target):
        return []
    trials: list[tuple[float, Trial, float]] = []
    found: list[Reached] = []
    try:
        for variable in _likeliest(design, wish)[:MOST_PROBES]:
            if budget.share_spent > _PROBING and trials:
                break  # what is left is for solving
            known: dict[float, float | None] = {variable.value: now - wish.target}
            trial = Trial(design, wish, variable, cache, budget, known)
            slope = _slope(trial)
            if slope is not None:
                need = abs((now - wish.target) / slope) / max(abs(variable.value), 10.0)
                trials.append((need, trial, slope))
        trials.sort(key=lambda t: t[0])
        for _, trial, slope in trials[:MOST_SOLVED]:
            reached = reach(trial, slope)
            if reached is not None:
                found.append(reached)
    except Spent:
        pass
    return sorted(found, key=lambda r: (not r.met, _cost(r)))


def solve_for(
    design: Design,
    wish: Wish,
    variable: Variable,
    cache: OutcomeCache,
    budget: Budget | None = None,
) -> Reached | None:
    """One value solved for; None where the figure does not depend on it, or is not there."""
    now = figure_of(design, wish, cache)
    if now is None:
        return None
    known: dict[float, float | None] = {variable.value: now - wish.target}
    trial = Trial(design, wish, variable, cache, budget or Budget(), known)
    try:
        slope = _slope(trial)
        return reach(trial, slope) if slope is not None else None
    except Spent:
        return None


def _cost(reached: Reached) -> float:
    v = reached.variable
    return abs(reached.value - v.value) / max(abs(v.value), 10.0)


def _slope(trial: Trial) -> float | None:
    """How much the figure changes with the value, as it stands; None where it does not."""
    v = trial.variable
    here = trial.known[v.value]
    step = 1.0 if v.whole else max(0.5, abs(v.value) * 0.04)
    for way in (1.0, -1.0):
        at = v.value + way * step
        if not v.low <= at <= v.high:
            continue
        there = trial.off(at)
        if there is not None and here is not None:
            slope = (there - here) / (at - v.value)
            if abs(slope) > _FLAT:
                return slope
            if not v.whole:
                return None
    return None


def reach(trial: Trial, slope: float) -> Reached | None:
    """From the present value to one at which the figure is as wished, or as near as it comes."""
    v = trial.variable
    start = v.value, trial.known[v.value] or 0.0
    bracket = _bracket(trial, start, slope) or _scan(trial, start)
    if bracket is None:
        return _nearest(trial)
    if v.whole:
        return _whole(trial, *bracket)
    good = _between(trial.off, *bracket)
    return _neat(trial, good) or _nearest(trial)


End = tuple[float, float]


def _bracket(trial: Trial, start: End, slope: float) -> tuple[End, End] | None:
    """Two values, with what the figure is off there, on either side of the target."""
    v, last = trial.variable, start
    step = -start[1] / slope * 1.1
    step = math.copysign(max(abs(step), 1.0 if v.whole else 0.05), step)
    for _ in range(9):
        at = min(max(last[0] + step, v.low), v.high)
        at = float(round(at)) if v.whole else at
        if abs(at - last[0]) < 1e-6:
            return None
        off = trial.off(at)
        if off is None:  # too far: there the card cannot be made
            step /= 3
            continue
        if off == 0 or (off > 0) != (start[1] > 0):
            return last, (at, off)
        if abs(off) > abs(last[1]) + 1e-6:  # it turns back: it comes no nearer that way
            step = -step / 2 if last is not start else step / 4
            continue
        rise = (off - last[1]) / (at - last[0])
        last = at, off
        step = -off / rise * 1.1 if abs(rise) > _FLAT else step * 2
        step = math.copysign(min(abs(step), 4 * abs(at - start[0]) + 1.0), -off * rise or step)
    return None


def _scan(trial: Trial, start: End) -> tuple[End, End] | None:
    """Where following the slope came to nothing: a bracket further off on either side, if one is met."""
    v = trial.variable
    reach = max(abs(v.value), 5.0)
    for way in (1.0, -1.0):
        last = start
        for share in (0.5, 1.0, 2.0, 4.0):
            at = v.value + way * share * reach
            at = float(round(at)) if v.whole else at
            off = trial.off(at) if v.low <= at <= v.high else None
            if off is None:
                break
            if (off > 0) != (start[1] > 0):
                return last, (at, off)
            last = at, off
    return None


def _between(off: Callable[[float], float | None], a: End, b: End) -> tuple[End, End]:
    """The bracket drawn together."""
    side = 0
    (x0, f0), (x1, f1) = a, b
    g0, g1 = f0, f1
    for _ in range(24):
        if abs(x1 - x0) < 1e-4 or min(abs(f0), abs(f1)) < _EXACT / 4:
            break
        x = (x0 * g1 - x1 * g0) / (g1 - g0) if g1 != g0 else (x0 + x1) / 2
        f = off(x)
        if f is None:
            x = (x0 + x1) / 2
            f = off(x)
            if f is None:
                break
        if (f > 0) == (f1 > 0):
            x1, f1, g1 = x, f, f
            g0 = g0 / 2 if side == 1 else g0
            side = 1
        else:
            x0, f0, g0 = x, f, f
            g1 = g1 / 2 if side == -1 else g1
            side = -1
    return (x0, f0), (x1, f1)


def _neat(trial: Trial, bracket: tuple[End, End]) -> Reached | None:
    """Of the two ends the good one, with as few digits as it stays good with."""
    ends = sorted(bracket, key=lambda end: abs(end[1]))
    best = next((end for end in ends if trial.good(end[1])), None)
    if best is None:
        return None
    other = ends[0] if ends[1] is best else ends[1]
    away = math.copysign(1.0, best[0] - other[0]) if best[0] != other[0] else 1.0
    for digits in (1, 2, 3):
        scale = 10.0**digits
        rounded = (math.ceil if away > 0 else math.floor)(best[0] * scale - away * 1e-6) / scale
        off = trial.off(rounded)
        exact = trial.wish.relation is Relation.EXACTLY
        if off is not None and trial.good(off) and (not exact or abs(off) <= 1e-3):
            return _reached(trial, rounded, off)
    return _reached(trial, *best)


def _whole(trial: Trial, a: End, b: End) -> Reached | None:
    """Whole numbers between the two ends, halved."""
    (x0, f0), (x1, f1) = a, b
    while abs(x1 - x0) > 1:
        middle = float(round((x0 + x1) / 2))
        off = trial.off(middle)
        if off is None:
            break
        if (off > 0) == (f1 > 0):
            x1, f1 = middle, off
        else:
            x0, f0 = middle, off
    good = [end for end in ((x0, f0), (x1, f1)) if trial.good(end[1])]
    return _reached(trial, *good[0]) if good else _nearest(trial)


def _nearest(trial: Trial) -> Reached | None:
    """What of all that was tried came nearest."""
    tried = [(x, off) for x, off in trial.known.items() if off is not None]
    if not tried:
        return None
    x, off = min(tried, key=lambda end: (not trial.good(end[1]), abs(end[1])))
    return None if x == trial.variable.value else _reached(trial, x, off)


def _reached(trial: Trial, value: float, off: float) -> Reached:
    return Reached(trial.variable, value, off + trial.wish.target, trial.good(off))


__all__ = [
    "MOST_EVALUATIONS",
    "NEAR",
    "Budget",
    "Reached",
    "Wish",
    "figure_of",
    "solve",
    "solve_for",
]
