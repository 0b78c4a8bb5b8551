"""What can be dragged or picked on the flat view, and how its place makes a value: four types.

Places are in mm, y downwards. A field may be a value of the step's figure, as
"outline.width", or the nth of a list, as "angles.3".
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from stileblade.geometry.curves.places import Axis, Box, Point
from stileblade.geometry.regions.region import Region

Share = Annotated[float, Field(ge=-10, le=11)]
"""A place by its share of a box, by which picks are kept."""


@dataclass(frozen=True)
class Moved:
    """A value that follows a way: 1 mm on adds ``factor`` to it; it is never below ``least``."""

    field: str
    value: float
    factor: float = 1.0
    least: float | None = None

    def after(self, way: float) -> float:
        """The value ``way`` mm further on."""
        value = self.value + way * self.factor
        return value if self.least is None else max(value, self.least)


@dataclass(frozen=True)
class Sizing:
    """How the thing in a box is sized: about the place ``fixed``, its width by the values
    ``across``, its height by ``down``, or both in proportion by ``both``; each is a name and its
    present value in mm."""

    fixed: Point
    across: tuple[tuple[str, float], ...] = ()
    down: tuple[tuple[str, float], ...] = ()
    both: tuple[tuple[str, float], ...] = ()


@dataclass(frozen=True)
class LineHandle:
    """A line of ``axis`` at ``at``: its place less ``origin`` makes the value."""

    sets: Moved
    axis: Axis
    at: float
    origin: float
    word: str = ""


@dataclass(frozen=True)
class BoxHandle:
    """An outline in ``box`` that is moved both ways. ``turn`` is the value of the step's "turn",
    where turning the thing about its middle sets it."""

    across: Moved
    down: Moved
    box: Box
    outline: Region | None = None
    word: str = ""
    sizing: Sizing | None = None
    turn: float | None = None


@dataclass(frozen=True)
class AroundHandle:
    """A place in ``box`` that goes round ``centre``: its angle about that, clockwise, 0 to the
    right, is the value of ``field``."""

    field: str
    value: float
    box: Box
    centre: Point
    word: str = ""


@dataclass(frozen=True, eq=False)
class Candidate:
    """Something that can be picked: its outline, the share of the reference box by which a pick
    names it, whether the step takes it, and the figure that tells it from others, by itself its
    area."""

    outline: Region
    share: tuple[float, float]
    taken: bool
    figure: tuple[float, str] | None = None

    @property
    def told(self) -> tuple[float, str]:
        return self.figure or (self.outline.area, "mm2")


@dataclass(frozen=True)
class PickHandle:
    """Things to be picked: the value of ``field`` is the list of the shares of those taken, which
    count where the choice ``picked_by`` is "picked"."""

    field: str
    candidates: tuple[Candidate, ...]
    picked_by: str
    word: str = ""


Handle = LineHandle | BoxHandle | AroundHandle | PickHandle
