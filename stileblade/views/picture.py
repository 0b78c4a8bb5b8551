"""Pictures of the whole card without a browser, of the model that the browser draws."""

from __future__ import annotations

import io
from enum import StrEnum

import numpy as np
import pypdfium2
from PIL import Image
from reportlab.lib.colors import HexColor
from reportlab.pdfgen.canvas import Canvas

from stileblade.design.evaluation import Evaluation
from stileblade.errors import StilebladeError
from stileblade.folding.space import half_open, sequence
from stileblade.formats.png import one_at_a_time
from stileblade.geometry.curves.transforms import after
from stileblade.geometry.measures.distances import rings_of, thin
from stileblade.views.assembled import look_from, order_of
from stileblade.views.folded import FoldedPicture, ShapeView, folded_picture, layers_on, picture_of
from stileblade.views.places import ring_path

LONGEST = 1600
"""Pixels of the longer side."""
APART = 9.0
"""mm from one layer to the next where they are taken apart."""
_INK = "#33424f"
_FINE = 0.02


class Pose(StrEnum):
    HALF_OPEN = "half-open"
    CLOSED = "closed"
    ASSEMBLED = "assembled"
    APART = "apart"


def whole_picture(evaluation: Evaluation, pose: Pose, *, inside: bool = False) -> FoldedPicture:
    """The card in a pose; assembled, it is laid open and seen from outside, or from ``inside``.
    StilebladeError where there is no paper."""
    base = evaluation.pieces[0]
    work = base.whole
    if work is None or not work.paper:
        raise StilebladeError(
            "There is no paper to be seen yet.",
            hint="Start with a blank or a figure.",
            code="empty",
        )
    if pose is Pose.ASSEMBLED:
        return _assembled(evaluation, inside=inside)
    layers = layers_on(evaluation, base, APART if pose is Pose.APART else 0.0)
    if pose is Pose.CLOSED:
        eye = np.array([0.25, 0.3, 1.0]) / np.linalg.norm([0.25, 0.3, 1.0])
        return picture_of(work, base.paper, sequence(work)[-1], eye=eye, layers=layers)
    if pose is Pose.APART:
        return picture_of(work, base.paper, half_open(work), layers=layers)
    return folded_picture(work, base.paper, layers)


def _assembled(evaluation: Evaluation, *, inside: bool) -> FoldedPicture:
    look = look_from(evaluation, inside=inside)
    shapes, points = [], []
    for piece, matrix, _ in order_of(evaluation, inside=inside):
        there = after(look, matrix)
        assert piece.work is not None
        rings = rings_of(thin(piece.work.paper.transformed(there), _FINE))
        up = float(np.linalg.det(there[:, :2])) > 0
        fill, side = (piece.paper.outside, "outside") if up else (piece.paper.inside, "inside")
        points += [p for ring in rings for p in ring]
        shapes.append(
            ShapeView(path=ring_path(rings, 3), fill=fill, side=side, light=piece.paper.light)
        )
    (left, head), (right, foot) = np.array(points).min(axis=0), np.array(points).max(axis=0)
    box = (float(left), float(head), float(right - left), float(foot - head))
    return FoldedPicture(box=box, shapes=shapes)


def png_of(picture: FoldedPicture, longest: int = LONGEST) -> bytes:
    """A picture on white, so many pixels along its longer side."""
    left, head, width, height = picture.box
    margin = max(width, height) * 0.03
    page = (width + 2 * margin, height + 2 * margin)
    made = io.BytesIO()
    canvas = Canvas(made, pagesize=page)
    canvas.transform(1, 0, 0, -1, margin - left, page[1] - margin + head)
    canvas.setLineWidth(max(page) / 900)
    canvas.setLineJoin(1)
    for shape in picture.shapes:
        path, line = canvas.beginPath(), shape.what == "line"
        for ring in filter(None, shape.path.replace("Z", "").split("M")):
            corners = [corner.split() for corner in ring.split("L")]
            first, *rest = [(float(x), float(y)) for x, y in corners]
            path.moveTo(*first)
            for point in rest:
                path.lineTo(*point)
            if not line:
                path.close()
        canvas.setFillColor(HexColor(shape.fill))
        canvas.setStrokeColor(HexColor(shape.fill if line else _INK))
        canvas.setFillAlpha(1 - shape.light)
        canvas.drawPath(path, stroke=shape.what != "print", fill=not line, fillMode=0)
    canvas.save()
    with one_at_a_time:
        document = pypdfium2.PdfDocument(made.getvalue())
        try:
            image: Image.Image = document[0].render(scale=longest / max(page)).to_pil()
        finally:
            document.close()
    stream = io.BytesIO()
    image.save(stream, "PNG")
    return stream.getvalue()
