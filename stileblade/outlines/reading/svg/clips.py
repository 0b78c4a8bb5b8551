"""Clip paths: what of something painted they leave."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

import numpy as np
from lxml import etree

from stileblade.geometry.curves.transforms import after, translation
from stileblade.geometry.regions.region import Region
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.cascade import Cascade
from stileblade.outlines.reading.svg.painting import Painter
from stileblade.outlines.reading.svg.place import Place
from stileblade.outlines.reading.svg.style import Style, styled
from stileblade.outlines.reading.svg.text import set_text
from stileblade.outlines.reading.svg.xml import SHAPES, link_of, local_name


class Clips:
    """The clip paths of one drawing, by the elements that have an id."""

    def __init__(
        self, ids: Mapping[str, etree._Element], cascade: Cascade, painter: Painter
    ) -> None:
        self.ids, self.cascade, self.painter = ids, cascade, painter

    def region(self, ref: str, element: etree._Element, place: Place) -> Region | None:
        """The region that a clip path leaves; None where the reference says nothing."""
        target = self.ids.get(ref)
        if target is None or local_name(target) != "clipPath":
            return None
        given = self.cascade.of(target)
        own = styled(Style(), given, place.diagonal)
        matrix = measures.transform(own.transform)
        if matrix is None:
            return None
        inner = replace(place, matrix=after(place.matrix, matrix), clips=())
        if target.get("clipPathUnits") == "objectBoundingBox":
            box = self.painter.box_of(element, place, self.ids)
            if box is None:
                return Region.empty()
            unit = np.array([[box.width, 0, box.left], [0, box.height, box.head]], float)
            inner = replace(inner, matrix=after(inner.matrix, unit))
        parts: list[Region] = []
        for child in target:
            parts += self._part(child, own, inner, 0)
        region = self.painter.united(parts)
        if own.clip and own.clip != ref and region:
            outer = self.region(own.clip, element, place)
            if outer is not None:
                region = self.painter.clipped(region, outer)
        return region

    def _part(self, child: etree._Element, outer: Style, place: Place, depth: int) -> list[Region]:
        name = local_name(child)
        style = styled(outer, self.cascade.of(child), place.diagonal)
        matrix = measures.transform(style.transform)
        if not name or matrix is None or depth > 2 or not style.shown or not style.visible:
            return []
        place = replace(place, matrix=after(place.matrix, matrix))
        if name == "use":
            target = self.ids.get(link_of(child))
            x = measures.length(child.get("x"), place.width, 0)
            y = measures.length(child.get("y"), place.height, 0)
            place = replace(place, matrix=after(place.matrix, translation(x, y)))
            return [] if target is None else self._part(target, style, place, depth + 1)
        found: list[Region] = []
        if name == "text":
            for shape in set_text(child, style, place, self.cascade, self.painter):
                found.append(self.painter.filled(shape.drawing, style.clip_rule, place))
        elif name in SHAPES:
            drawing = self.painter.drawing_of(child, name, place)
            if drawing is not None:
                found.append(self.painter.filled(drawing, style.clip_rule, place))
        if style.clip and found:
            clip = self.region(style.clip, child, place)
            if clip is not None:
                found = [self.painter.clipped(f, clip) for f in found]
        return found
