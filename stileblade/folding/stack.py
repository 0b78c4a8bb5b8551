"""The whole card: the base with all that lies on it, each layer on its face and at its height.

Heights come of what really lies there, by regions: a layer lies on the highest of those below it that it
overlaps. Measured on outlines flattened to 0.005 mm.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from stileblade.folding.flat import COARSE, Face, fold_flat
from stileblade.geometry.curves.places import Box, around
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, identity
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.piece.lying import Around, AtFolds, Facing
from stileblade.piece.work import Work
from stileblade.tracing import ReadByPart

TOUCHES = 0.5
"""mm^2: two layers that have less in common do not lie on each other."""
_ROUGH = 0.2
"""mm: how finely outlines are compared where only the greatest sum of heights matters."""
_NONE = 0.02
"""mm: what stands out by less does not make the closed card larger."""


@dataclass(frozen=True)
class Laid:
    """A piece for the stack: its key, its host's ("" for none), its finished work, the thickness of its
    paper and the height of what fixes it in mm, its side and place in the stack, and whether it goes
    round the closed card."""

    key: str
    host: str
    work: Work
    thickness: float
    height: float = 0.0
    side: Facing = Facing.OUTSIDE
    order: int = 0
    goes_round: Around = Around.NOTHING

    @property
    def around(self) -> bool:
        """Whether it goes round the closed card, and so is no layer of it."""
        return self.side is Facing.AROUND or bool(self.goes_round)


@dataclass(frozen=True, eq=False)
class Layer:
    """``matrix`` takes the layer's own flat view to the base's; ``cells`` are its parts there, each with the
    number of the base's face that it moves with; ``inside`` says on which side of the base it lies,
    ``turned`` whether its own outside is towards the base's inside. From ``low`` to ``high`` mm above the
    base's paper on that side, ``low`` without what fixes it."""

    key: str
    work: Work
    matrix: Floats
    inside: bool
    cells: tuple[tuple[int, Cell], ...]
    thickness: float
    height: float
    low: float = 0.0

    @property
    def turned(self) -> bool:
        return bool(np.linalg.det(self.matrix[:, :2]) < 0)

    @property
    def high(self) -> float:
        return self.low + self.height + self.thickness

    @cached_property
    def shape(self) -> Cell:
        """All of it in the base's flat view."""
        return kernel.united(cell for _, cell in self.cells)


@lru_cache(maxsize=32)
def stacked(pieces: tuple[Laid, ...]) -> Stack:
    """One and the same stack for the same pieces, so that what is made of it is remembered."""
    return Stack(pieces)


