"""The folds of a piece, with where they lie and how much paper is on them."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from stileblade.card.creases import Direction
from stileblade.folding.hinge import hinge_length
from stileblade.folding.scoring import score_spans
from stileblade.geometry.curves.places import Axis
from stileblade.piece.folds import Fold, Made, Span
from stileblade.piece.work import Work
from stileblade.views.places import Stroke


class SpanView(BaseModel):
    stroke: Stroke
    direction: Literal["mountain", "valley"]


class FoldView(BaseModel):
    """from_left and from_right are from the piece's head and foot where the fold is level, to the nearer of its two
    creases where it is a spine; axis is
    empty where it slants. inner: of a step that stands forward. scores are the lines scored: two for a spine.
    apart: mm between the panels on either side, the spine of a thick card, with the fold in its middle."""

    name: str
    axis: Axis | Literal[""]
    at: float
    apart: float
    made: str
    direction: str
    order: int
    folds: bool
    inner: bool
    hinge: float
    spans: list[SpanView]
    scores: list[Stroke]
    from_left: float
    from_right: float
    from_centre: float


def folds_of(work: Work) -> list[FoldView]:
    return [_fold(work, fold) for fold in work.folds]


def _fold(work: Work, fold: Fold) -> FoldView:
    box, spans = work.paper.bounds, work.spans[fold.name]
    low, high = (box.left, box.right) if fold.axis == "x" else (box.head, box.foot)
    scored = score_spans(work, fold) if fold.made is Made.SCORE else []
    return FoldView(
        name=fold.name,
        axis=fold.axis or "",
        at=fold.at,
        apart=fold.apart,
        made=fold.made,
        direction=fold.direction,
        order=fold.crease.order,
        folds=fold.folds,
        inner=fold.crease.inner,
        hinge=hinge_length(spans, fold),
        spans=[_span(s) for s in spans],
        scores=[(*s.start, *s.end) for s in scored],
        from_left=fold.at - fold.apart / 2 - low,
        from_right=high - fold.at - fold.apart / 2,
        from_centre=fold.at - (low + high) / 2,
    )


def _span(span: Span) -> SpanView:
    valley = span.direction is Direction.VALLEY
    return SpanView(stroke=(*span.start, *span.end), direction="valley" if valley else "mountain")
