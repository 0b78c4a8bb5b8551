"""A finished piece elsewhere on the plane, or seen in a mirror: what is measured on it is the same."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from stileblade.card.creases import Stretch
from stileblade.design.evaluation import Evaluation
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Side
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.steps.ground import inverse

MIRRORED = np.array([[-1.0, 0.0, 40.0], [0.0, 1.0, -25.0]])
MOVED = np.array([[1.0, 0.0, -311.5], [0.0, 1.0, 207.25]])


def _fold(fold: Fold, matrix: Floats) -> Fold:
    a, b = np.array([fold.line.point, fold.line.point + fold.line.along])
    a, b = (matrix[:, :2] @ p + matrix[:, 2] for p in (a, b))
    line = Line.through((float(a[0]), float(a[1])), (float(b[0]), float(b[1])))
    turned = bool(line.along @ (b - a) < 0)
    stretches = []
    for stretch in fold.crease.stretches:
        ends = np.array([fold.line.point_at(v) for v in (stretch.low, stretch.high)])
        low, high = sorted(line.place(ends @ matrix[:, :2].T + matrix[:, 2]).tolist())
        stretches.append(Stretch(low, high, stretch.direction))
    if turned:
        stretches.reverse()
    return replace(fold, line=line, crease=replace(fold.crease, stretches=tuple(stretches)))


def mapped(work: Work, matrix: Floats) -> Work:
    """All of the piece mapped by a 2x3 matrix that keeps upright what is upright."""
    mirrored = work.mirrored
    if mirrored is not None:
        side = mirrored.towards
        if matrix[0, 0] < 0 and side.upright:
            side = side.opposite
        mirrored = replace(
            mirrored,
            figure=mirrored.figure.transformed(matrix),
            half=mirrored.half.transformed(matrix),
            towards=Side(side),
        )
    lying = work.lying
    if lying is not None:  # its host is mapped as well
        lying = replace(lying, matrix=after(matrix, after(lying.matrix, inverse(matrix))))
    return replace(
        work,
        lying=lying,
        paper=work.paper.transformed(matrix),
        panels=tuple(replace(p, box=p.box.transformed(matrix)) for p in work.panels),
        folds=tuple(_fold(f, matrix) for f in work.folds),
        reference=work.reference.transformed(matrix),
        windows=tuple(
            replace(
                w,
                outline=w.outline.transformed(matrix),
                copies=tuple(replace(c, outline=c.outline.transformed(matrix)) for c in w.copies),
            )
            for w in work.windows
        ),
        lines=tuple(line.moved(matrix) for line in work.lines),
        mirrored=mirrored,
        artwork=None,
        parted=(),
    )


def elsewhere(evaluation: Evaluation, matrix: Floats) -> Evaluation:
    """The evaluation with its pieces' finished works mapped."""
    pieces = []
    for piece in evaluation.pieces:
        *before, last = piece.outcomes
        assert last.work is not None
        done = replace(last, work=mapped(last.work, matrix))
        pieces.append(replace(piece, outcomes=(*before, done)))
    return replace(evaluation, pieces=tuple(pieces))
