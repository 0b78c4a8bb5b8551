"""The four edges of a panel: what the steps that work on one of them share."""

from __future__ import annotations

from stileblade.errors import StepError
from stileblade.fields import choice
from stileblade.geometry.curves.places import Box, Side
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.words import say


def side_field(default: Side, description: str) -> Side:
    """The field for an edge."""
    side: Side = choice(
        default, "Edge", description, left="left", right="right", head="head", foot="foot"
    )
    return side


def must_be_open(work: Work, box: Box, side: Side, *, field: str = "side") -> None:
    """StepError where a fold lies on the edge."""
    fold = _fold_on(work, box, side)
    if fold is not None:
        others = [s.value for s in Side if _fold_on(work, box, s) is None]
        raise StepError(
            say("That edge is no edge: {name} lies there.", name=fold.name),
            hint=say("Take another one: {list}.", list=", ".join(others))
            if others
            else "Choose another panel.",
            field=field,
        )


def open_sides(work: Work, target: str) -> list[str]:
    """The edges of what a step is placed on that no fold lies on; all where that is not there."""
    try:
        box = work.box_of(target)
    except StepError:
        return [side.value for side in Side]
    return [side.value for side in Side if _fold_on(work, box, side) is None]


def _fold_on(work: Work, box: Box, side: Side) -> Fold | None:
    axis = "x" if side.upright else "y"
    on = (f for f in work.folds if f.axis == axis and f.is_side_at(side.at(box)))
    return next(on, None)
