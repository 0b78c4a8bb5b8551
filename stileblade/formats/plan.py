"""What goes to the machine: a finished piece's lines by operation, top left at 0, 0.

Operations in the order of the passes: score, perforate, draw, inner cuts, outer cuts, so
that the piece is held by its sheet until the last.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum

from stileblade import __version__
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.errors import StilebladeError
from stileblade.folding.hinge import perforation
from stileblade.folding.scoring import score_spans
from stileblade.geometry.curves.segments import Segments, lines
from stileblade.geometry.curves.transforms import translation
from stileblade.piece.folds import Made
from stileblade.piece.lines import How
from stileblade.piece.work import Work


class Operation(StrEnum):
    SCORE = "score"
    PERFORATE = "perforate"
    DRAW = "draw"
    CUT_INNER = "cut-inner"
    CUT_OUTER = "cut-outer"


@dataclass(frozen=True, eq=False)
class Line:
    """A contour or an open line of one operation; ``step`` made it, where that is known."""

    segments: Segments
    closed: bool
    step: str = ""


@dataclass(frozen=True, eq=False)
class Plan:
    """A piece's size in mm and its lines; what the file says of itself."""

    design: str
    piece: str
    width: float
    height: float
    lines: dict[Operation, list[Line]]

    @property
    def title(self) -> str:
        return f"{self.design}: {self.piece}"

    @property
    def about(self) -> str:
        return (
            f"Card piece, {self.width:.3f} x {self.height:.3f} mm, seen from outside. "
            f"Made with Stileblade {__version__}."
        )


_OPERATIONS = {
    How.DRAW: Operation.DRAW,
    How.STITCH: Operation.DRAW,
    How.SCORE: Operation.SCORE,
    How.PERFORATE: Operation.PERFORATE,
    How.CUT: Operation.CUT_INNER,
}


def plan_of(evaluation: Evaluation, piece: PieceOutcome) -> Plan:
    """The finished piece's lines. ``StilebladeError`` where it has no paper."""
    work = piece.work
    if work is None or not work.paper:
        raise StilebladeError(
            f"The piece {piece.piece.name!r} has no paper: there is nothing to export.",
            hint="Start it with a blank or a figure.",
            code="empty",
        )
    box = work.paper.bounds
    move = translation(-box.left, -box.head)
    moved = {
        operation: [replace(line, segments=line.segments.transformed(move)) for line in lines]
        for operation, lines in lines_of(work).items()
    }
    return Plan(evaluation.design.name, piece.piece.name, box.width, box.height, moved)


def lines_of(work: Work) -> dict[Operation, list[Line]]:
    """A piece's lines by operation, where they are in the flat view."""
    found: dict[Operation, list[Line]] = {operation: [] for operation in Operation}
    for operation, line in _creases(work):
        found[operation].append(line)
    for drawn in work.lines_on_paper:
        for way, closed in drawn.ways:
            found[_OPERATIONS[drawn.how]].append(Line(way, closed, drawn.step))
    for contour in work.paper.contours:
        operation = Operation.CUT_INNER if contour.opening else Operation.CUT_OUTER
        found[operation].append(Line(contour.segments, True))
    return found


def _creases(work: Work) -> list[tuple[Operation, Line]]:
    found = []
    for fold in work.folds:
        if fold.made is Made.PERFORATE:
            ends = [e for span in work.spans[fold.name] for e in perforation(span, fold)]
            operation = Operation.PERFORATE
        elif fold.made is Made.SCORE:
            ends = [(s.start, s.end) for s in score_spans(work, fold)]
            operation = Operation.SCORE
        else:
            continue
        found += [(operation, Line(lines([a], [b]), False, fold.step)) for a, b in ends]
    return found
