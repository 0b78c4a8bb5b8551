"""Stretches of offset curves, and what they are as segments."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.geometry.curves.arrays import nth_of, true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import Of, OffsetCurves, circular
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments, lines
from stileblade.geometry.curves.vectors import dots, norms
from stileblade.tolerance import TOLERANCE


@dataclass(frozen=True, eq=False)
class Stretches:
    """Of each curve (m,) what lies between t0 and t1 (m,), from start to end (m, 2)."""

    curves: OffsetCurves
    curve: Ints
    t0: Floats
    t1: Floats
    start: Floats
    end: Floats

    def __len__(self) -> int:
        return len(self.curve)

    def take(self, rows: Ints) -> Stretches:
        return Stretches(
            self.curves,
            self.curve[rows],
            self.t0[rows],
            self.t1[rows],
            self.start[rows],
            self.end[rows],
        )

    @property
    def way(self) -> Floats:
        """How far t runs (m,)."""
        return self.t1 - self.t0

    @property
    def off_at_ends(self) -> Floats:
        """How far the farther end of each is off its curve (m,), in mm."""
        off = [
            self.curves.points_at(self.curve, self.t0) - self.start,
            self.curves.points_at(self.curve, self.t1) - self.end,
        ]
        return norms(np.stack(off)).max(axis=0)

    def smaller_than(self, size: float) -> Bools:
        """Which are smaller than ``size`` mm, loops back to their start not among them."""
        short = norms(self.end - self.start) < size
        rows = true_at(short)
        if len(rows):
            middle = self.curves.points_at(self.curve[rows], (self.t0[rows] + self.t1[rows]) / 2)
            short[rows] = norms(middle - self.start[rows]) < size
        return short

    def in_parts(self, parts: Ints) -> Stretches:
        """Each cut into its number of even ones."""
        index = np.arange(len(self)).repeat(parts)
        part = nth_of(parts)
        step = (self.way / parts)[index]
        t0 = self.t0[index] + part * step
        last = part == parts[index] - 1
        t1 = np.where(last, self.t1[index], self.t0[index] + (part + 1) * step)
        start = self.start[index]
        inner = true_at(part > 0)
        start[inner] = self.curves.points_at(self.curve[index[inner]], t0[inner])
        end = np.where(last[:, None], self.end[index], np.roll(start, -1, axis=0))
        return Stretches(self.curves, self.curve[index], t0, t1, start, end)

    def straight_and_round(self) -> tuple[Bools, Bools]:
        """Which are lines, or so small that they may be, and which arcs of circles."""
        curves, segments = self.curves, self.curves.segments
        of, segment = curves.of(self.curve), curves.segment(self.curve)
        own, round_ = of == Of.SEGMENT, circular(segments)[0][segment]
        kind = np.where(own, segments.kind[segment], Kind.LINE)
        is_arc = ((own & round_) | (of == Of.ARC)) & (self.off_at_ends < TOLERANCE.on_circle)
        is_line = (kind == Kind.LINE) & (of != Of.ARC)
        return is_line | self.smaller_than(1e-6) & ~is_arc, is_arc

    def as_lines(self) -> Segments:
        return lines(self.start, self.end)

    def as_arcs(self) -> Segments:
        """Arcs about the centres of their circles."""
        curves, segment = self.curves, self.curves.segment(self.curve)
        own = curves.of(self.curve) == Of.SEGMENT
        coef = np.zeros((len(self), 8))
        coef[own] = curves.segments.coef[segment[own]]
        # the parallel's radius: the point at t0 tells on which side it lies
        spot = curves.points_at(self.curve[own], self.t0[own]) - coef[own, :2]
        cos, sin = np.cos(self.t0[own, None]), np.sin(self.t0[own, None])
        base = coef[own, 2:4] * cos + coef[own, 4:6] * sin
        factor = dots(spot, base) / np.maximum(dots(base, base), 1e-300)
        coef[own, 2:6] *= factor[:, None]
        coef[~own, :2] = curves.segments.start[segment[~own]]
        coef[~own, 2] = coef[~own, 5] = np.abs(curves.distance[segment[~own]])
        kind = np.full(len(self), Kind.ARC, np.int8)
        return Segments(kind, coef, np.stack([self.t0, self.t1], 1), self.start, self.end)