class Stack(ReadByPart):
    """``pieces`` in the document's order, the base first; those that lie on nothing are no layers."""

    def __init__(self, pieces: Sequence[Laid]) -> None:
        self.pieces = tuple(pieces)
        self.base = pieces[0]

    @cached_property
    def _lying(self) -> Stack:
        """The same without what goes round it, which has no part in its layers and its bulk."""
        lying = tuple(p for p in self.pieces if not p.around)
        return self if len(lying) == len(self.pieces) else stacked(lying)

    @cached_property
    def layers(self) -> tuple[Layer, ...]:
        """From the base's paper outwards, those on its outside and those on its inside."""
        if len(self.pieces) == 1:
            return ()
        if self._lying is not self:
            return self._lying.layers
        faces = fold_flat(self.base.work).faces
        filled = [kernel.coarser(kernel.filled_cell(f.cell), COARSE) for f in faces]
        maps = {self.base.key: identity()}
        places: dict[str, tuple[bool, tuple[float, ...]]] = {}
        found: dict[str, Layer] = {}
        for number, piece in enumerate(self.pieces[1:]):
            lying = piece.work.lying
            if lying is None or piece.host not in maps or piece.around:
                continue
            matrix = after(maps[piece.host], lying.matrix)
            maps[piece.key] = matrix
            beneath = piece.side is Facing.INSIDE
            if piece.host in places:
                inside, host = places[piece.host]
                # its host's outside may be towards the viewer of that side, or towards the base
                away = bool(np.linalg.det(maps[piece.host][:, :2]) > 0) != inside
                way = 1.0 if away != beneath else -1.0
            else:
                inside, host, way = beneath, (), 1.0
            places[piece.key] = inside, (*host, way, piece.order, number)
            cell = kernel.mapped(kernel.flattened(piece.work.paper), matrix)
            on = _on_faces(cell, faces, filled, lying.panel, lying.at_folds)
            found[piece.key] = Layer(
                piece.key, piece.work, matrix, inside, on, piece.thickness, piece.height
            )
        # a host stands between what lies beneath it and what lies on it
        order = sorted(found, key=lambda key: (places[key][0], (*places[key][1], 0.0)))
        return self._stacked([found[key] for key in order])

    def _stacked(self, layers: list[Layer]) -> tuple[Layer, ...]:
        done: list[Layer] = []
        shapes = [kernel.coarser(layer.shape, COARSE) for layer in layers]
        for i, layer in enumerate(layers):
            low = 0.0
            for j, other in enumerate(done):
                above = other.inside == layer.inside and other.high > low
                if above and kernel.overlap(shapes[i], shapes[j]) > TOUCHES:
                    low = other.high
            done.append(
                Layer(
                    layer.key, layer.work, layer.matrix, layer.inside, layer.cells,
                    layer.thickness, layer.height, low,
                )
            )  # fmt: skip
        return tuple(done)

    @cached_property
    def bulk(self) -> float:
        """Thickness in mm at the thickest place of the closed card, of papers and what fixes them, with the
        bands round it at theirs."""
        return self._own_bulk + sum(band.bulk for band in self._bands)

    @cached_property
    def _bands(self) -> tuple[Stack, ...]:
        """Each band round the card with what lies on it. An envelope holds the card; it adds nothing."""
        found = []
        for band in self.pieces[1:]:
            if band.goes_round is Around.BAND:
                on = {band.key}
                pieces = [replace(band, host="", side=Facing.OUTSIDE, goes_round=Around.NOTHING)]
                for piece in self.pieces[1:]:
                    if piece.host in on and piece.key not in on:
                        on.add(piece.key)
                        pieces.append(piece)
                found.append(stacked(tuple(pieces)))
        return tuple(found)

    @cached_property
    def _own_bulk(self) -> float:
        """The same without what goes round it."""
        folded = fold_flat(self.base.work)
        if not self.layers:
            return folded.layers * self.base.thickness
        if self._lying is not self:
            return self._lying._own_bulk
        shapes = [(f.closed_cell, self.base.thickness) for f in folded.faces]
        for layer in self.layers:
            for face, cell in layer.cells:
                there = kernel.mapped(cell, folded.faces[face].closed)
                shapes.append((there, layer.thickness + layer.height))
        return kernel.thickest([(kernel.coarser(s, _ROUGH), t) for s, t in shapes])

    @cached_property
    def between(self) -> float:
        """Thickness in mm of what lies between the panels of the closed card at the thickest place: of the
        layers on its inside, papers and what fixes them. What lies on its outside does not hinder a fold."""
        folded = fold_flat(self.base.work)
        inside = [
            (kernel.coarser(kernel.mapped(cell, folded.faces[face].closed), _ROUGH), layer)
            for layer in self.layers
            if layer.inside
            for face, cell in layer.cells
        ]
        return kernel.thickest([(cell, layer.thickness + layer.height) for cell, layer in inside])

    @cached_property
    def closed_box(self) -> Box:
        """The closed card's, with what stands out of it."""
        folded = fold_flat(self.base.work)
        own = folded.closed_box
        boxes = [own]
        for layer in self.layers:
            for face, cell in layer.cells:
                box = kernel.box_of(kernel.mapped(cell, folded.faces[face].closed))
                boxes.append(box)
        whole = around(boxes)
        sides = zip(own.as_list(), whole.as_list(), strict=True)
        return Box(*(b if abs(a - b) > _NONE else a for a, b in sides))

    def layer(self, key: str) -> Layer | None:
        """The layer of a piece's key; None where it is none."""
        return next((la for la in self.layers if la.key == key), None)

    @property
    def closed(self) -> tuple[float, float]:
        """Width and height in mm of the closed card with what stands out of it."""
        return self.closed_box.width, self.closed_box.height


def _on_faces(
    cell: Cell, faces: Sequence[Face], filled: Sequence[Cell], panel: str, at_folds: AtFolds
) -> tuple[tuple[int, Cell], ...]:
    """What of a layer moves with which of the base's faces."""
    shared = [kernel.overlap(cell, face) for face in filled]
    if at_folds is AtFolds.CREASED and sum(s > TOUCHES for s in shared) > 1:
        most = int(np.argmax(shared))
        parts = [(i, kernel.common(cell, filled[i])) for i, s in enumerate(shared) if s > TOUCHES]
        rest = kernel.less(cell, kernel.united(filled))
        if kernel.area_of(rest) > TOUCHES:
            parts = [(i, kernel.united([c, rest]) if i == most else c) for i, c in parts]
        return tuple(parts)
    own = [i for i, f in enumerate(faces) if f.panel == panel and shared[i] > TOUCHES]
    return ((max(own or range(len(faces)), key=lambda i: shared[i]), cell),)
