"""Affine maps as 2x3 arrays [[a, c, e], [b, d, f]]. Angles clockwise in degrees, as seen."""

from __future__ import annotations

import math

import numpy as np

from stileblade.geometry.curves.segments import Floats


def identity() -> Floats:
    return np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]])


def translation(dx: float, dy: float) -> Floats:
    return np.array([[1.0, 0.0, dx], [0.0, 1.0, dy]])


def scaling(sx: float, sy: float, *, about: tuple[float, float] = (0.0, 0.0)) -> Floats:
    """Stretched by sx and sy, the point ``about`` staying where it is. Mirrors if negative."""
    x, y = about
    return np.array([[sx, 0.0, x - sx * x], [0.0, sy, y - sy * y]])


def rotation(angle_deg: float, *, about: tuple[float, float] = (0.0, 0.0)) -> Floats:
    """Turned clockwise on the screen (y runs downwards) about a point. Quarter turns are exact."""
    quarter, rest = divmod(angle_deg, 90.0)
    if rest == 0:
        c, s = ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0))[int(quarter) % 4]
    else:
        a = math.radians(angle_deg)
        c, s = math.cos(a), math.sin(a)
    x, y = about
    return np.array([[c, -s, x - c * x + s * y], [s, c, y - s * x - c * y]])


def mirror_across(*, axis: str, at: float) -> Floats:
    """Mirror image across the upright line x = at (axis "x") or the level line y = at ("y").

    Points on the line stay where they are, to the last bit.
    """
    if axis == "x":
        return np.array([[-1.0, 0.0, 2 * at], [0.0, 1.0, 0.0]])
    return np.array([[1.0, 0.0, 0.0], [0.0, -1.0, 2 * at]])


def after(second: Floats, first: Floats) -> Floats:
    """The map that does ``first`` and then ``second``."""
    made: Floats = second[:, :2] @ first
    made[:, 2] += second[:, 2]
    return made
