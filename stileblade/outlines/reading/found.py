"""What reading a file finds: painted shapes in order, grouped into layers, and what was left.

Shapes are kept in *drawing units*, of which ``scale`` mm make one: small drawings are read
large, so that no tolerance of the geometry is felt when they are fitted to a card.
"""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field
from typing import Any, Literal

import numpy as np

from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.paths.pathdata import path_data
from stileblade.geometry.regions.region import Region
from stileblade.outlines.drawing import told_name
from stileblade.words import say

Lines = Literal["auto", "painted", "contours"]


@dataclass(frozen=True)
class Shape:
    """A painted shape: its name in the file, its colour as #rrggbb, its region."""

    name: str
    colour: str
    region: Region
    group: str = ""
    """The file's own layer that it is on; shapes of two of them are never put together."""
    alpha: float = 1.0
    """How much of what is below it hides, in the mean."""
    densest: float = 1.0
    """The same where it hides most."""
    shade: bool = False
    """Whether it is translucent all over, beside others that are not."""


@dataclass(frozen=True)
class SizeReading:
    """One way to understand the size of a drawing: mm per drawing unit."""

    title: str
    scale: float


@dataclass(frozen=True)
class OpenContour:
    """A contour that encloses nothing because its ends do not meet: where, and how wide open."""

    points: Floats
    gap: float


@dataclass
class Found:
    """width and height are the page's in drawing units; ``sizes`` are the ways to understand
    them, the likeliest first, and more than one where the file does not say."""

    kind: str
    width: float
    height: float
    sizes: list[SizeReading]
    shapes: list[Shape] = field(default_factory=list)
    open: list[OpenContour] = field(default_factory=list)
    left_out: Counter[str] = field(default_factory=Counter)
    notes: list[str] = field(default_factory=list)
    evened: int = 0
    """Shapes painted by a gradient, which are read as one even colour."""
    lines: Lines | Literal[""] = ""
    """Where nothing is filled: how its lines were understood."""

    @property
    def nests(self) -> bool:
        """Whether its lines are edges to cut along, so that one inside another bounds an opening."""
        return self.kind == "dxf" or self.lines == "contours"

    @property
    def remarks(self) -> list[str]:
        """Notes, and what was left out with its count."""
        shades = sum(len(layer.numbers) for layer in self.layers() if layer.shade)
        said = say(
            "Translucent all over, as shadows and gleams are: 1 shape is left out at first, in a layer of its own."
            " | Translucent all over, as shadows and gleams are: {n} shapes are left out at first, in layers of their own.",
            n=shades,
        )
        shade = [said] if shades else []
        mean = say(
            "One shape is painted by a gradient: it is read as an even colour, the gradient's mean."
            " | {n} shapes are painted by gradients: they are read as even colours, the gradients' means.",
            n=self.evened,
        )
        return (
            self.notes
            + shade
            + ([mean] if self.evened else [])
            + [
                say("Left out: {what} ({n}).", what=w, n=n)
                for w, n in sorted(self.left_out.items())
            ]
        )

    def layers(self) -> list[Layer]:
        """From the lowest to the topmost. Where all but the page is translucent, nothing is shade: then
        that is how the drawing is coloured."""
        found = layered(self.shapes, Box(0.0, 0.0, self.width, self.height))
        if all(layer.page or layer.shade for layer in found):
            for layer in found:
                layer.shade = False
        return found

    def as_data(self) -> dict[str, Any]:
        """Shapes by number, layers as numbers of shapes; paths in drawing units."""
        return {
            "kind": self.kind,
            "width": self.width,
            "height": self.height,
            "sizes": [{"title": s.title, "scale": s.scale} for s in self.sizes],
            "lines": self.lines,
            "nests": self.nests,
            "shapes": [_shape_data(s) for s in self.shapes],
            "layers": [layer.as_data(n) for n, layer in enumerate(self.layers(), start=1)],
            "open": [
                {"points": [(round(x, 3), round(y, 3)) for x, y in o.points[:400]], "gap": o.gap}
                for o in self.open[:200]
            ],
            "open_count": len(self.open),
            "remarks": self.remarks,
        }


def _shape_data(shape: Shape) -> dict[str, Any]:
    region = shape.region
    return {
        "name": told_name(shape.name),
        "path": path_data(region, 6),
        "picture": path_data(region, 2),
        "box": [round(v, 4) for v in region.bounds.as_list()],
        "contours": len(region.shell),
        "openings": int((region.shell != np.arange(len(region.shell))).sum()),
        "nodes": region.nodes,
        "area": region.area,
    }


@dataclass
class Layer:
    """Shapes of one colour that lie on one height: painting them together changes nothing."""

    name: str
    colour: str
    group: str
    shapes: list[Region]
    boxes: list[Box]
    page: bool = False
    """Whether it is only the page's own background."""
    shade: bool = False
    """Whether it is of shadows, gleams and tints."""
    numbers: list[int] = field(default_factory=list)

    def as_data(self, number: int) -> dict[str, Any]:
        told = "Page" if self.page else told_name(self.name)
        if self.shade and not told:
            told = "Shade"
        return {
            "name": told or say("Layer {number}", number=number),
            "colour": self.colour,
            "shapes": self.numbers,
            "page": self.page,
            "shade": self.shade,
        }


def layered(shapes: list[Shape], page: Box) -> list[Layer]:
    """Shapes as layers from the lowest to the topmost.

    A shape joins the topmost layer of its colour and group unless a layer between would then
    cover or uncover a part of it (judged by boxes).
    """
    layers: list[Layer] = []
    for number, shape in enumerate(shapes):
        box = shape.region.bounds
        for layer in reversed(layers):
            alike = (layer.colour, layer.group, layer.shade)
            if alike == (shape.colour, shape.group, shape.shade) and not layer.page:
                layer.shapes.append(shape.region)
                layer.boxes.append(box)
                layer.numbers.append(number)
                break
            if any(_meet(box, other) for other in layer.boxes):
                layers.append(_layer(shape, number, box, page, lowest=False))
                break
        else:
            layers.append(_layer(shape, number, box, page, lowest=not layers))
    return layers


def _layer(shape: Shape, number: int, box: Box, page: Box, *, lowest: bool) -> Layer:
    area = page.width * page.height
    is_page = (
        lowest
        and shape.region.pieces == 1
        and abs(shape.region.area - box.width * box.height) < 0.01 * area
        and box.left <= page.left + 0.01 * page.width
        and box.right >= page.right - 0.01 * page.width
        and box.head <= page.head + 0.01 * page.height
        and box.foot >= page.foot - 0.01 * page.height
    )
    name = shape.group or shape.name
    only = [shape.region], [box], is_page, shape.shade
    return Layer(name, shape.colour, shape.group, *only, [number])


def _meet(a: Box, b: Box) -> bool:
    return a.left < b.right and b.left < a.right and a.head < b.foot and b.head < a.foot
