"""The card laid open with all that lies on it, from outside and from inside: exact outlines, flat."""

from __future__ import annotations

import numpy as np
from pydantic import BaseModel

from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.geometry.curves.places import Box, around
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, identity, mirror_across
from stileblade.piece.lying import Facing
from stileblade.views.guides import Guide, guides_of
from stileblade.views.places import NO_BOUNDS, Bounds, box_of, placed_path


class MovesView(BaseModel):
    """The values of a step that move a layer, as they stand, and how far one mm of each moves it in the
    picture, to the right and down."""

    step: str
    across: str
    down: str
    dx: float
    dy: float
    x: tuple[float, float]
    y: tuple[float, float]


class AssembledSheet(BaseModel):
    """A piece of paper as it is seen from its side: path data, its colour and how much light goes through."""

    piece: str
    name: str
    path: str
    box: Bounds
    fill: str
    light: float
    height: float
    moves: MovesView | None


class SideView(BaseModel):
    """From the base upwards to the viewer."""

    box: Bounds
    sheets: list[AssembledSheet]
    guides: list[Guide]
    """Lines of the base worth snapping to, as they are seen."""


class AssembledView(BaseModel):
    outside: SideView
    inside: SideView


def assembled_of(evaluation: Evaluation) -> AssembledView | None:
    """None while there is no base, or nothing lies on it."""
    stack = evaluation.stack
    if stack is None or not stack.layers:
        return None
    return AssembledView(outside=_side(evaluation, False), inside=_side(evaluation, True))


def look_from(evaluation: Evaluation, *, inside: bool) -> Floats:
    """From the base's flat view to how the open card is seen."""
    work = evaluation.pieces[0].whole
    if work is None or not inside:
        return identity()
    return mirror_across(axis="x", at=work.paper.bounds.centre[0])


def order_of(evaluation: Evaluation, *, inside: bool) -> list[tuple[PieceOutcome, Floats, float]]:
    """The pieces of the open card from the farthest to the nearest, hidden ones left out: each with the map
    to the base's flat view, and its height above the base's paper towards the viewer."""
    stack = evaluation.stack
    if stack is None:
        return []
    made = {p.piece.id: p for p in evaluation.pieces}
    behind = [la for la in reversed(stack.layers) if la.inside != inside]
    before = [la for la in stack.layers if la.inside == inside]
    found = [(made[la.key], la.matrix, -la.high) for la in behind]
    found.append((made[stack.base.key], identity(), 0.0))
    found += [(made[la.key], la.matrix, la.high) for la in before]
    return [f for f in found if f[0].work is not None and not f[0].piece.hidden]


def _side(evaluation: Evaluation, inside: bool) -> SideView:
    look = look_from(evaluation, inside=inside)
    sheets: list[AssembledSheet] = []
    boxes: list[Box] = []
    for piece, matrix, height in order_of(evaluation, inside=inside):
        assert piece.work is not None
        there = after(look, matrix)
        path, box = placed_path(piece.work.paper, there)
        up = float(np.linalg.det(there[:, :2])) > 0
        boxes.append(box)
        sheets.append(
            AssembledSheet(
                piece=piece.piece.id,
                name=piece.piece.name,
                path=path,
                box=box_of(box),
                fill=piece.paper.outside if up else piece.paper.inside,
                light=piece.paper.light,
                height=height,
                moves=_moves(evaluation, piece, look),
            )
        )

    whole = box_of(around(boxes)) if boxes else NO_BOUNDS
    return SideView(box=whole, sheets=sheets, guides=_guides(evaluation, look))


def _guides(evaluation: Evaluation, look: Floats) -> list[Guide]:
    """The base's guides; what is looked at from inside is mirrored across, low edges are high ones there."""
    (across, _, off), _ = look.tolist()
    other = {"low": "high", "high": "low"}
    return [
        guide
        if guide.axis == "y" or across > 0
        else guide.model_copy(
            update={"at": off - guide.at, "edge": other.get(guide.edge, guide.edge)}
        )
        for guide in guides_of(evaluation.pieces[0].whole)
    ]


def _moves(evaluation: Evaluation, piece: PieceOutcome, look: Floats) -> MovesView | None:
    """How the piece can be moved on what it lies on; None where nothing moves it."""
    stack = evaluation.stack
    if stack is None or piece.piece.host == "":
        return None
    for step in (o.step for o in piece.outcomes if o.step.on):
        on = step.placed_on(piece.setting)
        moves = step.moves(on) if on else None
        if moves is not None:
            break
    else:
        return None
    host = stack.layer(piece.piece.host)
    linear = after(look, host.matrix if host else identity())[:, :2]
    if piece.piece.side is Facing.INSIDE:
        linear = linear @ np.diag([-1.0, 1.0])
    (ax, bx), (ay, by) = linear.tolist()
    return MovesView(
        step=step.id,
        across=moves[0].field,
        down=moves[1].field,
        dx=moves[0].value,
        dy=moves[1].value,
        x=(ax, ay),
        y=(bx, by),
    )
