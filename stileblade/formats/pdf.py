"""PDF at 1:1: the piece on a page that a printer has, lines told apart by dash and weight, with words,
a key to the lines and a rule to check by; over several pages where it is larger."""

from __future__ import annotations

import io
from functools import lru_cache

import pikepdf
from fontTools.ttLib import TTFont as Source
from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from stileblade.formats.format import register_format
from stileblade.formats.options import FileOptions
from stileblade.formats.pages import MARGIN, OVERLAP, RULE, Sheet, pages_of
from stileblade.formats.pens import PENS
from stileblade.formats.plan import INSIDE, VALLEY, Plan
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.paths.pens import Arc, draw_contour
from stileblade.machine.operation import Operation
from stileblade.outlines.text.shipped import FOLDER

FONT = "words"
SMALL = 7.5
"""Points: the size of all words."""
_LOOK: dict[Operation, tuple[float, float, list[float]]] = {
    # width in mm, grey, dashes in mm
    Operation.SCORE: (0.2, 0.35, [3, 1.2]),
    Operation.PERFORATE: (0.3, 0.0, []),
    Operation.PRICK: (0.2, 0.0, []),
    Operation.DRAW: (0.15, 0.35, []),
    Operation.CUT_INNER: (0.25, 0.0, []),
    Operation.CUT_OUTER: (0.35, 0.0, []),
}
_DASHES = {VALLEY: [0.8, 1.0], INSIDE: [0.8, 1.0]}
_KEY = {
    Operation.SCORE: "score",
    Operation.PERFORATE: "perforate",
    Operation.PRICK: "prick",
    Operation.DRAW: "draw",
    Operation.CUT_INNER: "cut first",
    Operation.CUT_OUTER: "cut last",
}
_GROUPS = {
    "mountain": "score, mountain",
    "valley": "score, valley",
    "inside": "score from the inside",
    "line": "score, not folded",
    "ticks": "ticks",
    "register": "register holes",
}


class _PdfPen:
    """y upwards from the page's foot; mirrored about ``axis`` where that is given."""

    def __init__(self, path: PDFPathObject, sheet: Sheet, axis: float | None) -> None:
        self.path, self.sheet, self.axis = path, sheet, axis

    def at(self, p: Floats) -> tuple[float, float]:
        x, y = self.sheet.left + float(p[0]), self.sheet.head - float(p[1])
        return (x if self.axis is None else 2 * self.axis - x) * mm, y * mm

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


@register_format(
    "pdf", title="PDF", about="at 1:1 on A4 or letter, with a rule to check by",
    media_type="application/pdf",
)  # fmt: skip
def pdf(plan: Plan, options: FileOptions) -> bytes:
    """The plan as a PDF; with the inside on further pages where that is wished for."""
    stream = io.BytesIO()
    sheets = pages_of(plan, options)
    width, height = sheets[0].size
    canvas = Canvas(stream, pagesize=(width * mm, height * mm), invariant=1)
    canvas.setTitle(plan.title)
    canvas.setSubject(plan.about)
    canvas.setKeywords(" ".join(plan.findings))
    canvas.setCreator("Stileblade")
    canvas.setViewerPreference("PrintScaling", "None")
    for sheet in sheets:
        _page(canvas, plan, sheet, options, inside=False)
        if options.both_sides:
            _page(canvas, plan, sheet, options, inside=True)
    canvas.save()
    return _without_font(stream.getvalue())


def _page(canvas: Canvas, plan: Plan, sheet: Sheet, options: FileOptions, *, inside: bool) -> None:
    width, height = sheet.size
    canvas.setPageSize((width * mm, height * mm))
    canvas.saveState()
    if sheet.label:
        clip = canvas.beginPath()
        clip.rect(*(v * mm for v in sheet.window))
        canvas.clipPath(clip, stroke=0, fill=0)
    axis = width / 2 if inside else None
    for operation in Operation:
        for group, lines in plan.groups(operation).items():
            _look(canvas, operation, group)
            for line in lines:
                path = canvas.beginPath()
                draw_contour(line.segments, _PdfPen(path, sheet, axis), closed=line.closed)
                canvas.drawPath(path)
    canvas.restoreState()
    if sheet.label:
        _marks(canvas, sheet)
    if options.words:
        _words(canvas, plan, sheet, inside=inside)
    _check_rule(canvas, figure=options.words)
    canvas.showPage()


