"""Figures with round outlines."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Literal

from stileblade.fields import length, number_of
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.region import Region
from stileblade.outlines.artwork import LayerOutlines
from stileblade.outlines.figure import Figure, painted, register_figure, require, stretched


@register_figure
class Circle(Figure):
    """A circle."""

    title = "Circle"
    words = "disc round porthole dot"
    kind: Literal["circle"] = "circle"
    diameter: float = length(60, "Diameter", "All the way across.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        drawing = Drawing()
        drawing.ellipse(0, 0, self.diameter / 2, self.diameter / 2)
        return painted(drawing)


@register_figure
class Ellipse(Figure):
    """An ellipse, upright or lying."""

    title = "Ellipse"
    words = "oval round"
    kind: Literal["ellipse"] = "ellipse"
    width: float = length(70, "Width", "Across, at its widest.", above=0)
    height: float = length(50, "Height", "From head to foot.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        drawing = Drawing()
        drawing.ellipse(0, 0, self.width / 2, self.height / 2)
        return painted(drawing)


@register_figure
class ScallopedCircle(Figure):
    """A circle with an edge of outward scallops."""

    title = "Scalloped circle"
    words = "flower doily rosette"
    kind: Literal["scalloped-circle"] = "scalloped-circle"
    diameter: float = length(70, "Diameter", "Across, over the scallops' tops.", above=0)
    scallops: int = number_of(16, "Scallops", "How many go round.", least=3, most=200)
    depth: float = length(4, "Depth", "From the notches out to the tops.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        outer, n = self.diameter / 2, self.scallops
        inner = outer - self.depth
        require(
            inner > 0,
            "The scallops are {} deep, half the circle is {}.",
            self.depth,
            outer,
            field="depth",
            would_do=outer / 4,
        )
        half = inner * math.sin(math.pi / n)
        rise = outer - inner * math.cos(math.pi / n)
        radius = (half * half + rise * rise) / (2 * rise)
        corners = [
            (inner * math.sin(2 * math.pi * k / n), -inner * math.cos(2 * math.pi * k / n))
            for k in range(n)
        ]
        drawing = Drawing()
        drawing.move(*corners[0])
        for x, y in [*corners[1:], corners[0]]:
            drawing.arc(radius, radius, 0, rise > half, True, x, y)
        drawing.close()
        return painted(drawing)


@register_figure
class Heart(Figure):
    """A heart with its point at the foot."""

    title = "Heart"
    words = "love"
    kind: Literal["heart"] = "heart"
    width: float = length(70, "Width", "Over both lobes.", above=0)
    height: float = length(64, "Height", "From the lobes' tops to the point.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        drawing = Drawing()
        drawing.move(0, 22)
        drawing.cubic(8, -6, 50, -6, 50, 30)
        drawing.cubic(50, 58, 18, 74, 0, 100)
        drawing.cubic(-18, 74, -50, 58, -50, 30)
        drawing.cubic(-50, -6, -8, -6, 0, 22)
        drawing.close()
        return stretched(painted(drawing), self.width, self.height)


@register_figure
class Ring(Figure):
    """A ring: a circle with a round opening."""

    title = "Ring"
    words = "lifebelt annulus hoop"
    kind: Literal["ring"] = "ring"
    diameter: float = length(60, "Diameter", "All the way across.", above=0)
    opening: float = length(36, "Opening", "The opening's diameter.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        require(
            self.opening < self.diameter,
            "The opening of {} is not smaller than the ring of {}.",
            self.opening,
            self.diameter,
            field="opening",
            would_do=self.diameter / 2,
        )
        drawing = Drawing()
        drawing.ellipse(0, 0, self.diameter / 2, self.diameter / 2)
        drawing.ellipse(0, 0, self.opening / 2, self.opening / 2)
        drawing.contours[1] = drawing.contours[1].reversed()
        return painted(drawing)
