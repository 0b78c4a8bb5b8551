"""Painting: contours with a style become regions, clipped, in drawing units."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from lxml import etree

from stileblade.errors import GeometryError, ReadingError
from stileblade.geometry.drawing import Drawing
from stileblade.geometry.fill import FillRule, fill
from stileblade.geometry.measurement import bounds
from stileblade.geometry.offset import Join
from stileblade.geometry.pathdata import closed, read_path_to_error
from stileblade.geometry.region import Box, Region
from stileblade.geometry.segments import Floats, Segments, concatenate
from stileblade.geometry.set_operations import intersection
from stileblade.geometry.stroke import Cap, Pen, dot, stroke
from stileblade.geometry.transforms import after, identity, scaling, translation
from stileblade.outlines.reading.found import Shape
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.gradient import Gradient
from stileblade.outlines.reading.svg.style import Style
from stileblade.outlines.reading.svg.xml import link_of, local_name

_JOINS = {"round": Join.ROUND, "bevel": Join.BEVEL}


@dataclass(frozen=True)
class Place:
    """From user units to drawing units, the size of the viewport, and the clips in force."""

    matrix: Floats
    width: float
    height: float
    clips: tuple[Region, ...] = ()

    @property
    def diagonal(self) -> float:
        """What percentages that are neither widths nor heights are parts of."""
        return math.hypot(self.width, self.height) / math.sqrt(2)

    @property
    def scale(self) -> float:
        return math.sqrt(abs(float(np.linalg.det(self.matrix[:, :2]))))

    @property
    def hidden(self) -> bool:
        return any(not clip for clip in self.clips)

    def clipped(self, clip: Region) -> Place:
        return replace(self, clips=(*self.clips, clip))


@dataclass(frozen=True)
class Ink:
    """What is painted with: a colour as #rrggbb, and the gradient whose mean it is."""

    colour: str
    gradient: Gradient | None = None


