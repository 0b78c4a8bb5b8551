"""A figure aimed at: which values matter, and those few that need the least change solved for."""

from __future__ import annotations

from dataclasses import dataclass

from stileblade.aims.reach import FLAT, reach
from stileblade.aims.trial import Budget, Reached, Spent, Trial, Tried, Wish, figure_of
from stileblade.aims.variables import SIZE, Variable, variables_of
from stileblade.checks.aims import is_met
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design

MOST_PROBES = 26
MOST_SOLVED = 5
"""Values that are solved for, of all that change the figure."""
_PROBING = 0.5
"""Of what a solve may cost, so much is for finding out which values matter."""


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


@dataclass(frozen=True)
class Search:
    """What a search has found so far: the values that reach what is wished for, those first that do and change the least,
    of the others how near they come; and whether it is done, or was broken off."""

    found: list[Reached]
    done: bool


def solve(
    design: Design, wish: Wish, cache: OutcomeCache | None = None, *, budget: Budget | None = None
) -> list[Reached]:
    """The values that reach what is wished for, those first that do and change the least; of the
    others how near they come. None where the figure is so already, or depends on nothing."""
    return search(design, wish, cache, budget=budget).found


def search(
    design: Design,
    wish: Wish,
    cache: OutcomeCache | None = None,
    *,
    budget: Budget | None = None,
    tried: Tried | None = None,
) -> Search:
    """The same, from what was ``tried`` before on; what is tried now is added to that."""
    cache, budget = cache or OutcomeCache(), budget or Budget()
    tried = {} if tried is None else tried
    now = figure_of(design, wish, cache)
    if now is None or is_met(wish.relation, now, wish.target):
        return Search([], True)
    done = True
    trials: list[tuple[float, Trial, float]] = []
    found: list[Reached] = []
    try:
        for variable in _likeliest(design, wish)[:MOST_PROBES]:
            if budget.share_spent > _PROBING and trials:
                break  # what is left is for solving
            figures = tried.setdefault((variable.step, variable.field), {})
            figures[variable.value] = now
            trial = Trial(design, wish, variable, cache, budget, figures)
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
        done = budget.is_empty
    return Search(sorted(found, key=lambda r: (not r.met, _cost(r))), done)


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
    trial = Trial(design, wish, variable, cache, budget or Budget(), {variable.value: now})
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
    here = trial.off(v.value)
    step = 1.0 if v.whole else max(0.5, abs(v.value) * 0.04)
    for way in (1.0, -1.0):
        at = v.value + way * step
        if not v.low <= at <= v.high:
            continue
        there = trial.off(at)
        if there is not None and here is not None:
            slope = (there - here) / (at - v.value)
            if abs(slope) > FLAT:
                return slope
            if not v.whole:
                return None
    return None
