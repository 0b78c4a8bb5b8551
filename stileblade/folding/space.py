"""The card in space: flat faces, the hinges they turn about, and angles for its poses.

Space is x to the right, y up, z towards the viewer of the outside; a face lies in the plane
z = 0 as in the flat view (its y turned round) until its hinges turn it. Paper has thickness:
hinges lie so far behind or before it that closed layers come to lie on each other.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from stileblade.card.creases import Direction
from stileblade.folding.flat import Face, Folded, fold_flat, is_shut
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.cells import Cell, coarser, corners, points_of
from stileblade.geometry.measures.distances import rings_of
from stileblade.piece.work import Work

MOST_CORNERS = 1200
"""Each corner costs about four triangles, and 5,000 are what software rendering can turn."""
_ROUGHEST = 2.0
GEARED_PARTS = 12
"""Between two stages, where creases do not turn evenly with each other."""


@dataclass(frozen=True)
class Hinge:
    """A line about which a face turns by the angle of its ``fold`` (a number): from ``start`` to
    ``end`` in the flat view, right-handed in space, in the sense of ``sign``. ``z`` is how far
    before the outside the line lies, in thicknesses of paper."""

    fold: int
    start: Point
    end: Point
    sign: int
    z: float


@dataclass(frozen=True)
class SpaceFace:
    panel: str
    rings: list[list[Point]]
    """Closed polylines; shells run with positive area, openings against it."""
    parent: int | None
    hinge: Hinge | None


@lru_cache(maxsize=32)
def faces_in_space(work: Work) -> tuple[SpaceFace, ...]:
    """The faces as polylines, coarse enough for the folded view."""
    folded = fold_flat(work)
    cells = _few_corners([f.cell for f in folded.faces])
    return tuple(
        SpaceFace(face.name, rings_of(cell), face.parent, hinge_of(work, folded, face))
        for face, cell in zip(folded.faces, cells, strict=True)
    )


def _few_corners(cells: list[Cell]) -> list[Cell]:
    tolerance = 0.02
    found = [coarser(c, tolerance) for c in cells]
    while sum(map(corners, found)) > MOST_CORNERS and tolerance < _ROUGHEST:
        tolerance *= 2
        found = [coarser(c, tolerance) for c in found]
    return found


def hinge_of(work: Work, folded: Folded, face: Face) -> Hinge | None:
    """The hinge that a face hangs on; None for the one that stays."""
    joint = face.joint
    if joint is None or face.parent is None:
        return None
    fold = work.folds[joint.fold]
    valley = joint.direction is Direction.VALLEY
    ux, uy = joint.end[0] - joint.start[0], joint.end[1] - joint.start[1]
    side = 1.0 if folded.faces[joint.a] is face else -1.0
    dx, dy = fold.line.normal * side
    # the z of (along x away), y turned upwards
    turned = ux * -dy - -uy * dx
    layers = abs(face.level - folded.faces[face.parent].level) if is_shut(fold) else 1
    z = (layers - 1) / 2 if valley else -(layers + 1) / 2
    sign = int(math.copysign(1, turned)) * (1 if valley else -1)
    return Hinge(joint.fold, joint.start, joint.end, sign, z)


def sequence(work: Work) -> list[list[float]]:
    """Angles of all folds, in degrees, as the card is closed: open first, then after each group of folds that
    turn together, half open on the way, closed at last. Between two of them angles run evenly.

    Each group is folded to where it stands half open, in the order of folding. Then what is not shut is
    flattened again, and the groups are shut, in that order: so no paper runs through other paper.
    """
    half, flat = half_open(work), [0.0] * len(work.folds)
    shut = [180.0 if is_shut(f) else 0.0 for f in work.folds]
    opened = [flat, *_folded(work, flat, half)]
    flattened = [a if is_shut(f) else 0.0 for f, a in zip(work.folds, half, strict=True)]
    back = _folded(work, half, flattened, backwards=True)
    return [*opened, *back, *_folded(work, flattened, shut)]


def stood_up(work: Work, angles: Sequence[float]) -> list[list[float]]:
    """Angles of all folds from the half-open card to one that stands at ``angles``, group by group."""
    half = half_open(work)
    return [half, *_folded(work, half, list(angles))]


def _folded(
    work: Work, start: list[float], goal: list[float], *, backwards: bool = False
) -> list[list[float]]:
    """The angles after each group of folds, from ``start`` on, which is not among them."""
    found, last = [], start
    orders = {f.crease.order for f in work.folds if f.folds}
    for order in sorted(orders, reverse=backwards):
        now = [
            goal[i] if f.folds and f.crease.order == order else last[i]
            for i, f in enumerate(work.folds)
        ]
        if now != last:
            found += _geared(work, last, now)
        last = now
    return found


def _geared(work: Work, last: list[float], now: list[float]) -> list[list[float]]:
    """The angles ``now``, and before them so many in between as creases need that do not turn evenly."""
    folds, found = work.folds, []
    geared = [f.crease.gain != 1.0 and a != b for f, a, b in zip(folds, last, now, strict=True)]
    for part in range(1, GEARED_PARTS) if any(geared) else ():
        share = part / GEARED_PARTS
        angles = [
            f.crease.ungeared(a) + (f.crease.ungeared(b) - f.crease.ungeared(a)) * share
            for f, a, b in zip(folds, last, now, strict=True)
        ]
        found.append([f.crease.geared(a) for f, a in zip(folds, angles, strict=True)])
    return [*found, now]


def half_open(work: Work) -> list[float]:
    """Angles of a half-open card."""
    return [f.crease.half if f.folds else 0.0 for f in work.folds]


def standing(work: Work) -> list[float]:
    """Angles of the card as it stands: 40 degrees between the panels of a folded card."""
    return [f.crease.stand if f.folds else 0.0 for f in work.folds]


def maps_in_space(
    work: Work, angles: Sequence[float], thickness: float = 0.0, rooms: Sequence[float] = ()
) -> list[Floats]:
    """Per face a 4x4 matrix from (x, -y, 0) of the flat view to space; ``rooms``: per face how many mm of
    layers lie between it and the one that it hangs on when they are shut."""
    folded = fold_flat(work)
    found: dict[int, Floats] = {}

    def of(i: int) -> Floats:
        if i not in found:
            face = folded.faces[i]
            hinge = hinge_of(work, folded, face)
            if hinge is None or face.parent is None:
                found[i] = np.eye(4)
            else:
                z = height_of(work, hinge, thickness, rooms[i] if rooms else 0.0)
                found[i] = of(face.parent) @ _turn(hinge, angles[hinge.fold], z)
        return found[i]

    return [of(i) for i in range(len(folded.faces))]


def height_of(work: Work, hinge: Hinge, thickness: float, room: float) -> float:
    """How far before the outside a hinge lies, in mm, so that ``room`` is left between what it joins when
    it is shut: half of it, to the side that is folded inwards."""
    valley = work.folds[hinge.fold].crease.direction is Direction.VALLEY
    return hinge.z * thickness + (room if valley else -room) / 2


def _turn(hinge: Hinge, angle_deg: float, height: float) -> Floats:
    """Rotation about the hinge's line (Rodrigues), so many mm before the outside."""
    p = np.array([hinge.start[0], -hinge.start[1], height])
    u = np.array([hinge.end[0], -hinge.end[1], height]) - p
    x, y, z = u / np.linalg.norm(u)
    a = math.radians(angle_deg) * hinge.sign
    c, s = math.cos(a), math.sin(a)
    k = np.array([[0, -z, y], [z, 0, -x], [-y, x, 0]])
    r = np.eye(3) + s * k + (1 - c) * k @ k
    out = np.eye(4)
    out[:3, :3] = r
    out[:3, 3] = p - r @ p
    return out


def in_space(matrix: Floats, points: Floats, height: float = 0.0) -> Floats:
    """Points (n, 2) of the flat view, so many mm before the outside, as (n, 3) in space."""
    flat = np.column_stack(
        [points[:, 0], -points[:, 1], np.full(len(points), height), np.ones(len(points))]
    )
    return np.asarray((flat @ matrix.T)[:, :3])


def corners_in_space(work: Work, angles: Sequence[float]) -> list[Floats]:
    """Per face its corners (n, 3) in space."""
    maps = maps_in_space(work, angles)
    return [
        in_space(m, points_of(f.cell)) for m, f in zip(maps, fold_flat(work).faces, strict=True)
    ]


def turned_up(up: Floats) -> Floats:
    """The rotation (3, 3) that takes the direction ``up`` to y by the shortest way."""
    axis = np.cross(up, [0.0, 1.0, 0.0])
    s, c = float(np.linalg.norm(axis)), float(up[1])
    if s < 1e-9:
        return np.diag([1.0, math.copysign(1, c), math.copysign(1, c)])
    x, y, z = axis / s
    k = np.array([[0, -z, y], [z, 0, -x], [-y, x, 0]])
    return np.asarray(np.eye(3) + s * k + (1 - c) * k @ k)
