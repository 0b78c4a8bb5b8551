"""PDF at 1:1: the piece with a margin, lines told apart by dash and weight, a check rule."""

from __future__ import annotations

import io

import pikepdf
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from stileblade.formats.format import register_format
from stileblade.formats.plan import Operation, Plan
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.paths.pens import Arc, draw_contour

MARGIN = 10.0
"""White round the piece, in mm; the foot has room for the check rule as well."""
FOOT = 18.0
RULE = 50.0
_LOOK: dict[Operation, tuple[float, float, list[float]]] = {
    # width in mm, grey, dashes in mm
    Operation.SCORE: (0.2, 0.35, [3, 1.2]),
    Operation.PERFORATE: (0.3, 0.0, []),
    Operation.DRAW: (0.15, 0.35, []),
    Operation.CUT_INNER: (0.25, 0.0, []),
    Operation.CUT_OUTER: (0.35, 0.0, []),
}


class _PdfPen:
    def __init__(self, path: PDFPathObject, height: float) -> None:
        self.path, self.height = path, height

    def at(self, p: Floats) -> tuple[float, float]:
        return (MARGIN + float(p[0])) * mm, (FOOT + self.height - float(p[1])) * mm

    def move_to(self, point: Floats) -> None:
        self.path.moveTo(*self.at(point))
        self.last = point

    def lines_to(self, points: Floats) -> None:
        for p in points:
            self.path.lineTo(*self.at(p))
        self.last = points[-1]

    def quads_to(self, points: Floats) -> None:
        for c, p in points:
            a, b = self.last + (c - self.last) * 2 / 3, p + (c - p) * 2 / 3
            self.path.curveTo(*self.at(a), *self.at(b), *self.at(p))
            self.last = p

    def cubics_to(self, points: Floats) -> None:
        for a, b, p in points:
            self.path.curveTo(*self.at(a), *self.at(b), *self.at(p))
            self.last = p

    def arc_to(self, arc: Arc) -> None:
        self.cubics_to(arc.cubics())

    def close(self) -> None:
        self.path.close()


def page_size(plan: Plan) -> tuple[float, float]:
    """Width and height of the page in mm."""
    return max(plan.width, RULE) + 2 * MARGIN, plan.height + MARGIN + FOOT


@register_format(
    "pdf", title="PDF", about="at 1:1, with a rule to check by", media_type="application/pdf"
)
def pdf(plan: Plan) -> bytes:
    """The plan as a one-page PDF; the page is as large as the piece with its margins."""
    width, height = page_size(plan)
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=(width * mm, height * mm), invariant=1)
    canvas.setTitle(plan.title)
    canvas.setSubject(plan.about)
    canvas.setCreator("Stileblade")
    canvas.setViewerPreference("PrintScaling", "None")
    for operation in Operation:
        line_width, grey, dashes = _LOOK[operation]
        canvas.setLineWidth(line_width * mm)
        canvas.setStrokeGray(grey)
        canvas.setDash([d * mm for d in dashes])
        for line in plan.lines[operation]:
            path = canvas.beginPath()
            draw_contour(line.segments, _PdfPen(path, plan.height), closed=line.closed)
            canvas.drawPath(path)
    _check_rule(canvas)
    canvas.save()
    return _without_font(stream.getvalue())


def _without_font(content: bytes) -> bytes:
    """The page shows no text: the font that the canvas lists, not embedded, is taken out."""
    stream = io.BytesIO()
    with pikepdf.open(io.BytesIO(content)) as document:
        for page in document.pages:
            if "/Font" in page.Resources:
                del page.Resources["/Font"]
            page.contents_coalesce()
        document.save(stream, deterministic_id=True)
    return stream.getvalue()


def _check_rule(canvas: Canvas) -> None:
    """A rule of 50 mm, to see whether a printer kept the size; drawn, so no font is needed."""
    canvas.setDash([])
    canvas.setStrokeGray(0.45)
    canvas.setLineWidth(0.15 * mm)
    y = 6 * mm
    canvas.line(MARGIN * mm, y, (MARGIN + RULE) * mm, y)
    for i in range(int(RULE / 10) + 1):
        x = (MARGIN + 10 * i) * mm
        tall = 3.0 if i in (0, RULE / 10) else 1.5
        canvas.line(x, y - tall / 2 * mm, x, y + tall / 2 * mm)
