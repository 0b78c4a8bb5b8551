"""Straight lines placed by a measure from an edge or the middle of a box."""

from __future__ import annotations

from enum import StrEnum

from stileblade.fields import When, choice
from stileblade.geometry.curves.places import Axis, Box


class Runs(StrEnum):
    UPRIGHT = "upright"
    LEVEL = "level"

    @property
    def axis(self) -> Axis:
        """Along which a line that runs so is placed: "x" for an upright one."""
        return "x" if self is Runs.UPRIGHT else "y"


class Edge(StrEnum):
    """Where a measure starts: at the left or head, in the middle, at the right or foot."""

    NEAR = "near"
    MIDDLE = "middle"
    FAR = "far"

    def origin(self, box: Box, axis: Axis) -> tuple[float, float]:
        """The place where the measure starts, and the sign of its direction: inwards, and from the
        middle to the right or down."""
        low, high = (box.left, box.right) if axis == "x" else (box.head, box.foot)
        if self is Edge.NEAR:
            return low, 1.0
        if self is Edge.FAR:
            return high, -1.0
        return (low + high) / 2, 1.0


def runs_field(*, when: When | None = None) -> Runs:
    """The field for which way a line runs."""
    runs: Runs = choice(
        Runs.UPRIGHT, "Runs", "Which way it runs.", when=when, upright="upright", level="level"
    )
    return runs


def edge_field(default: Edge, *, when: When | None = None) -> Edge:
    """The field for where a measure starts."""
    edge: Edge = choice(
        default,
        "Measured from",
        "Where the measure starts.",
        when=when,
        near="left or head",
        middle="the middle",
        far="right or foot",
    )
    return edge
