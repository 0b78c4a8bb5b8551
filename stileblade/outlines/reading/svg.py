"""Filled outlines of an SVG file, in mm.

Read are paths and basic shapes in groups, nested svg, links and ``use``, with transforms,
viewBox, units, fill and display by attribute or style. What is left out is counted and
said. Entities from outside, DTDs and networks are never touched.
"""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from lxml import etree

from stileblade.errors import GeometryError, ReadingError
from stileblade.geometry.fill import FillRule, fill
from stileblade.geometry.pathdata import closed, path_data
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats
from stileblade.geometry.transforms import after, scaling, translation
from stileblade.outlines.reading import svg_geometry as svg
from stileblade.outlines.reading.limits import LIMITS

_SVG = "http://www.w3.org/2000/svg"
_LINK = "{http://www.w3.org/1999/xlink}href"
_SHAPES = ("path", "rect", "circle", "ellipse", "polygon", "polyline")
_GROUPS = ("g", "a", "switch", "svg", "symbol")
_SILENT = ("title", "desc", "metadata", "defs", "style", "linearGradient", "radialGradient",
           "clipPath", "mask", "pattern", "marker", "filter", "script", "namedview")  # fmt: skip
_SAID = {
    "text": "text", "image": "pictures of dots", "foreignObject": "foreign content",
    "line": "lines without area",
}  # fmt: skip
_DEFAULT = (300.0, 150.0)


@dataclass
class Found:
    """Outlines in painting order; remarks on what was left out or doubtful."""

    width: float
    height: float
    outlines: list[Outline] = field(default_factory=list)
    remarks: list[str] = field(default_factory=list)

    def as_data(self) -> dict[str, Any]:
        return {
            "width": self.width,
            "height": self.height,
            "outlines": [o.as_data() for o in self.outlines],
            "remarks": self.remarks,
        }


@dataclass
class Outline:
    """A filled shape: its name in the file, its colour as written, its region in mm."""

    name: str
    colour: str
    region: Region

    def as_data(self) -> dict[str, Any]:
        box = self.region.bounds
        return {
            "name": self.name,
            "path": path_data(self.region, None),
            "picture": path_data(self.region, 3),
            "box": [round(v, 4) for v in box.as_list()],
            "area": round(self.region.area, 4),
            "openings": len(self.region.openings),
            "nodes": self.region.nodes,
        }


@dataclass(frozen=True)
class _Style:
    fill: str = "black"
    rule: FillRule = "nonzero"
    shown: bool = True


def read_svg(content: bytes) -> Found:
    """All filled outlines. ``ReadingError`` says why a file cannot be read."""
    root = _parse(content)
    if etree.QName(root).localname != "svg":
        raise ReadingError(
            f"This is XML, but not SVG: its root is <{etree.QName(root).localname[:40]}>.",
            hint="Export the drawing as SVG.",
        )
    return _Walk(root).run()


def _parse(content: bytes) -> etree._Element:
    if not content.strip():
        raise ReadingError("The file is empty.", hint="Export the drawing again.")
    if len(content) > LIMITS.bytes:
        raise ReadingError(
            f"The file has {len(content) / 1e6:.1f} MB; at most {LIMITS.bytes / 1e6:.0f} MB are read.",
            hint="Leave embedded pictures out, or simplify the drawing.",
        )
    parser = etree.XMLParser(
        resolve_entities="internal",  # type: ignore[arg-type]  # the stubs know only booleans
        no_network=True,
        load_dtd=False,
        huge_tree=False,
        remove_comments=True,
        remove_pis=True,
    )
    try:
        root = etree.fromstring(content, parser)
    except etree.XMLSyntaxError as error:
        text = str(error).split("\n")[0]
        if "entity" in text.lower() or "amplification" in text.lower():
            raise ReadingError(
                f"The file uses entities that are not read ({text[:120]}).",
                hint="Save it without a document type.",
            ) from error
        if "<" not in content[:2000].decode("utf-8", "replace"):
            raise ReadingError(
                "This is not an SVG file: it holds no markup.", hint="Choose a file ending in .svg."
            ) from error
        raise ReadingError(
            f"The file is broken: {text[:160]}", hint="Export the drawing again."
        ) from error
    return root


