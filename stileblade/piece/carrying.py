"""What lies on what when the card is closed: maps from one panel's plane to another's.

Panels that share a fold are mirror images of each other across it once it is shut; going from
fold to fold gives the map from any panel to any other, whatever the order of folding.
"""

from __future__ import annotations

from collections import deque

from stileblade.card.layout import Panel
from stileblade.errors import StepError
from stileblade.geometry.curves.places import Box, around
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, identity
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.words import named, say

_SAME = 0.01


def carried(work: Work, source: str, target: str, *, field: str = "onto") -> Floats:
    """The 2x3 map that takes what lies on panel ``source`` of the flat card to where it comes to
    lie on panel ``target``, in the flat card as well, when all folds between them are shut.

    StepError where a panel is missing or no folds lead there.
    """
    panels = {p.name: p for p in work.panels}
    for name in (source, target):
        if name not in panels:
            raise StepError(
                say("There is no panel {name!r}.", name=name),
                hint=say(
                    "Panels are: {join}.",
                    join=", ".join(map(named, panels)) or "none yet; mirror the figure first",
                ),
                field=field,
            )
    shut = [f for f in work.folds if f.folds and f.crease.shut and f.axis]
    maps, waiting = {source: identity()}, deque([source])
    while waiting:
        name = waiting.popleft()
        for other in panels.values():
            fold = other.name not in maps and _fold_between(panels[name], other, shut)
            if fold:
                maps[other.name] = after(fold.line.mirror(), maps[name])
                waiting.append(other.name)
    if target not in maps:
        raise StepError(
            say(
                "{source!r} and {target!r} do not come to lie on each other: no folds that are shut lie between them.",
                source=source,
                target=target,
            ),
            hint="Take a panel that hangs on the same folds.",
            field=field,
        )
    return maps[target]


def closed_box(work: Work) -> Box:
    """The box of all that is in front when the card is closed, about the panel that stays in its place.
    StepError where it is a single panel or nothing."""
    return around([box for _, box, _ in closed_fronts(work)])


def closed_fronts(work: Work) -> list[tuple[str, Box, Floats]]:
    """The panels in front of the closed card: each with its box there, in the place that the front
    panel has in the flat view, and the map from there to its own place."""
    if not work.closed_over_several:
        raise StepError(
            "The closed card's front is a single panel.",
            hint=say("Place it on {front!r}.", front=work.front)
            if work.front
            else "Mirror the figure first.",
            field="target",
        )
    boxes = {p.name: p.box for p in work.panels}
    found = []
    for name in work.fronts:
        there = carried(work, name, work.front, field="target")
        back = carried(work, work.front, name, field="target")
        found.append((name, boxes[name].transformed(there), back))
    return found


def _fold_between(first: Panel, second: Panel, folds: list[Fold]) -> Fold | None:
    return next((f for f in folds if _parts(f, first.box, second.box)), None)


def _parts(fold: Fold, a: Box, b: Box) -> bool:
    """Whether the two boxes meet along the fold."""
    if fold.axis == "x":
        facing = ((a.right, b.left), (b.right, a.left))
        shared = min(a.foot, b.foot) - max(a.head, b.head)
    else:
        facing = ((a.foot, b.head), (b.foot, a.head))
        shared = min(a.right, b.right) - max(a.left, b.left)
    # halves of a figure run into each other by their lap, and meet on its axis
    meet = any(
        abs(high - low - fold.apart) < _SAME and abs((low + high) / 2 - fold.at) < _SAME
        for low, high in ((min(pair), max(pair)) for pair in facing)
    )
    return meet and shared > _SAME
