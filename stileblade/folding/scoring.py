"""The table for scoring by hand on a board: where each crease lies from the straight edge.

Distances are from the finished piece's leftmost (or uppermost) place, as in the flat view and in the
files: that is what lies against a board's fence. For shaped pieces short ticks on the waste beside
the outline mark where a crease begins and ends.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from stileblade.card.creases import Direction
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Axis, Point
from stileblade.piece.folds import Fold, Made, Span
from stileblade.piece.work import Work
from stileblade.units import to_sixteenths

TICK = 4.0
"""mm: how long a tick is, and..."""
TICK_GAP = 0.5
"""... how far it stays off the outline, so that no cut touches it."""


@dataclass(frozen=True)
class Row:
    """One score line: its distance from the edge in mm, the nearest 1/16 in as text and how far
    that is off in mm (signed), the order of scoring, and the face to score from."""

    fold: str
    edge: str
    distance: float
    sixteenths: str
    error: float
    order: int
    direction: Direction
    side: str
    made: Made


def scored_side(fold: Fold) -> str:
    """The groove lies on the outside of the bend: mountains are scored from the outside, unless
    the fold says otherwise."""
    if fold.inside:
        return "inside"
    return "inside" if fold.direction is Direction.VALLEY else "outside"


def score_lines(fold: Fold) -> tuple[Line, ...]:
    """The lines that are scored for a fold: two for a spine, one otherwise."""
    if fold.double:
        return fold.line.moved(-fold.double / 2), fold.line.moved(fold.double / 2)
    return (fold.line,)


def scoring_table(work: Work) -> list[Row]:
    """A row for each upright and level score line, in the order in which to score them: those from
    one side first, each from the edge inwards."""
    box = work.paper.bounds
    found = []
    for fold in work.folds:
        if fold.axis is None or fold.made is Made.NONE or not work.spans[fold.name]:
            continue
        low = box.left if fold.axis == "x" else box.head
        for line in score_lines(fold):
            distance = line.at - low
            text, error = to_sixteenths(distance)
            found.append(
                Row(
                    fold.name,
                    "left" if fold.axis == "x" else "head",
                    distance,
                    text,
                    error,
                    0,
                    fold.direction,
                    scored_side(fold),
                    fold.made,
                )
            )
    found.sort(key=lambda r: (r.side != "outside", r.edge, r.distance))
    return [replace(r, order=n) for n, r in enumerate(found, 1)]


def score_spans(work: Work, fold: Fold) -> list[Span]:
    """Where a fold is scored: its spans, twice over for a spine, less the set-back at each end."""
    spans: list[Span] = []
    if fold.double:
        for line in score_lines(fold):
            spans += work.spans_of(Fold("", line, fold.crease))
    else:
        spans = work.spans[fold.name]
    found = []
    for span in spans:
        if span.length <= 2 * fold.setback:
            continue
        (x0, y0), (x1, y1) = span.start, span.end
        share = fold.setback / span.length
        dx, dy = (x1 - x0) * share, (y1 - y0) * share
        found.append(Span((x0 + dx, y0 + dy), (x1 - dx, y1 - dy), span.direction))
    return found


def is_shaped(work: Work, fold: Fold) -> bool:
    """Whether a fold's ends lie off the edges of the blank, so that a board does not find them."""
    axis: Axis | None = fold.axis
    if axis is None or work.mirrored or not work.panels:
        return True
    box = work.box_of("card")
    low, high = (box.head, box.foot) if axis == "x" else (box.left, box.right)
    places = [fold.line.place_of(p) for s in work.spans[fold.name] for p in (s.start, s.end)]
    return not places or abs(min(places) - low) > 0.01 or abs(max(places) - high) > 0.01


def ticks(work: Work) -> list[tuple[Point, Point]]:
    """Marks on the waste, in line with each crease of a shaped piece, where there is room."""
    found: list[tuple[Point, Point]] = []
    for fold in work.folds:
        spans = work.spans[fold.name]
        if not spans or fold.made is Made.NONE or not is_shaped(work, fold):
            continue
        line = fold.line
        places = [line.place_of(p) for s in spans for p in (s.start, s.end)]
        for end, way in ((min(places), -1.0), (max(places), 1.0)):
            found.append(
                (line.point_at(end + way * TICK_GAP), line.point_at(end + way * (TICK_GAP + TICK)))
            )
    return found