def _look(canvas: Canvas, operation: Operation, group: str) -> None:
    line_width, grey, dashes = _LOOK[operation]
    canvas.setLineWidth(line_width * mm)
    if group in PENS:
        canvas.setStrokeColor(HexColor(PENS[group]))
    else:
        canvas.setStrokeGray(grey)
    canvas.setDash([d * mm for d in _DASHES.get(group, dashes)])


def _marks(canvas: Canvas, sheet: Sheet) -> None:
    """Crosses where this page and its neighbours come to lie on each other: in the middle of the
    overlap at each corner of the window."""
    left, foot, width, height = sheet.window
    half, arm = OVERLAP / 2, 3.0
    canvas.setDash([])
    canvas.setStrokeGray(0.55)
    canvas.setLineWidth(0.1 * mm)
    for x in (left + half, left + width - half):
        for y in (foot + half, foot + height - half):
            canvas.line((x - arm) * mm, y * mm, (x + arm) * mm, y * mm)
            canvas.line(x * mm, (y - arm) * mm, x * mm, (y + arm) * mm)


def _words(canvas: Canvas, plan: Plan, sheet: Sheet, *, inside: bool) -> None:
    """Two lines of words, and the key to the lines."""
    _load_font()
    canvas.setFont(FONT, SMALL)
    canvas.setFillGray(0.2)
    width = sheet.size[0] - 2 * MARGIN
    side = "seen from the inside" if inside or plan.inside else "seen from the outside"
    first = ", ".join(filter(None, (plan.design, plan.piece, side, sheet.label)))
    size = f"{plan.width:.1f} x {plan.height:.1f} mm"
    second = ", ".join(filter(None, (plan.date, plan.paper, size)))
    canvas.drawString(MARGIN * mm, 23 * mm, _fitting(first, width))
    canvas.drawString(MARGIN * mm, 19 * mm, _fitting(second, width))
    x = MARGIN
    for operation in Operation:
        for group in plan.groups(operation):
            word = _GROUPS.get(group, _KEY[operation])
            if group in PENS:
                word = f"pen {group[4:]}"
            wide = 12 + pdfmetrics.stringWidth(word, FONT, SMALL) / mm + 4
            if x + wide > MARGIN + width:
                return
            _look(canvas, operation, group)
            canvas.line(x * mm, 13 * mm, (x + 10) * mm, 13 * mm)
            canvas.drawString((x + 11.5) * mm, 12.2 * mm, word)
            x += wide


def _fitting(text: str, width: float) -> str:
    """A text cut short where it is wider than so many mm."""
    while text and pdfmetrics.stringWidth(text, FONT, SMALL) / mm > width:
        text = text[:-2].rstrip() + "…" if len(text) > 2 else ""
    return text


@lru_cache(maxsize=1)
def _load_font() -> None:
    """A shipped font, unpacked as a PDF takes it."""
    source, unpacked = Source(FOLDER / "nunito.woff2", recalcTimestamp=False), io.BytesIO()
    source.flavor = None
    source.save(unpacked)
    unpacked.seek(0)
    pdfmetrics.registerFont(TTFont(FONT, unpacked))


def _without_font(content: bytes) -> bytes:
    """A font that the canvas lists and no page uses, not embedded, is taken out."""
    stream = io.BytesIO()
    with pikepdf.open(io.BytesIO(content)) as document:
        for page in document.pages:
            fonts = page.Resources.get("/Font")
            if fonts is not None:
                embedded = {n: f for n, f in fonts.items() if f.Subtype == "/TrueType"}
                if embedded:
                    page.Resources.Font = pikepdf.Dictionary(embedded)
                else:
                    del page.Resources["/Font"]
            page.contents_coalesce()
        document.save(stream, deterministic_id=True)
    return stream.getvalue()


def _check_rule(canvas: Canvas, *, figure: bool) -> None:
    """A rule of 50 mm, to see whether a printer kept the size; its figure only where there are words."""
    canvas.setDash([])
    canvas.setStrokeGray(0.45)
    canvas.setLineWidth(0.15 * mm)
    y = 6 * mm
    canvas.line(MARGIN * mm, y, (MARGIN + RULE) * mm, y)
    for i in range(int(RULE / 10) + 1):
        x = (MARGIN + 10 * i) * mm
        tall = 3.0 if i in (0, RULE / 10) else 1.5
        canvas.line(x, y - tall / 2 * mm, x, y + tall / 2 * mm)
    if figure:
        canvas.drawString(
            (MARGIN + RULE + 2) * mm, 5 * mm, f"{RULE:g} mm: measure it after printing"
        )
