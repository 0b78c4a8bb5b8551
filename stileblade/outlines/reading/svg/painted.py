"""Painted outlines of an SVG file as shapes, in painting order."""

from __future__ import annotations

from typing import Final

from lxml import etree

from stileblade.errors import ReadingError
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.region import Region
from stileblade.outlines.reading.found import Found, Lines, OpenContour, Shape
from stileblade.outlines.reading.svg.gradient import gradient_of
from stileblade.outlines.reading.svg.pending import Ink
from stileblade.outlines.reading.svg.style import Paint, Style
from stileblade.outlines.reading.svg.text import set_text
from stileblade.outlines.reading.svg.walk import Inside, Walk
from stileblade.outlines.reading.svg.xml import local_name, name_of, parse
from stileblade.words import say

HAIRLINE: Final = 0.6
"""mm: in a drawing of lines alone, such thin ones mean where to cut."""
HAIR: Final = 0.02
"""Of the page's longer side: in a small drawing wider ones are meant as they are, as an icon's."""
LOOSE_ENDS: Final = 0.05
"""mm: ends of lines this near belong together."""


def read_svg(content: bytes, lines: Lines = "auto") -> Found:
    """All painted outlines. ``ReadingError`` says why a file cannot be read.

    lines says what a drawing without any fill is: "painted", its strokes' own outlines;
    "contours", what its lines enclose; "auto", contours if they are all thinner than 0.6 mm.
    """
    return _Painted(parse(content)).run(lines)


class _Painted(Walk):
    """What is painted, as regions."""

    def run(self, lines: Lines) -> Found:
        self.all()
        if self.painter.faces:
            names = ", ".join(sorted(self.painter.faces))
            self.found.notes.append(
                say("Text is set in a shipped font in place of its own: {names}.", names=names)
            )
        width, mm = self.painter.only_lines, self.found.sizes[0].scale
        hairline = min(HAIRLINE / mm, HAIR * max(self.found.width, self.found.height))
        if width is not None:
            thin = lines == "auto" and width <= hairline
            self.found.lines = "contours" if thin or lines == "contours" else "painted"
        if self.found.lines == "contours":
            self.found.shapes = self.painter.contours(LOOSE_ENDS / mm)
            self.found.open = [OpenContour(o.points, o.gap * mm) for o in self.painter.open]
        else:
            self.found.shapes = self.painter.shapes()
            fine = sum(w <= hairline for w in self.painter.widths())
            if fine:
                self.found.notes.append(
                    say(
                        "Hairlines, read as strips too narrow to be cut: {fine}. Leave their layer out, or widen them in the drawing.",
                        fine=fine,
                    )
                )
        if self.painter.fading:
            self.found.notes.append(
                say(
                    "Fading out, cut where less than 5 % is left: {fading} shapes.",
                    fading=self.painter.fading,
                )
            )
        if not self.found.shapes:
            said = " ".join(self.found.remarks)
            said = say("There is no painted outline in the file. {said}", said=said).strip()
            raise ReadingError(said, hint="Give a shape a fill or a stroke.")
        return self.found

    def shape(self, element: etree._Element, name: str, inside: Inside) -> None:
        drawing = self.painter.drawing_of(element, name, inside.place)
        if drawing is not None:
            self._paint(drawing, inside.style, inside, element, name)

    def text(self, element: etree._Element, inside: Inside) -> None:
        words = " ".join("".join(map(str, element.itertext())).split()) or "text"
        for shape in set_text(element, inside.style, inside.place, self.cascade, self.painter):
            self._paint(shape.drawing, shape.style, inside, element, words)

    def _paint(
        self, drawing: Drawing, style: Style, inside: Inside, element: etree._Element, name: str
    ) -> None:
        label = (name_of(element) or inside.named or name)[:60]
        shape = Shape(label, "", Region.empty(), inside.group)
        fill, stroke = self._ink(style.fill), self._ink(style.stroke)
        self.painter.paint(drawing, style, inside.place, fill, stroke, shape, inside.family)

    def _ink(self, paint: Paint) -> Ink | None:
        """What is painted with; None for nothing."""
        target = self.ids.get(paint.ref) if paint.ref else None
        name = local_name(target) if target is not None else ""
        if target is not None and name in ("linearGradient", "radialGradient"):
            gradient = gradient_of(target, self.ids, self.cascade.of)
            if gradient is None or gradient.densest <= 0:
                return None
            self.found.evened += 1
            return Ink(gradient.colour, gradient, gradient.alpha, gradient.densest)
        if name == "pattern":
            self.found.left_out["patterns, read as plain colour"] += 1
            return Ink("#808080")
        return Ink(paint.colour, None, paint.alpha) if paint.alpha > 0 and paint.colour else None
