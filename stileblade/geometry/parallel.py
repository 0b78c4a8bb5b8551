"""Parallel curves of segments, and arcs round corners: what an offset outline is made of.

For a region whose shells run with positive area (y downwards), the outside lies on the
right-hand normal (dy, -dx) of the direction of running; distance d > 0 goes outwards.
Numbered: first the segments' parallels, then an arc round each segment's start corner,
then bevels, then the straight extensions that make mitres.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np
import numpy.typing as npt

from stileblade.geometry.segments import (
    NUDGE,
    TAU,
    WEAK,
    Bools,
    Floats,
    Ints,
    Kind,
    Segments,
)
from stileblade.tolerance import TOLERANCE

Places = npt.NDArray[np.complex128]
"""Points and directions as complex numbers x + iy: half as many operations as on pairs."""
ROUNDED: Final = 0
BEVELLED: Final = 1
MITRED: Final = 2
"""How a corner is gone round."""


def circular(segments: Segments) -> tuple[np.ndarray, Floats]:
    """Which segments are arcs of circles, and radii (n,)."""
    u, v = segments.coef[:, 2:4], segments.coef[:, 4:6]
    ru, rv = np.hypot(*u.T), np.hypot(*v.T)
    round_ = (
        (segments.kind == Kind.ARC)
        & (np.abs(ru - rv) < 1e-9 * np.maximum(ru, 1))
        & (np.abs((u * v).sum(axis=1)) < 1e-9 * np.maximum(ru * rv, 1))
    )
    return round_, ru


def _pairs(places: Places) -> Floats:
    return places.view(float).reshape(-1, 2)


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

    def curved(self, index: Ints) -> Bools:
        """Which of the curves ``index`` are parallels of no line."""
        return (index < self.n) & (self.segments.kind[index % self.n] != Kind.LINE)

    def runs_back(self, index: Ints, t: Floats) -> Bools:
        """Where curves ``index`` at t run against their segments, as parallels do inside bends that
        are tighter than the distance."""
        back = self.curved(index)
        rows = np.flatnonzero(back)
        back[rows] = self._pace(index[rows], *self._motion(index[rows], t[rows])[1:]) < 0
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
        return self._along(index, t, moving=False)[0]

    def motion_at(self, index: Ints, t: Floats) -> tuple[Floats, Floats]:
        """Points (m, 2) and derivatives by t (m, 2) of curves ``index``."""
        return self._along(index, t, moving=True)

    def _along(self, index: Ints, t: Floats, *, moving: bool) -> tuple[Floats, Floats]:
        n = self.n
        if not len(index) or int(index.max()) < n:
            return self._parallel(index, t, moving=moving)
        p, dp = np.empty((len(index), 2)), np.empty((len(index), 2))
        group, corner = np.divmod(index, n)
        own = np.flatnonzero(group == 0)
        if len(own):
            p[own], dp[own] = self._parallel(index[own], t[own], moving=moving)
        m = np.flatnonzero(group == 1)
        if len(m):
            turned = np.stack([np.cos(t[m]), np.sin(t[m])], 1)
            turned *= np.abs(self.distance[corner[m], None])
            p[m] = self.segments.start[corner[m]] + turned
            dp[m] = np.stack([-turned[:, 1], turned[:, 0]], 1)
        for g, (a, b) in ((2, self.bevels), (3, self.mitres[0]), (4, self.mitres[1])):
            m = np.flatnonzero(group == g)
            if len(m):
                k = corner[m]
                d = b[k] - a[k]
                p[m], dp[m] = a[k] + d * t[m, None], d
        return p, dp

    def _parallel(self, index: Ints, t: Floats, *, moving: bool) -> tuple[Floats, Floats]:
        """Points and, where ``moving``, derivatives by t."""
        place, d1, d2 = self._motion(index, t)
        points = place - 1j * d1 * (self._outwards[index] / np.maximum(np.abs(d1), 1e-12))
        if moving:
            d1 = d1 * self._pace(index, d1, d2)
        return _pairs(points), _pairs(d1)

    def _pace(self, index: Ints, d1: Places, d2: Places) -> Floats:
        """How many times as fast as their segments parallels run; below 0 the other way."""
        bend = d1.real * d2.imag - d1.imag * d2.real
        return 1 + self._outwards[index] * bend / np.maximum(np.abs(d1), 1e-12) ** 3

    def _motion(self, index: Ints, t: Floats) -> tuple[Places, Places, Places]:
        """Points of segments with their first and second derivatives by t."""
        place, d1, d2 = self._derivatives(index, t)
        weak = np.flatnonzero(np.abs(d1) < self._weak[index])
        if len(weak):  # a control point on its end point: the direction a little further in
            middle = self.segments.span[index[weak]].mean(axis=1)
            inner = t[weak] * (1 - NUDGE) + middle * NUDGE
            d1[weak] = self._derivatives(index[weak], inner)[1]
        return place, d1, d2

    def _derivatives(self, index: Ints, t: Floats) -> tuple[Places, Places, Places]:
        c0, c1, c2, c3 = self._powers.take(index, axis=1)
        third = c3 * t
        place, d1 = ((third + c2) * t + c1) * t + c0, (3 * third + 2 * c2) * t + c1
        d2 = 6 * third + 2 * c2
        if self._has_arcs:
            m = np.flatnonzero(self.segments.kind[index] == Kind.ARC)
            u, v, cos, sin = c1[m], c2[m], np.cos(t[m]), np.sin(t[m])
            d1[m], d2[m] = v * cos - u * sin, -u * cos - v * sin
            place[m] = c0[m] - d2[m]
        return place, d1, d2

    @cached_property
    def _powers(self) -> Places:
        """Coefficients (4, n) of 1, t, t^2 and t^3; of arcs centre, u and v. All are evaluated
        alike then, as complex numbers: the many small calls of searches cost as much by kinds."""
        kind = self.segments.kind
        p0, p1, p2, p3 = np.ascontiguousarray(self.segments.coef).view(complex).T
        cubic, quad, round_ = kind == Kind.CUBIC, kind == Kind.QUAD, kind == Kind.ARC
        second = p0 - 2 * p1 + p2
        degree = np.where(cubic, 3, np.where(quad, 2, 1))
        return np.stack(
            [
                p0,
                np.where(round_, p1, degree * (p1 - p0)),
                np.where(round_, p2, np.where(cubic, 3 * second, np.where(quad, second, 0))),
                np.where(cubic, p3 - p0 - 3 * (p2 - p1), 0),
            ]
        )

    @cached_property
    def _has_arcs(self) -> bool:
        return bool((self.segments.kind == Kind.ARC).any())

    @cached_property
    def _weak(self) -> Floats:
        """Speeds (n,) below which a segment's own says no direction."""
        return WEAK * self.segments.chords + 1e-7

    @cached_property
    def _outwards(self) -> Floats:
        """Distances (n,) to the right of the way in which t grows."""
        return self.distance * np.where(self.segments.span[:, 1] >= self.segments.span[:, 0], 1, -1)

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

    @cached_property
    def tips(self) -> Floats:
        """Mitre tips (n, 2); at straight joints the joint's own offset."""
        first, last = self.directions
        incoming, outgoing = last[self.before], first
        n1 = np.stack([incoming[:, 1], -incoming[:, 0]], 1)
        n2 = np.stack([outgoing[:, 1], -outgoing[:, 0]], 1)
        both = n1 + n2
        size = np.maximum((both * both).sum(axis=1), 1e-12)
        return self.segments.start + both * (2 * self.distance / size)[:, None]

    @cached_property
    def mitre_ratio(self) -> Floats:
        """Length of each mitre by the distance, 1 at straight joints (SVG's definition)."""
        return np.hypot(*(self.tips - self.segments.start).T) / np.maximum(
            np.abs(self.distance), 1e-300
        )

    @cached_property
    def runs_on(self) -> np.ndarray:
        """Start corners (n,) at which the outline does not turn."""
        first, last = self.directions
        a, b = last[self.before], first
        return ((a * b).sum(axis=1) > 0) & (np.abs(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]) <= 1e-4)

    @cached_property
    def turns_outwards(self) -> np.ndarray:
        """Corners (n,) that the offset goes round rather than cuts off."""
        first, last = self.directions
        a, b = last[self.before], first
        turn = a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]
        along = (a * b).sum(axis=1)
        corner = (np.abs(turn) > 1e-4) | (along < 0)
        back = along < 1e-12 - 1  # straight back, as at the end of a stroke
        return corner & (((turn > 0) == (self.distance > 0)) | (back & (self.distance > 0)))
