"""The four edges of a panel: what the steps that work on one of them share."""

from __future__ import annotations

from stileblade.errors import StepError
from stileblade.fields import choice
from stileblade.geometry.curves.places import Box, Side
from stileblade.piece.work import Work

_SAME = 0.01


def side_field(default: Side, description: str) -> Side:
    """The field for an edge."""
    side: Side = choice(
        default, "Edge", description, left="left", right="right", head="head", foot="foot"
    )
    return side


def must_be_open(work: Work, box: Box, side: Side, *, field: str = "side") -> None:
    """StepError where a fold lies on the edge."""
    for fold in work.folds:
        if fold.axis == ("x" if side.upright else "y") and abs(fold.at - side.at(box)) < _SAME:
            raise StepError(
                f"That edge is no edge: {fold.name} lies there.",
                hint=f"Take another one, such as {side.opposite.value!r}.",
                field=field,
            )
