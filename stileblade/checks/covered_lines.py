"""What was drawn, stitched, pricked or slit on a piece, and is then covered by a layer."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.stack import Layer, Stack, stacked
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.regions.along import points_along_each
from stileblade.piece.lines import DrawnLine, How
from stileblade.words import Own, say

_SHARE = 0.5
"""A line is covered where more than this share of its length is."""
_CLEAR = 0.5
"""mm that are to be seen between a line and the edge of a window."""
_WORDS = {
    How.STITCH: "{n} of {all} stitches of step {step} are covered by {layer!r}.",
    How.PRICK: "{n} of {all} pricked holes of step {step} are covered by {layer!r}.",
    How.CUT: "{n} of {all} slits of step {step} are covered by {layer!r}.",
}
_DRAWN = "{n} of {all} lines of step {step} are covered by {layer!r}."


@dataclass(frozen=True, eq=False)
class _Face:
    """The side of a piece that its lines are on: the map from its flat view to the base's, and what lies on it."""

    matrix: Floats
    above: tuple[Layer, ...]


Covered = tuple[DrawnLine, list[Floats], list[Floats], Layer, PieceOutcome]
"""Lines that a step drew, their ways in the base's flat view, those that are covered, and by what."""


@CHECKS.register("covered-lines")
def covered_lines(subject: Subject) -> Iterator[Finding]:
    """Lines that nobody will see: warning, with how many."""
    stack = subject.evaluation.stack
    if stack is not None:
        for found in _covered(subject.evaluation, subject.piece, stack):
            yield _finding(subject, *found)


def _covered(evaluation: Evaluation, piece: PieceOutcome, stack: Stack) -> Iterator[Covered]:
    """The piece's lines that are covered in a stack of the card, by each layer that covers some of them."""
    work = piece.work
    if work is None or not work.lines or not stack.layers:
        return
    face = _face(piece.piece.id, stack)
    if face is None or not face.above:
        return
    for line in work.lines_on_paper:
        if line.how in (How.SCORE, How.PERFORATE):
            continue
        drawn = points_along_each([way for way, _ in line.ways if len(way)])
        if not drawn:
            continue
        ways = [_mapped(points, face.matrix) for points in drawn]
        low, high = np.array([w.min(axis=0) for w in ways]), np.array([w.max(axis=0) for w in ways])
        for layer in face.above:
            made = evaluation.piece(layer.key)
            if made is None or made.paper.light > 0:
                continue
            box = kernel.box_of(layer.shape)
            near = (low <= (box.right, box.foot)) & (high >= (box.left, box.head))
            hidden = [
                ways[n] for n in np.flatnonzero(near.all(axis=1)) if _is_covered(ways[n], layer)
            ]
            if hidden:
                yield line, ways, hidden, layer, made


def _face(piece: str, stack: Stack) -> _Face | None:
    """None where its outside is glued to something, or it is none of the card."""
    if piece == stack.base.key:
        return _Face(identity(), tuple(la for la in stack.layers if not la.inside))
    own = stack.layer(piece)
    if own is None or own.turned != own.inside:
        return None
    above = (la for la in stack.layers if la.inside == own.inside and la.low >= own.high - 1e-9)
    return _Face(own.matrix, tuple(la for la in above if la.key != piece))


def _mapped(points: Floats, matrix: Floats) -> Floats:
    return np.asarray(points @ matrix[:, :2].T + matrix[:, 2])


def _is_covered(way: Floats, layer: Layer) -> bool:
    length = _length(way)
    if length < 1e-6:
        return bool(kernel.near(layer.shape, way[:1], 0.0)[0])
    return sum(map(_length, kernel.lines_in(layer.shape, [way]))) > _SHARE * length


def _length(way: Floats) -> float:
    return float(np.hypot(*np.diff(way, axis=0).T).sum())


def _finding(
    subject: Subject,
    line: DrawnLine,
    ways: list[Floats],
    hidden: list[Floats],
    layer: Layer,
    made: PieceOutcome,
) -> Finding:
    return Finding(
        "lines.covered",
        Severity.WARNING,
        say(
            _WORDS.get(line.how, _DRAWN),
            n=len(hidden),
            all=len(ways),
            step=subject.number(line.step),
            layer=Own(made.piece.name),
        ),
        subject.name,
        len(hidden),
        hint="Make the layer's window larger, or draw them on the layer.",
        step=line.step,
        place=Place(lines=_lines(line)),
        mends=(
            *_larger_windows(subject, hidden, layer, made),
            *_raised(subject, layer, made),
        ),
    )


def _lines(line: DrawnLine) -> tuple[tuple[tuple[float, float], tuple[float, float]], ...]:
    return tuple(line.edges[:200])


def _raised(subject: Subject, layer: Layer, made: PieceOutcome) -> tuple[Mend, ...]:
    """The piece with the lines laid over the one that covers them, where both lie on the same, and as long as that
    one stays to be seen, with its own lines, and no other covers the piece then."""
    own, stack = subject.piece.piece, subject.evaluation.stack
    if stack is None or not own.host or (own.host, own.side) != (made.piece.host, made.piece.side):
        return ()
    mine = stack.layer(own.id)
    if mine is None or kernel.overlap(mine.shape, layer.shape) > kernel.area_of(layer.shape) / 2:
        return ()
    evaluation = subject.evaluation
    beside = [p for p in evaluation.design.pieces if (p.host, p.side) == (own.host, own.side)]
    # of those with the same order, the later ones lie on the earlier ones: sorting keeps that
    row = sorted(beside, key=lambda p: p.order)
    row.remove(own)
    row.insert(row.index(made.piece) + 1, own)
    order = {p.id: n for n, p in enumerate(row) if p.order != n}
    raised = stacked(tuple(replace(p, order=order.get(p.key, p.order)) for p in stack.pieces))
    if _hidden_lines(evaluation, raised) >= _hidden_lines(evaluation, stack):
        return ()
    title = say("lay {piece!r} over {layer!r}", piece=Own(own.name), layer=Own(made.piece.name))
    return (Mend(title, order=order),)


def _hidden_lines(evaluation: Evaluation, stack: Stack) -> int:
    """How many lines of all pieces are covered by layers, in a stack of the card."""
    return sum(
        len(hidden)
        for piece in evaluation.pieces
        for _, _, hidden, _, _ in _covered(evaluation, piece, stack)
    )


def _larger_windows(
    subject: Subject, hidden: list[Floats], layer: Layer, made: PieceOutcome
) -> tuple[Mend, ...]:
    """The layer's windows larger by as much as it takes, if its start says how."""
    start = next((o.step for o in made.outcomes if o.step.on), None)
    windows = made.work.windows if made.work else ()
    if start is None or not windows:
        return ()
    open_ = kernel.united(kernel.mapped(kernel.flattened(w.outline), layer.matrix) for w in windows)
    away = float(kernel.away(open_, np.concatenate(hidden)).max())
    values = start.windows_larger_by(math.ceil(2 * (away + _CLEAR)) / 2)
    if not values:
        return ()
    title = say("window margin of {margin}", margin=subject.say(*values.values()))
    return (Mend(title, start.id, values, step_of=made.piece.id),)
