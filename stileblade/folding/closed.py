"""The closed card as it is held: its outline, what of the back shows round the front, what of the
front stands out, and its layers from the front to the back.

Measured on outlines flattened to 0.005 mm.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from stileblade.folding.faces import sheet_of
from stileblade.folding.flat import Face, fold_flat
from stileblade.geometry.curves.places import Box
from stileblade.geometry.measures.cells import (
    Cell,
    area_of,
    beyond,
    filled_cell,
    less,
    mapped,
    united,
)
from stileblade.geometry.measures.widths import at_least_wide, farthest, is_wide, widest
from stileblade.piece.work import Work

NONE = 0.01
"""mm^2: what is less is none."""


@dataclass(frozen=True, eq=False)
class Layer:
    """One face of the closed card, and whether its inside is towards the viewer of the front."""

    panel: str
    turned: bool


@dataclass(frozen=True, eq=False)
class Closed:
    """reveal: what of the rest is seen round the front; out: what of the front stands out beyond
    the rest; each with its area in mm^2 and how far it reaches, in mm."""

    box: Box
    outline: Cell
    front: Cell
    reveal: Cell
    out: Cell
    reveal_area: float
    reveal_by: float
    out_area: float
    out_by: float
    layers: tuple[Layer, ...]


def front_faces(work: Work) -> list[Face]:
    """The faces that are in front when the card is closed."""
    fronts = work.fronts or (work.front,)
    faces = fold_flat(work).faces
    found = [f for f in faces if f.panel in fronts]
    return found or [faces[fold_flat(work).order[0]]]


def _left_by(work: Work, own: list[Face], others: list[Face]) -> list[Cell]:
    """The holes, where they come to lie in the closed card, that faces leave in others by reaching over
    the fold between them: a figure that stands up is cut out of the panel that it stands before."""
    sheet, faces = sheet_of(work), fold_flat(work).faces
    found = []
    for joint in sheet.joints:
        for face, other in ((joint.a, joint.b), (joint.b, joint.a)):
            if faces[face] in own and faces[other] in others:
                sign = 1.0 if face == joint.a else -1.0
                over = beyond(faces[face].cell, work.folds[joint.fold].line, -sign)
                if area_of(over) > NONE:
                    found.append(mapped(over, faces[other].closed))
    return found


def _reach(cell: Cell, other: Cell) -> float:
    """How far the cell reaches beyond the other, or how wide it is where that is more."""
    away = farthest(cell, other, beyond=at_least_wide(cell))
    # how wide it is takes far longer than whether it is wider
    return widest(cell) if is_wide(cell, away) else away


@lru_cache(maxsize=64)
def closed_card(work: Work) -> Closed:
    """The closed card of a piece that has paper."""
    folded = fold_flat(work)
    fronts = front_faces(work)
    others = [f for f in folded.faces if f not in fronts]
    front = united(f.closed_cell for f in fronts)
    rest = united(f.closed_cell for f in others)
    shapes = [f.closed_cell for f in folded.faces]
    # windows of the front show what is behind, and are no reveal; nor do the back's make an overhang
    covering, behind = filled_cell(front), filled_cell(rest)
    covering = united([covering, *_left_by(work, others, fronts)])
    behind = united([behind, *_left_by(work, fronts, others)])
    reveal, out = less(rest, covering), less(front, behind)
    if len(fronts) == len(folded.faces):  # there is nothing that it could stand out from
        out = united([])
    return Closed(
        folded.closed_box,
        united(shapes),
        front,
        reveal,
        out,
        area_of(reveal),
        _reach(reveal, covering),
        area_of(out),
        _reach(out, behind),
        tuple(Layer(folded.faces[i].name, folded.faces[i].turned) for i in folded.order),
    )
