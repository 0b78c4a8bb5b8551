"""Pens part what is drawn from where it goes: path data, DXF, PDF are pens.

``draw`` hands a pen each contour: a start, then runs of segments of one kind as arrays of
the points that follow, and a close. Arcs come in centre form.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

import numpy as np

from stileblade.geometry.curves.arrays import run_ends, run_starts, true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.regions.region import Region


@dataclass(frozen=True)
class Arc:
    """centre + u cos t + v sin t, from t0 to t1, ending at ``end``."""

    centre: Floats
    u: Floats
    v: Floats
    t0: float
    t1: float
    end: Floats

    def axes(self) -> tuple[float, float, float]:
        """Half axes and the turn of the first in degrees; a turn of 0 for circles."""
        ru, rv = float(np.hypot(*self.u)), float(np.hypot(*self.v))
        near = 1e-9 * max(ru, 1.0)
        if abs(ru - rv) < near and abs(float(self.u @ self.v)) < near * ru:
            return ru, ru, 0.0
        m = np.stack([self.u, self.v], axis=1)
        w, s, _ = np.linalg.svd(m)
        if s[0] - s[1] < 1e-9 * max(s[0], 1.0):
            return float(s[0]), float(s[0]), 0.0
        return float(s[0]), float(s[1]), float(np.degrees(np.arctan2(w[1, 0], w[0, 0])))

    @property
    def clockwise(self) -> bool:
        """As seen, with y downwards."""
        turn = float(self.u[0] * self.v[1] - self.u[1] * self.v[0])
        return (turn > 0) == (self.t1 > self.t0)

    def split(self, largest: float) -> list[Arc]:
        """The same arc in equal parts of at most ``largest`` radians."""
        n = max(1, int(np.ceil(abs(self.t1 - self.t0) / largest - 1e-9)))
        if n == 1:
            return [self]
        at = np.linspace(self.t0, self.t1, n + 1)
        ends = self.centre + np.outer(np.cos(at[1:]), self.u) + np.outer(np.sin(at[1:]), self.v)
        ends[-1] = self.end
        return [
            Arc(self.centre, self.u, self.v, float(a), float(b), e)
            for a, b, e in zip(at[:-1], at[1:], ends, strict=True)
        ]

    def cubics(self) -> Floats:
        """Control points (k, 3, 2) after the start: within 1e-5 of a radius of 50 mm."""
        found = []
        for part in self.split(np.pi / 4):
            h = 4 / 3 * np.tan((part.t1 - part.t0) / 4)
            c0, s0, c1, s1 = np.cos(part.t0), np.sin(part.t0), np.cos(part.t1), np.sin(part.t1)
            p0 = part.centre + part.u * c0 + part.v * s0
            d0, d1 = part.v * c0 - part.u * s0, part.v * c1 - part.u * s1
            found.append([p0 + h * d0, part.end - h * d1, part.end])
        return np.array(found)


class Pen(Protocol):
    def move_to(self, point: Floats) -> None: ...
    def lines_to(self, points: Floats) -> None: ...
    def quads_to(self, points: Floats) -> None: ...
    def cubics_to(self, points: Floats) -> None: ...
    def arc_to(self, arc: Arc) -> None: ...
    def close(self) -> None: ...


def bezier_points(segments: Segments) -> Floats:
    """Control points (n, 4, 2) of the stretches of Beziers of one kind; quads use three."""
    q = segments.coef.reshape(-1, 4, 2)
    t0, t1 = segments.span[:, :1], segments.span[:, 1:]
    out = np.zeros_like(q)

    def mix(a: Floats, b: Floats, t: Floats) -> Floats:
        return a + (b - a) * t

    if len(q) and segments.kind[0] == Kind.QUAD:
        a, b = mix(q[:, 0], q[:, 1], t0), mix(q[:, 1], q[:, 2], t0)
        out[:, 1] = mix(a, b, t1)
        last = 2
    else:

        def blossom(r: Floats, s: Floats, t: Floats) -> Floats:
            a, b, c = (mix(q[:, i], q[:, i + 1], r) for i in range(3))
            return mix(mix(a, b, s), mix(b, c, s), t)

        out[:, 1], out[:, 2] = blossom(t0, t0, t1), blossom(t0, t1, t1)
        last = 3
    out[:, 0], out[:, last] = segments.start, segments.end
    return out


def _control_points(segments: Segments) -> Floats:
    """Control points (n, 4, 2) as of ``bezier_points``, of segments of any kinds."""
    found = np.empty((len(segments), 4, 2))
    for kind in (Kind.QUAD, Kind.CUBIC):
        own = true_at(segments.kind == kind)
        if len(own):
            found[own] = bezier_points(segments.take(own))
    return found


def draw_contour(segments: Segments, pen: Pen, *, closed: bool = True) -> None:
    if not len(segments):
        return
    pen.move_to(segments.start[0])
    turns = run_starts(segments.kind)
    control = _control_points(segments)
    for low, high in zip(turns.tolist(), run_ends(turns, len(segments)).tolist(), strict=True):
        part = segments.take(slice(low, high))
        kind = part.kind[0]
        if kind == Kind.LINE:
            # the way back to the start is the close's
            last = len(part) - 1 if closed and high == len(segments) else len(part)
            if last:
                pen.lines_to(part.end[:last])
        elif kind == Kind.ARC:
            for c, (t0, t1), end in zip(part.coef, part.span, part.end, strict=True):
                pen.arc_to(Arc(c[:2], c[2:4], c[4:6], float(t0), float(t1), end))
        else:
            points = control[low:high]
            if kind == Kind.QUAD:
                pen.quads_to(points[:, 1:3])
            else:
                pen.cubics_to(points[:, 1:])
    if closed:
        pen.close()


def draw(region: Region, pen: Pen) -> None:
    """All contours of the region, in order."""
    for contour in region.contours:
        draw_contour(contour.segments, pen)
