"""What is to be painted: fills and strokes, worked on many at once."""

from __future__ import annotations

from dataclasses import dataclass, replace

from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.offset.stroke import Pen, Stroked
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.paths.pathdata import closed
from stileblade.geometry.regions.fill import FillRule, Painted
from stileblade.outlines.reading.found import Shape
from stileblade.outlines.reading.svg.gradient import Gradient
from stileblade.outlines.reading.svg.place import Place


@dataclass(frozen=True)
class Ink:
    """What is painted with: a colour as #rrggbb, the gradient whose mean it is, and how much of what
    is below it hides."""

    colour: str
    gradient: Gradient | None = None
    alpha: float = 1.0
    densest: float | None = None
    """The same at a gradient's densest stop; None where it is even."""

    def on(self, shape: Shape, alpha: float) -> Shape:
        """A shape painted with it, all of which is ``alpha`` of its own."""
        dense = self.alpha if self.densest is None else self.densest
        return replace(shape, alpha=alpha * self.alpha, densest=alpha * dense)


@dataclass(frozen=True, eq=False)
class Pending:
    """A fill or, with a ``pen``, a stroke to come: ``matrix`` maps the drawing to where it is made,
    and ``back`` a stroke from there to its place."""

    rule: FillRule
    pen: Pen | None
    matrix: Floats
    back: Floats | None
    place: Place
    ink: Ink
    drawing: Drawing
    shape: Shape
    family: str
    alone: bool
    """Whether it is the stroke of something without a fill."""

    def ways(self) -> list[Segments]:
        """Of the drawing, contours first; open ones are closed to be filled."""
        drawing = self.drawing
        return [*drawing.contours, *(drawing.open if self.pen else map(closed, drawing.open))]

    def job(self, ways: list[Segments]) -> Painted | Stroked:
        """What is to be made of the mapped ``ways``."""
        if self.pen is None:
            return Painted(ways, self.rule)
        contours, s = len(self.drawing.contours), float(self.matrix[0, 0])
        dots = [(x * s, y * s) for x, y in self.drawing.dots]
        return Stroked(self.pen, ways[:contours], ways[contours:], dots)


def to_scale(place: Place, drawing: Drawing) -> tuple[Floats, Floats | None]:
    """To the drawing's scale, at which its strokes are made, and how they are then stretched."""
    if place.even and not drawing.dots:  # whose squares a pen draws upright
        return place.matrix, None
    rest = place.matrix.copy()
    rest[:, :2] /= place.scale
    return scaling(place.scale, place.scale), rest
