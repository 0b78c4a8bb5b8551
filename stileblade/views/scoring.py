"""The scoring table, and ticks for shaped pieces."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.folding.scoring import scoring_table
from stileblade.folding.scoring import ticks as ticks_of
from stileblade.piece.work import Work
from stileblade.views.places import Stroke
from stileblade.views.said import Said


class ScoreRow(BaseModel):
    fold: Said
    edge: Said
    distance: float
    sixteenths: str
    error: float
    order: int
    direction: str
    side: Said
    made: str


def scoring_of(work: Work) -> list[ScoreRow]:
    return [ScoreRow(**vars(row)) for row in scoring_table(work)]


def tick_strokes(work: Work) -> list[Stroke]:
    return [(*a, *b) for a, b in ticks_of(work)]
