"""The best joins of a mirrored figure to its image, each with the changes that make it."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.checks.check import Subject
from stileblade.checks.envelope import room_of
from stileblade.design.cache import OutcomeCache
from stileblade.design.changes import Change, with_changes
from stileblade.design.document import Design
from stileblade.design.evaluation import PieceOutcome, evaluate
from stileblade.errors import DocumentError
from stileblade.folding.flat import fold_flat
from stileblade.folding.joins import Join, Wish, best_joins
from stileblade.folding.stand import stand_of
from stileblade.steps.kinds.turn import Turn
from stileblade.views.strip import PictureView, small_picture


class JoinView(BaseModel):
    """A way to join the halves, with the changes that make it and its picture."""

    turn_deg: float
    lap: float
    hinge: float
    spans: int
    loss: float
    closed: tuple[float, float]
    room: float | None
    """The least room in the design's envelope; None without one."""
    stands: float | None
    """How safe it stands, in mm; negative where it falls over, None where it cannot stand."""
    picture: PictureView | None
    changes: list[Change]


def joins_of(
    design: Design, key: str, wish: Wish, cache: OutcomeCache | None = None
) -> list[JoinView]:
    """The best joins of the mirrored figure of the piece ``key`` that are as wished, the longest hinge
    first. DocumentError where it has none."""
    pieces = evaluate(design, cache).pieces
    piece = next((p for p in pieces if p.piece.id == key), None)
    if piece is None or piece.work is None or piece.work.mirrored is None:
        raise DocumentError(
            "There is no mirrored figure in the piece to be joined.",
            hint="Add a mirror step first.",
            where="piece",
        )
    mirrored = piece.work.mirrored
    return [
        _join(design, piece, join, _changes(piece, mirrored.step, join), cache)
        for join in best_joins(mirrored, wish)
    ]


def _join(
    design: Design,
    piece: PieceOutcome,
    join: Join,
    changes: list[Change],
    cache: OutcomeCache | None,
) -> JoinView:
    made = evaluate(with_changes(design, changes), cache)
    outcome = next(p for p in made.pieces if p.piece.id == piece.piece.id)
    work = outcome.work if outcome.work and outcome.work.paper else None
    found = room_of(Subject(made, outcome))
    stand = stand_of(work) if work else None
    return JoinView(
        turn_deg=join.turn_deg,
        lap=join.lap,
        hinge=join.hinge,
        spans=join.spans,
        loss=join.loss,
        closed=fold_flat(work).closed if work else (0.0, 0.0),
        room=found[1].least if found else None,
        stands=stand.safe if stand else None,
        picture=small_picture(work) if work else None,
        changes=changes,
    )


def _changes(piece: PieceOutcome, mirror: str, join: Join) -> list[Change]:
    """The lap set on the mirror; the figure turned by the step before it, or by a new one."""
    own, steps = piece.piece.id, piece.piece.steps
    lap = Change(op="set", piece=own, step=mirror, values={"lap": join.lap})
    if not join.turn_deg:
        return [lap]
    at = next(i for i, s in enumerate(steps) if s.id == mirror)
    before = steps[at - 1] if at else None
    values = before.turned_by(join.turn_deg) if before is not None and before.on else {}
    if before is not None and values:
        return [Change(op="set", piece=own, step=before.id, values=values), lap]
    turn = Turn(angle=join.turn_deg).model_dump(mode="json", exclude={"id"})
    return [Change(op="add", piece=own, step=mirror, values=turn), lap]
