"""A still picture of the half-open card: the front swung towards the viewer, the back behind."""

from __future__ import annotations

import math
from dataclasses import dataclass

from stileblade.build.work import Work
from stileblade.card.stock import Paper
from stileblade.folding.space import SpaceFace, faces_in_space

Point = tuple[float, float]
_OPEN = math.radians(38)
_EYE = 900.0
"""Distance of the eye from the back panel, in mm: a mild perspective."""


@dataclass(frozen=True)
class Shape:
    """One filled face: path data (y down, mm), its colour, and which side is seen."""

    path: str
    fill: str
    side: str


@dataclass(frozen=True)
class Picture:
    """box: left, head, width, height of all shapes."""

    box: tuple[float, float, float, float]
    shapes: tuple[Shape, ...]


def half_open(work: Work, paper: Paper) -> Picture:
    """Faces from back to front as polygons."""
    faces = faces_in_space(work)
    shapes, points = [], []
    hinge = next((f.hinge for f in faces if f.hinge), None)
    for face in sorted(faces, key=lambda f: f.parent is None):
        front = face.parent is None and hinge is not None
        rings = [[_project(p, face, front, faces) for p in ring] for ring in face.rings]
        points += [p for ring in rings for p in ring]
        path = "".join("M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in ring) + "Z" for ring in rings)
        inside = hinge is not None and not front
        shapes.append(
            Shape(
                path, paper.inside if inside else paper.outside, "inside" if inside else "outside"
            )
        )
    if not points:
        return Picture((0, 0, 1, 1), ())
    left, head = min(x for x, _ in points), min(y for _, y in points)
    right, foot = max(x for x, _ in points), max(y for _, y in points)
    return Picture((left, head, right - left, foot - head), tuple(shapes))


def _project(point: Point, face: SpaceFace, front: bool, faces: tuple[SpaceFace, ...]) -> Point:
    hinge = face.hinge or next((f.hinge for f in faces if f.hinge), None)
    if hinge is None:
        return point
    x, y = point
    along, across = (y, x - hinge.at) if hinge.axis == "x" else (x, y - hinge.at)
    z = 0.0
    if front:
        across, z = across * math.cos(_OPEN), abs(across) * math.sin(_OPEN)
    else:
        across = -across
    scale = _EYE / (_EYE - z)
    along, across = along * scale, across * scale
    return (hinge.at + across, along) if hinge.axis == "x" else (along, hinge.at + across)
