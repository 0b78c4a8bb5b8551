"""The whole card's layers as pictures draw them: one model for the browser and for still pictures."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from stileblade.card.stock import Paper
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.flat import fold_flat, is_shut
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
    return stack is not None and stack.base.work is piece.whole


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


def rooms_between(evaluation: Evaluation) -> tuple[float, ...]:
    """Per face of the base, how many mm of layers lie between it and the one that it hangs on when they are
    shut; none where nothing lies on the base."""
    stack = evaluation.stack
    return _rooms(stack) if stack and stack.layers else ()


@lru_cache(maxsize=32)
def _rooms(stack: Stack) -> tuple[float, ...]:
    work = stack.base.work
    folded = fold_flat(work)
    faces, place = folded.faces, {face: n for n, face in enumerate(folded.order)}
    parts = [
        (
            f,
            la.inside,
            kernel.coarser(kernel.mapped(c, faces[f].closed), 0.1),
            la.thickness + la.height,
        )
        for la in stack.layers
        for f, c in la.cells
    ]

    def room(number: int) -> float:
        face = faces[number]
        if face.joint is None or face.parent is None or not is_shut(work.folds[face.joint.fold]):
            return 0.0
        if work.folds[face.joint.fold].crease.inner:
            return 0.0
        near, far = sorted((number, face.parent), key=place.__getitem__)
        # of the nearer one what it turns away from the viewer, of the farther one what it shows
        between = {near: not faces[near].turned, far: faces[far].turned}
        return kernel.thickest(
            [
                (cell, height)
                for f, inside, cell, height in parts
                if between.get(f, inside) is inside and place[near] <= place[f] <= place[far]
            ]
        )

    return tuple(map(room, range(len(faces))))
