"""The card in space: its faces, how they hang on each other, and the poses that it is shown in."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from pydantic import BaseModel

from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.flat import fold_flat, over_each_other
from stileblade.folding.space import (
    Hinge,
    corners_in_space,
    faces_in_space,
    half_open,
    height_of,
    maps_in_space,
    sequence,
    stood_up,
    turned_up,
)
from stileblade.folding.stand import Stand, stand_of
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.cells import area_of
from stileblade.piece.work import Work
from stileblade.views.closed import envelope_about
from stileblade.views.drawn import DrawnView, drawn_on
from stileblade.views.folded import eye_of, is_level, layers_on
from stileblade.views.places import Bounds
from stileblade.views.prints import PrintView, paints_in, prints_of
from stileblade.views.sheets import LayerSheet, card_of


class HingeView(BaseModel):
    """A face turns about the line from start to end by sign times the angle of its fold; z is how
    far before the outside the line lies, in mm."""

    fold: int
    start: Point
    end: Point
    sign: int
    z: float


class FaceView(BaseModel):
    panel: str
    rings: list[list[Point]]
    parent: int | None
    hinge: HingeView | None
    lines: list[DrawnView]
    """What is drawn on its outside."""
    prints: list[PrintView]
    """What is printed there, below that."""


class StandView(BaseModel):
    """Space is x right, y up, z to the viewer of the outside; table is the height along up, eye the
    direction from which it is looked at, up being y. path: from half open to how it stands."""

    angles: list[float]
    path: list[list[float]]
    up: tuple[float, float, float]
    table: float
    eye: tuple[float, float, float]


class LayerSheetView(BaseModel):
    """A part of a layer on a face: rings in the flat view, from low to high mm before the outside's plane, its
    rank on its side (negative inside), and the colours towards the outside and the inside."""

    piece: str
    face: int
    rings: list[list[Point]]
    low: float
    high: float
    rank: int
    outside: str
    inside: str
    light: float
    lines: list[DrawnView]
    prints: list[PrintView]
    turned: bool
    """Whether its own outside, with lines and prints, is on the side that looks as the base's inside does."""


class SpaceView(BaseModel):
    """sequence: angles of all folds after each stage of closing, the first one open. envelope:
    left, head, right, foot about the closed card, in the flat view's measures. eye: the direction
    from which the half-open card is looked at, and eye_inside that from which one looks into it."""

    piece: str
    """The piece that is shown: the base for all that lies on it."""
    faces: list[FaceView]
    layers: list[LayerSheetView]
    folds: list[str]
    over: list[list[int]]
    """Per fold the others with which it opens and shuts in their order."""
    sequence: list[list[float]]
    half: list[float]
    stand: StandView | None
    envelope: Bounds | None
    eye: tuple[float, float, float]
    eye_inside: tuple[float, float, float]
    outside: str
    inside: str
    thickness: float
    light: float


def no_space(piece: PieceOutcome) -> SpaceView:
    """What is shown while there is no paper."""
    paper = piece.paper
    return SpaceView(
        piece=piece.piece.id,
        faces=[],
        layers=[],
        folds=[],
        over=[],
        sequence=[],
        half=[],
        stand=None,
        envelope=None,
        eye=(0, 0, 1),
        eye_inside=(0, 0, -1),
        outside=paper.outside,
        inside=paper.inside,
        thickness=paper.thickness,
        light=paper.light,
    )


def space_of(evaluation: Evaluation, piece: PieceOutcome, work: Work) -> SpaceView:
    """The folded card that shows a piece."""
    piece = card_of(evaluation, piece)
    work = piece.whole or work
    layers, flat_faces = layers_on(evaluation, piece), fold_flat(work).faces
    rooms = layers.rooms or (0.0,) * len(flat_faces)
    faces = [
        FaceView(
            panel=f.panel,
            rings=[[(round(x, 3), round(y, 3)) for x, y in ring] for ring in f.rings],
            parent=f.parent,
            hinge=_hinge(work, f.hinge, piece.paper.thickness, room) if f.hinge else None,
            lines=drawn_on(work, flat.cell),
            prints=prints_of(paints_in(flat.cell, layers.paints)),
        )
        for f, flat, room in zip(faces_in_space(work), flat_faces, rooms, strict=True)
    ]
    return no_space(piece).model_copy(
        update={
            "faces": faces,
            "layers": [_layer(sheet) for sheet in layers.sheets],
            "folds": [f.name for f in work.folds],
            "over": [list(others) for others in over_each_other(work)],
            "sequence": sequence(work),
            "half": half_open(work),
            "stand": _stand(work, stand_of(work)),
            "envelope": envelope_about(evaluation, piece, work),
            "eye": _eye(work, half_open(work)),
            "eye_inside": _eye_inside(work, half_open(work)),
        }
    )


def _layer(sheet: LayerSheet) -> LayerSheetView:
    rings = [[(round(x, 3), round(y, 3)) for x, y in ring] for ring in sheet.rings]
    told = {"rings": rings, "lines": list(sheet.lines), "prints": prints_of(sheet.paints)}
    return LayerSheetView.model_validate({**vars(sheet), **told})


def _hinge(work: Work, hinge: Hinge, thickness: float, room: float) -> HingeView:
    return HingeView(
        fold=hinge.fold,
        start=hinge.start,
        end=hinge.end,
        sign=hinge.sign,
        z=height_of(work, hinge, thickness, room),
    )


def _stand(work: Work, stand: Stand | None) -> StandView | None:
    if stand is None:
        return None
    x, y, z = stand.up.tolist()
    eye = _eye(work, stand.angles, stand.up)
    return StandView(
        angles=list(stand.angles),
        path=stood_up(work, stand.angles),
        up=(x, y, z),
        table=stand.table,
        eye=eye,
    )


_LOOKED_DOWN = 0.45
"""How far above what is looked into the eye is, to 1 along the way into it."""


def _eye_inside(work: Work, angles: Sequence[float]) -> tuple[float, float, float]:
    """The direction that the insides of the faces look in, each by its area, from somewhat above."""
    faces = zip(fold_flat(work).faces, maps_in_space(work, angles), strict=True)
    inwards = sum((-area_of(face.cell) * m[:3, 2] for face, m in faces), np.zeros(3))
    length = float(np.linalg.norm(inwards))
    if length < 1e-9:
        return 0.0, 0.0, -1.0
    x, y, z = (inwards / length).tolist()
    return x, y + _LOOKED_DOWN, z


def _eye(
    work: Work, angles: Sequence[float], up: Floats | None = None
) -> tuple[float, float, float]:
    points = np.concatenate(corners_in_space(work, angles))
    if up is not None:
        points = points @ turned_up(up).T
    x, y, z = eye_of(points, level=is_level(work)).tolist()
    return x, y, z
