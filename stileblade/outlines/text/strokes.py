"""Lettering of single strokes, for pens: letters as the way of a pen, not as outlines.

The strokes are Hershey's (A. V. Hershey, Calligraphy for computers, 1967), as the package
``Hershey-Fonts`` brings them: straight pieces on a coarse grid. Where they do not turn a
corner they are drawn through by cubics (Catmull and Rom, 1974), so that they stay smooth when
they are large. Marks over and under letters, and the sharp s, are our own.
"""

from __future__ import annotations

import math
import unicodedata
from dataclasses import dataclass
from enum import StrEnum
from functools import cache, lru_cache

import numpy as np

from stileblade.geometry.curves.segments import Floats, Segments, beziers, concatenate, lines
from stileblade.geometry.curves.vectors import dots, norms

_CAPITALS = 21.0
"""Units of a capital's height."""
_BASE = 9.0
_CORNER_DEG = 50.0


class PenFace(StrEnum):
    PLAIN = "plain"
    SCRIPT = "script"


_FILES = {PenFace.PLAIN: "futural", PenFace.SCRIPT: "scripts"}
FIRST, LAST = 32, 126
"""The codes of the characters that the strokes were made for."""

Polyline = list[tuple[float, float]]

_OVER: dict[str, list[Polyline]] = {
    "\u0300": [[(-2.5, -4), (1, 0)]],
    "\u0301": [[(-1, 0), (2.5, -4)]],
    "\u0302": [[(-3, 0), (0, -4), (3, 0)]],
    "\u0303": [[(-4, -1), (-2.5, -3), (0, -2), (2.5, -1), (4, -3)]],
    "\u0304": [[(-3, -2), (3, -2)]],
    "\u0307": [[(0, -1), (0, -2.5)]],
    "\u0308": [[(-3, -1), (-3, -2.5)], [(3, -1), (3, -2.5)]],
    "\u030a": [[(2, -2), (1.4, -3.4), (0, -4), (-1.4, -3.4), (-2, -2), (-1.4, -0.6), (0, 0),
                (1.4, -0.6), (2, -2)]],
    "\u030b": [[(-3, 0), (-0.5, -4)], [(1, 0), (3.5, -4)]],
    "\u030c": [[(-3, -4), (0, 0), (3, -4)]],
}  # fmt: skip
"""Marks by their code, above the middle of a letter, in units, y downwards."""
_UNDER: dict[str, list[Polyline]] = {
    "\u0327": [[(0, 0), (-0.5, 1.5), (1.5, 3), (0.5, 5), (-2, 4.5)]],
    "\u0328": [[(1, 0), (-0.5, 2), (0, 4), (2.5, 4.5)]],
}
_OWN: dict[str, tuple[float, list[Polyline]]] = {
    "ß": (15.0, [[(2, 0), (2, -16), (3.5, -20), (7, -21), (10, -19.5), (10.5, -16.5), (9, -13.5),
                  (6.5, -12), (9.5, -11), (11.5, -8), (11.5, -4), (9.5, -1), (6, 0)]]),
}  # fmt: skip
"""Letters of our own: how far each runs on, and its strokes on the base line, in units."""
_LIKE = str.maketrans({"‘": "'", "’": "'", "“": '"', "”": '"', "„": '"', "–": "-", "—": "-",
                       "…": "...", "\u00a0": " "})  # fmt: skip
_CLEAR = 2.5
"""Units between a letter and its mark."""


@dataclass(frozen=True, eq=False)
class Strokes:
    """The pen's ways in mm, each open, the base line at y = 0; how far the line runs on; and the
    characters that there are no strokes for."""

    ways: list[Segments]
    advance: float
    missing: str


@cache
def _glyphs(face: PenFace) -> list[tuple[float, float, list[list[tuple[float, float]]]]]:
    from HersheyFonts import HersheyFonts

    font = HersheyFonts()
    font.load_default_font(_FILES[face])
    letters = "".join(chr(code) for code in range(FIRST, LAST + 1))
    return [
        (float(g.left_offset), float(g.char_width), [list(s) for s in g.strokes])
        for g in font.glyphs_for_text(letters)
    ]


@lru_cache(maxsize=64)
def set_strokes(text: str, face: PenFace, height: float, *, spacing: float = 0.0) -> Strokes:
    """One line of text, its capitals ``height`` mm high, ``spacing`` mm more between letters."""
    scale = height / _CAPITALS
    x, ways, missing = 0.0, [], ""
    for letter in unicodedata.normalize("NFC", text).translate(_LIKE):
        found = _letter(letter, face)
        if found is None:
            missing += letter
            continue
        width, strokes = found
        for points in strokes:
            if len(points) > 1:
                ways.append(_smooth(points * scale + [x, 0.0]))
        x += width * scale + spacing
    return Strokes(ways, x - (spacing if x else 0.0), missing)


def _letter(letter: str, face: PenFace) -> tuple[float, list[Floats]] | None:
    """How far a letter runs on, and its strokes on the base line, in units; None if there is none."""
    if letter in _OWN:
        width, own = _OWN[letter]
        return width, [np.array(line, float) for line in own]
    parts = unicodedata.normalize("NFD", letter)
    plain, marks = parts[0], parts[1:]
    if not FIRST <= ord(plain) <= LAST or not all(m in _OVER or m in _UNDER for m in marks):
        return None
    left, width, drawn = _glyphs(face)[ord(plain) - FIRST]
    strokes = [np.array(stroke, float) - [left, _BASE] for stroke in drawn]
    if plain in "ij" and any(m in _OVER for m in marks):  # the mark stands for the dot
        body = max(strokes, key=lambda s: float(np.ptp(s[:, 1])))
        strokes = [s for s in strokes if s[:, 1].max() >= body[:, 1].min()]
    for mark in marks:
        points = np.concatenate(strokes)
        low, high = points.min(axis=0), points.max(axis=0)
        over = mark in _OVER
        spot = [(low[0] + high[0]) / 2, low[1] - _CLEAR if over else min(high[1], 0.0)]
        strokes += [np.array(line, float) + spot for line in (_OVER if over else _UNDER)[mark]]
    return width, strokes


def _smooth(points: Floats) -> Segments:
    """The polyline (k, 2) with a cubic for each of its pieces, straight up to its corners."""
    steps = np.diff(points, axis=0)
    keep = np.r_[True, norms(steps) > 1e-9]
    points = points[keep]
    if len(points) < 3:
        return lines(points[:-1], points[1:])
    steps = np.diff(points, axis=0)
    size = np.maximum(norms(steps), 1e-12)
    unit = steps / size[:, None]
    cosine = dots(unit[:-1], unit[1:])
    corner = cosine < math.cos(math.radians(_CORNER_DEG))
    tangent = np.zeros_like(points)
    tangent[1:-1] = np.where(corner[:, None], 0.0, (points[2:] - points[:-2]) / 2)
    # at a smooth place the tangent's length goes by the shorter piece beside it
    length = np.maximum(norms(tangent), 1e-12)
    shorter = np.r_[0.0, np.minimum(size[:-1], size[1:]), 0.0]
    tangent *= (shorter / length)[:, None]
    p, q = points[:-1], points[1:]
    a, b = tangent[:-1], tangent[1:]
    straight = (np.abs(a) + np.abs(b)).max(axis=1) < 1e-12
    control = np.stack([p, p + a / 3, q - b / 3, q], axis=1)
    parts = [lines(p[i : i + 1], q[i : i + 1]) if straight[i] else beziers(control[i : i + 1])
             for i in range(len(p))]  # fmt: skip
    return concatenate(parts)
