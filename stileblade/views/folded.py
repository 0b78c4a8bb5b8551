"""Still pictures of the folded card, seen from where the folded view shows it first."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np
from pydantic import BaseModel

from stileblade.card.stock import Paper
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.flat import fold_flat
from stileblade.folding.space import faces_in_space, half_open, in_space, maps_in_space, sequence
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.distances import rings_of
from stileblade.piece.work import Work
from stileblade.views.drawn import DrawnView, drawn_on
from stileblade.views.places import Bounds
from stileblade.views.prints import Paint, painted, paints_in
from stileblade.views.sheets import LayerSheet, is_base, layer_sheets, rooms_between

_ROUND = {26.0: 1.15, -26.0: 1.05, 52.0: 0.95, -52.0: 0.95}
"""Degrees round from the front that the eye may be, to the right, with how much each is liked."""
_ABOVE = {False: 12.0, True: 17.0}
"""Degrees above: for upright creases, and for level ones."""
ABOVE: Floats = np.array([0.345, 0.616, 0.708])
"""The direction of an eye 26 degrees to the right and 38 above."""
UP: Floats = np.array([0.0, 1.0, 0.0])
_FAR = 4.0
"""Distance of the eye in diagonals of the card: a mild perspective."""


class ShapeView(BaseModel):
    """One filled face: path data (y down, mm), its colour, which side is seen, and the share of light that
    goes through it; a ``print`` has no edge; a ``line`` is open, in that colour, and fills nothing."""

    path: str
    fill: str
    side: str
    light: float = 0.0
    what: Literal["paper", "print", "line"] = "paper"


class FoldedPicture(BaseModel):
    """box: left, head, width, height of all shapes."""

    box: Bounds
    shapes: list[ShapeView]


@dataclass(frozen=True, eq=False)
class Layers:
    """What lies on the card: ``rooms`` mm of it between each face and its parent when they are shut; each stands ``apart`` mm off the
    one below it. ``paints``: what is printed on the card's own outside."""

    sheets: tuple[LayerSheet, ...] = ()
    rooms: tuple[float, ...] = ()
    apart: float = 0.0
    paints: tuple[Paint, ...] = ()


NO_LAYERS = Layers()


def layers_on(evaluation: Evaluation, piece: PieceOutcome, apart: float = 0.0) -> Layers:
    """What is printed on the piece and, if it is the base, the layers of the whole card."""
    paints = painted(evaluation, piece)
    if not is_base(evaluation, piece):
        return Layers(paints=paints)
    return Layers(layer_sheets(evaluation), rooms_between(evaluation), apart, paints)


def folded_picture(work: Work, paper: Paper, layers: Layers = NO_LAYERS) -> FoldedPicture:
    return picture_of(work, paper, half_open(work), layers=layers)


def closing_pictures(work: Work, paper: Paper, stages: int) -> list[FoldedPicture]:
    """Pictures of the card from open to closed: ``stages`` to each group of folds, and the first; seen from so far
    above that they show how the panels lie."""
    keys = sequence(work)
    left, head, right, foot = work.paper.bounds.as_list()
    about = np.array([(left + right) / 2, -(head + foot) / 2, 0.0])
    found = [picture_of(work, paper, keys[0], about, eye=ABOVE)]
    for before, after in pairwise(keys):
        for n in range(1, stages + 1):
            share = n / stages
            angles = [a + (b - a) * share for a, b in zip(before, after, strict=True)]
            found.append(picture_of(work, paper, angles, about, eye=ABOVE))
    return found


