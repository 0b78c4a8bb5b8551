"""Boxes of faces, exact: the kernel's are of flattened outlines, whose sides are taken from the true
ones."""

from __future__ import annotations

import numpy as np

from stileblade.folding.faces import Sheet, outermost
from stileblade.geometry.curves.measurement import extremes
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.piece.work import Work

_ON = 1e-6
"""mm: what is this near to a fold's line is on it."""
REACH = 2.4 * kernel.FINE
"""mm: how far the true outline may be from a cell, which is flattened and thinned out."""


def exact_box(cell: Cell, points: Floats) -> Box:
    """The cell's box, each side taken from places (n, 2) on its true outline where there is one."""
    rough = kernel.box_of(cell)
    sides = []
    for column, side, lowest in (
        (0, rough.left, True), (1, rough.head, True), (0, rough.right, False), (1, rough.foot, False),
    ):  # fmt: skip
        values = points[np.abs(points[:, column] - side) <= REACH, column]
        sides.append(float(values.min() if lowest else values.max()) if len(values) else side)
    return Box(*sides)


def own_places(work: Work, sheet: Sheet, face: int, points: Floats) -> Floats:
    """Those of the places (n, 2) on the outline that are the face's: on its cell, and not beyond a
    fold that it ends at."""
    points = points[kernel.near(sheet.cells[face], points, REACH)]
    for joint in sheet.joints:
        if face not in (joint.a, joint.b):
            continue
        fold = work.folds[joint.fold]
        off = fold.line.off(points) * (1 if face == joint.a else -1)
        beyond = (off < -_ON) & (off >= -REACH)
        if beyond.any():
            # there they are the face's own where it has come round the fold, and lie nearer to it
            own, other = (kernel.away(sheet.cells[f], points) for f in (face, joint.other(face)))
            points = points[~(beyond & (own >= other))]
    return points


def flat_box(work: Work, sheet: Sheet, face: int) -> Box:
    """The exact box of a face in the flat view."""
    return exact_box(sheet.cells[face], own_places(work, sheet, face, outermost(work)))


def mapped_box(work: Work, sheet: Sheet, face: int, box: Box, matrix: Floats) -> Box:
    """The exact box of a face, whose flat one is ``box``, mapped by a 2x3 matrix."""
    linear = matrix[:, :2]
    if linear[0, 1] == 0 == linear[1, 0]:  # upright and level stay so
        return box.transformed(matrix)
    moved = work.paper.transformed(matrix)
    extreme = moved.segments.points_at(*extremes(moved.segments))
    back = (extreme - matrix[:, 2]) @ np.linalg.inv(linear).T
    points = own_places(work, sheet, face, np.concatenate([back, outermost(work)]))
    return exact_box(kernel.mapped(sheet.cells[face], matrix), points @ linear.T + matrix[:, 2])
