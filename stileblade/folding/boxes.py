"""Boxes of faces, exact: the kernel's are of flattened outlines, whose sides are taken from the true
ones."""

from __future__ import annotations

import numpy as np

from stileblade.folding.faces import outermost
from stileblade.geometry.curves.measurement import extremes
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.piece.work import Work


def exact_box(cell: Cell, points: Floats) -> Box:
    """The cell's box, each side taken from the true outline where that is found beside it."""
    rough = kernel.box_of(cell)
    reach = 0.03
    near = points[
        (points[:, 0] >= rough.left - reach) & (points[:, 0] <= rough.right + reach)
        & (points[:, 1] >= rough.head - reach) & (points[:, 1] <= rough.foot + reach)
    ]  # fmt: skip
    sides = []
    for column, side, lowest in (
        (0, rough.left, True), (1, rough.head, True), (0, rough.right, False), (1, rough.foot, False),
    ):  # fmt: skip
        values = near[np.abs(near[:, column] - side) <= reach, column]
        sides.append(float(values.min() if lowest else values.max()) if len(values) else side)
    return Box(*sides)


def mapped_box(work: Work, cell: Cell, box: Box, matrix: Floats) -> Box:
    """The exact box of a face whose cell and ``box`` are mapped by a 2x3 matrix."""
    linear = matrix[:, :2]
    if linear[0, 1] == 0 == linear[1, 0]:  # upright and level stay so
        return box.transformed(matrix)
    moved = work.paper.transformed(matrix)
    points = moved.segments.points_at(*extremes(moved.segments))
    corners = outermost(work) @ linear.T + matrix[:, 2]
    return exact_box(kernel.mapped(cell, matrix), np.concatenate([points, corners]))
