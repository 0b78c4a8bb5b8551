"""From which side of the paper a line can be made."""

from __future__ import annotations

from enum import Enum

from stileblade.formats.lines import Line
from stileblade.formats.plan import INSIDE
from stileblade.machine.operation import Operation


class Side(Enum):
    OUTSIDE = "outside"
    INSIDE = "inside"
    BOTH = "both"
    """What goes through the paper."""


def side_of(operation: Operation, line: Line) -> Side:
    """The side that has to lie up for a line: scores have one, and what is drawn is drawn on the outside."""
    if operation is Operation.SCORE:
        return Side.INSIDE if line.group == INSIDE else Side.OUTSIDE
    return Side.OUTSIDE if operation is Operation.DRAW else Side.BOTH
