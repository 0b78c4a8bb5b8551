"""Boxes and outlines as the screen takes them: numbers and path data. Lengths in mm, y downwards."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

import numpy as np

from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.distances import Shape, coarse_enough, rings_of, simpler, thin
from stileblade.geometry.paths.pathdata import PathPen, path_data
from stileblade.geometry.paths.pens import draw_contour
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import with_figures
from stileblade.piece.lines import DrawnLine

Bounds = tuple[float, float, float, float]
"""left, head, right, foot."""
Stroke = tuple[float, float, float, float]
"""x and y of the start and of the end."""
NO_BOUNDS: Bounds = (0.0, 0.0, 0.0, 0.0)
MOST_ON_SCREEN = 1500
"""Outlines with more segments are drawn without what is finer than 0.005 mm."""


def box_of(box: Box) -> Bounds:
    return (box.left, box.head, box.right, box.foot)


MOST_CORNERS = 9_000
"""Pieces with more are drawn coarser, on the screen alone: an answer has a dozen outlines of one."""
_coarser: ContextVar[float] = ContextVar("coarser", default=0.0)


@contextmanager
def drawn_for(region: Region | None) -> Iterator[None]:
    """Inside, what is finer is left out where the piece has more corners than a screen can show."""
    tolerance = 0.0
    if region is not None and region.nodes > MOST_CORNERS:
        tolerance = coarse_enough(region, 0.01, MOST_CORNERS)
    before = _coarser.set(tolerance)
    try:
        yield
    finally:
        _coarser.reset(before)


def screen_path(region: Region) -> str:
    """The outline as the flat view draws it, its curves kept where there are not too many."""
    if region.nodes <= MOST_ON_SCREEN:
        return path_data(region, 3)
    return ring_path(rings_of(thin(region, max(0.005, _coarser.get()))), 3)


def placed_path(region: Region, matrix: Floats) -> tuple[str, Box]:
    """A region mapped by a 2x3 matrix as it is drawn, and its box there; remembered, as most pieces of a card stay
    as they are in an edit."""
    return _placed(region, tuple(matrix.ravel().tolist()), _coarser.get())


@with_figures
def _placed(region: Region, matrix: tuple[float, ...], coarser: float) -> tuple[str, Box]:
    there = region.transformed(np.array(matrix).reshape(2, 3))
    return screen_path(there), there.bounds


def shape_path(shape: Shape, decimals: int) -> str:
    """The kernel's own polygons as path data."""
    tolerance = _coarser.get()
    return ring_path(rings_of(simpler(shape, tolerance) if tolerance else shape), decimals)


def ring_path(rings: list[list[Point]], decimals: int) -> str:
    """Closed polylines as path data."""
    one = f"%.{decimals}f %.{decimals}f"
    found = []
    for ring in rings:
        numbers = tuple(v for point in ring for v in point)
        found.append("M" + "L".join([one] * len(ring)) % numbers + "Z")
    return "".join(found)


def ways_path(line: DrawnLine, decimals: int) -> str:
    """The ways of a drawn line as path data."""
    pen = PathPen(decimals)
    for way, closed in line.ways:
        draw_contour(way, pen, closed=closed)
    return pen.text
