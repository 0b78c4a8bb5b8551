"""Ways of folding: which panels a card has, and the folds between them.

Panels are named as seen from outside and listed from left to right or from head to foot.
W is a panel's closed measure across the creases, H along them.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from stileblade.geometry.region import Box
from stileblade.registry import Registry

Axis = Literal["x", "y"]


class Direction(StrEnum):
    MOUNTAIN = "mountain"
    VALLEY = "valley"
    NONE = "none"


@dataclass(frozen=True)
class Panel:
    """A panel's name and its whole box, before windows and edges."""

    name: str
    box: Box


@dataclass(frozen=True)
class FoldAxis:
    """An upright (axis "x") or level ("y") line that the card folds on."""

    name: str
    axis: Axis
    at: float
    direction: Direction


@dataclass(frozen=True)
class Layout:
    panels: tuple[Panel, ...]
    folds: tuple[FoldAxis, ...]


@dataclass(frozen=True)
class Way:
    """panels: names in order; front: which of them is in front when closed."""

    kind: str
    title: str
    description: str
    axis: Axis
    names: tuple[str, ...]
    front: str
    directions: tuple[Direction, ...]

    def measures(self, across: float) -> tuple[float, ...]:
        """Widths of the panels across the creases."""
        return (across,) * len(self.names)

    def layout(self, width: float, height: float) -> Layout:
        """Panels of a card whose closed front is width x height, the open card's corner at 0, 0."""
        across, along = (width, height) if self.axis == "x" else (height, width)
        panels, folds, at = [], [], 0.0
        for i, (name, measure) in enumerate(zip(self.names, self.measures(across), strict=True)):
            low, high = at, at + measure
            box = Box(low, 0.0, high, along) if self.axis == "x" else Box(0.0, low, along, high)
            panels.append(Panel(name, box))
            if i:
                name = "fold" if len(self.names) == 2 else f"fold {i}"
                folds.append(FoldAxis(name, self.axis, low, self.directions[i - 1]))
            at = high
        return Layout(tuple(panels), tuple(folds))


WAYS: Registry[Way] = Registry("way of folding")
WAYS.add(
    "side-fold",
    Way(
        "side-fold",
        "Side fold",
        "Opens like a book; the fold is at the left.",
        "x",
        ("back", "front"),
        "front",
        (Direction.MOUNTAIN,),
    ),
)
WAYS.add(
    "top-fold",
    Way(
        "top-fold",
        "Top fold",
        "Stands like a tent; the fold is at the head.",
        "y",
        ("back", "front"),
        "front",
        (Direction.MOUNTAIN,),
    ),
)
