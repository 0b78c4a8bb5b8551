"""Lettering of single strokes, for pens: letters as the way of a pen, not as outlines.

The strokes are Hershey's (A. V. Hershey, Calligraphy for computers, 1967), as the package
``Hershey-Fonts`` brings them: straight pieces on a coarse grid. Where they do not turn a
corner they are drawn through by cubics (Catmull and Rom, 1974), so that they stay smooth when
they are large.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum
from functools import cache

import numpy as np
from HersheyFonts import HersheyFonts

from stileblade.geometry.segments import Floats, Segments, beziers, concatenate, lines

_CAPITALS = 21.0
"""Units of a capital's height."""
_BASE = 9.0
_CORNER_DEG = 50.0


class PenFace(StrEnum):
    PLAIN = "plain"
    SCRIPT = "script"


_FILES = {PenFace.PLAIN: "futural", PenFace.SCRIPT: "scripts"}
FIRST, LAST = 32, 126
"""The codes of the characters that there are."""


@dataclass(frozen=True, eq=False)
class Strokes:
    """The pen's ways in mm, each open, the base line at y = 0; how far the line runs on; and the
    characters that there are no strokes for."""

    ways: list[Segments]
    advance: float
    missing: str


@cache
def _glyphs(face: PenFace) -> list[tuple[float, float, list[list[tuple[float, float]]]]]:
    font = HersheyFonts()
    font.load_default_font(_FILES[face])
    letters = "".join(chr(code) for code in range(FIRST, LAST + 1))
    return [
        (float(g.left_offset), float(g.char_width), [list(s) for s in g.strokes])
        for g in font.glyphs_for_text(letters)
    ]


def set_strokes(text: str, face: PenFace, height: float, *, spacing: float = 0.0) -> Strokes:
    """One line of text, its capitals ``height`` mm high, ``spacing`` mm more between letters."""
    scale = height / _CAPITALS
    x, ways, missing = 0.0, [], ""
    for letter in text:
        if not FIRST <= ord(letter) <= LAST:
            missing += letter
            continue
        left, width, strokes = _glyphs(face)[ord(letter) - FIRST]
        for stroke in strokes:
            points = np.array(stroke, float)
            if len(points) > 1:
                points = (points - [left, _BASE]) * scale + [x, 0.0]
                ways.append(_smooth(points))
        x += width * scale + spacing
    return Strokes(ways, x - (spacing if x else 0.0), missing)


def _smooth(points: Floats) -> Segments:
    """The polyline (k, 2) with a cubic for each of its pieces, straight up to its corners."""
    steps = np.diff(points, axis=0)
    keep = np.r_[True, np.hypot(*steps.T) > 1e-9]
    points = points[keep]
    if len(points) < 3:
        return lines(points[:-1], points[1:])
    steps = np.diff(points, axis=0)
    size = np.maximum(np.hypot(*steps.T), 1e-12)
    unit = steps / size[:, None]
    cosine = (unit[:-1] * unit[1:]).sum(axis=1)
    corner = cosine < math.cos(math.radians(_CORNER_DEG))
    tangent = np.zeros_like(points)
    tangent[1:-1] = np.where(corner[:, None], 0.0, (points[2:] - points[:-2]) / 2)
    # at a smooth place the tangent's length goes by the shorter piece beside it
    length = np.maximum(np.hypot(*tangent.T), 1e-12)
    shorter = np.r_[0.0, np.minimum(size[:-1], size[1:]), 0.0]
    tangent *= (shorter / length)[:, None]
    p, q = points[:-1], points[1:]
    a, b = tangent[:-1], tangent[1:]
    straight = (np.abs(a) + np.abs(b)).max(axis=1) < 1e-12
    control = np.stack([p, p + a / 3, q - b / 3, q], axis=1)
    parts = [lines(p[i : i + 1], q[i : i + 1]) if straight[i] else beziers(control[i : i + 1])
             for i in range(len(p))]  # fmt: skip
    return concatenate(parts)
