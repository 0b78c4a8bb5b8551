"""Text elements as contours, in shipped fonts that stand in for the file's own."""

from __future__ import annotations

from dataclasses import dataclass, replace

from lxml import etree

from stileblade.geometry.curves.segments import transformed_all
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.paths.drawing import Drawing
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.cascade import Cascade
from stileblade.outlines.reading.svg.painting import Painter
from stileblade.outlines.reading.svg.place import Place
from stileblade.outlines.reading.svg.style import Style, styled
from stileblade.outlines.reading.svg.xml import local_name
from stileblade.outlines.text.shipped import KINDS, shipped, stand_in

_SPACE = "{http://www.w3.org/XML/1998/namespace}space"
MOST_LETTERS = 5000


@dataclass
class PaintedText:
    drawing: Drawing
    style: Style


@dataclass
class _Piece:
    """Letters of one style; x and y where they start anew, dx and dy where they move on."""

    text: str
    style: Style
    x: float | None
    y: float | None
    dx: float
    dy: float


def set_text(
    element: etree._Element, style: Style, place: Place, cascade: Cascade, painter: Painter
) -> list[PaintedText]:
    """The contours of a text element by style, in user units."""
    pieces: list[_Piece] = []
    _gather(element, style, place, cascade, painter, pieces)
    _collapse(pieces, keep=element.get(_SPACE) == "preserve")
    found: list[PaintedText] = []
    x = y = 0.0
    for chunk in _chunks(pieces):
        x = chunk[0].x if chunk[0].x is not None else x
        y = chunk[0].y if chunk[0].y is not None else y
        start, made = x, []
        for piece in chunk:
            x, y = x + piece.dx, (y if piece.y is None else piece.y) + piece.dy
            face = stand_in(piece.style.family)
            painter.faces.add(KINDS[face].title)
            line = shipped(face).set_line(piece.text, piece.style.size, spacing=piece.style.spacing)
            if line.missing.strip():
                painter.left_out["letters that no shipped font has"] += len(line.missing.strip())
            made.append((line.contours, x, y, piece.style))
            x += line.advance
        back = {"middle": 0.5, "end": 1.0}.get(chunk[0].style.anchor, 0.0) * (x - start)
        for contours, left, foot, own in made:
            if contours:
                drawing = Drawing()
                move = [translation(left - back, foot)] * len(contours)
                drawing.contours = transformed_all(contours, move)
                found.append(PaintedText(drawing, own))
                painter.count(drawing)
        x -= back
    return found


def _gather(
    element: etree._Element,
    style: Style,
    place: Place,
    cascade: Cascade,
    painter: Painter,
    pieces: list[_Piece],
) -> None:
    def first(name: str, of: float) -> float | None:
        text = (element.get(name) or "").replace(",", " ").split()
        return measures.length(text[0], of, 0.0, em=style.size) if text else None

    start = len(pieces)
    if element.text:
        pieces.append(_Piece(element.text[:MOST_LETTERS], style, None, None, 0.0, 0.0))
    for child in element:
        name = local_name(child)
        if name in ("tspan", "a"):
            inner = styled(style, cascade.of(child), place.diagonal)
            if inner.shown:
                _gather(child, inner, place, cascade, painter, pieces)
        elif name in ("textPath", "tref"):
            painter.left_out[
                "text along a path" if name == "textPath" else "text by reference"
            ] += 1
        if child.tail:
            pieces.append(_Piece(child.tail[:MOST_LETTERS], style, None, None, 0.0, 0.0))
    if len(pieces) > start:
        x, y = first("x", place.width), first("y", place.height)
        one = pieces[start]
        pieces[start] = replace(
            one,
            x=one.x if one.x is not None else x,
            y=one.y if one.y is not None else y,
            dx=one.dx + (first("dx", place.width) or 0.0),
            dy=one.dy + (first("dy", place.height) or 0.0),
        )


def _collapse(pieces: list[_Piece], *, keep: bool) -> None:
    """White space as SVG has it: runs become one blank, none at the start and the end."""
    before = " "
    for i, piece in enumerate(pieces):
        text = piece.text.replace("\t", " ").replace("\n", " ").replace("\r", "")
        if not keep:
            text = " ".join(text.split(" ")) if "  " not in text else _single(text)
            if before.endswith(" "):
                text = text.lstrip(" ")
        before = text or before
        pieces[i] = replace(piece, text=text)
    if pieces and not keep:
        last = max((i for i, p in enumerate(pieces) if p.text.strip()), default=-1)
        if last >= 0:
            pieces[last] = replace(pieces[last], text=pieces[last].text.rstrip(" "))
    # a place given to letters that vanished goes to the next that are there
    for i in range(len(pieces) - 1):
        one, following = pieces[i], pieces[i + 1]
        if not one.text and (one.x is not None or one.y is not None or one.dx or one.dy):
            pieces[i + 1] = replace(
                following,
                x=one.x if following.x is None else following.x,
                y=one.y if following.y is None else following.y,
                dx=one.dx + following.dx,
                dy=one.dy + following.dy,
            )
            pieces[i] = replace(one, x=None, y=None, dx=0.0, dy=0.0)


def _single(text: str) -> str:
    while "  " in text:
        text = text.replace("  ", " ")
    return text


def _chunks(pieces: list[_Piece]) -> list[list[_Piece]]:
    """Pieces that are aligned together: a new place on the line begins anew."""
    found: list[list[_Piece]] = []
    for piece in pieces:
        if not piece.text:
            continue
        if not found or piece.x is not None:
            found.append([])
        found[-1].append(piece)
    return found
