"""Parallel curves of segments, and arcs round corners: what an offset outline is made of.

For a region whose shells run with positive area (y downwards), the outside lies on the
right-hand normal (dy, -dx) of the direction of running; distance d > 0 goes outwards.
Numbered: first the segments' parallels, then an arc round each segment's start corner,
then bevels, then the straight extensions that make mitres.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from stileblade.geometry.segments import (
    NUDGE,
    TAU,
    WEAK,
    Floats,
    Ints,
    Kind,
    Segments,
    beziers,
    concatenate,
    lines,
)
from stileblade.tolerance import TOLERANCE


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


@dataclass(frozen=True, eq=False)
class OffsetCurves:
    """The curves at ``distance`` (n,) of ``segments``; ``before`` (n,) are the predecessors."""

    segments: Segments
    distance: Floats
    before: Ints

    def round_(self, curve: Ints) -> np.ndarray:
        """Which of the curves are circles or arcs of them."""
        own, _ = circular(self.segments)
        return np.concatenate([own, np.ones(self.n, bool), np.zeros(3 * self.n, bool)])[curve]

    @property
    def n(self) -> int:
        return len(self.segments)

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
        return self.motion_at(index, t)[0]

    def motion_at(self, index: Ints, t: Floats) -> tuple[Floats, Floats]:
        """Points (m, 2) and derivatives by t (m, 2) of curves ``index``."""
        n = self.n
        p, dp = np.empty((len(index), 2)), np.empty((len(index), 2))
        group = index // n
        own = group == 0
        if own.any():
            p[own], dp[own] = self._parallel(index[own], t[own])
        corner = index % n
        m = group == 1
        if m.any():
            c, s = np.cos(t[m]), np.sin(t[m])
            r = np.abs(self.distance[corner[m], None])
            p[m] = self.segments.start[corner[m]] + r * np.stack([c, s], 1)
            dp[m] = r * np.stack([-s, c], 1)
        for g, (a, b) in ((2, self.bevels), (3, self.mitres[0]), (4, self.mitres[1])):
            m = group == g
            if m.any():
                k = corner[m]
                p[m] = a[k] + (b[k] - a[k]) * t[m, None]
                dp[m] = b[k] - a[k]
        return p, dp

    def _parallel(self, index: Ints, t: Floats) -> tuple[Floats, Floats]:
        s = self.segments
        sign = np.where(s.span[index, 1] >= s.span[index, 0], 1.0, -1.0)
        d1, d2 = s.derivatives_at(index, t), s.second_derivatives_at(index, t)
        weak = np.flatnonzero(np.hypot(*d1.T) < WEAK * s.chords[index] + 1e-7)
        if len(weak):  # a control point on its end point: the direction a little further in
            middle = s.span[index[weak]].mean(axis=1)
            inner = t[weak] * (1 - NUDGE) + middle * NUDGE
            d1[weak] = s.derivatives_at(index[weak], inner)
        size = np.maximum(np.hypot(*d1.T), 1e-12)
        normal = np.stack([d1[:, 1], -d1[:, 0]], 1) / size[:, None] * sign[:, None]
        bend = (d1[:, 0] * d2[:, 1] - d1[:, 1] * d2[:, 0]) / size**3
        distance = self.distance[index]
        stretch = 1 + distance * sign * bend
        return s.points_at(index, t) + distance[:, None] * normal, d1 * stretch[:, None]

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
        return ((a * b).sum(axis=1) > 0) & (np.abs(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]) < 1e-6)

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


def as_segments(
    curves: OffsetCurves, curve: Ints, t0: Floats, t1: Floats, start: Floats, end: Floats
) -> tuple[Segments, Ints]:
    """Stretches of offset curves as segments, and which stretch each came from.

    Lines stay lines and circular arcs arcs; parallels of other curves are fitted by cubics.
    """
    n = curves.n
    segments = curves.segments
    corner = curve % n
    round_, radius = circular(segments)
    own = curve < n
    kind = np.where(own, segments.kind[corner], Kind.LINE)
    is_corner_arc = (curve >= n) & (curve < 2 * n)
    is_arc = (own & round_[corner]) | is_corner_arc
    tiny = _within(curves, curve, t0, t1, start, end, 1e-6)
    is_line = ((kind == Kind.LINE) & ~is_corner_arc) | tiny & ~is_arc
    parts, rows = [], []
    m = np.flatnonzero(is_line)
    parts.append(lines(start[m], end[m]))
    rows.append(m)
    m = np.flatnonzero(is_arc & ~is_line)
    if len(m):
        parts.append(_arcs(curves, curve[m], radius, t0[m], t1[m], start[m], end[m]))
        rows.append(m)
    m = np.flatnonzero(~is_arc & ~is_line)
    if len(m):
        fitted, row = fit_parallels(curves, curve[m], t0[m], t1[m], start[m], end[m])
        parts.append(fitted)
        rows.append(m[row])
    row = np.concatenate(rows)
    order = np.argsort(row, kind="stable")
    return concatenate(parts).take(order), row[order]


def _within(
    curves: OffsetCurves, curve: Ints, t0: Floats, t1: Floats, p: Floats, q: Floats, size: float
) -> np.ndarray:
    """Which stretches are smaller than ``size``, loops back to their start not among them."""
    short = np.hypot(*(q - p).T) < size
    rows = np.flatnonzero(short)
    if len(rows):
        middle = curves.points_at(curve[rows], (t0[rows] + t1[rows]) / 2)
        short[rows] = np.hypot(*(middle - p[rows]).T) < size
    return short


def _arcs(
    curves: OffsetCurves,
    curve: Ints,
    radius: Floats,
    t0: Floats,
    t1: Floats,
    start: Floats,
    end: Floats,
) -> Segments:
    n = curves.n
    own = curve < n
    k = curve % n
    coef = np.zeros((len(curve), 8))
    coef[own] = curves.segments.coef[k[own]]
    # the parallel's radius: the point at t0 tells on which side it lies
    spot = curves.points_at(curve[own], t0[own]) - coef[own, :2]
    base = coef[own, 2:4] * np.cos(t0[own, None]) + coef[own, 4:6] * np.sin(t0[own, None])
    factor = (spot * base).sum(axis=1) / np.maximum((base * base).sum(axis=1), 1e-300)
    coef[own, 2:6] *= factor[:, None]
    coef[~own, :2] = curves.segments.start[k[~own]]
    coef[~own, 2] = coef[~own, 5] = np.abs(curves.distance[k[~own]])
    kind = np.full(len(curve), Kind.ARC, np.int8)
    return Segments(kind, coef, np.stack([t0, t1], 1), start, end)


def fit_parallels(
    curves: OffsetCurves, curve: Ints, t0: Floats, t1: Floats, start: Floats, end: Floats
) -> tuple[Segments, Ints]:
    """Cubics along parallels, parted until they stay within ``TOLERANCE.fit`` in between, too.

    Ends and end tangents are exact; the two handle lengths are the least-squares ones
    (Schneider, An algorithm for automatically fitting digitized curves, 1990), the
    parameters being improved twice by projection.
    """
    row = np.arange(len(curve))
    todo = (row, curve, t0, t1, start, end)
    done: list[tuple[Ints, Floats, Floats]] = []
    for depth in range(9):
        r, c, a, b, p, q = todo
        if not len(r):
            break
        control, error = _fit_once(curves, c, a, b, p, q)
        good = (error < TOLERANCE.fit) | (depth == 8) | _within(curves, c, a, b, p, q, 1e-4)
        done.append((r[good], a[good], control[good]))
        # the error of such a fit falls with the sixth power of the length
        parts = np.ceil((error[~good] / (0.9 * TOLERANCE.fit)) ** (1 / 6)).clip(2, 6).astype(int)
        todo = _in_parts(curves, parts, *(x[~good] for x in (r, c, a, b, p, q)))
    rows = np.concatenate([d[0] for d in done])
    begin = np.concatenate([d[1] for d in done])
    control = np.concatenate([d[2] for d in done])
    rising = (t1 >= t0)[rows]
    order = np.lexsort((np.where(rising, begin, -begin), rows))
    return beziers(control[order]), rows[order]


def _in_parts(
    curves: OffsetCurves,
    parts: Ints,
    row: Ints,
    curve: Ints,
    t0: Floats,
    t1: Floats,
    start: Floats,
    end: Floats,
) -> tuple[Ints, Ints, Floats, Floats, Floats, Floats]:
    """Each stretch cut into a number of even ones."""
    index = np.repeat(np.arange(len(parts)), parts)
    part = np.arange(len(index)) - np.repeat(np.cumsum(parts) - parts, parts)
    step = ((t1 - t0) / parts)[index]
    a = t0[index] + part * step
    last = part == parts[index] - 1
    b = np.where(last, t1[index], t0[index] + (part + 1) * step)
    p = np.where((part == 0)[:, None], start[index], curves.points_at(curve[index], a))
    q = np.where(last[:, None], end[index], np.roll(p, -1, axis=0))
    return row[index], curve[index], a, b, p, q


_SAMPLES = np.linspace(0, 1, 17)[1:-1]
_IMPROVEMENTS = 4


def _fit_once(
    curves: OffsetCurves, curve: Ints, t0: Floats, t1: Floats, p: Floats, q: Floats
) -> tuple[Floats, Floats]:
    m, k = len(curve), len(_SAMPLES)
    t = t0[:, None] + (t1 - t0)[:, None] * _SAMPLES
    index = np.repeat(curve, k)
    target = curves.points_at(index, t.ravel()).reshape(m, k, 2)
    turn = np.sign(t1 - t0)[:, None]
    first = _unit(curves.motion_at(curve, t0 + (t1 - t0) * 1e-6)[1] * turn)
    last = -_unit(curves.motion_at(curve, t1 - (t1 - t0) * 1e-6)[1] * turn)
    points = np.concatenate([p[:, None], target, q[:, None]], axis=1)
    steps = np.hypot(*np.moveaxis(np.diff(points, axis=1), 2, 0))
    along = np.cumsum(steps, axis=1)
    s = along[:, :-1] / np.maximum(along[:, -1:], 1e-300)
    control = np.empty((m, 4, 2))
    for _ in range(_IMPROVEMENTS):
        r = 1 - s
        b0, b1, b2, b3 = r * r * r, 3 * r * r * s, 3 * r * s * s, s * s * s
        rest = target - (b0 + b1)[..., None] * p[:, None] - (b2 + b3)[..., None] * q[:, None]
        a1, a2 = b1[..., None] * first[:, None], b2[..., None] * last[:, None]
        c11, c12, c22 = (a1 * a1).sum((1, 2)), (a1 * a2).sum((1, 2)), (a2 * a2).sum((1, 2))
        x1, x2 = (rest * a1).sum((1, 2)), (rest * a2).sum((1, 2))
        det = c11 * c22 - c12 * c12
        chord = np.hypot(*(q - p).T)
        ok = np.abs(det) > 1e-12 * np.maximum(c11 * c22, 1e-300)
        safe = np.where(ok, det, 1.0)
        h1 = np.where(ok, (x1 * c22 - x2 * c12) / safe, chord / 3)
        h2 = np.where(ok, (c11 * x2 - c12 * x1) / safe, chord / 3)
        h1 = np.where((h1 > 1e-4 * chord) & (h1 < 3 * chord), h1, chord / 3)
        h2 = np.where((h2 > 1e-4 * chord) & (h2 < 3 * chord), h2, chord / 3)
        control[:, 0], control[:, 3] = p, q
        control[:, 1], control[:, 2] = p + h1[:, None] * first, q + h2[:, None] * last
        gap, slope = _off_fit(control, s, target)
        move = (gap * slope).sum(axis=2) / np.maximum((slope * slope).sum(axis=2), 1e-300)
        s = np.clip(s + move, 0, 1)
    gap, _ = _off_fit(control, s, target)
    return control, np.hypot(gap[..., 0], gap[..., 1]).max(axis=1)


def _off_fit(control: Floats, s: Floats, target: Floats) -> tuple[Floats, Floats]:
    """From cubics (m, 4, 2) at s (m, k) to the targets (m, k, 2), and the cubics' derivatives."""
    s, c = s[..., None], control[:, :, None]
    d1, d2, d3 = (3 * (c[:, i + 1] - c[:, i]) for i in range(3))
    r = 1 - s
    slope = r * r * d1 + 2 * r * s * d2 + s * s * d3
    b0, b1, b2, b3 = c[:, 0], c[:, 1], c[:, 2], c[:, 3]
    point = r * r * (r * b0 + 3 * s * b1) + s * s * (3 * r * b2 + s * b3)
    return target - point, slope


def _unit(d: Floats) -> Floats:
    return d / np.maximum(np.hypot(*d.T), 1e-300)[:, None]
