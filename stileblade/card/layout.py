"""Panels of an open card and the folds between them.

Panels are named as seen from outside and listed from left to right or from head to foot.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import accumulate

from stileblade.card.creases import Crease, Stretch
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Axis, Box


@dataclass(frozen=True)
class Panel:
    """A panel's name and its whole box, before windows and edges; ``short`` is by how much it is
    less than the closed measure, so that it lies flat inside."""

    name: str
    box: Box
    short: float = 0.0


@dataclass(frozen=True)
class FoldAxis:
    """A line that the card folds on."""

    name: str
    line: Line
    crease: Crease
    apart: float = 0.0
    """mm between the panels on either side."""


@dataclass(frozen=True)
class Layout:
    """front: the panel that stays where it is when the card is closed; fronts: all that are in
    front then; lies_on: the panel that lies on the table when the card stands, if one does."""

    panels: tuple[Panel, ...]
    folds: tuple[FoldAxis, ...]
    front: str
    fronts: tuple[str, ...]
    lies_on: str = ""

    def swapped(self, axis: Axis) -> Layout:
        """In the opposite order: mirrored about the middle of the open card."""
        total = max(p.box.right if axis == "x" else p.box.foot for p in self.panels)

        def box(b: Box) -> Box:
            if axis == "x":
                return Box(total - b.right, b.head, total - b.left, b.foot)
            return Box(b.left, total - b.foot, b.right, total - b.head)

        def fold(f: FoldAxis) -> FoldAxis:
            if f.line.axis == axis:
                return replace(f, line=Line.on(axis, total - f.line.at))
            mirrored = tuple(
                Stretch(total - s.high, total - s.low, s.direction) for s in f.crease.stretches
            )
            return replace(f, crease=replace(f.crease, stretches=mirrored))

        return replace(
            self,
            panels=tuple(replace(p, box=box(p.box)) for p in self.panels),
            folds=tuple(fold(f) for f in self.folds),
        )

    def spread(self, axis: Axis, spine: float) -> Layout:
        """Panels in a row moved apart at every fold by a spine, the folds in its middle."""
        low, high = ("left", "right") if axis == "x" else ("head", "foot")
        at = sorted(f.line.at for f in self.folds)

        def box(b: Box) -> Box:
            more = spine * sum(getattr(b, low) > place - 1e-6 for place in at)
            return replace(b, **{side: getattr(b, side) + more for side in (low, high)})

        return replace(
            self,
            panels=tuple(replace(p, box=box(p.box)) for p in self.panels),
            folds=tuple(
                replace(
                    f,
                    line=Line.on(axis, f.line.at + spine * (at.index(f.line.at) + 0.5)),
                    apart=spine,
                )
                for f in self.folds
            ),
        )

    def narrowed(self, name: str, axis: Axis, by: float) -> Layout:
        """A panel less across the creases, at least 1 mm of it; what lies beyond it moves up."""
        low, high = ("left", "right") if axis == "x" else ("head", "foot")
        own = next(p.box for p in self.panels if p.name == name)
        at = getattr(own, high)
        less = max(0.0, min(by, at - getattr(own, low) - 1.0))

        def moved(value: float) -> float:
            return value - less if value >= at - 1e-9 else value

        def box(b: Box) -> Box:
            return replace(b, **{side: moved(getattr(b, side)) for side in (low, high)})

        def fold(f: FoldAxis) -> FoldAxis:
            if f.line.axis == axis:
                return replace(f, line=Line.on(axis, moved(f.line.at)))
            stretches = tuple(
                replace(s, low=moved(s.low), high=moved(s.high)) for s in f.crease.stretches
            )
            return replace(f, crease=replace(f.crease, stretches=stretches))

        return replace(
            self,
            panels=tuple(replace(p, box=box(p.box)) for p in self.panels),
            folds=tuple(fold(f) for f in self.folds),
        )


@dataclass(frozen=True)
class Strip:
    """A panel across the creases."""

    name: str
    width: float
    short: float = 0.0


def in_a_row(
    axis: Axis,
    strips: Sequence[Strip],
    creases: Sequence[Crease],
    along: float,
    fronts: tuple[str, ...],
) -> Layout:
    """Panels side by side, a crease between each two."""
    panels, folds = [], []
    stops = [0.0, *accumulate(s.width for s in strips)]
    for i, strip in enumerate(strips):
        low, high = stops[i], stops[i + 1]
        box = Box(low, 0.0, high, along) if axis == "x" else Box(0.0, low, along, high)
        panels.append(Panel(strip.name, box, strip.short))
        if i:
            name = "fold" if len(strips) == 2 else f"fold {i}"
            folds.append(FoldAxis(name, Line.on(axis, low), creases[i - 1]))
    return Layout(tuple(panels), tuple(folds), fronts[-1], fronts)
