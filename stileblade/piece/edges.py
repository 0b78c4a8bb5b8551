"""Edges that a step gave a shape."""

from __future__ import annotations

from dataclasses import dataclass

from stileblade.card.layout import Panel
from stileblade.geometry.curves.places import Box, Side

_SAME = 0.01


@dataclass(frozen=True)
class EdgeShape:
    """The step, the panel and its side, and how far the edge's innermost place lies behind its
    outermost, in mm."""

    step: str
    panel: str
    side: Side
    depth: float


def shapes_along(
    step: str, panels: tuple[Panel, ...], box: Box, side: Side, depth: float
) -> tuple[EdgeShape, ...]:
    """One for each of the panels that has a part of that side of a box."""
    return tuple(
        EdgeShape(step, panel.name, side, depth)
        for panel in panels
        if abs(side.at(panel.box) - side.at(box)) < _SAME and _overlap(panel.box, box, side) > _SAME
    )


def _overlap(first: Box, second: Box, side: Side) -> float:
    if side.upright:
        return min(first.foot, second.foot) - max(first.head, second.head)
    return min(first.right, second.right) - max(first.left, second.left)
