"""Painting: contours with a style become regions, clipped, in drawing units."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from itertools import chain, islice
from typing import TypeVar

import numpy as np
from lxml import etree

from stileblade.errors import GeometryError, ReadingError
from stileblade.geometry.curves.measurement import bounds
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Segments, concatenate, transformed_all
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.offset.offset import Join
from stileblade.geometry.offset.stroke import Cap, Pen, Stroked, stroke_all
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.paths.pathdata import closed, read_path_to_error
from stileblade.geometry.regions.figures import figures_of
from stileblade.geometry.regions.fill import FillRule, Painted, fill_all
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import intersection, is_rectangle
from stileblade.outlines.reading.found import OpenContour, Shape
from stileblade.outlines.reading.joining import join
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.reading.shade import mixed
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.extent import collect
from stileblade.outlines.reading.svg.pending import Ink, Pending, to_scale
from stileblade.outlines.reading.svg.place import Place
from stileblade.outlines.reading.svg.style import Style
from stileblade.words import say

Job = TypeVar("Job")
_JOINS = {"round": Join.ROUND, "bevel": Join.BEVEL}


class Painter:
    """Collects what is painted and makes shapes of all of it together, which costs far less than
    one by one; ``left_out`` counts what could not be painted."""

    def __init__(self, left_out: Counter[str]) -> None:
        self.left_out = left_out
        self.open: list[OpenContour] = []
        self.faces: set[str] = set()
        self.fading = 0
        """How many shapes are painted by a gradient that fades out."""
        self.segments = 0
        self._pending: list[Pending] = []

    def drawing_of(self, element: etree._Element, name: str, place: Place) -> Drawing | None:
        """The contours of a path or basic shape, in user units."""
        if name != "path":
            drawing = measures.shape(element, name, place.width, place.height)
        else:
            drawing, error = read_path_to_error(element.get("d", ""))
            if error is not None:
                if error.code == "reading.limits":
                    raise error
                self.left_out[say("rest of a path: {message}", message=error.message)] += 1
        if drawing is not None:
            self.count(drawing)
        return drawing

    def count(self, drawing: Drawing) -> None:
        self.segments += sum(len(c) for c in drawing.contours) + sum(len(c) for c in drawing.open)
        if self.segments > LIMITS.segments:
            raise ReadingError(
                say("The drawing has more than {segments:,} segments.", segments=LIMITS.segments),
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
        family: str,
    ) -> None:
        """Fill, then stroke, as far as they are painted and not clipped or faded away.

        ``family`` names the outermost group that the shape is in.
        """
        if not style.visible:
            return
        if style.markers:
            self.left_out["markers"] += 1
        if fill and style.fill_alpha > 0:
            of_fill = style.rule, None, place.matrix, None
            shown = fill.on(shape, style.alpha * style.fill_alpha)
            self._pending.append(Pending(*of_fill, place, fill, drawing, shown, family, False))
        if stroke and style.stroke_alpha > 0 and style.width > 0:
            pen = self._pen(style, place)
            if pen is not None:
                alone = not (fill and style.fill_alpha > 0)
                of_pen = style.rule, pen, *to_scale(place, drawing)
                shown = stroke.on(shape, style.alpha * style.stroke_alpha)
                self._pending.append(Pending(*of_pen, place, stroke, drawing, shown, family, alone))

    def widths(self) -> list[float]:
        """Of all strokes, in drawing units."""
        return [p.pen.width for p in self._pending if p.pen]

    @property
    def only_lines(self) -> float | None:
        """Width in drawing units of the widest stroke, where nothing is filled; None otherwise."""
        widths = [p.pen.width for p in self._pending if p.pen and p.alone]
        return max(widths) if widths and len(widths) == len(self._pending) else None

    def contours(self, loose_ends: float) -> list[Shape]:
        """Figures that lines without fill enclose, in place of what they paint: ways of one named
        group, or of one colour, are joined and sorted into figures with openings."""
        families: dict[str, list[Pending]] = {}
        for pending in self._pending:
            key = pending.shape.group or pending.family or pending.ink.colour
            families.setdefault(key, []).append(pending)
        found = []
        for members in families.values():
            closed_ways: list[Segments] = []
            open_ways: list[Segments] = []
            for p in members:
                closed_ways += [c.transformed(p.place.matrix) for c in p.drawing.contours]
                open_ways += [c.transformed(p.place.matrix) for c in p.drawing.open]
            joined = join(open_ways, loose_ends)
            for way in joined.open:
                gap = float(np.hypot(*(way.end[-1] - way.start[0])))
                points = np.concatenate([way.start, way.end[-1:]])
                self.open.append(OpenContour(points, gap))
            last = members[-1]
            colour, shape = last.ink.colour, last.shape
            try:
                figures = figures_of(closed_ways + joined.closed)
            except GeometryError as error:
                self.left_out[say("contours: {message}", message=error.message)] += 1
                continue
            found += [replace(shape, colour=colour, region=region) for region in figures]
        return found

    def shapes(self) -> list[Shape]:
        """All that was painted, in order, in the colours that are seen, unless clipped or faded away."""
        regions: list[Region] = [Region.empty()] * len(self._pending)
        jobs = list(enumerate(self._jobs(self._pending)))
        fills = [(i, job) for i, job in jobs if isinstance(job, Painted)]
        strokes = [(i, job) for i, job in jobs if isinstance(job, Stroked)]
        made = self._by_halves(fill_all, [job for _, job in fills], "a shape")
        made += self._by_halves(stroke_all, [job for _, job in strokes], "a stroke")
        for (i, _), region in zip([*fills, *strokes], made, strict=True):
            regions[i] = region
        found = []
        for pending, region in zip(self._pending, regions, strict=True):
            if region and pending.back is not None:
                region = region.transformed(pending.back)
            region = self._seen(region, pending)
            if region:
                found.append(replace(pending.shape, colour=pending.ink.colour, region=region))
        return mixed(found)

    @staticmethod
    def _jobs(pending: Sequence[Pending]) -> list[Painted | Stroked]:
        ways = [p.ways() for p in pending]
        matrices = [p.matrix for p, own in zip(pending, ways, strict=True) for _ in own]
        mapped = iter(transformed_all(list(chain.from_iterable(ways)), matrices))
        counts = map(len, ways)
        return [p.job(list(islice(mapped, n))) for p, n in zip(pending, counts, strict=True)]

    def _by_halves(
        self, make: Callable[[Sequence[Job]], list[Region]], jobs: Sequence[Job], what: str
    ) -> list[Region]:
        """All jobs together; where that fails, in halves, until it is known which one is bad."""
        try:
            return make(jobs)
        except GeometryError as error:
            if len(jobs) == 1:
                self.left_out[f"{what}: {error.message}"] += 1
                return [Region.empty()]
        half = len(jobs) // 2
        first = self._by_halves(make, jobs[:half], what)
        return first + self._by_halves(make, jobs[half:], what)

    def _seen(self, region: Region, pending: Pending) -> Region:
        """What fading and clips leave of a region."""
        gradient, place = pending.ink.gradient, pending.place
        if gradient is not None and gradient.hidden and region:
            self.fading += 1
            ways = [*pending.drawing.contours, *pending.drawing.open]
            box = Box(*bounds(concatenate(ways)))
            try:
                region = gradient.seen(region, place.matrix, (place.width, place.height), box)
            except GeometryError:
                self.left_out["the fading of a gradient"] += 1
        for clip in place.clips:
            region = self.clipped(region, clip)
        return region

    def filled(self, drawing: Drawing, rule: FillRule, place: Place) -> Region:
        """The region of one fill at once, for clips."""
        contours = [*drawing.contours, *map(closed, drawing.open)]
        painted = Painted([c.transformed(place.matrix) for c in contours], rule)
        return self._by_halves(fill_all, [painted], "a shape")[0]

    def _pen(self, style: Style, place: Place) -> Pen | None:
        s = place.scale
        width = style.width * (1.0 if style.fixed_stroke else s)
        if width < 1e-4:
            self.left_out["strokes thinner than a hair"] += 1
            return None
        dashes = tuple(d * s for d in style.dashes)
        join = _JOINS.get(style.join, Join.MITRE)
        return Pen(width, join, Cap(style.cap), style.mitre_limit, dashes, style.phase * s)

    def united(self, parts: list[Region]) -> Region:
        parts = [p for p in parts if p]
        if len(parts) < 2:
            return parts[0] if parts else Region.empty()
        together = Painted([c.segments for p in parts for c in p.contours])
        return self._by_halves(fill_all, [together], "a clip")[0]

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
        if is_rectangle(clip) and (
            frame.left <= box.left
            and frame.head <= box.head
            and frame.right >= box.right
            and frame.foot >= box.foot
        ):
            return region
        try:
            return intersection(region, clip)
        except GeometryError as error:
            self.left_out[say("a clip: {message}", message=error.message)] += 1
            return region

    def box_of(
        self, element: etree._Element, place: Place, ids: Mapping[str, etree._Element]
    ) -> Box | None:
        """The box of an element's own fill geometry in its user units."""
        found: list[Segments] = []
        collect(element, place, ids, identity(), found, 0)
        if not found:
            return None
        box = Box(*bounds(concatenate(found)))
        return box if box.width > 0 and box.height > 0 else None
