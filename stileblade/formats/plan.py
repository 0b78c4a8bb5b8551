"""What goes to the machine: a finished piece's lines by operation, top left at 0, 0.

Operations in the order of the passes: score, perforate, prick, draw, inner cuts, outer cuts, so
that the piece is held by its sheet until the last. Within an operation lines are in groups: scores
by the way they bend and the side they are made from, drawn lines by pen, slits by themselves.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from stileblade import MADE_WITH, __version__
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.errors import StilebladeError
from stileblade.folding.hinge import perforation
from stileblade.folding.scoring import score_spans, ticks
from stileblade.formats.lines import Line, Lines, nothing
from stileblade.formats.options import FileOptions, Inside
from stileblade.formats.order import in_rounds
from stileblade.formats.turnover import Turnover
from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import Floats, arc, lines
from stileblade.geometry.curves.transforms import translation
from stileblade.machine.machine import Machine
from stileblade.machine.operation import Operation
from stileblade.piece.folds import Made
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work

VALLEY, MOUNTAIN, INSIDE = "valley", "mountain", "inside"
TICKS, REGISTER = "ticks", "register"
REGISTER_MARGIN = 10.0
"""mm: how far the register holes' file reaches beyond the piece; the holes lie in its middle."""
REGISTER_HOLE = 3.0
TURN = 2 * math.pi
BESIDE = 10.0
"""mm between two pieces in one file."""


@dataclass(frozen=True, eq=False)
class Plan:
    """A piece's size in mm and its lines; what the file says of itself: the paper, what the checks
    found that stands, and the side that is seen."""

    design: str
    piece: str
    width: float
    height: float
    lines: Lines
    paper: str = ""
    findings: tuple[str, ...] = ()
    inside: bool = False
    """Whether the piece lies inside up: then all is mirrored."""
    date: str = ""
    """When it was made, for the words on a page."""
    label: str = ""
    """What tells the file from the others of the same piece, for its name."""
    machine: Machine | None = None
    """The machine that it is made for; None where the file's options say which."""
    cut_runs: int = 1
    """How many times the knife runs along each cut."""
    holes: tuple[Point, ...] = ()
    """The middles of the register holes by which the sheet is turned over, as it lies here."""

    @property
    def turnover(self) -> Turnover:
        """How it is turned over for a second set-up."""
        return Turnover.of(self.width, self.height)

    @property
    def turning(self) -> str:
        """What to do before a second set-up, as sentences; nothing before the first one."""
        if not self.inside or not self.holes:
            return ""
        places = "; ".join(f"{x:.4g}, {self.height - y:.4g}" for x, y in self.holes)
        return f"Turn the sheet over {self.turnover}. Its holes then lie at {places} mm from the left and the foot."

    @property
    def title(self) -> str:
        return f"{self.design}: {self.piece}" + (", scored from the inside" if self.inside else "")

    @property
    def about(self) -> str:
        side = "inside" if self.inside else "outside"
        return (
            f"Card piece, {self.width:.3f} x {self.height:.3f} mm, seen from {side}. "
            f"{MADE_WITH} {__version__}." + (f" {self.turning}" if self.turning else "") + self.said
        )

    @property
    def said(self) -> str:
        """What the checks found that stands, as a sentence."""
        return f" Saved although: {' '.join(self.findings)}" if self.findings else ""

    def groups(self, operation: Operation, round: int | None = None) -> dict[str, list[Line]]:
        """An operation's lines by group, in the groups' order; of one round, or of all."""
        found: dict[str, list[Line]] = {}
        for line in self.lines[operation]:
            if round in (None, line.round):
                found.setdefault(line.group, []).append(line)
        return dict(sorted(found.items()))


_OPERATIONS = {
    How.DRAW: Operation.DRAW,
    How.STITCH: Operation.DRAW,
    How.PRICK: Operation.PRICK,
    How.SCORE: Operation.SCORE,
    How.PERFORATE: Operation.PERFORATE,
    How.CUT: Operation.CUT_INNER,
}


def plans_of(
    evaluation: Evaluation,
    piece: PieceOutcome,
    options: FileOptions | None = None,
    findings: Sequence[str] = (),
) -> list[Plan]:
    """The finished piece's plan, and that of its scores from the inside where they are to have one of
    their own. ``StilebladeError`` where it has no paper."""
    options = options or FileOptions()
    plan = plan_of(evaluation, piece, ticked=options.ticks, findings=findings)
    return set_ups(plan, options.inside)


def set_ups(plan: Plan, inside: Inside) -> list[Plan]:
    """The plan as it is, or, where scores of it are made from the inside in a set-up of their own: what is done
    first, with register holes, and what is done once the sheet is turned over."""
    apart = {Inside.SAME: (), Inside.MEANT: (INSIDE,), Inside.ALL: (INSIDE, VALLEY)}[inside]
    if not any(line.group in apart for line in plan.lines[Operation.SCORE]):
        return [plan]
    first, register = _with_register(plan)
    over = first.turnover.matrix(first.width, first.height)
    scores = first.lines[Operation.SCORE]
    kept = [line for line in scores if line.group not in apart]
    second = nothing()
    second[Operation.SCORE] = [line.moved(over) for line in scores if line.group in apart]
    second[Operation.DRAW] = [line.moved(over) for line in register]
    holes, label = moved_places(first.holes, over), "-".join(filter(None, (plan.label, INSIDE)))
    return [
        replace(first, lines={**first.lines, Operation.SCORE: kept}),
        replace(first, lines=second, inside=True, label=label, holes=holes),
    ]


