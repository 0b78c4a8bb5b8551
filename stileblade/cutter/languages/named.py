"""Lines of drawings, which name no tool: what their layers and groups say of what is to be done."""

from __future__ import annotations

import numpy as np

from stileblade.cutter.sent import Sent, Stroke
from stileblade.geometry.curves.flatten import subdivide
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.machine.machine import Machine
from stileblade.machine.operation import CUTS, ORDER, Operation


def operation_named(names: str) -> tuple[Operation, int] | None:
    """The operation and round that a layer's or group's name says, such as "CUT_INNER_2"; None where it
    says none."""
    name = names.strip().lower().replace("_", "-")
    for operation in sorted(Operation, key=lambda o: -len(o)):
        if name == operation or name.startswith(f"{operation}-"):
            digits = name[len(operation) + 1 :].split("-")[0]
            is_round = operation in CUTS and digits.isdigit() and len(digits) < 4
            return operation, int(digits) - 1 if is_round else 0
    return None


def add_line(
    sent: Sent, segments: Segments, operation: Operation | None, machine: Machine, name: str
) -> None:
    """A line of the drawing, y upwards; what is not named is cut."""
    tool = machine.tool_for(operation or Operation.CUT_OUTER)
    places = flat(segments)
    if len(places) > 1:
        sent.add(Stroke(tool.number, tool.speed, places, name=name))


def flat(segments: Segments) -> Floats:
    """Places (n, 2) of chords within the tolerance of flattening, the last included."""
    index, t = subdivide(segments)
    return np.concatenate([segments.points_at(index, t), segments.end[-1:]])


def in_passes(found: tuple[Operation, int] | None) -> tuple[int, int]:
    """By which lines are sorted where a drawing has no order of its own: round, then operation."""
    if found is None:
        return 0, ORDER[Operation.CUT_OUTER]
    operation, round_ = found
    return round_, ORDER[operation]