class Painter:
    """Collects shapes; ``left_out`` counts what could not be painted."""

    def __init__(self, left_out: Counter[str]) -> None:
        self.left_out = left_out
        self.shapes: list[Shape] = []
        self.faces: set[str] = set()
        self.segments = 0

    def drawing_of(self, element: etree._Element, name: str, place: Place) -> Drawing | None:
        """The contours of a path or basic shape, in user units."""
        if name != "path":
            drawing = measures.shape(element, name, place.width, place.height)
        else:
            drawing, error = read_path_to_error(element.get("d", ""))
            if error is not None:
                if error.code == "reading.limits":
                    raise error
                self.left_out[f"rest of a path: {error.message}"] += 1
        if drawing is not None:
            self.count(drawing)
        return drawing

    def count(self, drawing: Drawing) -> None:
        self.segments += sum(len(c) for c in drawing.contours) + sum(len(c) for c in drawing.open)
        if self.segments > LIMITS.segments:
            raise ReadingError(
                f"The drawing has more than {LIMITS.segments:,} segments.",
                hint="Simplify it, or read a part of it.",
            )

    def paint(
        self,
        drawing: Drawing,
        style: Style,
        place: Place,
        fill: Ink | None,
        stroke: Ink | None,
        shape: Shape,
    ) -> None:
        """Fill, then stroke, as far as they are painted and not clipped or faded away."""
        if not style.visible:
            return
        if style.markers:
            self.left_out["markers"] += 1
        if fill and style.fill_alpha > 0:
            region = self.filled(drawing, style.rule, place)
            self._keep(region, place, fill, drawing, shape)
        if stroke and style.stroke_alpha > 0 and style.width > 0:
            self._keep(self.stroked(drawing, style, place), place, stroke, drawing, shape)

    def _keep(self, region: Region, place: Place, ink: Ink, drawing: Drawing, shape: Shape) -> None:
        if ink.gradient is not None and ink.gradient.hidden and region:
            box = Box(*bounds(concatenate([*drawing.contours, *drawing.open])))
            try:
                region = ink.gradient.seen(region, place.matrix, (place.width, place.height), box)
            except GeometryError:
                self.left_out["the fading of a gradient"] += 1
        for clip in place.clips:
            region = self.clipped(region, clip)
        if region:
            self.shapes.append(replace(shape, colour=ink.colour, region=region))

    def filled(self, drawing: Drawing, rule: FillRule, place: Place) -> Region:
        contours = [*drawing.contours, *(closed(c) for c in drawing.open)]
        return self._region([c.transformed(place.matrix) for c in contours], rule)

    def _region(self, contours: list[Segments], rule: FillRule) -> Region:
        try:
            return fill(contours, rule)
        except GeometryError as error:
            self.left_out[f"a shape: {error.message}"] += 1
            return Region.empty()

    def stroked(self, drawing: Drawing, style: Style, place: Place) -> Region:
        """The stroke's outline: made at the drawing's scale, then stretched as it is."""
        s = place.scale
        pen = Pen(
            style.width * (1.0 if style.fixed_stroke else s),
            _JOINS.get(style.join, Join.MITRE),
            Cap(style.cap),
            style.mitre_limit,
            tuple(d * s for d in style.dashes),
            style.phase * s,
        )
        if pen.width < 1e-4:
            self.left_out["strokes thinner than a hair"] += 1
            return Region.empty()
        to_scale, rest = scaling(s, s), place.matrix.copy()
        rest[:, :2] /= s
        parts = [dot(x * s, y * s, pen) for x, y in drawing.dots]
        try:
            for ways, ring in ((drawing.contours, True), (drawing.open, False)):
                parts += [stroke(w.transformed(to_scale), pen, closed=ring) for w in ways]
        except GeometryError as error:
            self.left_out[f"a stroke: {error.message}"] += 1
        return self.united(parts).transformed(rest)

    def united(self, parts: list[Region]) -> Region:
        parts = [p for p in parts if p]
        if len(parts) < 2:
            return parts[0] if parts else Region.empty()
        return self._region([c.segments for p in parts for c in p.contours], "nonzero")

    def clipped(self, region: Region, clip: Region) -> Region:
        box, frame = region.bounds, clip.bounds
        apart = (
            box.left >= frame.right
            or frame.left >= box.right
            or box.head >= frame.foot
            or frame.head >= box.foot
        )
        if not region or not clip or apart:
            return Region.empty()
        try:
            return intersection(region, clip)
        except GeometryError as error:
            self.left_out[f"a clip: {error.message}"] += 1
            return region

    def box_of(
        self, element: etree._Element, place: Place, ids: Mapping[str, etree._Element]
    ) -> Box | None:
        """The box of an element's own fill geometry in its user units."""
        found: list[Segments] = []
        self._collect(element, place, ids, identity(), found, 0)
        if not found:
            return None
        box = Box(*bounds(concatenate(found)))
        return box if box.width > 0 and box.height > 0 else None

    def _collect(
        self,
        element: etree._Element,
        place: Place,
        ids: Mapping[str, etree._Element],
        matrix: Floats,
        found: list[Segments],
        depth: int,
    ) -> None:
        name = local_name(element)
        if depth > 32 or len(found) > 5000:
            return
        if name in ("g", "a", "switch"):
            for child in element:
                own = measures.transform(child.get("transform")) if local_name(child) else None
                if own is not None:
                    inner = after(matrix, own)
                    self._collect(child, place, ids, inner, found, depth + 1)
        elif name == "use":
            target = ids.get(link_of(element))
            if target is not None:
                x = measures.length(element.get("x"), place.width, 0)
                y = measures.length(element.get("y"), place.height, 0)
                own = measures.transform(target.get("transform"))
                inner = after(matrix, translation(x, y))
                if own is not None:
                    inner = after(inner, own)
                self._collect(target, place, ids, inner, found, depth + 1)
        elif name:
            drawing = (
                read_path_to_error(element.get("d", ""))[0]
                if name == "path"
                else measures.shape(element, name, place.width, place.height)
            )
            if drawing is not None:
                found += [c.transformed(matrix) for c in (*drawing.contours, *drawing.open)]