def _with_register(plan: Plan) -> tuple[Plan, list[Line]]:
    """The plan in a margin with three holes, at the head left, the head right and the foot left, to
    turn the sheet by; and the holes."""
    move, half = translation(REGISTER_MARGIN, REGISTER_MARGIN), REGISTER_MARGIN / 2
    width, height = plan.width + 2 * REGISTER_MARGIN, plan.height + 2 * REGISTER_MARGIN
    r = REGISTER_HOLE / 2
    spots = ((half, half), (width - half, half), (half, height - half))
    holes = [Line(arc(spot, (r, 0.0), (0.0, r), 0.0, TURN), True, group=REGISTER) for spot in spots]
    moved = {op: [line.moved(move) for line in lines] for op, lines in plan.lines.items()}
    moved[Operation.CUT_INNER] = holes + moved[Operation.CUT_INNER]
    return replace(plan, width=width, height=height, lines=moved, holes=spots), holes


def moved_places(places: Sequence[Point], matrix: Floats) -> tuple[Point, ...]:
    """Places mapped by a matrix (2, 3)."""
    return tuple((float(x), float(y)) for x, y in np.array(places) @ matrix[:, :2].T + matrix[:, 2])


def beside(plans: Sequence[Plan]) -> Plan:
    """Several plans of one design in one, from left to right."""
    at, lines = 0.0, nothing()
    for plan in plans:
        move = translation(at, 0.0)
        for operation, some in plan.lines.items():
            lines[operation] += [line.moved(move) for line in some]
        at += plan.width + BESIDE
    names = ", ".join(p.piece for p in plans)
    findings = tuple(dict.fromkeys(f for p in plans for f in p.findings))
    height = max(p.height for p in plans)
    return replace(
        plans[0], piece=names, width=at - BESIDE, height=height, lines=lines, findings=findings,
        label=plans[0].paper,
    )  # fmt: skip


def plan_of(
    evaluation: Evaluation,
    piece: PieceOutcome,
    *,
    ticked: bool = False,
    findings: Sequence[str] = (),
) -> Plan:
    """The finished piece's lines, all in one. ``StilebladeError`` where it has no paper."""
    work = piece.work
    if work is None or not work.paper:
        raise StilebladeError(
            f"The piece {piece.piece.name!r} has no paper: there is nothing to export.",
            hint="Start it with a blank or a figure.",
            code="empty",
        )
    box = work.paper.bounds
    found = lines_of(work)
    if ticked:
        marks = ticks(work)
        found[Operation.DRAW] += [Line(lines([a], [b]), False, group=TICKS) for a, b in marks]
        box = _around(box, [p for mark in marks for p in mark])
    move = translation(-box.left, -box.head)
    moved = {operation: [line.moved(move) for line in some] for operation, some in found.items()}
    moved = in_rounds(moved)
    return Plan(
        evaluation.design.name,
        piece.piece.name,
        box.width,
        box.height,
        moved,
        paper=piece.paper.name,
        findings=tuple(findings),
        cut_runs=piece.paper.cut_runs,
    )


def _around(box: Box, spots: Sequence[tuple[float, float]]) -> Box:
    xs, ys = [p[0] for p in spots], [p[1] for p in spots]
    return Box(
        min(box.left, *xs, box.right), min(box.head, *ys, box.foot),
        max(box.right, *xs, box.left), max(box.foot, *ys, box.head),
    )  # fmt: skip


def lines_of(work: Work) -> Lines:
    """A piece's lines by operation, where they are in the flat view."""
    found = nothing()
    for operation, line in _creases(work):
        found[operation].append(line)
    for drawn in work.lines_on_paper:
        for way, closed in drawn.ways:
            found[_OPERATIONS[drawn.how]].append(Line(way, closed, drawn.step, _group_of(drawn)))
    for contour in work.paper.contours:
        operation = Operation.CUT_INNER if contour.opening else Operation.CUT_OUTER
        found[operation].append(Line(contour.segments, True))
    return found


def _group_of(drawn: DrawnLine) -> str:
    """Drawn lines by their pen, slits and scores that are no folds by themselves."""
    operation = _OPERATIONS[drawn.how]
    if operation is Operation.DRAW:
        return f"pen-{drawn.pen}"
    return {How.SCORE: "line", How.PERFORATE: "line", How.CUT: "slit"}.get(drawn.how, "")


def _creases(work: Work) -> list[tuple[Operation, Line]]:
    found = []
    for fold in work.folds:
        if fold.made is Made.PERFORATE:
            for span in work.spans[fold.name]:
                found += [
                    (Operation.PERFORATE, Line(lines([a], [b]), False, fold.step))
                    for a, b in perforation(span, fold)
                ]
        elif fold.made is Made.SCORE:
            for span in score_spans(work, fold):
                group = INSIDE if fold.inside else span.direction.value
                line = Line(lines([span.start], [span.end]), False, fold.step, group)
                found.append((Operation.SCORE, line))
    return found
