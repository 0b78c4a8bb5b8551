"""SVG's own measures: lengths with units, transforms, viewBox, and shapes as contours."""

from __future__ import annotations

import math
import re

import numpy as np
from lxml import etree

from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, identity, rotation, scaling, translation
from stileblade.geometry.paths.drawing import Drawing

PX = 25.4 / 96
"""mm in a CSS pixel, of which there are 96 to an inch."""
_UNIT_PX = {
    "": 1.0, "px": 1.0, "mm": 96 / 25.4, "cm": 96 / 2.54, "in": 96.0, "pt": 96 / 72, "pc": 16.0,
    "q": 96 / 101.6, "rem": 16.0,
}  # fmt: skip
FARTHEST = 1e7
"""User units: no drawing reaches so far, and with more nothing can be computed."""
# possessive: foreign text is read once, and never parted in another way
_DIGITS = r"[+-]?(?>\d++\.?\d*+|\.\d++)(?:[eE][+-]?\d++)?+"
_LENGTH = re.compile(rf"\s*+({_DIGITS})\s*+(%|[a-zA-Z]*+)\s*+$")
_TRANSFORM = re.compile(r"\s*+,?\s*+([a-zA-Z]++)\s*+\(([^()]*+)\)")
_NUMBER = re.compile(_DIGITS)


def length(text: str | None, of: float, default: float, *, em: float = 16.0) -> float:
    """A length in user units; percentages are parts of ``of``, ems of ``em``."""
    if text is None or len(text) > 64:
        return default
    match = _LENGTH.match(text)
    if not match:
        return default
    value, unit = float(match.group(1)), match.group(2).lower()
    if unit == "%":
        value *= of / 100
    elif unit in ("em", "ex"):
        value *= em if unit == "em" else em / 2
    elif unit in _UNIT_PX:
        value *= _UNIT_PX[unit]
    else:
        return default
    return value if abs(value) <= FARTHEST else default


def has_unit(text: str | None) -> bool:
    """Whether a length says how large it is in the world."""
    match = _LENGTH.match(text) if text and len(text) <= 64 else None
    return bool(match and match.group(2).lower() in ("mm", "cm", "in", "pt", "pc", "q"))


def lengths(text: str, of: float, em: float) -> list[float]:
    """A list of lengths, parted by blanks or commas; empty where one is not understood."""
    parts = text.replace(",", " ").split()[:200]
    found = [length(p, of, math.nan, em=em) for p in parts]
    return [] if any(math.isnan(f) for f in found) else found


def numbers(text: str) -> list[float]:
    """All numbers in a text; none of them where one is beyond all measure."""
    found = [float(n) for n in _NUMBER.findall(text)]
    return found if all(abs(n) <= FARTHEST for n in found) else []


def transform(text: str | None) -> Floats | None:
    """The matrix of a transform; None where it is not understood, which then counts as none."""
    matrix = identity()
    if not text or text.strip() == "none":
        return matrix
    if len(text) > 4000:
        return None
    at = 0
    while match := _TRANSFORM.match(text, at):
        at = match.end()
        one = _one(match.group(1), numbers(match.group(2)))
        if one is None:
            return None
        matrix = after(matrix, one)
    if text[at:].strip(" ,\t\r\n"):
        return None
    if not np.isfinite(matrix).all() or np.abs(matrix).max() > FARTHEST:
        return None
    return matrix


def _one(name: str, n: list[float]) -> Floats | None:
    if name == "matrix" and len(n) == 6:
        return np.array([[n[0], n[2], n[4]], [n[1], n[3], n[5]]])
    if name == "translate" and len(n) in (1, 2):
        return translation(n[0], n[1] if len(n) == 2 else 0.0)
    if name == "scale" and len(n) in (1, 2):
        return scaling(n[0], n[-1])
    if name == "rotate" and len(n) in (1, 3):
        return rotation(n[0], about=(n[1], n[2]) if len(n) == 3 else (0.0, 0.0))
    if name in ("skewX", "skewY") and len(n) == 1:
        t = math.tan(math.radians(n[0]))
        return np.array(
            [[1, t, 0], [0, 1, 0]] if name == "skewX" else [[1, 0, 0], [t, 1, 0]], float
        )
    return None


def view_transform(
    element: etree._Element, width: float, height: float
) -> tuple[Floats, float, float]:
    """Map from a viewBox to width x height user units, and the size of user space inside."""
    box = numbers(element.get("viewBox", ""))
    if len(box) != 4 or box[2] <= 0 or box[3] <= 0:
        return identity(), width, height
    sx, sy = width / box[2], height / box[3]
    words = element.get("preserveAspectRatio", "xMidYMid meet").split()
    align = next((w for w in words if w != "defer" and w not in ("meet", "slice")), "xMidYMid")
    dx = dy = 0.0
    if align != "none":
        s = max(sx, sy) if "slice" in words else min(sx, sy)
        part = {"Min": 0.0, "Mid": 0.5, "Max": 1.0}
        dx = (width - s * box[2]) * part.get(align[1:4], 0.5)
        dy = (height - s * box[3]) * part.get(align[5:8], 0.5)
        sx = sy = s
    matrix = after(translation(dx, dy), after(scaling(sx, sy), translation(-box[0], -box[1])))
    return matrix, box[2], box[3]


def shape(element: etree._Element, name: str, width: float, height: float) -> Drawing | None:
    """The contours of a basic shape in user units; None for what draws nothing. Each of SVG's shapes has
    its lines here, which is why there are many."""
    diagonal = math.hypot(width, height) / math.sqrt(2)

    def get(key: str, of: float, default: float = 0.0) -> float:
        return length(element.get(key), of, default)

    d = Drawing()
    if name == "line":
        d.move(get("x1", width), get("y1", height))
        d.line(get("x2", width), get("y2", height))
        d.finish()
        return d
    if name == "rect":
        x, y, w, h = get("x", width), get("y", height), get("width", width), get("height", height)
        if w <= 0 or h <= 0:
            return None
        rx, ry = get("rx", width, -1), get("ry", height, -1)
        rx, ry = (ry if rx < 0 else rx), (rx if ry < 0 else ry)
        rx, ry = min(max(rx, 0), w / 2), min(max(ry, 0), h / 2)
        d.move(x + rx, y)
        for lx, ly, ax, ay in (
            (x + w - rx, y, x + w, y + ry),
            (x + w, y + h - ry, x + w - rx, y + h),
            (x + rx, y + h, x, y + h - ry),
            (x, y + ry, x + rx, y),
        ):
            d.line(lx, ly)
            if rx and ry:
                d.arc(rx, ry, 0, False, True, ax, ay)
        d.close()
        return d
    if name in ("circle", "ellipse"):
        if name == "circle":
            rx = ry = get("r", diagonal)
        else:
            rx, ry = get("rx", width, -1), get("ry", height, -1)
            rx, ry = (ry if rx < 0 else rx), (rx if ry < 0 else ry)
        if rx <= 0 or ry <= 0:
            return None
        d.ellipse(get("cx", width), get("cy", height), rx, ry)
        return d
    if name in ("polygon", "polyline"):
        points = numbers(element.get("points", ""))
        pairs = list(zip(points[::2], points[1::2], strict=False))
        if len(pairs) < 2:
            return None
        d.move(*pairs[0])
        for p in pairs[1:]:
            d.line(*p)
        if name == "polygon":
            d.close()
        d.finish()
        return d
    return None
