"""The bare lines that the machine gets, each with its length and the step that made it; and the
things on the flat view that can be moved."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.design.evaluation import Outcome, PieceOutcome
from stileblade.formats.lines import Line
from stileblade.formats.plan import lines_of
from stileblade.geometry.curves.measurement import bounds, lengths
from stileblade.geometry.curves.segments import Segments
from stileblade.geometry.paths.pathdata import PathPen
from stileblade.geometry.paths.pens import draw_contour
from stileblade.piece.work import Work
from stileblade.steps.handle import BoxHandle, Handle
from stileblade.unexpected import Attempts
from stileblade.views.handles import MovedView, moved_view
from stileblade.views.places import Bounds, box_of
from stileblade.views.said import Said

Key = tuple[float, ...]


class PlacedThing(BaseModel):
    """A step's thing on the flat view that can be moved, by the values that follow it."""

    step: str
    title: Said
    box: Bounds
    across: MovedView
    down: MovedView


class CutView(BaseModel):
    """A line that the machine gets: its operation, its length in mm, and the step that made it as
    it is."""

    path: str
    operation: str
    closed: bool
    length: float
    step: str
    made_by: Said


def cuts_of(piece: PieceOutcome) -> list[CutView]:
    """All lines of a finished piece in the order of the passes, where they are in the flat view."""
    work = piece.work
    if work is None or not work.paper:
        return []
    made = _makers(piece)
    titles = {o.step.id: f"{n}. {o.step.title}" for n, o in enumerate(piece.outcomes, 1)}
    found = []
    for operation, lines in lines_of(work).items():
        for line in lines:
            step = line.step or made.get(_key(line.segments), "")
            found.append(
                CutView(
                    path=_path(line),
                    operation=operation.value,
                    closed=line.closed,
                    length=float(lengths(line.segments).sum()),
                    step=step,
                    made_by=titles.get(step, "the card's way of folding"),
                )
            )
    return found


def placed_of(piece: PieceOutcome) -> list[PlacedThing]:
    """What of all steps that apply can be moved both ways."""
    found = []
    for number, outcome in enumerate(piece.outcomes, start=1):
        if not outcome.step.on or outcome.problem is not None:
            continue
        handle = next((h for h in _handles(outcome, piece) if isinstance(h, BoxHandle)), None)
        if handle is not None:
            title = f"{number}. {outcome.step.title}"
            found.append(
                PlacedThing(
                    step=outcome.step.id,
                    title=title + (f": {handle.word}" if handle.word else ""),
                    box=box_of(handle.box),
                    across=moved_view(handle.across),
                    down=moved_view(handle.down),
                )
            )
    return found


def _handles(outcome: Outcome, piece: PieceOutcome) -> list[Handle]:
    return Attempts()("handles", lambda: outcome.step.handles(outcome.before, piece.setting), [])


def _makers(piece: PieceOutcome) -> dict[Key, str]:
    """For each contour the last step that came out with it and did not find it there."""
    found: dict[Key, str] = {}
    for outcome in piece.outcomes:
        if outcome.work is None or outcome.problem is not None or not outcome.step.on:
            continue
        there = _contours(outcome.before) if outcome.before else set()
        for key in _contours(outcome.work) - there:
            found[key] = outcome.step.id
    return found


def _contours(work: Work) -> set[Key]:
    return {_key(c.segments) for c in work.paper.contours}


def _key(segments: Segments) -> Key:
    """What tells a contour from all others of a piece."""
    return (float(len(segments)), *(round(float(v), 3) for v in bounds(segments)))


def _path(line: Line) -> str:
    pen = PathPen(3)
    draw_contour(line.segments, pen, closed=line.closed)
    return pen.text
