"""Painted outlines of an SVG file, in painting order.

Read are paths, basic shapes and text, in groups, links, switches, nested svg, use and
symbol, with their fills and strokes, clip paths, and styles from sheets or attributes.
Gradients count as their mean colour. What is left out is counted and said.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

from lxml import etree

from stileblade.errors import ReadingError
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import after, identity, scaling, translation
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import rectangle
from stileblade.outlines.reading.found import Found, Lines, OpenContour, Shape, SizeReading
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.cascade import Cascade
from stileblade.outlines.reading.svg.clips import Clips
from stileblade.outlines.reading.svg.gradient import gradient_of
from stileblade.outlines.reading.svg.painting import Painter
from stileblade.outlines.reading.svg.pending import Ink
from stileblade.outlines.reading.svg.place import Place
from stileblade.outlines.reading.svg.style import Paint, Style, styled
from stileblade.outlines.reading.svg.text import set_text
from stileblade.outlines.reading.svg.xml import (
    SHAPES,
    link_of,
    local_name,
    name_of,
    own_attribute,
    parse,
    suits,
)
from stileblade.words import say

_SILENT: Final = (
    "title", "desc", "metadata", "defs", "style", "linearGradient", "radialGradient", "symbol",
    "clipPath", "mask", "pattern", "marker", "filter", "script", "namedview", "solidColor",
)  # fmt: skip
_SAID: Final = {"image": "pictures of dots", "foreignObject": "foreign content"}
_DEFAULT: Final = (300.0, 150.0)
SMALL, LARGE = 100.0, 1000.0
"""Pages are read at a size of which the longer side is between these, in drawing units."""
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
    return _Walk(parse(content)).run(lines)


@dataclass(frozen=True)
class _Inside:
    """What holds at a place of the tree."""

    style: Style
    place: Place
    depth: int = 0
    used: tuple[str, ...] = ()
    group: str = ""
    family: str = ""
    named: str = ""
    """The id of the innermost group that has one."""


class _Walk:
    """One pass over the tree, counting what it costs."""

    def __init__(self, root: etree._Element) -> None:
        self.root = root
        self.elements = 0
        self.ids: dict[str, etree._Element] = {}
        for element in root.iter():
            if isinstance(element.tag, str) and element.get("id"):
                self.ids.setdefault(element.get("id", ""), element)
        self.cascade = Cascade(root)
        box = measures.numbers(root.get("viewBox", ""))
        known = box[2:] if len(box) == 4 and min(box[2:]) > 0 else list(_DEFAULT)
        width = measures.length(root.get("width"), known[0], known[0])
        height = measures.length(root.get("height"), known[1], known[1])
        width, height = (
            v if 0 < v < 1e7 else k for v, k in zip((width, height), known, strict=True)
        )
        self.page = (width, height)
        self.working = self._working_scale(max(width, height))
        self.found = Found("svg", width * self.working, height * self.working, self._sizes())
        self.painter = Painter(self.found.left_out)
        self.clips = Clips(self.ids, self.cascade, self.painter)

    def _working_scale(self, longer: float) -> float:
        """Drawing units per px of the file."""
        mm = longer * measures.PX
        return measures.PX * (SMALL / mm if mm < SMALL else LARGE / mm if mm > LARGE else 1.0)

    def _sizes(self) -> list[SizeReading]:
        mm = measures.PX / self.working  # mm per drawing unit at 96 px to the inch
        if any(measures.has_unit(self.root.get(side)) for side in ("width", "height")):
            return [SizeReading("as the file says", mm)]
        px, pt, unit = "96 units to the inch", "72 units to the inch", "a unit is 1 mm"
        sizes = {px: mm, pt: mm * 96 / 72, unit: mm / measures.PX}
        return [SizeReading(title, scale) for title, scale in sizes.items()]

    def run(self, lines: Lines) -> Found:
        matrix, w, h = measures.view_transform(self.root, *self.page)
        matrix = after(scaling(self.working, self.working), matrix)
        place = Place(matrix, w, h)
        style = styled(Style(), self.cascade.of(self.root), place.diagonal)
        if style.shown:
            self.children(self.root, _Inside(style, place))
        self.found.left_out.update(self.cascade.trouble)
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

    def children(self, element: etree._Element, inside: _Inside) -> None:
        for child in element:
            self.element(child, inside)

    def element(self, element: etree._Element, outer: _Inside) -> None:
        name = local_name(element)
        if not name or name in _SILENT:
            return
        self._count(outer)
        style = styled(outer.style, self.cascade.of(element), outer.place.diagonal)
        if not style.shown:
            return
        inside = self._within(element, style, outer)
        if inside is None:
            return
        if name in SHAPES:
            self._shape(element, name, inside)
        elif name == "text":
            words = " ".join("".join(map(str, element.itertext())).split()) or name
            for shape in set_text(element, inside.style, inside.place, self.cascade, self.painter):
                self._paint(shape.drawing, shape.style, inside, element, words)
        elif name == "use":
            self._use(element, inside)
        elif name == "svg":
            self.children(element, self._viewport(element, element, inside))
        elif name == "switch":
            for child in element:
                if local_name(child) and suits(child):
                    self.element(child, inside)
                    break
        elif name in ("g", "a"):
            self.children(element, inside)
        else:
            self.found.left_out[_SAID.get(name, f"<{name[:30]}>")] += 1

    def _count(self, inside: _Inside) -> None:
        self.elements += 1
        if self.elements > LIMITS.elements:
            raise ReadingError(
                say("The drawing has more than {elements:,} elements.", elements=LIMITS.elements),
                hint="Simplify it, or read a part of it.",
            )
        if inside.depth > LIMITS.depth:
            raise ReadingError(
                say("The drawing is nested deeper than {depth} levels.", depth=LIMITS.depth),
                hint="Ungroup it, and export it again.",
            )

    def _within(self, element: etree._Element, style: Style, outer: _Inside) -> _Inside | None:
        """What holds inside the element; None where nothing of it can be seen."""
        place = outer.place
        if style.transform:
            matrix = measures.transform(style.transform)
            if matrix is None:
                self.found.left_out["transforms that are not understood"] += 1
                matrix = identity()
            place = replace(place, matrix=after(place.matrix, matrix))
        if not (place.scale >= 1e-6 and place.farthest <= 1e7):
            return None
        for what, there in (("masks", style.masked), ("filters", style.filtered)):
            if there:
                self.found.left_out[what] += 1
        if style.clip:
            clip = self.clips.region(style.clip, element, place)
            if clip is not None:
                place = place.clipped(clip)
        if place.hidden:
            return None
        group = outer.group
        if own_attribute(element, "groupmode") == "layer":
            group = (own_attribute(element, "label") or element.get("id") or group)[:60]
        family = outer.family
        if not family and local_name(element) == "g":
            family = element.get("id", "")[:60]
        named = outer.named
        if local_name(element) in ("g", "symbol"):
            named = (name_of(element) or named)[:60]
        elif local_name(element) == "svg":  # its title is the whole drawing's
            named = element.get("id", named)[:60]
        return _Inside(style, place, outer.depth + 1, outer.used, group, family, named)

    def _shape(self, element: etree._Element, name: str, inside: _Inside) -> None:
        drawing = self.painter.drawing_of(element, name, inside.place)
        if drawing is not None:
            self._paint(drawing, inside.style, inside, element, name)

    def _paint(
        self, drawing: Drawing, style: Style, inside: _Inside, element: etree._Element, name: str
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

    def _use(self, element: etree._Element, inside: _Inside) -> None:
        link = link_of(element)
        target = self.ids.get(link)
        if target is None:
            self.found.left_out["references to other places"] += 1
            return
        if link in inside.used:
            raise ReadingError(
                say("{link!r} refers to itself.", link="#" + link[:40]),
                hint="Export the drawing again.",
            )
        place = inside.place
        x = measures.length(element.get("x"), place.width, 0)
        y = measures.length(element.get("y"), place.height, 0)
        place = replace(place, matrix=after(place.matrix, translation(x, y)))
        inside = replace(inside, place=place, used=(*inside.used, link), depth=inside.depth + 1)
        if local_name(target) == "symbol":
            style = styled(inside.style, self.cascade.of(target), place.diagonal)
            within = self._within(target, style, inside) if style.shown else None
            if within is not None:
                self.children(target, self._viewport(target, element, within))
        else:
            self.element(target, inside)

    def _viewport(self, box: etree._Element, sized: etree._Element, inside: _Inside) -> _Inside:
        """Inside a nested svg or a symbol ``box``, its size given by ``sized``."""
        place = inside.place
        w, h = place.width, place.height
        width = measures.length(sized.get("width"), w, measures.length(box.get("width"), w, w))
        height = measures.length(sized.get("height"), h, measures.length(box.get("height"), h, h))
        if box is sized:
            shift = measures.length(box.get("x"), w, 0), measures.length(box.get("y"), h, 0)
            place = replace(place, matrix=after(place.matrix, translation(*shift)))
        if inside.style.overflow not in ("visible", "auto") and width > 0 and height > 0:
            frame = rectangle(Box(0.0, 0.0, width, height)).transformed(place.matrix)
            place = place.clipped(frame)
        inner, vw, vh = measures.view_transform(box, width, height)
        place = replace(place, matrix=after(place.matrix, inner), width=vw, height=vh)
        return replace(inside, place=place)
