"""Contours drawn stroke by stroke, in the verbs of path data. x right, y down, mm."""

from __future__ import annotations

import math

import numpy as np

from stileblade.geometry.curves.segments import TAU, Segments

ArcForm = tuple[float, float, float, float, float, float, float, float]


class Drawing:
    """Collects contours; each ends with ``close`` or the next ``move`` (then it is open)."""

    def __init__(self) -> None:
        self.contours: list[Segments] = []
        self.open: list[Segments] = []
        self.dots: list[tuple[float, float]] = []
        """Contours that were begun and went nowhere: a stroke may paint them."""
        self.x = self.y = 0.0
        self._first = (0.0, 0.0)
        self._still = False
        self._reset()

    def _reset(self) -> None:
        self._kind: list[int] = []
        self._rows: list[float] = []
        """Of each segment its coefficients (8), span (2), start (2) and end (2), one after another."""

    def _add(
        self,
        kind: int,
        coef: tuple[float, ...],
        x: float,
        y: float,
        t0: float = 0.0,
        t1: float = 1.0,
    ) -> None:
        self._kind.append(kind)
        self._rows += (*coef, t0, t1, self.x, self.y, x, y)
        self.x, self.y = x, y

    def move(self, x: float, y: float) -> None:
        self.finish()
        self.x, self.y = x, y
        self._first = (x, y)
        self._still = False

    def line(self, x: float, y: float) -> None:
        if x != self.x or y != self.y:
            self._add(0, (self.x, self.y, x, y, 0.0, 0.0, 0.0, 0.0), x, y)
        else:
            self._still = True

    def lines(self, numbers: list[float], *, relative: bool) -> None:
        """Lines one after the other, two numbers each, as path data has them."""
        x, y = self.x, self.y
        each = iter(numbers)
        for ex, ey in zip(each, each, strict=True):
            if relative:
                ex, ey = ex + x, ey + y
            if ex != x or ey != y:
                self._rows += (x, y, ex, ey, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0, x, y, ex, ey)
                self._kind.append(0)
                x, y = ex, ey
            else:
                self._still = True
        self.x, self.y = x, y

    def quad(self, cx: float, cy: float, x: float, y: float) -> None:
        self._add(1, (self.x, self.y, cx, cy, x, y, 0.0, 0.0), x, y)

    def cubic(self, ax: float, ay: float, bx: float, by: float, x: float, y: float) -> None:
        self._add(2, (self.x, self.y, ax, ay, bx, by, x, y), x, y)

    def cubics(self, numbers: list[float], *, relative: bool) -> tuple[float, float]:
        """Cubics one after the other, six numbers each, as path data has them; the last handle."""
        x, y, bx, by = self.x, self.y, self.x, self.y
        each = iter(numbers)
        for ax, ay, bx, by, ex, ey in zip(each, each, each, each, each, each, strict=True):
            if relative:
                ax, ay, bx, by, ex, ey = ax + x, ay + y, bx + x, by + y, ex + x, ey + y
            self._rows += (x, y, ax, ay, bx, by, ex, ey, 0.0, 1.0, x, y, ex, ey)
            x, y = ex, ey
        self._kind += [2] * (len(numbers) // 6)
        self.x, self.y = x, y
        return bx, by

    def arc(
        self,
        rx: float,
        ry: float,
        turn_deg: float,
        large: bool,
        clockwise: bool,
        x: float,
        y: float,
    ) -> None:
        """An elliptical arc by its end point, as path data has it (``clockwise`` as seen)."""
        if (x, y) == (self.x, self.y):
            return
        rx, ry = abs(rx), abs(ry)
        if rx < 1e-12 or ry < 1e-12:
            self.line(x, y)
            return
        coef, t0, t1 = centre_form(self.x, self.y, rx, ry, turn_deg, large, clockwise, x, y)
        self._add(3, coef, x, y, t0, t1)

    def ellipse(self, cx: float, cy: float, rx: float, ry: float) -> None:
        """A whole ellipse, clockwise, as a contour of its own."""
        self.move(cx + rx, cy)
        self._add(3, (cx, cy, rx, 0.0, 0.0, ry, 0.0, 0.0), cx + rx, cy, 0.0, TAU)
        self.close()

    def close(self) -> None:
        self.line(*self._first)
        self._store(self.contours)
        self.x, self.y = self._first

    def finish(self) -> None:
        """Ends a contour that was not closed."""
        self._store(self.open)

    def _store(self, where: list[Segments]) -> None:
        if self._kind:
            rows = np.array(self._rows).reshape(-1, 14)
            kind = np.array(self._kind, np.int8)
            where.append(Segments(kind, rows[:, :8], rows[:, 8:10], rows[:, 10:12], rows[:, 12:]))
        elif self._still:
            self.dots.append(self._first)
        self._still = False
        self._reset()


def centre_form(
    x0: float,
    y0: float,
    rx: float,
    ry: float,
    turn_deg: float,
    large: bool,
    clockwise: bool,
    x: float,
    y: float,
) -> tuple[ArcForm, float, float]:
    """(centre, u, v, 0, 0) and the parameters at both ends of an arc given by its ends.

    The conversion of SVG 2, appendix B.2.4; radii too small are enlarged as it says.
    """
    c, s = math.cos(math.radians(turn_deg)), math.sin(math.radians(turn_deg))
    hx, hy = (x0 - x) / 2, (y0 - y) / 2
    px, py = c * hx + s * hy, -s * hx + c * hy
    over = (px / rx) ** 2 + (py / ry) ** 2
    if over > 1:
        rx, ry = rx * math.sqrt(over), ry * math.sqrt(over)
        root = 0.0
    else:
        root = math.sqrt(max(0.0, 1 / over - 1)) if over > 0 else 0.0
    if large == clockwise:
        root = -root
    mx, my = root * rx * py / ry, -root * ry * px / rx
    cx, cy = c * mx - s * my + (x0 + x) / 2, s * mx + c * my + (y0 + y) / 2
    t0 = math.atan2((py - my) / ry, (px - mx) / rx)
    t1 = math.atan2((-py - my) / ry, (-px - mx) / rx)
    if clockwise and t1 <= t0:
        t1 += TAU
    elif not clockwise and t1 >= t0:
        t1 -= TAU
    return (cx, cy, rx * c, rx * s, -ry * s, ry * c, 0.0, 0.0), t0, t1
