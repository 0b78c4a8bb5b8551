"""What is printed on a piece's outside: its paper's pattern at true size, and its artwork's colours."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from itertools import product
from typing import TypeAlias

import numpy as np
from pydantic import BaseModel

from stileblade.card.stock import Paper, Pattern
from stileblade.checks.drawn_colours import drawn_only
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import rotation
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.geometry.measures.distances import rings_of
from stileblade.outlines.artwork import LayerOutlines
from stileblade.piece.work import Work

Paint: TypeAlias = tuple[str, Cell]
"""A colour, and where it is, in the piece's flat view."""

MOST_MARKS = 900
"""Of a pattern: finer ones are seen as the colour that they mix to."""
MOST_CORNERS = 1500
"""Of an artwork's colours, all together."""
_FINE, _ROUGHEST = 0.05, 1.6
_OWN = 0.4
"""Share of its own colour that what is not cut is shown in."""
_DOT = 0.22
_LINE = 0.12
"""Radius of a dot and height of a line, in pitches."""
_COVERED = {
    Pattern.STRIPES: 0.5,
    Pattern.DOTS: float(np.pi) * _DOT**2,
    Pattern.CHECKS: 0.5,
    Pattern.LINES: _LINE,
}


class PrintView(BaseModel):
    """Rings of one colour on a face's outside, in the base's flat view."""

    colour: str
    rings: list[list[Point]]


def painted(evaluation: Evaluation, piece: PieceOutcome) -> tuple[Paint, ...]:
    """Colours on the piece's outside beside that of its paper."""
    work = piece.work
    if work is None or not work.paper:
        return ()
    return (*pattern_on(work, piece.paper), *_artwork_on(evaluation, piece, work))


def paints_in(cell: Cell, paints: tuple[Paint, ...], matrix: Floats | None = None) -> list[Paint]:
    """What of them lies in a cell; ``matrix`` takes the piece's own frame to the cell's."""
    found = []
    for colour, shape in paints:
        placed = shape if matrix is None else kernel.mapped(shape, matrix)
        part = kernel.common(placed, cell)
        if kernel.area_of(part) > _FINE:
            found.append((colour, part))
    return found


def prints_of(paints: Sequence[Paint]) -> list[PrintView]:
    return [
        PrintView(
            colour=colour,
            rings=[[(round(x, 2), round(y, 2)) for x, y in ring] for ring in rings_of(cell)],
        )
        for colour, cell in paints
    ]


@lru_cache(maxsize=32)
def pattern_on(work: Work, paper: Paper) -> tuple[Paint, ...]:
    """The paper's pattern, begun at the piece's own 0, 0 and turned about it."""
    if paper.pattern is Pattern.NONE:
        return ()
    whole = kernel.flattened(work.paper)
    turn = rotation(paper.pattern_turn)
    back = rotation(-paper.pattern_turn)
    marks = _marks(paper, kernel.box_of(kernel.mapped(whole, back)))
    if marks is None:
        return ((_mixed(paper), whole),)
    return ((paper.pattern_colour, kernel.common(kernel.mapped(marks, turn), whole)),)


def _marks(paper: Paper, box: Box) -> Cell | None:
    """The pattern's marks in a box, not turned; None where there are more than are drawn."""
    pitch = paper.pitch
    across = range(int(np.floor(box.left / pitch)), int(np.ceil(box.right / pitch)))
    down = range(int(np.floor(box.head / pitch)), int(np.ceil(box.foot / pitch)))
    count = {Pattern.STRIPES: len(across), Pattern.LINES: len(down)}
    if count.get(paper.pattern, len(across) * len(down)) > MOST_MARKS:
        return None
    if paper.pattern is Pattern.STRIPES:
        boxes = [Box(n * pitch, box.head, (n + 0.5) * pitch, box.foot) for n in across]
    elif paper.pattern is Pattern.LINES:
        edge = 0.5 - _LINE / 2
        boxes = [Box(box.left, (n + edge) * pitch, box.right, (n + 1 - edge) * pitch) for n in down]
    elif paper.pattern is Pattern.DOTS:
        spots = [((i + 0.5) * pitch, (j + 0.5) * pitch) for i, j in product(across, down)]
        return kernel.discs(np.array(spots), _DOT * pitch)
    else:
        boxes = [
            Box(i * pitch, j * pitch, (i + 1) * pitch, (j + 1) * pitch)
            for i, j in product(across, down)
            if (i + j) % 2 == 0
        ]
    return kernel.boxes(boxes)


def _mixed(paper: Paper) -> str:
    share = _COVERED[paper.pattern]
    channels = (
        round(int(paper.outside[n : n + 2], 16) * (1 - share)
              + int(paper.pattern_colour[n : n + 2], 16) * share)
        for n in (1, 3, 5)
    )  # fmt: skip
    return "#" + "".join(f"{c:02x}" for c in channels)


def _pale(colour: str, paper: Paper) -> str:
    """A colour as it is shown where it is drawn and not cut: more of the paper's than of its own."""
    channels = (
        round(int(colour[n : n + 2], 16) * _OWN + int(paper.outside[n : n + 2], 16) * (1 - _OWN))
        for n in (1, 3, 5)
    )
    return "#" + "".join(f"{c:02x}" for c in channels)


def _artwork_on(evaluation: Evaluation, piece: PieceOutcome, work: Work) -> tuple[Paint, ...]:
    """The colours of the artwork's layers that are printed on a base and are no pieces of the card."""
    if work.artwork is None or work.lying is not None:
        return ()
    artwork = evaluation.design.artworks.get(work.artwork.ref)
    if artwork is None:
        return ()
    shown = drawn_only(evaluation, piece)
    if not shown:
        return ()
    colours = tuple(_pale(layer.colour, piece.paper) for layer in artwork.layers)
    return _coloured(work, piece.setting.shelf[work.artwork.ref], colours, shown)


@lru_cache(maxsize=32)
def _coloured(
    work: Work, drawn: LayerOutlines, colours: tuple[str, ...], shown: tuple[int, ...]
) -> tuple[Paint, ...]:
    """What is seen of the layers, each without those upon it."""
    if work.artwork is None:
        return ()
    whole = kernel.flattened(work.paper)
    if work.panels:  # the lap of a mirrored figure lies behind the fold
        whole = kernel.common(whole, kernel.boxes([work.box_of("front")]))
    above: list[Cell] = []
    found: list[Paint] = []
    for number in reversed(shown):
        region = drawn.layers[number]
        if not region:
            continue
        cell = kernel.flattened(region.transformed(work.artwork.matrix))
        seen = kernel.less(cell, kernel.united(above)) if above else cell
        found.append((colours[number], kernel.common(seen, whole)))
        above.append(cell)
    tolerance = _FINE
    while sum(kernel.corners(c) for _, c in found) > MOST_CORNERS and tolerance <= _ROUGHEST:
        found = [(colour, kernel.coarser(c, tolerance)) for colour, c in found]
        tolerance *= 2
    return tuple(reversed(found))
