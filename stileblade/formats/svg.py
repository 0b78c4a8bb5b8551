"""SVG at true size in mm, a group for each operation, inner cuts before outer."""

from __future__ import annotations

from lxml import etree

from stileblade.formats.format import register_format
from stileblade.formats.lines import Line, rounds_of
from stileblade.formats.options import FileOptions
from stileblade.formats.pens import PENS
from stileblade.formats.plan import Plan
from stileblade.geometry.paths.pathdata import PathPen
from stileblade.geometry.paths.pens import draw_contour
from stileblade.machine.operation import Operation

_NS = "http://www.w3.org/2000/svg"
_DC = "http://purl.org/dc/elements/1.1/"
_COLOURS = {
    Operation.SCORE: "#2d5d7b",
    Operation.PERFORATE: "#7b5d2d",
    Operation.PRICK: "#8a4a63",
    Operation.DRAW: "#2f6b45",
    Operation.CUT_INNER: "#1d2433",
    Operation.CUT_OUTER: "#1d2433",
}


def line_path(line: Line) -> str:
    pen = PathPen(4)
    draw_contour(line.segments, pen, closed=line.closed)
    return pen.text


@register_format(
    "svg", title="SVG", about="true size, a group for each operation", media_type="image/svg+xml"
)
def svg(plan: Plan, options: FileOptions) -> bytes:
    """The plan as an SVG file; coordinates to a ten-thousandth of a mm, arcs as arcs."""
    w, h = f"{plan.width:.4f}", f"{plan.height:.4f}"
    root = etree.Element(
        f"{{{_NS}}}svg",
        {"width": f"{w}mm", "height": f"{h}mm", "viewBox": f"0 0 {w} {h}", "version": "1.1"},
        nsmap={None: _NS, "dc": _DC},  # type: ignore[dict-item]
    )
    etree.SubElement(root, f"{{{_NS}}}title").text = plan.title
    etree.SubElement(root, f"{{{_NS}}}desc").text = plan.about
    metadata = etree.SubElement(root, f"{{{_NS}}}metadata")
    for name, text in (
        ("title", plan.title),
        ("description", plan.about),
        ("creator", "Stileblade"),
        *(("relation", text) for text in plan.findings),
    ):
        etree.SubElement(metadata, f"{{{_DC}}}{name}").text = text
    cut = None
    for operation, round_ in rounds_of(plan.lines):
        parent = root
        if operation.parts:
            if cut is None:
                cut = etree.SubElement(root, f"{{{_NS}}}g", {"id": "cut"})
            parent = cut
        attributes = {
            "id": f"{operation}-{round_ + 1}" if round_ else str(operation),
            "fill": "none",
            "stroke": _COLOURS[operation],
            "stroke-width": "0.2",
        }
        group = etree.SubElement(parent, f"{{{_NS}}}g", attributes)
        for name, lines in plan.groups(operation, round_).items():
            inner = group
            if name:
                inner = etree.SubElement(group, f"{{{_NS}}}g", {"id": f"{attributes['id']}-{name}"})
                colour = PENS.get(name)
                if colour:
                    inner.set("stroke", colour)
            for line in lines:
                etree.SubElement(inner, f"{{{_NS}}}path", {"d": line_path(line)})
    return bytes(etree.tostring(root, xml_declaration=True, encoding="utf-8", pretty_print=True))
