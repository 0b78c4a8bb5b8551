"""The four edges of a panel: what the steps that work on one of them share."""

from __future__ import annotations

from enum import StrEnum

from stileblade.build.work import Work
from stileblade.errors import StepError
from stileblade.fields import choice
from stileblade.geometry.region import Box

_SAME = 0.01


class Side(StrEnum):
    """An edge of a panel, as it lies in the flat view."""

    LEFT = "left"
    RIGHT = "right"
    HEAD = "head"
    FOOT = "foot"

    @property
    def upright(self) -> bool:
        return self in (Side.LEFT, Side.RIGHT)

    @property
    def outwards(self) -> int:
        """1 where outwards is to the right or down, -1 otherwise."""
        return 1 if self in (Side.RIGHT, Side.FOOT) else -1

    @property
    def opposite(self) -> Side:
        pairs = {Side.LEFT: Side.RIGHT, Side.RIGHT: Side.LEFT, Side.HEAD: Side.FOOT}
        return pairs.get(self, Side.HEAD)

    def at(self, box: Box) -> float:
        """Its x or y."""
        return {
            Side.LEFT: box.left, Side.RIGHT: box.right, Side.HEAD: box.head, Side.FOOT: box.foot,
        }[self]  # fmt: skip

    def length_in(self, box: Box) -> float:
        return box.height if self.upright else box.width

    def depth_of(self, box: Box) -> float:
        """The box's measure at right angles to the edge."""
        return box.width if self.upright else box.height

    def middle(self, box: Box) -> float:
        """The middle of the edge, along it."""
        return box.centre[1] if self.upright else box.centre[0]

    def place(self, out: float, along: float) -> tuple[float, float]:
        """A map's translation: so far outwards, and so far along, down or to the right."""
        return (self.outwards * out, along) if self.upright else (along, self.outwards * out)

    def band(self, box: Box, inwards: float, beyond: float, over: float = 0.0) -> Box:
        """A box along the edge, from ``inwards`` inside it to ``beyond`` outside, ``over`` longer
        than the edge at either end."""
        at, sign = self.at(box), self.outwards
        low, high = sorted((at - sign * inwards, at + sign * beyond))
        if self.upright:
            return Box(low, box.head - over, high, box.foot + over)
        return Box(box.left - over, low, box.right + over, high)


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
