"""Places on the plane: points, the two axes, upright rectangles and their sides. mm, y downwards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

import numpy as np

from stileblade.geometry.curves.vectors import Floats

Point = tuple[float, float]
Axis = Literal["x", "y"]
"""Along which a straight line is placed: "x" for an upright one (x = at), "y" for a level one."""


@dataclass(frozen=True)
class Box:
    """An upright rectangle, in mm; ``head`` is its upper edge (y runs downwards)."""

    left: float
    head: float
    right: float
    foot: float

    @property
    def width(self) -> float:
        return self.right - self.left

    @property
    def height(self) -> float:
        return self.foot - self.head

    @property
    def centre(self) -> tuple[float, float]:
        return (self.left + self.right) / 2, (self.head + self.foot) / 2

    def corners(self) -> list[tuple[float, float]]:
        return [
            (self.left, self.head),
            (self.right, self.head),
            (self.right, self.foot),
            (self.left, self.foot),
        ]

    def holds(self, spot: Point) -> bool:
        """Whether a place lies in it, its sides included."""
        return self.left <= spot[0] <= self.right and self.head <= spot[1] <= self.foot

    def share_of(self, x: float, y: float) -> tuple[float, float]:
        """A place as shares of the width and the height, from the head left."""
        return (x - self.left) / max(self.width, 1e-9), (y - self.head) / max(self.height, 1e-9)

    def at_share(self, u: float, v: float) -> tuple[float, float]:
        """The place that ``share_of`` has those shares for."""
        return self.left + u * self.width, self.head + v * self.height

    def shrunk(self, margin: float) -> Box:
        return Box(self.left + margin, self.head + margin, self.right - margin, self.foot - margin)

    def transformed(self, matrix: Floats) -> Box:
        """The box of the mapped corners."""
        p = np.array(self.corners()) @ matrix[:, :2].T + matrix[:, 2]
        (a, b), (c, d) = p.min(axis=0), p.max(axis=0)
        return Box(float(a), float(b), float(c), float(d))

    def as_list(self) -> list[float]:
        return list(self.as_tuple())

    def as_tuple(self) -> tuple[float, float, float, float]:
        return self.left, self.head, self.right, self.foot


def any_meet(boxes: Sequence[Box]) -> bool:
    """Whether any two of them overlap or touch."""
    sides = np.array([b.as_tuple() for b in boxes]).reshape(-1, 4)
    left, head, right, foot = sides[np.argsort(sides[:, 0])].T
    # of the boxes that begin further right, those up to here begin before it ends
    upto = np.searchsorted(left, right, side="right")
    for i, end in enumerate(upto):
        rest = slice(i + 1, int(end))
        if ((head[rest] <= foot[i]) & (head[i] <= foot[rest])).any():
            return True
    return False


def around(boxes: Sequence[Box]) -> Box:
    """The least box round one box or more."""
    sides = np.array([b.as_tuple() for b in boxes])
    left, head = sides[:, :2].min(axis=0).tolist()
    right, foot = sides[:, 2:].max(axis=0).tolist()
    return Box(left, head, right, foot)


class Side(StrEnum):
    """A side of an upright rectangle, as it lies in the flat view."""

    LEFT = "left"
    RIGHT = "right"
    HEAD = "head"
    FOOT = "foot"

    @property
    def upright(self) -> bool:
        return self in (Side.LEFT, Side.RIGHT)

    @property
    def axis(self) -> Axis:
        """Along which a line beside it is placed: "x" at an upright side."""
        return "x" if self.upright else "y"

    @property
    def low(self) -> bool:
        """Whether it is the side of smaller coordinates."""
        return self in (Side.LEFT, Side.HEAD)

    @property
    def outwards(self) -> int:
        """1 where outwards is to the right or down, -1 otherwise."""
        return -1 if self.low else 1

    @property
    def opposite(self) -> Side:
        pairs = {Side.LEFT: Side.RIGHT, Side.RIGHT: Side.LEFT, Side.HEAD: Side.FOOT}
        return pairs.get(self, Side.HEAD)

    def at(self, box: Box) -> float:
        """Its x or y."""
        return {
            Side.LEFT: box.left, Side.RIGHT: box.right, Side.HEAD: box.head, Side.FOOT: box.foot,
        }[self]  # fmt: skip

    def inside(self, box: Box, depth: float) -> float:
        """The x or y of a line ``depth`` mm inside it."""
        return self.at(box) - self.outwards * depth

    def length_in(self, box: Box) -> float:
        return box.height if self.upright else box.width

    def depth_of(self, box: Box) -> float:
        """The box's measure at right angles to the side."""
        return box.width if self.upright else box.height

    def middle(self, box: Box) -> float:
        """The middle of the side, along it."""
        return box.centre[1] if self.upright else box.centre[0]

    def place(self, out: float, along: float) -> tuple[float, float]:
        """A map's translation: so far outwards, and so far along, down or to the right."""
        return (self.outwards * out, along) if self.upright else (along, self.outwards * out)

    def band(self, box: Box, inwards: float, beyond: float, over: float = 0.0) -> Box:
        """A box along the side, from ``inwards`` inside it to ``beyond`` outside, ``over`` longer
        than the side at either end."""
        at, sign = self.at(box), self.outwards
        low, high = sorted((at - sign * inwards, at + sign * beyond))
        if self.upright:
            return Box(low, box.head - over, high, box.foot + over)
        return Box(box.left - over, low, box.right + over, high)
