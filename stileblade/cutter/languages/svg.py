"""SVG: its lines in the order in which they are drawn, by the ids of their groups."""

from __future__ import annotations

import numpy as np
from lxml import etree

from stileblade.cutter.languages.named import add_line, operation_named
from stileblade.cutter.sent import Sent, register_language
from stileblade.errors import ReadingError
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, scaling, translation
from stileblade.geometry.paths.pathdata import read_path_to_error
from stileblade.machine.machine import Machine
from stileblade.machine.operation import Operation
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.xml import SHAPES, link_of, local_name, parse
from stileblade.words import say

_GROUPS = ("svg", "g", "a", "switch", "symbol")


def _is_svg(head: bytes) -> bool:
    return head[:2] == b"\x1f\x8b" or b"<" in head[:200]


class _Drawing:
    def __init__(self, content: bytes, machine: Machine) -> None:
        self.root, self.machine = parse(content), machine
        self.ids = {e.get("id", ""): e for e in self.root.iter() if e.get("id")}
        width = measures.length(self.root.get("width"), 300.0, 300.0)
        height = measures.length(self.root.get("height"), 150.0, 150.0)
        box = measures.numbers(self.root.get("viewBox", ""))
        if len(box) == 4 and self.root.get("width") is None:
            width, height = box[2], box[3]
        unit = any(measures.has_unit(self.root.get(side)) for side in ("width", "height"))
        view, _, _ = measures.view_transform(self.root, width, height)
        # px to mm; y upwards from the page's foot
        turned = np.array([[1.0, 0, 0], [0, -1.0, height]])
        self.matrix = after(scaling(measures.PX, measures.PX), after(turned, view))
        self.sent = Sent("svg", size=(width * measures.PX, height * measures.PX))
        if not unit:
            self.sent.left_out.append("It says no unit: 96 to the inch are taken.")
        self.elements = 0

    def walk(
        self,
        element: etree._Element,
        matrix: Floats,
        operation: Operation | None,
        name: str,
        depth: int,
    ) -> None:
        self.elements += 1
        if self.elements > LIMITS.elements * 5 or depth > LIMITS.depth:
            raise ReadingError(
                "The drawing has too many elements, or is nested too deeply.",
                hint="Simplify it, or send a part of it.",
            )
        kind = local_name(element)
        own = measures.transform(element.get("transform")) if kind else None
        hidden = element.get("display") == "none" or "display:none" in (element.get("style") or "")
        if own is None or hidden:
            return
        found = operation_named(element.get("id") or "")
        if found:
            operation, name = found[0], element.get("id") or ""
        inner = after(matrix, own)
        if kind in _GROUPS:
            for child in element:
                self.walk(child, inner, operation, name, depth + 1)
        elif kind == "use":
            target = self.ids.get(link_of(element))
            if target is not None:
                x = measures.length(element.get("x"), 0, 0)
                y = measures.length(element.get("y"), 0, 0)
                self.walk(target, after(inner, translation(x, y)), operation, name, depth + 1)
        elif kind in SHAPES:
            self.lines(element, kind, inner, operation, name)
        elif kind in ("text", "image"):
            word = say("{kind}s are not cut: turn them into outlines.", kind=kind)
            if word not in self.sent.left_out:
                self.sent.left_out.append(word)

    def lines(
        self,
        element: etree._Element,
        kind: str,
        matrix: Floats,
        operation: Operation | None,
        name: str,
    ) -> None:
        if kind == "path":
            drawing, error = read_path_to_error(element.get("d", ""))
            if error is not None:
                self.sent.refuse(say("A path is broken: {message}", message=error.message))
        else:
            made = measures.shape(element, kind, 0.0, 0.0)
            if made is None:
                return
            drawing = made
        for contour in (*drawing.contours, *drawing.open):
            add_line(self.sent, contour.transformed(matrix), operation, self.machine, name)


@register_language("svg", title="SVG", sniffs=_is_svg)
def read_svg(content: bytes, machine: Machine) -> Sent:
    """The lines of a drawing, all of them: a group "score", "perforate", "prick", "draw", "cut-inner" or
    "cut-outer" says what is done with its own; others are cut."""
    drawing = _Drawing(content, machine)
    drawing.walk(drawing.root, drawing.matrix, None, "", 0)
    return drawing.sent
