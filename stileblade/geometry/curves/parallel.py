"""Parallel curves of segments, and arcs round corners: what an offset outline is made of.

For a region whose shells run with positive area (y downwards), the outside lies on the
right-hand normal (dy, -dx) of the direction of running; distance d > 0 goes outwards.
``Of`` says how they are numbered.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum
from functools import cached_property

import numpy as np

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import NUDGE, TAU, WEAK, Bools, Floats, Ints, Segments
from stileblade.geometry.curves.vectors import Places, as_complex, crosses, dots, norms
from stileblade.tolerance import TOLERANCE


class Corner(IntEnum):
    """How a corner is gone round."""

    ROUNDED = 0
    BEVELLED = 1
    MITRED = 2


class Of(IntEnum):
    """What an offset curve is of: curves are numbered by these, n of each, for n segments."""

    SEGMENT = 0
    """The parallel of a segment."""
    ARC = 1
    """The arc round a segment's start corner."""
    BEVEL = 2
    """The straight line across that corner."""
    INTO_TIP = 3
    """The straight line on from the predecessor's end to the tip of that corner's mitre."""
    FROM_TIP = 4
    """The straight line from the tip to the segment's own start."""


_BACK = 1e-12 - 1
"""Of the cosine of a turn."""


def circular(segments: Segments) -> tuple[np.ndarray, Floats]:
    """Which segments are arcs of circles, and radii (n,)."""
    u, v = segments.coef[:, 2:4], segments.coef[:, 4:6]
    ru, rv = norms(u), norms(v)
    round_ = (
        (segments.kind == Kind.ARC)
        & (np.abs(ru - rv) < 1e-9 * np.maximum(ru, 1))
        & (np.abs(dots(u, v)) < 1e-9 * np.maximum(ru * rv, 1))
    )
    return round_, ru


def _pairs(places: Places) -> Floats:
    return places.view(float).reshape(-1, 2)


def _turning(d1: Places, d2: Places) -> Floats:
    """The cross product of first and second derivatives: the curvature, by the speed cubed."""
    return d1.real * d2.imag - d1.imag * d2.real


