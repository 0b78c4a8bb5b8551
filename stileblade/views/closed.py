"""The closed card seen from its front, over its envelope."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

import numpy as np
from pydantic import BaseModel

from stileblade.card.stock import Paper
from stileblade.checks.check import Subject
from stileblade.checks.envelope import envelope_of, room_of
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.closed import closed_card
from stileblade.folding.flat import Face, fold_flat
from stileblade.geometry.curves.places import Point
from stileblade.geometry.measures import cells as kernel
from stileblade.piece.work import Work
from stileblade.views.drawn import DrawnView, drawn_on
from stileblade.views.folded import Layers, ShapeView, layers_on
from stileblade.views.places import Bounds, box_of, ring_path, shape_path
from stileblade.views.prints import Paint, paints_in
from stileblade.views.said import Said

_FIGURES = 3
"""Decimals of places in mm."""


class LayerView(BaseModel):
    panel: Said
    turned: bool


class ClosedView(BaseModel):
    """The closed card seen from its front: path data, y downwards. reveal: what of the
    back is seen round the front; out: what of the front stands out; with area and reach."""

    box: Bounds
    sheets: list[ShapeView]
    """What lies there, from the back to the front: its outline and colour as they are seen."""
    reveal: str
    out: str
    reveal_area: float
    reveal_by: float
    out_area: float
    out_by: float
    envelope: Bounds | None
    envelope_name: str
    layers: list[LayerView]


def envelope_about(evaluation: Evaluation, piece: PieceOutcome, work: Work) -> Bounds | None:
    """The envelope about the middle of the closed card, in its better orientation."""
    found = room_of(Subject(evaluation, piece))
    if found is None:
        return None
    envelope, room = found
    width, height = (
        (envelope.height, envelope.width) if room.turned else (envelope.width, envelope.height)
    )
    x, y = closed_card(work).box.centre
    return (x - width / 2, y - height / 2, x + width / 2, y + height / 2)


def closed_of(evaluation: Evaluation, piece: PieceOutcome, work: Work) -> ClosedView:
    closed = closed_card(work)
    envelope = envelope_of(evaluation)
    return ClosedView(
        box=box_of(closed.box),
        sheets=_sheets(work, piece.paper, layers_on(evaluation, piece)),
        reveal=shape_path(closed.reveal, _FIGURES),
        out=shape_path(closed.out, _FIGURES),
        reveal_area=closed.reveal_area,
        reveal_by=closed.reveal_by,
        out_area=closed.out_area,
        out_by=closed.out_by,
        envelope=envelope_about(evaluation, piece, work),
        envelope_name=envelope.name if envelope else "",
        layers=[LayerView(panel=la.panel, turned=la.turned) for la in closed.layers],
    )


def _sheets(work: Work, paper: Paper, layers: Layers) -> list[ShapeView]:
    """Faces of the closed card from the back to the front, each with what lies, is printed and drawn on it."""
    folded, found = fold_flat(work), []
    for number in reversed(folded.order):
        face = folded.faces[number]
        outside = not face.turned
        path, colour = (
            shape_path(face.closed_cell, _FIGURES),
            paper.outside if outside else paper.inside,
        )
        own = [_seen(path, colour, outside, light=paper.light)]
        if outside:
            own += _inks(
                paints_in(face.cell, layers.paints), drawn_on(work, face.cell), face, outside
            )
        parts = [(0, own)]
        for sheet in layers.sheets:
            if sheet.face == number:
                colour = sheet.outside if outside else sheet.inside
                shapes = [_seen(_mapped(sheet.rings, face), colour, outside, light=sheet.light)]
                if outside is not sheet.turned:
                    shapes += _inks(sheet.paints, sheet.lines, face, outside)
                parts.append((sheet.rank if outside else -sheet.rank, shapes))
        for _, shapes in sorted(parts, key=lambda part: part[0]):
            found += shapes
    return found


def _inks(
    prints: Iterable[Paint], lines: Iterable[DrawnView], face: Face, outside: bool
) -> list[ShapeView]:
    found = [
        _seen(shape_path(kernel.mapped(cell, face.closed), _FIGURES), colour, outside, what="print")
        for colour, cell in prints
    ]
    return found + [
        _seen(_mapped(drawn.lines, face).replace("Z", ""), drawn.colour, outside, what="line")
        for drawn in lines
    ]


def _seen(
    path: str,
    fill: str,
    outside: bool,
    *,
    light: float = 0.0,
    what: Literal["paper", "print", "line"] = "paper",
) -> ShapeView:
    side = "outside" if outside else "inside"
    return ShapeView(path=path, fill=fill, side=side, light=light, what=what)


def _mapped(lines: list[list[Point]], face: Face) -> str:
    """Closed lines of the flat view as path data where they come to lie."""
    matrix = face.closed
    turned = [np.array(line) @ matrix[:, :2].T + matrix[:, 2] for line in lines]
    return ring_path([[(x, y) for x, y in line.tolist()] for line in turned], _FIGURES)