def picture_of(
    work: Work,
    paper: Paper,
    angles: Sequence[float],
    about: Floats | None = None,
    *,
    eye: Floats | None = None,
    up: Floats = UP,
    layers: Layers = NO_LAYERS,
) -> FoldedPicture:
    """Faces from back to front as polygons, folds at the given angles in degrees, with ``layers`` on them; seen
    about a place in space, by itself the card's middle, from the direction ``eye`` (3,), by itself the
    best one."""
    faces, folded = faces_in_space(work), fold_flat(work)
    flat = folded.faces
    maps = maps_in_space(work, angles, paper.thickness, layers.rooms)
    solid = [
        [in_space(m, np.array(ring)) for ring in face.rings]
        for face, m in zip(faces, maps, strict=True)
    ]
    everything = [ring for rings in solid for ring in rings]
    if not everything:
        return FoldedPicture(box=(0, 0, 1, 1), shapes=[])
    points = np.concatenate(everything)
    centre = (points.min(axis=0) + points.max(axis=0)) / 2 if about is None else about
    towards = eye_of(points, level=is_level(work)) if eye is None else eye
    distance = _FAR * float(np.linalg.norm(points.max(axis=0) - points.min(axis=0)))
    seen: list[Floats] = []

    def path_of(lines: Sequence[Floats], end: str) -> str:
        placed = [_project(line - centre, towards, distance, up) for line in lines]
        seen.extend(placed)
        return "".join("M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in ln) + end for ln in placed)

    def shape_of(rings: Sequence[Floats], fill: str, side: str, light: float) -> ShapeView:
        return ShapeView(path=path_of(rings, "Z"), fill=fill, side=side, light=light)

    def inks(
        prints: Iterable[Paint], lines: Iterable[DrawnView], matrix: Floats, z: float, side: str
    ) -> Iterator[ShapeView]:
        for colour, cell in prints:
            rings = [in_space(matrix, np.array(ring), z) for ring in rings_of(cell)]
            yield ShapeView(path=path_of(rings, "Z"), fill=colour, side=side, what="print")
        for drawn in lines:
            ways = [in_space(matrix, np.array(line), z) for line in drawn.lines]
            yield ShapeView(path=path_of(ways, ""), fill=drawn.colour, side=side, what="line")

    depth = {
        n: float(np.concatenate(rings).mean(axis=0) @ towards)
        for n, rings in enumerate(solid)
        if rings
    }
    if list(angles) == sequence(work)[-1]:  # shut: what lies on what is known
        order = folded.order
        depth = {n: -float(order.index(n)) for n in depth}
    # by depth first, then what lies on a face after it, or before it where it is seen from behind
    shapes: list[tuple[float, float, ShapeView]] = []
    for number in depth:
        rings, matrix = solid[number], maps[number]
        outside = float(matrix[:3, 2] @ (towards * distance - (rings[0].mean(axis=0) - centre))) > 0
        fill, side = (paper.outside, "outside") if outside else (paper.inside, "inside")
        shapes.append((depth[number], 0.0, shape_of(rings, fill, side, paper.light)))
        if outside:
            cell = flat[number].cell
            prints, lines = paints_in(cell, layers.paints), drawn_on(work, cell)
            shapes += [(depth[number], 0.0, s) for s in inks(prints, lines, matrix, 0.0, side)]
        for sheet in layers.sheets:
            if sheet.face != number:
                continue
            z = (sheet.high if outside else sheet.low) + layers.apart * sheet.rank
            lifted = [in_space(matrix, np.array(ring), z) for ring in sheet.rings]
            colour = sheet.outside if outside else sheet.inside
            rank = float(sheet.rank if outside else -sheet.rank)
            over = [depth[n] for n in (number, *sheet.over) if n in depth]
            far = max(over) if rank > 0 else min(over)
            shapes.append((far, rank, shape_of(lifted, colour, side, sheet.light)))
            if outside is not sheet.turned:
                made = inks(sheet.paints, sheet.lines, matrix, z, side)
                shapes += [(far, rank, s) for s in made]
    found = np.concatenate(seen)
    (left, head), (right, foot) = found.min(axis=0).tolist(), found.max(axis=0).tolist()
    ordered = [shape for _, _, shape in sorted(shapes, key=lambda s: s[:2])]
    return FoldedPicture(box=(left, head, right - left, foot - head), shapes=ordered)


def is_level(work: Work) -> bool:
    """Whether it opens about level creases."""
    return any(f.axis == "y" and f.folds and f.crease.half < 170 for f in work.folds)


def eye_of(points: Floats, *, level: bool) -> Floats:
    """The direction (3,) from which the card, given by places (n, 3), is best looked at: from the
    front, so far round that it is spread out widely and little of it lies behind the rest."""
    above = math.radians(_ABOVE[level])
    best, eye = -1.0, np.array([0.0, 0.0, 1.0])
    for degrees, liking in _ROUND.items():
        turn = math.radians(degrees)
        across = points @ np.array([math.cos(turn), 0.0, -math.sin(turn)])
        width = float(np.ptp(across)) * liking
        if width > best * (1 + 1e-6):
            best = width
            eye = np.array([math.sin(turn) * math.cos(above), math.sin(above),
                            math.cos(turn) * math.cos(above)])  # fmt: skip
    return eye


def _project(points: Floats, towards: Floats, distance: float, upwards: Floats) -> Floats:
    """To the picture's plane, y downwards."""
    right = np.cross(upwards, towards)
    right /= np.linalg.norm(right)
    up = np.cross(towards, right)
    scale = distance / (distance - points @ towards)
    return np.column_stack([points @ right * scale, -(points @ up) * scale])
