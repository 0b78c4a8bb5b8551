"""Entities of a DXF file as exact segments, y turned downwards."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import Any

import numpy as np
from ezdxf.math import Vec3

from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import Floats, Segments, concatenate


def upright(entity: Any) -> bool:
    """Whether it lies in a plane that is seen square on, from the front or from behind."""
    extrusion = Vec3(entity.dxf.get("extrusion", (0, 0, 1)))
    return math.hypot(extrusion.x, extrusion.y) < 1e-6


def flat(point: Any) -> tuple[float, float]:
    p = Vec3(point)
    return p.x, -p.y


def _curved(centre: Vec3, u: Vec3, v: Vec3, t0: float, t1: float) -> Segments:
    coef = np.array([[*flat(centre), *flat(u), *flat(v), 0.0, 0.0]])
    made = Segments(
        np.array([Kind.ARC], np.int8),
        coef,
        np.array([[t0, t1]]),
        np.zeros((1, 2)),
        np.zeros((1, 2)),
    )
    index = np.zeros(1, np.int64)
    start, end = (made.points_at(index, np.array([t])) for t in (t0, t1))
    if abs(t1 - t0) >= 2 * math.pi - 1e-9:
        end = start
    return Segments(made.kind, coef, made.span, start, end)


def circular(entity: Any, kind: str) -> Segments:
    to_world = entity.ocs().to_wcs
    centre, r = Vec3(to_world(entity.dxf.center)), float(entity.dxf.radius)
    u, v = Vec3(to_world((r, 0, 0))), Vec3(to_world((0, r, 0)))
    if kind == "CIRCLE":
        return _curved(centre, u, v, 0.0, 2 * math.pi)
    t0, t1 = math.radians(entity.dxf.start_angle), math.radians(entity.dxf.end_angle)
    if t1 <= t0 + 1e-12:
        t1 += 2 * math.pi
    return _curved(centre, u, v, t0, t1)


def elliptical(entity: Any) -> Segments:
    u = Vec3(entity.dxf.major_axis)
    v = Vec3(entity.dxf.extrusion).cross(u) * float(entity.dxf.ratio)
    t0, t1 = float(entity.dxf.start_param), float(entity.dxf.end_param)
    if t1 <= t0 + 1e-12:
        t1 += 2 * math.pi
    return _curved(Vec3(entity.dxf.center), u, v, t0, t1)


def chain(parts: Iterable[Segments | None]) -> Segments | None:
    """The parts of a polyline in their order, each running on from the one before."""
    given = [p for p in parts if p is not None and len(p)]
    if len(given) > 1:  # arcs come running one way round, whichever way the polyline runs
        first, second = given[0], given[1]
        if _nearest_end(second, first.start[0]) < _nearest_end(second, first.end[-1]):
            given[0] = first.reversed()
    found: list[Segments] = []
    for part in given:
        if found:
            at = found[-1].end[-1]
            if np.hypot(*(part.start[0] - at)) > np.hypot(*(part.end[-1] - at)):
                part = part.reversed()
        found.append(part)
    return concatenate(found) if found else None


def _nearest_end(part: Segments, point: Floats) -> float:
    return float(min(np.hypot(*(part.start[0] - point)), np.hypot(*(part.end[-1] - point))))
