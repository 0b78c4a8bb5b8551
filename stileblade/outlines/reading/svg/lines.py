"""The lines of an SVG file as they are seen, whatever paints them: what a machine would run along."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from lxml import etree

from stileblade.geometry.curves.measurement import bounds
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Segments
from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.paths.pathdata import read_path_to_error
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import is_rectangle
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.walk import Inside, Walk
from stileblade.outlines.reading.svg.xml import parse
from stileblade.words import say


@dataclass(frozen=True, eq=False)
class SeenLine:
    """A line in mm, y downwards: what it and the elements around it are called, the outermost first, and the line of
    the file."""

    called: tuple[str, ...]
    segments: Segments
    line: int


@dataclass(frozen=True, eq=False)
class SeenLines:
    """All lines in the order in which they are painted, the page's size in mm, what was left out, in words, and
    errors of the drawing, each with the line of the file, 0 for none."""

    lines: list[SeenLine]
    size: tuple[float, float]
    remarks: list[tuple[str, int]]
    broken: list[tuple[str, int]]


def lines_of(content: bytes) -> SeenLines:
    """All lines that are seen. ``ReadingError`` says why a file cannot be read."""
    return _Seen(parse(content)).read()


class _Seen(Walk):
    most = LIMITS.elements * 5  # a sheet has a line for each dash of a perforation

    def __init__(self, root: etree._Element) -> None:
        super().__init__(root)
        self.lines: list[SeenLine] = []
        self.broken: list[tuple[str, int]] = []
        self.hidden: list[int] = []
        self.clipped: list[int] = []
        self.texts: list[int] = []
        self.to_mm = scaling(self.found.sizes[0].scale, self.found.sizes[0].scale)

    def read(self) -> SeenLines:
        self.all()
        found = self.found
        remarks: list[tuple[str, int]] = []
        if len(found.sizes) > 1:
            remarks.append((say("It says no unit: 96 to the inch are taken."), 0))
        hidden = "1 hidden line is not cut. | {n} hidden lines are not cut."
        clipped = (
            "1 line that a clip path cuts off is not cut: cut it off in the drawing."
            " | {n} lines that clip paths cut off are not cut: cut them off in the drawing."
        )
        for some, text in ((self.hidden, hidden), (self.clipped, clipped)):
            if some:
                remarks.append((say(text, n=len(some)), some[0]))
        if self.texts:
            remarks.append(
                (say("{kind}s are not cut: turn them into outlines.", kind="text"), self.texts[0])
            )
        size = found.width * found.sizes[0].scale, found.height * found.sizes[0].scale
        return SeenLines(
            self.lines, size, [*remarks, *((text, 0) for text in found.remarks)], self.broken
        )

    def shape(self, element: etree._Element, name: str, inside: Inside) -> None:
        if not inside.style.visible:
            self.hidden.append(_line_of(element))
            return
        if name == "path":
            drawing, error = read_path_to_error(element.get("d", ""))
            if error is not None:
                self.broken.append((error.message, _line_of(element)))
        else:
            made = measures.shape(element, name, inside.place.width, inside.place.height)
            if made is None:
                return
            drawing = made
        self.painter.count(drawing)
        for contour in (*drawing.contours, *drawing.open):
            placed = contour.transformed(inside.place.matrix)
            if all(_holds(clip, placed) for clip in inside.place.clips):
                line = placed.transformed(self.to_mm)
                self.lines.append(SeenLine(inside.called, line, _line_of(element)))
            else:
                self.clipped.append(_line_of(element))

    def text(self, element: etree._Element, inside: Inside) -> None:
        self.texts.append(_line_of(element))


def _line_of(element: etree._Element) -> int:
    line = element.sourceline
    return line if isinstance(line, int) else 0


def _holds(clip: Region, line: Segments) -> bool:
    """Whether a clip leaves all of a line; only a rectangle is known to."""
    if not clip or not is_rectangle(clip):
        return False
    box, frame = Box(*bounds(line)), clip.bounds
    low = np.array([frame.left, frame.head]) - 1e-6
    high = np.array([frame.right, frame.foot]) + 1e-6
    return bool(
        (np.array([box.left, box.head]) >= low).all()
        and (np.array([box.right, box.foot]) <= high).all()
    )