@dataclass(frozen=True, eq=False)
class OffsetCurves:
    """The curves at ``distance`` (n,) of ``segments``; ``before`` (n,) are the predecessors,
    ``flatness`` how far the kernel's polylines are off the segments."""

    segments: Segments
    distance: Floats
    before: Ints
    flatness: float = TOLERANCE.flatten

    def round_(self, curve: Ints) -> np.ndarray:
        """Which of the curves are circles or arcs of them."""
        own, _ = circular(self.segments)
        return np.concatenate([own, np.ones(self.n, bool), np.zeros(3 * self.n, bool)])[curve]

    @property
    def n(self) -> int:
        return len(self.segments)

    def of(self, curve: Ints) -> Ints:
        """What each of the curves is of."""
        return curve // self.n

    def segment(self, curve: Ints) -> Ints:
        """The segment that each of the curves is of, or at whose start corner it is."""
        return curve % self.n

    def number(self, of: Of | Ints, segment: Ints) -> Ints:
        """The curves' numbers."""
        return segment + of * self.n

    def curved(self, index: Ints) -> Bools:
        """Which of the curves ``index`` are parallels of no line."""
        own = self.of(index) == Of.SEGMENT
        return own & (self.segments.kind[self.segment(index)] != Kind.LINE)

    def runs_back(self, index: Ints, t: Floats) -> Bools:
        """Where curves ``index`` at t run against their segments, as parallels do inside bends that
        are tighter than the distance."""
        back = self.curved(index)
        rows = true_at(back)
        _, d1, d2, speed = self._motion(index[rows], t[rows])
        back[rows] = self._outwards[index[rows]] * _turning(d1, d2) < -(speed**3)
        return back

    @cached_property
    def directions(self) -> tuple[Floats, Floats]:
        return self.segments.end_directions()

    @cached_property
    def span(self) -> Floats:
        n = self.n
        margin = np.where(self.segments.kind == Kind.LINE, 1e3, 0.0)
        low = self.segments.span.min(axis=1) - margin
        high = self.segments.span.max(axis=1) + margin
        forward = self.segments.span[:, 1] >= self.segments.span[:, 0]
        own = np.where(forward[:, None], np.stack([low, high], 1), np.stack([high, low], 1))
        arcs = np.tile([-2 * TAU, 2 * TAU], (n, 1))
        straight = np.tile([-1e3, 1e3], (3 * n, 1))
        return np.concatenate([own, arcs, straight])

    def points_at(self, index: Ints, t: Floats) -> Floats:
        """Points (m, 2) of curves ``index``."""
        place, d1, _, speed = self._motion(index, t)
        place -= d1 * (1j * self._outwards.take(index) / speed)
        return _pairs(place)

    def motion_at(self, index: Ints, t: Floats) -> tuple[Floats, Floats]:
        """Points (m, 2) and derivatives by t (m, 2) of curves ``index``."""
        place, d1, d2, speed = self._motion(index, t)
        aside = self._outwards.take(index) / speed
        place -= d1 * (1j * aside)
        d1 *= 1 + aside * _turning(d1, d2) / (speed * speed)
        return _pairs(place), _pairs(d1)

    def _motion(self, index: Ints, t: Floats) -> tuple[Places, Places, Places, Floats]:
        """Points of segments with their first and second derivatives by t, and their speeds, which
        are above 0."""
        place, d1, d2 = self._derivatives(index, t)
        speed = np.maximum(np.abs(d1), 1e-12)
        weak = (speed < self._weak.take(index)).nonzero()[0]
        if len(weak):  # a control point on its end point: the direction a little further in
            middle = self.segments.span[index[weak]].mean(axis=1)
            inner = t[weak] * (1 - NUDGE) + middle * NUDGE
            d1[weak] = self._derivatives(index[weak], inner)[1]
            speed[weak] = np.maximum(np.abs(d1[weak]), 1e-12)
        return place, d1, d2, speed

    def _derivatives(self, index: Ints, t: Floats) -> tuple[Places, Places, Places]:
        c0, c1, c2, c3, twice, thrice = self._powers.take(index, axis=1)
        place, fast = ((c3 * t + c2) * t + c1) * t + c0, thrice * t
        d1, d2 = (fast + twice) * t + c1, 2 * fast + twice
        m = self._round.take(index).nonzero()[0]
        if len(m):
            u, v, cos, sin = c1[m], c2[m], np.cos(t[m]), np.sin(t[m])
            d1[m], d2[m] = v * cos - u * sin, -u * cos - v * sin
            place[m] = c0[m] - d2[m]
        return place, d1, d2

    @cached_property
    def _powers(self) -> Places:
        """Coefficients (6, 5n) of 1, t, t^2 and t^3, of arcs centre, u and v; and twice and thrice the
        last two. All are evaluated alike then, as complex numbers: the many small calls of
        searches cost as much by kinds."""
        kind = self.segments.kind
        p0, p1, p2, p3 = np.ascontiguousarray(self.segments.coef).view(complex).T
        cubic, quad, round_ = kind == Kind.CUBIC, kind == Kind.QUAD, kind == Kind.ARC
        second = p0 - 2 * p1 + p2
        degree = np.where(cubic, 3, np.where(quad, 2, 1))
        found = np.zeros((6, 5, self.n), complex)
        found[0, 0] = p0
        found[1, 0] = np.where(round_, p1, degree * (p1 - p0))
        found[2, 0] = np.where(round_, p2, np.where(cubic, 3 * second, np.where(quad, second, 0)))
        found[3, 0] = np.where(cubic, p3 - p0 - 3 * (p2 - p1), 0)
        found[4, 0], found[5, 0] = 2 * found[2, 0], 3 * found[3, 0]
        found[0, Of.ARC] = as_complex(self.segments.start)
        found[1, Of.ARC] = np.abs(self.distance)
        found[2, Of.ARC] = 1j * found[1, Of.ARC]
        for of, (a, b) in zip((Of.BEVEL, Of.INTO_TIP, Of.FROM_TIP), self.corner_lines, strict=True):
            found[0, of] = as_complex(a)
            found[1, of] = as_complex(b) - as_complex(a)
        return found.reshape(6, -1)

    @cached_property
    def _round(self) -> Bools:
        """Which curves (5n,) are evaluated as arcs."""
        own = self.segments.kind == Kind.ARC
        return np.concatenate([own, np.ones(self.n, bool), np.zeros(3 * self.n, bool)])

    @cached_property
    def _weak(self) -> Floats:
        """Speeds (5n,) below which a segment's own says no direction; corners' always do, or have
        none."""
        return np.concatenate([WEAK * self.segments.chords + 1e-7, np.zeros(4 * self.n)])

    @cached_property
    def _outwards(self) -> Floats:
        """Distances (5n,) to the right of the way in which t grows."""
        forward = self.segments.span[:, 1] >= self.segments.span[:, 0]
        return np.concatenate([np.where(forward, 1, -1) * self.distance, np.zeros(4 * self.n)])

    @cached_property
    def offset_ends(self) -> tuple[Floats, Floats]:
        """Where the parallels start (n, 2) and end (n, 2)."""
        first, last = self.directions
        d = self.distance[:, None]
        return (
            self.segments.start + d * np.stack([first[:, 1], -first[:, 0]], 1),
            self.segments.end + d * np.stack([last[:, 1], -last[:, 0]], 1),
        )

    @cached_property
    def bevels(self) -> tuple[Floats, Floats]:
        """Bevel at each segment's start corner: from the predecessor's end to its own start."""
        start, end = self.offset_ends
        return end[self.before], start

    @cached_property
    def mitres(self) -> tuple[tuple[Floats, Floats], tuple[Floats, Floats]]:
        """The two lines that meet in the mitre's tip, at each start corner."""
        a, b = self.bevels
        tip = self.tips
        return (a, tip), (tip, b)

    @property
    def corner_lines(self) -> tuple[tuple[Floats, Floats], ...]:
        """Starts and ends of the straight lines at corners: bevels, into tips, from tips."""
        return (self.bevels, *self.mitres)

    @cached_property
    def tips(self) -> Floats:
        """Mitre tips (n, 2); at straight joints the joint's own offset."""
        first, last = self.directions
        incoming, outgoing = last[self.before], first
        n1 = np.stack([incoming[:, 1], -incoming[:, 0]], 1)
        n2 = np.stack([outgoing[:, 1], -outgoing[:, 0]], 1)
        both = n1 + n2
        size = np.maximum(dots(both, both), 1e-12)
        return self.segments.start + both * (2 * self.distance / size)[:, None]

    @cached_property
    def mitre_ratio(self) -> Floats:
        """Length of each mitre by the distance, 1 at straight joints (SVG's definition), without bound
        where the outline goes straight back."""
        first, last = self.directions
        ratio = norms(self.tips - self.segments.start) / np.maximum(np.abs(self.distance), 1e-300)
        ratio[dots(last[self.before], first) < _BACK] = np.inf
        return ratio

    @cached_property
    def runs_on(self) -> np.ndarray:
        """Start corners (n,) at which the outline does not turn."""
        first, last = self.directions
        a, b = last[self.before], first
        return (dots(a, b) > 0) & (np.abs(crosses(a, b)) <= 1e-4)

    @cached_property
    def turns_outwards(self) -> np.ndarray:
        """Corners (n,) that the offset goes round rather than cuts off."""
        first, last = self.directions
        a, b = last[self.before], first
        turn = crosses(a, b)
        along = dots(a, b)
        corner = (np.abs(turn) > 1e-4) | (along < 0)
        back = along < _BACK  # straight back, as at the end of a stroke
        return corner & (((turn > 0) == (self.distance > 0)) | (back & (self.distance > 0)))
