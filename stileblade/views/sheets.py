"""The whole card's layers as pictures draw them: one model for the browser and for still pictures."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from stileblade.card.stock import Paper
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.flat import fold_flat
from stileblade.folding.stack import TOUCHES, Stack
from stileblade.geometry.curves.places import Point
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.distances import rings_of
from stileblade.piece.lying import AtFolds
from stileblade.views.drawn import DrawnView, drawn_on
from stileblade.views.prints import Paint, paints_in, pattern_on

MOST_CORNERS = 900
"""Of all layers together: each costs about four triangles."""
_ROUGHEST = 1.0


@dataclass(frozen=True, eq=False)
class LayerSheet:
    """A part of a layer that moves with a face of the base: ``rings`` in the base's flat view, ``low`` and
    ``high`` mm from the base's outside plane, along its outside's normal; ``rank`` is its place on its side,
    from 1, negative inside; colours of the faces that look as the base's outside and inside do."""

    piece: str
    face: int
    rings: list[list[Point]]
    low: float
    high: float
    rank: int
    outside: str
    inside: str
    light: float
    over: tuple[int, ...] = ()
    """Other faces that it reaches over, free of them."""
    lines: tuple[DrawnView, ...] = ()
    """What is drawn on its own outside."""
    paints: tuple[Paint, ...] = ()
    """What is printed there."""
    turned: bool = False
    """Whether its own outside looks as the base's inside does."""


def card_of(evaluation: Evaluation, piece: PieceOutcome) -> PieceOutcome:
    """The piece whose folded picture shows a piece: the base for all that lies on it."""
    stack = evaluation.stack
    if stack is None or stack.layer(piece.piece.id) is None:
        return piece
    return evaluation.piece(stack.base.key) or piece


def is_base(evaluation: Evaluation, piece: PieceOutcome) -> bool:
    stack = evaluation.stack
    return stack is not None and stack.base.work is piece.work


def layer_sheets(evaluation: Evaluation) -> tuple[LayerSheet, ...]:
    """All layers that are not hidden, from the base's paper outwards on each side."""
    stack = evaluation.stack
    if stack is None or not stack.layers:
        return ()
    papers = tuple((p.piece.id, p.paper) for p in evaluation.pieces if not p.piece.hidden)
    return _sheets(stack, papers)


@lru_cache(maxsize=32)
def _sheets(stack: Stack, papers: tuple[tuple[str, Paper], ...]) -> tuple[LayerSheet, ...]:
    of, own = dict(papers), stack.base.thickness
    shown = [la for la in stack.layers if la.key in of]
    tolerance = 0.02
    cells = [[(f, kernel.coarser(c, tolerance)) for f, c in la.cells] for la in shown]
    while sum(kernel.corners(c) for each in cells for _, c in each) > MOST_CORNERS and (
        tolerance < _ROUGHEST
    ):
        tolerance *= 2
        cells = [[(f, kernel.coarser(c, tolerance)) for f, c in each] for each in cells]
    faces_of = fold_flat(stack.base.work).faces
    found, ranks = [], {True: 0, False: 0}
    for layer, parts in zip(shown, cells, strict=True):
        ranks[layer.inside] += 1
        paper = of[layer.key]
        faces = (paper.inside, paper.outside) if layer.turned else (paper.outside, paper.inside)
        near, far = layer.low + layer.height, layer.high
        low, high = (-own - far, -own - near) if layer.inside else (near, far)
        rank = -ranks[True] if layer.inside else ranks[False]
        lying = layer.work.lying
        half = lying is not None and lying.at_folds is AtFolds.HALF
        for face, cell in parts:
            over = tuple(
                i
                for i, other in enumerate(faces_of)
                if half and i != face and kernel.overlap(cell, other.cell) > TOUCHES
            )
            rings = rings_of(cell)
            lines = tuple(drawn_on(layer.work, cell, layer.matrix))
            paints = tuple(paints_in(cell, pattern_on(layer.work, paper), layer.matrix))
            found.append(
                LayerSheet(
                    layer.key, face, rings, low, high, rank, *faces, paper.light, over, lines,
                    paints, layer.turned,
                )
            )  # fmt: skip
    return tuple(found)


def room_inside(evaluation: Evaluation) -> float:
    """mm between the panels of the closed card that what lies inside takes."""
    stack = evaluation.stack
    return _room(stack) if stack and stack.layers else 0.0


@lru_cache(maxsize=32)
def _room(stack: Stack) -> float:
    faces = fold_flat(stack.base.work).faces
    return kernel.thickest(
        [
            (kernel.coarser(kernel.mapped(c, faces[f].closed), 0.1), la.thickness + la.height)
            for la in stack.layers
            if la.inside
            for f, c in la.cells
        ]
    )
