"""Handles as the flat view takes them: four types, told apart by ``shape``."""

from __future__ import annotations

from itertools import accumulate
from typing import Literal

from pydantic import BaseModel

from stileblade.card.folding import Folding
from stileblade.geometry.curves.places import Axis, Point
from stileblade.steps.handle import (
    AroundHandle,
    BoxHandle,
    Candidate,
    Handle,
    LineHandle,
    Moved,
    PickHandle,
    Sizing,
)
from stileblade.views.places import Bounds, box_of, screen_path
from stileblade.views.said import Said
from stileblade.words import say


class MovedView(BaseModel):
    """A value that follows a way: 1 mm on adds factor to it; it is never below least."""

    field: str
    value: float
    factor: float
    least: float | None


class SizingView(BaseModel):
    """How the thing in a box is sized about ``fixed``: names and present values in mm."""

    fixed: Point
    across: list[tuple[str, float]]
    down: list[tuple[str, float]]
    both: list[tuple[str, float]]


class LineHandleView(BaseModel):
    """A line of axis at a place: that less origin makes the value."""

    shape: Literal["line"]
    sets: MovedView
    axis: Axis
    at: float
    origin: float
    word: Said


class BoxHandleView(BaseModel):
    """An outline that is moved both ways, sized at its corners, and turned about its middle."""

    shape: Literal["box"]
    across: MovedView
    down: MovedView
    box: Bounds
    outline: str
    word: Said
    sizing: SizingView | None
    turn: float | None


class AroundHandleView(BaseModel):
    """A place in a box that goes round a centre: its angle about that is the value of field."""

    shape: Literal["around"]
    field: str
    value: float
    box: Bounds
    centre: Point
    word: Said


class CandidateView(BaseModel):
    """Something that can be picked: its outline, the figure that is told of it, its box, the share
    of the figure's box by which a pick names it, and whether it is taken now."""

    path: str
    value: float
    unit: str
    box: Bounds
    share: Point
    taken: bool


class PickHandleView(BaseModel):
    """Things to be picked: the shares of those taken are the value of field."""

    shape: Literal["pick"]
    field: str
    candidates: list[CandidateView]
    picked_by: str
    word: Said


HandleView = LineHandleView | BoxHandleView | AroundHandleView | PickHandleView


def moved_view(moved: Moved) -> MovedView:
    return MovedView(field=moved.field, value=moved.value, factor=moved.factor, least=moved.least)


def handle_view(handle: Handle) -> HandleView:
    match handle:
        case LineHandle():
            return LineHandleView(
                shape="line",
                sets=moved_view(handle.sets),
                axis=handle.axis,
                at=handle.at,
                origin=handle.origin,
                word=handle.word,
            )
        case BoxHandle():
            return _box(handle)
        case AroundHandle():
            return AroundHandleView(
                shape="around",
                field=handle.field,
                value=handle.value,
                box=box_of(handle.box),
                centre=handle.centre,
                word=handle.word,
            )
        case PickHandle():
            return PickHandleView(
                shape="pick",
                field=handle.field,
                candidates=[_candidate(c) for c in handle.candidates],
                picked_by=handle.picked_by,
                word=handle.word,
            )


def _box(handle: BoxHandle) -> BoxHandleView:
    return BoxHandleView(
        shape="box",
        across=moved_view(handle.across),
        down=moved_view(handle.down),
        box=box_of(handle.box),
        outline=screen_path(handle.outline) if handle.outline else "",
        word=handle.word,
        sizing=_sizing(handle.sizing) if handle.sizing else None,
        turn=handle.turn,
    )


def _sizing(sizing: Sizing) -> SizingView:
    return SizingView(
        fixed=sizing.fixed,
        across=list(sizing.across),
        down=list(sizing.down),
        both=list(sizing.both),
    )


def _candidate(candidate: Candidate) -> CandidateView:
    value, unit = candidate.told
    return CandidateView(
        path=screen_path(candidate.outline),
        value=value,
        unit=unit,
        box=box_of(candidate.outline.bounds),
        share=candidate.share,
        taken=candidate.taken,
    )


def card_handles(folding: Folding) -> list[LineHandleView]:
    """Handles at the ends of panels whose widths are given one by one; none for other ways of
    folding. Their fields are values of the folding."""
    if not folding.way.own_panels:
        return []
    ends = list(accumulate((p.width for p in folding.panels), initial=0.0))
    return [
        LineHandleView(
            shape="line",
            sets=MovedView(field=f"panels.{i}.width", value=panel.width, factor=1, least=1),
            axis=folding.axis,
            at=ends[i + 1],
            origin=ends[i],
            word=say("panel {i}", i=i + 1),
        )
        for i, panel in enumerate(folding.panels)
    ]
