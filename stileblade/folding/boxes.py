"""Boxes of faces, exact: the kernel's are of flattened outlines, whose sides are taken from the true
ones."""

from __future__ import annotations

import numpy as np

from stileblade.folding.faces import Sheet, outermost
from stileblade.geometry.curves.measurement import extremes
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Bools, Floats
from stileblade.geometry.measures import cells as kernel
from stileblade.piece.work import Work

_ON = 1e-6
"""mm: what is this near to a fold's line is on it."""
REACH = 2.4 * kernel.FINE
"""mm: how far the true outline may be from a cell, which is flattened and thinned out."""


def _sides(box: Box) -> tuple[tuple[int, float, bool], ...]:
    """Of a box: the coordinate's column, where it is, and whether it is the lower one."""
    return (0, box.left, True), (1, box.head, True), (0, box.right, False), (1, box.foot, False)


def _beside(box: Box, points: Floats) -> Bools:
    """Which of the places (n, 2) may be on a side of the box: few of them, and only these are looked at
    more closely."""
    found = np.zeros(len(points), bool)
    for column, side, _ in _sides(box):
        found |= np.abs(points[:, column] - side) <= REACH
    return found


def exact_box(rough: Box, points: Floats) -> Box:
    """The box of a cell, each side taken from places (n, 2) on its true outline where there is one."""
    sides = []
    for column, side, lowest in _sides(rough):
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
        beyond = np.flatnonzero((off < -_ON) & (off >= -REACH))
        if len(beyond):
            # there they are the face's own where it has come round the fold, and lie nearer to it
            cells = (sheet.cells[f] for f in (face, joint.other(face)))
            own, other = (kernel.away(cell, points[beyond]) for cell in cells)
            points = np.delete(points, beyond[own >= other], axis=0)
    return points


def flat_box(work: Work, sheet: Sheet, face: int) -> Box:
    """The exact box of a face in the flat view."""
    rough, points = kernel.box_of(sheet.cells[face]), outermost(work)
    return exact_box(rough, own_places(work, sheet, face, points[_beside(rough, points)]))


def mapped_box(work: Work, sheet: Sheet, face: int, box: Box, matrix: Floats) -> Box:
    """The exact box of a face, whose flat one is ``box``, mapped by a 2x3 matrix."""
    linear = matrix[:, :2]
    if linear[0, 1] == 0 == linear[1, 0]:  # upright and level stay so
        return box.transformed(matrix)
    rough = kernel.box_of(kernel.mapped(sheet.cells[face], matrix))
    moved = work.paper.transformed(matrix)
    corners = outermost(work) @ linear.T + matrix[:, 2]
    there = np.concatenate([moved.segments.points_at(*extremes(moved.segments)), corners])
    there = there[_beside(rough, there)]
    here = (there - matrix[:, 2]) @ np.linalg.inv(linear).T
    points = own_places(work, sheet, face, here) @ linear.T + matrix[:, 2]
    return exact_box(rough, points)
