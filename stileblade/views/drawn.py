"""Lines that are drawn, stitched, pricked or scored on a piece, as they are seen on its faces."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from pydantic import BaseModel

from stileblade.formats.pens import PENS
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.geometry.regions.along import points_along
from stileblade.piece.lines import How
from stileblade.piece.work import Work

SCORED, THROUGH = "#2d5d7b", "#1d2433"
MOST = 2500
"""Places of a piece's lines: pictures in space are looked at from afar."""
_FINE, _ROUGHEST = 0.1, 1.6


class DrawnView(BaseModel):
    """Lines of one colour in the base's flat view, on the piece's outside."""

    colour: str
    lines: list[list[Point]]


def drawn_on(work: Work, cell: Cell, matrix: Floats | None = None) -> list[DrawnView]:
    """What of a piece's lines lies on a cell; ``matrix`` takes the piece's own frame to the cell's. Own folds
    of a layer are scores on it; those of a base are edges between its faces."""
    found = []
    for colour, lines in _lines_of(work, matrix is not None):
        placed = [line if matrix is None else _mapped(line, matrix) for line in lines]
        parts = kernel.lines_in(cell, placed)
        if parts:
            shown = [[(round(x, 2), round(y, 2)) for x, y in part.tolist()] for part in parts]
            found.append(DrawnView(colour=colour, lines=shown))
    return found


def _mapped(line: Floats, matrix: Floats) -> Floats:
    return np.asarray(line @ matrix[:, :2].T + matrix[:, 2])


@lru_cache(maxsize=64)
def _lines_of(work: Work, folds: bool) -> tuple[tuple[str, tuple[Floats, ...]], ...]:
    """By colour: lines flattened, the rougher the more there are."""
    ways: dict[str, list[Segments | Floats]] = {}
    for drawn in work.lines_on_paper:
        colour = _colour(drawn.how, drawn.pen)
        ways.setdefault(colour, []).extend(way for way, _ in drawn.ways)
    if folds:
        for spans in work.spans.values():
            edges = [np.array([span.start, span.end], float) for span in spans]
            ways.setdefault(SCORED, []).extend(edges)
    tolerance = _FINE
    while True:
        made = {colour: tuple(_flat(w, tolerance) for w in some) for colour, some in ways.items()}
        count = sum(len(line) for some in made.values() for line in some)
        if count <= MOST or tolerance > _ROUGHEST:
            return tuple((colour, _bounded(some)) for colour, some in made.items())
        tolerance *= 2


def _bounded(lines: tuple[Floats, ...]) -> tuple[Floats, ...]:
    """The first of them, as many as are shown."""
    ends = np.cumsum([len(line) for line in lines])
    return lines[: max(1, int(np.searchsorted(ends, MOST, side="right")))]


def _flat(way: Segments | Floats, tolerance: float) -> Floats:
    if not isinstance(way, Segments):
        return way
    return kernel.simpler_line(np.asarray(points_along(way)), tolerance)


def _colour(how: How, pen: int) -> str:
    if how in (How.DRAW, How.STITCH):
        return PENS.get(f"pen-{pen}", THROUGH)
    return SCORED if how is How.SCORE else THROUGH
