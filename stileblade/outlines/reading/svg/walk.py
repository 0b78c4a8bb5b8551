"""What is seen in an SVG file, in the order in which it is painted.

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
from stileblade.geometry.regions.set_operations import rectangle
from stileblade.outlines.reading.found import Found, SizeReading
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.cascade import Cascade
from stileblade.outlines.reading.svg.clips import Clips
from stileblade.outlines.reading.svg.painting import Painter
from stileblade.outlines.reading.svg.place import Place
from stileblade.outlines.reading.svg.style import Style, styled
from stileblade.outlines.reading.svg.xml import (
    SHAPES,
    link_of,
    local_name,
    name_of,
    own_attribute,
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


@dataclass(frozen=True)
class Inside:
    """What holds at a place of the tree."""

    style: Style
    place: Place
    depth: int = 0
    used: tuple[str, ...] = ()
    group: str = ""
    family: str = ""
    named: str = ""
    """The id of the innermost group that has one."""
    called: tuple[str, ...] = ()
    """Ids and labels of all elements around, and its own, the outermost first."""


class Walk:
    """One pass over the tree, counting what it costs. Whoever reads a drawing says what is done with what is seen in
    it: ``shape`` with an outline, ``text`` with words."""

    most = LIMITS.elements
    """Elements that are read."""

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

    def all(self) -> None:
        """Everything that is seen, in the order in which it is painted."""
        matrix, w, h = measures.view_transform(self.root, *self.page)
        matrix = after(scaling(self.working, self.working), matrix)
        place = Place(matrix, w, h)
        style = styled(Style(), self.cascade.of(self.root), place.diagonal)
        if style.shown:
            self.children(self.root, Inside(style, place))
        self.found.left_out.update(self.cascade.trouble)

    def shape(self, element: etree._Element, name: str, inside: Inside) -> None:
        """An outline that is seen there, such as a path or a circle."""
        raise NotImplementedError

    def text(self, element: etree._Element, inside: Inside) -> None:
        """Words that are seen there."""
        raise NotImplementedError

    def children(self, element: etree._Element, inside: Inside) -> None:
        for child in element:
            self.element(child, inside)

    def element(self, element: etree._Element, outer: Inside) -> None:
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
            self.shape(element, name, inside)
        elif name == "text":
            self.text(element, inside)
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

    def _count(self, inside: Inside) -> None:
        self.elements += 1
        if self.elements > self.most:
            raise ReadingError(
                say("The drawing has more than {elements:,} elements.", elements=self.most),
                hint="Simplify it, or read a part of it.",
            )
        if inside.depth > LIMITS.depth:
            raise ReadingError(
                say("The drawing is nested deeper than {depth} levels.", depth=LIMITS.depth),
                hint="Ungroup it, and export it again.",
            )

    def _within(self, element: etree._Element, style: Style, outer: Inside) -> Inside | None:
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
        called = (own_attribute(element, "label"), element.get("id"))
        every = (*outer.called, *(name[:60] for name in called if name))
        return Inside(style, place, outer.depth + 1, outer.used, group, family, named, every)

    def _use(self, element: etree._Element, inside: Inside) -> None:
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

    def _viewport(self, box: etree._Element, sized: etree._Element, inside: Inside) -> Inside:
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
