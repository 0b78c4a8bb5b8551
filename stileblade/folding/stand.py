"""The card set up on a table: on what it stands, whether it rocks, whether it tips.

Creases that run upright: the card stands on its lower edge. Level creases: it stands like a
tent, or an easel, on what comes lowest once it has settled. Paper is taken without thickness.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from stileblade.folding.flat import Face, fold_flat
from stileblade.folding.space import in_space, maps_in_space, standing
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.cells import holding, moment_of, points_of
from stileblade.geometry.measures.hull import hull_of, margin_in
from stileblade.geometry.regions.clipping import clip_line
from stileblade.piece.work import Work
from stileblade.tolerance import TOLERANCE

LEAST_RUN = 10.0
"""mm: a panel that touches along less, and at no two places so far apart, rocks."""


@dataclass(frozen=True)
class Foot:
    """What of one panel touches the table: stretches in the flat view; ``touching`` is their
    length, ``apart`` the distance of their outermost ends, ``run`` the longest of them, in mm."""

    panel: str
    stretches: tuple[tuple[Point, Point], ...]
    touching: float
    apart: float
    run: float

    @property
    def steady(self) -> bool:
        return max(self.touching, self.apart) >= LEAST_RUN - 1e-6


@dataclass(frozen=True, eq=False)
class Stand:
    """up: unit vector in space; table: its height along it. ``safe`` is the distance in mm of the
    centre of mass, seen from above, from the nearest side of what the feet enclose: negative
    where it tips. ``plan`` holds the feet's hull seen from above.
    """

    angles: tuple[float, ...]
    up: Floats
    table: float
    feet: tuple[Foot, ...]
    safe: float
    plan: tuple[Point, ...]

    @property
    def rocks(self) -> list[Foot]:
        """Panels that touch the table, but too little to be steady on it."""
        return [f for f in self.feet if not f.steady]

    @property
    def tips(self) -> bool:
        return self.safe < -1e-6


@lru_cache(maxsize=64)
def stand_of(work: Work) -> Stand | None:
    """How the piece stands; None where it has no fold that would let it."""
    folded = fold_flat(work)
    folding = [f for f in work.folds if f.folds and work.spans[f.name]]
    if (
        not folding
        or len(folded.faces) < 2
        or any(f.axis is None and not f.crease.inner for f in folding)
    ):
        return None
    angles = standing(work)
    maps = maps_in_space(work, angles)
    faces = [f for f in folded.faces if not f.loose]
    maps = [m for m, f in zip(maps, folded.faces, strict=True) if not f.loose]
    solid = [in_space(m, points_of(f.cell)) for m, f in zip(maps, faces, strict=True)]
    mass, centre = _centre_of_mass(faces, maps)
    up = _up(work, np.concatenate(solid), centre)
    # where creases are upright or level, heights run along one side of each face's exact box
    boxes = [in_space(m, _lowest_of(work, f)) for m, f in zip(maps, faces, strict=True)]
    table = float((np.concatenate(boxes) @ up).min())
    feet = []
    plan: list[Floats] = []
    for face, matrix in zip(faces, maps, strict=True):
        foot = _foot(work, face, matrix, up, table)
        if foot is not None:
            feet.append(foot)
            ends = np.array([p for s in foot.stretches for p in s])
            plan.append(in_space(matrix, _down_to_table(matrix, up, ends)))
    if not plan or mass <= 0:
        return None
    right, away = _level_axes(up)
    seen = np.concatenate(plan) @ np.column_stack([right, away])
    middle = centre @ np.column_stack([right, away])
    hull = hull_of(seen)
    return Stand(
        tuple(angles), up, table, tuple(feet), margin_in(hull, middle),
        tuple((float(x), float(y)) for x, y in hull),
    )  # fmt: skip


def _lowest_of(work: Work, face: Face) -> Floats:
    """Places (n, 2) of the flat view among which a face's lowest is: its box's corners, or its own where
    it hangs on a slanting crease."""
    slanting = face.joint is not None and work.folds[face.joint.fold].axis is None
    return points_of(face.cell) if slanting else np.array(face.box.corners())


def _heights(matrix: Floats, up: Floats) -> tuple[float, Floats]:
    """Of a face set up: the height of its (0, 0) and the slope (2,) over its flat view."""
    zero, x, y = in_space(matrix, np.array([(0, 0), (1, 0), (0, 1)])) @ up
    return float(zero), np.array([x - zero, y - zero])


def _down_to_table(matrix: Floats, up: Floats, points: Floats) -> Floats:
    """Places of the flat view at a height of 0.02 mm, run on down the face to the table."""
    _, slope = _heights(matrix, up)
    steep = float(slope @ slope)
    return points - slope * TOLERANCE.touch / steep if steep > 1e-9 else points


def _centre_of_mass(faces: list[Face], maps: list[Floats]) -> tuple[float, Floats]:
    mass, moment = 0.0, np.zeros(3)
    for face, matrix in zip(faces, maps, strict=True):
        area, centre = moment_of(face.cell)
        mass += area
        moment += area * in_space(matrix, centre[None])[0]
    return mass, moment / max(mass, 1e-9)


def _up(work: Work, points: Floats, centre: Floats) -> Floats:
    """The direction that points up: against y for upright creases; for level ones that in which
    the card has settled with its hinges uppermost."""
    folded = fold_flat(work)
    for face, matrix in zip(folded.faces, maps_in_space(work, standing(work)), strict=True):
        if face.panel == work.lies_on:
            return -np.asarray(matrix[:3, 2])
    folding = [f for f in work.folds if f.folds and work.spans[f.name]]
    if any(f.axis == "x" for f in folding if f.crease.stand < 180):
        return np.array([0.0, 1.0, 0.0])
    # across the creases: y and z; the hull's side that is nearest to lying below the mass
    across = points[:, 1:]
    hull = hull_of(across)
    if len(hull) < 4:
        return np.array([0.0, 1.0, 0.0])
    middle = centre[1:]
    guess = _away_from_hinges(work, middle)
    best, up = -math.inf, np.array([1.0, 0.0])
    for a, b in pairwise(hull):
        side = b - a
        size = float(np.hypot(*side))
        if size < 1.0:
            continue
        normal = np.array([-side[1], side[0]]) / size
        if (middle - a) @ normal < 0:
            normal = -normal
        place = (middle - a) @ side / size
        score = float(normal @ guess) - (1.0 if not 0 <= place <= size else 0.0)
        if score > best:
            best, up = score, normal
    return np.array([0.0, up[0], up[1]])


def _away_from_hinges(work: Work, middle: Floats) -> Floats:
    """From the centre of mass to the middle of the hinges, in the plane across them."""
    folded = fold_flat(work)
    maps = maps_in_space(work, standing(work))
    ends = [
        in_space(maps[f.parent], np.array([f.joint.start, f.joint.end]))
        for f in folded.faces
        if f.joint is not None and f.parent is not None
    ]
    towards = np.concatenate(ends)[:, 1:].mean(axis=0) - middle
    size = float(np.hypot(*towards))
    return towards / size if size > 1e-6 else np.array([1.0, 0.0])


def _level_axes(up: Floats) -> tuple[Floats, Floats]:
    """Two unit vectors of the table, the first to the right."""
    right = np.array([1.0, 0.0, 0.0])
    return right, np.cross(right, up)


def _foot(work: Work, face: Face, matrix: Floats, up: Floats, table: float) -> Foot | None:
    """The stretches of the face at a height of 0.02 mm; the whole face where it lies down."""
    at_zero, (gx, gy) = _heights(matrix, up)
    g0 = at_zero - table
    steep = math.hypot(gx, gy)
    if steep < 1e-6:
        if g0 > TOLERANCE.touch:
            return None
        b = face.box
        return Foot(face.name, (((b.left, b.head), (b.right, b.foot)), ((b.left, b.foot), (b.right, b.head))),
                    max(b.width, b.height), max(b.width, b.height), max(b.width, b.height))  # fmt: skip
    at = TOLERANCE.touch - g0
    origin = (at * gx / steep**2, at * gy / steep**2)
    line = Line.through(origin, (origin[0] - gy / steep, origin[1] + gx / steep))
    found = [
        part
        for stretch in clip_line(work.paper, *line.ends_beyond(work.paper.bounds))
        for part in _between_folds(work, stretch, line)
    ]
    if found:
        inside = holding([face.cell], np.array([np.add(*s) / 2 for s in found])) == 0
        found = [s for s, hit in zip(found, inside, strict=True) if hit]
    if not found:
        return None
    places = line.place(np.array([p for s in found for p in s]))
    lengths = [math.dist(*s) for s in found]
    return Foot(
        face.name, tuple(found), sum(lengths), float(places.max() - places.min()), max(lengths)
    )


def _between_folds(
    work: Work, stretch: tuple[Point, Point], line: Line
) -> list[tuple[Point, Point]]:
    """A stretch that runs on from face to face, in parts that each belong to one."""
    ends = np.array(stretch)
    low, high = line.place(ends).tolist()
    stops = [low, high]
    for fold in work.folds:
        off = fold.line.off(ends)
        if fold.folds and off[0] * off[1] < 0:
            stops.append(low + (high - low) * float(off[0] / (off[0] - off[1])))
    stops.sort()
    return [(line.point_at(a), line.point_at(b)) for a, b in pairwise(stops) if b - a > 1e-6]
