"""The closed card seen from its front, over its envelope."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.checks.check import Subject
from stileblade.checks.envelope import room_of
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.closed import closed_card
from stileblade.piece.work import Work
from stileblade.views.places import Bounds, box_of, shape_path


class LayerView(BaseModel):
    panel: str
    turned: bool


class ClosedView(BaseModel):
    """The closed card seen from its front: outlines as path data, y downwards. reveal: what of the
    back is seen round the front; out: what of the front stands out; with area and reach."""

    box: Bounds
    outline: str
    front: str
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
    envelope = evaluation.design.card.size.envelope
    return ClosedView(
        box=box_of(closed.box),
        outline=shape_path(closed.outline, 3),
        front=shape_path(closed.front, 3),
        reveal=shape_path(closed.reveal, 3),
        out=shape_path(closed.out, 3),
        reveal_area=closed.reveal_area,
        reveal_by=closed.reveal_by,
        out_area=closed.out_area,
        out_by=closed.out_by,
        envelope=envelope_about(evaluation, piece, work),
        envelope_name=envelope.name if envelope else "",
        layers=[LayerView(panel=la.panel, turned=la.turned) for la in closed.layers],
    )
