"""Figures that can be aimed at, and the values that reach them, each with what else changes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from pydantic import BaseModel, Field

from stileblade.aims.solve import search, solve_for
from stileblade.aims.trial import Budget, Reached, Tried, Wish, figure_of
from stileblade.aims.variables import variable_of
from stileblade.checks.aims import is_met
from stileblade.checks.check import Severity, open_findings
from stileblade.checks.measures import measures_of
from stileblade.design.cache import OutcomeCache
from stileblade.design.changes import Change, with_changes
from stileblade.design.document import Aim, Design, Relation
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.folding.flat import fold_flat
from stileblade.unexpected import Attempts
from stileblade.views.said import Said
from stileblade.views.strip import PictureView, small_picture

MOST_TOLD = 3
SLICE_SECONDS = 1.5
"""Of work until a search says how far it has come."""
KEPT_SECONDS = 3.0
"""Of work for each kept aim that is reached again: the person waits for nothing."""


class FigureView(BaseModel):
    """A figure that can be aimed at, as it is."""

    key: str
    title: Said
    unit: str
    value: float


class ProposalView(BaseModel):
    """A value that reaches the aim, or comes near it: its name, before and after, the figure that it
    gives, and what else changes."""

    title: Said
    unit: str
    before: float
    value: float
    figure: float
    met: bool
    closed: tuple[float, float]
    worse: list[Said]
    """Errors and warnings that are not there now."""
    picture: PictureView | None
    changes: list[Change]
    aim: Aim


class TriedView(BaseModel):
    """A value that was tried, and the figure that it gives, None where there is none."""

    step: str = Field(max_length=40)
    field: str = Field(max_length=80)
    value: float = Field(allow_inf_nan=False)
    figure: float | None = Field(allow_inf_nan=False)


class AimView(BaseModel):
    """``evaluations`` of ``most`` were made; where the search is not ``done``, it goes on with what was ``tried``."""

    now: float | None
    met: bool
    evaluations: int
    most: int
    done: bool
    tried: list[TriedView]
    proposals: list[ProposalView]


class KeptView(BaseModel):
    """The changes with which kept aims are reached again, and what cannot be."""

    changes: list[Change]
    missed: list[Said]


def figures_of(evaluation: Evaluation, piece: str) -> list[FigureView]:
    attempt, found = Attempts(), []
    for measured in measures_of(evaluation, piece).values():
        value = attempt(measured.title, measured.measure, None)
        if value is not None:
            found.append(
                FigureView(key=measured.key, title=measured.title, unit=measured.unit, value=value)
            )
    return found


def aim_at(
    design: Design,
    wish: Wish,
    cache: OutcomeCache | None = None,
    *,
    seconds: float = math.inf,
    before: Sequence[TriedView] = (),
) -> AimView:
    """The values that reach what is wished for, the least changes first. The search stops after ``seconds`` of work
    and goes on from what was tried before."""
    tried: Tried = {}
    for one in before:
        tried.setdefault((one.step, one.field), {})[one.value] = one.figure
    cache, budget = cache or OutcomeCache(), Budget(seconds=seconds, spent=_new(tried))
    now = figure_of(design, wish, cache)
    found = search(design, wish, cache, budget=budget, tried=tried)
    troubles = _troubles(evaluate(design, cache))
    proposals = [_proposal(design, wish, reached, troubles, cache) for reached in found.found]
    return AimView(
        now=now,
        met=now is not None and is_met(wish.relation, now, wish.target),
        evaluations=budget.spent,
        most=budget.evaluations,
        done=found.done,
        tried=[
            TriedView(step=step, field=name, value=value, figure=figure)
            for (step, name), figures in tried.items()
            for value, figure in figures.items()
        ],
        proposals=sorted(proposals, key=lambda p: (not p.met, len(p.worse))),
    )


def _new(tried: Tried) -> int:
    """How many evaluations were made for what was tried: one less for each value, which it has as things stand."""
    return sum(max(0, len(figures) - 1) for figures in tried.values())


def _troubles(evaluation: Evaluation) -> dict[str, str]:
    """Messages of errors and warnings by what they are about."""
    return {
        f"{f.code} {f.piece} {f.step}": f.message
        for f in open_findings(evaluation)
        if f.severity is not Severity.NOTE
    }


def _proposal(
    design: Design, wish: Wish, reached: Reached, before: dict[str, str], cache: OutcomeCache
) -> ProposalView:
    variable = reached.variable
    changes = [variable.change(design, wish.piece, reached.value)]
    made = evaluate(with_changes(design, changes), cache)
    work = next((p.work for p in made.pieces if p.piece.id == wish.piece), None)
    after = _troubles(made)
    return ProposalView(
        title=variable.title,
        unit=variable.unit,
        before=variable.value,
        value=reached.value,
        figure=reached.figure,
        met=reached.met,
        closed=fold_flat(work).closed if work and work.paper else (0.0, 0.0),
        worse=[message for key, message in after.items() if key not in before][:MOST_TOLD],
        picture=small_picture(work) if work and work.paper else None,
        changes=changes,
        aim=Aim(
            piece=wish.piece,
            figure=wish.figure,
            relation=wish.relation,
            target=wish.target,
            step=variable.step,
            field=variable.field,
        ),
    )


def kept_again(design: Design, cache: OutcomeCache | None = None) -> KeptView:
    """The design's kept aims, one after the other, each solved for its own value anew."""
    cache = cache or OutcomeCache()
    changes: list[Change] = []
    missed: list[str] = []
    for aim in design.aims:
        wish = Wish(aim.piece, aim.figure, aim.relation, aim.target)
        now = figure_of(design, wish, cache)
        if now is None or is_met(aim.relation, now, aim.target):
            continue
        variable = variable_of(design, aim.piece, aim.step, aim.field)
        budget = Budget(seconds=KEPT_SECONDS)
        reached = solve_for(design, wish, variable, cache, budget) if variable else None
        if reached is None or not (
            reached.met or abs(reached.figure - aim.target) < abs(now - aim.target) - 0.01
        ):
            missed.append(aim.figure)
            continue
        change = reached.variable.change(design, aim.piece, reached.value)
        changes.append(change)
        design = with_changes(design, [change])
        if not reached.met:
            missed.append(aim.figure)
    return KeptView(changes=changes, missed=missed)


RelationName = Literal["least", "exactly", "most"]


def wish_of(piece: str, figure: str, relation: RelationName, target: float) -> Wish:
    return Wish(piece, figure, Relation(relation), target)
