"""Endless straight lines: what paper is folded on. mm, y downwards."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.errors import GeometryError
from stileblade.geometry.curves.places import Axis, Box, Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import mirror_across


@dataclass(frozen=True)
class Line:
    """A point of the line and its unit direction.

    ``axis`` is "x" for an upright line (x = at), "y" for a level one (y = at), None otherwise.
    """

    x: float
    y: float
    ux: float
    uy: float

    @staticmethod
    def on(axis: Axis, at: float) -> Line:
        return Line(at, 0.0, 0.0, 1.0) if axis == "x" else Line(0.0, at, 1.0, 0.0)

    @staticmethod
    def through(a: Point, b: Point) -> Line:
        """Upright and level ones are kept exact. GeometryError where the two are one place."""
        dx, dy = b[0] - a[0], b[1] - a[1]
        size = float(np.hypot(dx, dy))
        if size < 1e-6:
            raise GeometryError("The two places are the same: no line goes through them.")
        if abs(dx) < 1e-9:
            return Line.on("x", a[0])
        if abs(dy) < 1e-9:
            return Line.on("y", a[1])
        return Line(*a, dx / size, dy / size)

    @property
    def axis(self) -> Axis | None:
        return "x" if self.ux == 0 else "y" if self.uy == 0 else None

    @property
    def at(self) -> float:
        """Where an upright or level line lies; of a slanting one, where it meets y = 0."""
        if self.uy == 0:
            return self.y
        return self.x - self.y * self.ux / self.uy

    @property
    def point(self) -> Floats:
        return np.array([self.x, self.y])

    @property
    def along(self) -> Floats:
        return np.array([self.ux, self.uy])

    @property
    def normal(self) -> Floats:
        """To the right of an upright line, above a level one."""
        return np.array([self.uy, -self.ux])

    def mirror(self) -> Floats:
        """The 2x3 map across it; points on an upright or level line keep their last bit."""
        if self.axis:
            return mirror_across(axis=self.axis, at=self.at)
        n = self.normal
        linear = np.eye(2) - 2 * np.outer(n, n)
        return np.column_stack([linear, self.point - linear @ self.point])

    def off(self, points: Floats) -> Floats:
        """Signed distances of points (n, 2), positive on the side of ``normal``."""
        return (points - self.point) @ self.normal

    def place(self, points: Floats) -> Floats:
        """How far along the line the feet of points (n, 2) lie; on an upright or level line that
        is their y or x."""
        return (points - self.point) @ self.along

    def place_of(self, point: Point) -> float:
        return (point[0] - self.x) * self.ux + (point[1] - self.y) * self.uy

    def point_at(self, along: float) -> Point:
        return self.x + along * self.ux, self.y + along * self.uy

    def ends_beyond(self, box: Box) -> tuple[Point, Point]:
        """Two places of it, 1 mm beyond the box on either side."""
        reach = self.place(np.array(box.corners()))
        return self.point_at(float(reach.min()) - 1), self.point_at(float(reach.max()) + 1)

    def moved(self, by: float) -> Line:
        """The parallel line at a distance, towards ``normal`` if positive."""
        x, y = self.point + self.normal * by
        return (
            Line.on(self.axis, self.at + by * float(self.normal.sum()))
            if self.axis
            else Line(float(x), float(y), self.ux, self.uy)
        )
