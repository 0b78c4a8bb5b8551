"""Figures with straight sides."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Literal

from stileblade.fields import length, number_of, share
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import polygon
from stileblade.outlines.artwork import LayerOutlines
from stileblade.outlines.figure import Figure, painted, register_figure, require


@register_figure
class Rectangle(Figure):
    """A rectangle, its corners rounded if wanted."""

    title = "Rectangle"
    words = "square panel strip rounded corners"
    kind: Literal["rectangle"] = "rectangle"
    width: float = length(60, "Width", "From left to right.", above=0)
    height: float = length(40, "Height", "From head to foot.", above=0)
    radius: float = length(0, "Corner radius", "0 leaves the corners sharp.", least=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        w, h, r = self.width, self.height, self.radius
        largest = min(w, h) / 2
        require(
            r <= largest,
            "A corner radius of {} does not fit; the shorter side is {}.",
            r,
            min(w, h),
            field="radius",
            would_do=largest,
        )
        drawing = Drawing()
        drawing.move(r, 0)
        for x, y, to_x, to_y in (
            (w - r, 0, w, r),
            (w, h - r, w - r, h),
            (r, h, 0, h - r),
            (0, r, r, 0),
        ):
            drawing.line(x, y)
            if r > 0:
                drawing.arc(r, r, 0, False, True, to_x, to_y)
        drawing.close()
        return painted(drawing)


@register_figure
class RegularPolygon(Figure):
    """A regular polygon, one side lying at the foot."""

    title = "Regular polygon"
    words = "triangle pentagon hexagon octagon"
    kind: Literal["polygon"] = "polygon"
    sides: int = number_of(6, "Sides", "How many sides it has.", least=3, most=100)
    diameter: float = length(60, "Diameter", "Of the circle through its corners.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        n, r = self.sides, self.diameter / 2
        turn = math.pi / n
        return polygon(
            [
                (r * math.sin(2 * math.pi * k / n + turn), r * math.cos(2 * math.pi * k / n + turn))
                for k in range(n)
            ]
        )


@register_figure
class Star(Figure):
    """A star with straight rays, one pointing up."""

    title = "Star"
    words = "starfish rays"
    kind: Literal["star"] = "star"
    points: int = number_of(5, "Points", "How many rays it has.", least=3, most=100)
    diameter: float = length(70, "Diameter", "Of the circle through the points.", above=0)
    waist: float = share(
        0.5,
        "Waist",
        "Where the notches lie, as a part of the points' radius.",
        least=0.05,
        most=0.99,
    )

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        n, r = self.points, self.diameter / 2
        return polygon(
            [
                (
                    r * (self.waist if k % 2 else 1) * math.sin(math.pi * k / n),
                    -r * (self.waist if k % 2 else 1) * math.cos(math.pi * k / n),
                )
                for k in range(2 * n)
            ]
        )