class _Walk:
    """One pass over the tree, counting what it costs."""

    def __init__(self, root: etree._Element) -> None:
        self.root = root
        self.left_out: Counter[str] = Counter()
        self.elements = self.segments = 0
        self.ids: dict[str, etree._Element] = {}
        for element in root.iter():
            if isinstance(element.tag, str) and element.get("id"):
                self.ids.setdefault(element.get("id", ""), element)
        box = svg.numbers(root.get("viewBox", ""))
        known = box[2:] if len(box) == 4 and min(box[2:]) > 0 else list(_DEFAULT)
        width = svg.length(root.get("width"), known[0], known[0])
        height = svg.length(root.get("height"), known[1], known[1])
        self.width = width if width > 0 else known[0]
        self.height = height if height > 0 else known[1]
        self.found = Found(self.width * svg.PX, self.height * svg.PX)
        if not svg.has_unit(root.get("width")) and not svg.has_unit(root.get("height")):
            self.found.remarks.append(
                "The file gives no unit; it was read with 96 dots to the inch. "
                "Fit the figure to a measure."
            )

    def run(self) -> Found:
        matrix, w, h = svg.view_transform(self.root, self.width, self.height)
        matrix = after(scaling(svg.PX, svg.PX), matrix)
        self.children(self.root, matrix, self.style(self.root, _Style()), w, h, 0, ())
        sheets = sum(1 for _ in self.root.iter(f"{{{_SVG}}}style"))
        if sheets:
            self.left_out["style sheets, so fills may be others than drawn"] = sheets
        for what, count in sorted(self.left_out.items()):
            self.found.remarks.append(f"Left out: {what} ({count}).")
        if not self.found.outlines:
            raise ReadingError(
                "There is no filled outline in the file. " + " ".join(self.found.remarks),
                hint="Give a shape a fill, or turn text and strokes into outlines.",
            )
        return self.found

    def style(self, element: etree._Element, outer: _Style) -> _Style:
        values = {k: element.get(k) for k in ("fill", "fill-rule", "display", "visibility")}
        for part in (element.get("style") or "")[:4000].split(";"):
            name, _, value = part.partition(":")
            if name.strip() in values:
                values[name.strip()] = value.replace("!important", "").strip()
        paint = values["fill"]
        rule = values["fill-rule"]
        shown = outer.shown and values["display"] != "none"
        if values["visibility"] in ("hidden", "collapse"):
            shown = False
        return _Style(
            paint if paint and paint != "inherit" else outer.fill,
            "evenodd" if rule == "evenodd" else "nonzero" if rule == "nonzero" else outer.rule,
            shown,
        )

    def children(
        self,
        element: etree._Element,
        matrix: Floats,
        style: _Style,
        w: float,
        h: float,
        depth: int,
        used: tuple[str, ...],
    ) -> None:
        for child in element:
            if isinstance(child.tag, str):
                self.element(child, matrix, style, w, h, depth + 1, used)

    def element(
        self,
        element: etree._Element,
        matrix: Floats,
        outer: _Style,
        w: float,
        h: float,
        depth: int,
        used: tuple[str, ...],
    ) -> None:
        name = etree.QName(element).localname
        if etree.QName(element).namespace not in (_SVG, None) or name in _SILENT:
            return
        self.elements += 1
        if self.elements > LIMITS.elements:
            raise ReadingError(
                f"The drawing has more than {LIMITS.elements:,} elements.",
                hint="Simplify it, or read a part of it.",
            )
        if depth > LIMITS.depth:
            raise ReadingError(f"The drawing is nested deeper than {LIMITS.depth} levels.")
        style = self.style(element, outer)
        if not style.shown:
            return
        matrix = after(matrix, svg.transform(element.get("transform")))
        if name in _SHAPES:
            self.shape(element, name, matrix, style, w, h)
        elif name == "use":
            self.use(element, matrix, style, w, h, depth, used)
        elif name == "svg":
            width = svg.length(element.get("width"), w, w)
            height = svg.length(element.get("height"), h, h)
            x, y = svg.length(element.get("x"), w, 0), svg.length(element.get("y"), h, 0)
            inner, vw, vh = svg.view_transform(element, width, height)
            matrix = after(after(matrix, translation(x, y)), inner)
            self.children(element, matrix, style, vw, vh, depth, used)
        elif name in _GROUPS:
            if name != "symbol":
                self.children(element, matrix, style, w, h, depth, used)
        else:
            self.left_out[_SAID.get(name, f"<{name[:30]}>")] += 1

    def use(
        self,
        element: etree._Element,
        matrix: Floats,
        style: _Style,
        w: float,
        h: float,
        depth: int,
        used: tuple[str, ...],
    ) -> None:
        link = element.get("href") or element.get(_LINK) or ""
        target = self.ids.get(link[1:]) if link.startswith("#") else None
        if target is None:
            self.left_out["references to other places"] += 1
            return
        if link in used:
            raise ReadingError(f"{link[:40]!r} refers to itself.")
        x, y = svg.length(element.get("x"), w, 0), svg.length(element.get("y"), h, 0)
        matrix = after(matrix, translation(x, y))
        if etree.QName(target).localname == "symbol":
            width = svg.length(element.get("width"), w, w)
            height = svg.length(element.get("height"), h, h)
            inner, vw, vh = svg.view_transform(target, width, height)
            style = self.style(target, style)
            self.children(target, after(matrix, inner), style, vw, vh, depth + 1, (*used, link))
        else:
            self.element(target, matrix, style, w, h, depth + 1, (*used, link))

    def shape(
        self,
        element: etree._Element,
        name: str,
        matrix: Floats,
        style: _Style,
        w: float,
        h: float,
    ) -> None:
        if style.fill in ("none", "transparent"):
            self.left_out["strokes without fill"] += 1
            return
        drawing = svg.shape(element, name, w, h)
        if drawing is None:
            return
        contours = [*drawing.contours, *(closed(c) for c in drawing.open)]
        self.segments += sum(len(c) for c in contours)
        if self.segments > LIMITS.segments:
            raise ReadingError(
                f"The drawing has more than {LIMITS.segments:,} segments.",
                hint="Simplify it, or read a part of it.",
            )
        if abs(float(np.linalg.det(matrix[:, :2]))) < 1e-12:
            return
        mapped = [c.transformed(matrix) for c in contours]
        try:
            region = fill(mapped, style.rule)
        except GeometryError as error:
            raise ReadingError(f"{error.message} (<{name}>)", hint=error.hint) from error
        if region:
            label = element.get("id") or name
            self.found.outlines.append(Outline(label[:60], style.fill[:40], region))
        else:
            self.left_out["shapes without area"] += 1
