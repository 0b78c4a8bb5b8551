"""Offset curves as segments: lines and arcs as themselves, all others as cubics that fit."""

from __future__ import annotations

from dataclasses import dataclass, fields
from functools import cached_property

import numpy as np

from stileblade.geometry.parallel import OffsetCurves, circular
from stileblade.geometry.segments import (
    Bools,
    Floats,
    Ints,
    Kind,
    Segments,
    beziers,
    concatenate,
    lines,
)
from stileblade.geometry.vectors import Places, as_complex, dots, norms
from stileblade.tolerance import TOLERANCE

_ON = 1e-3
"""mm: an arc whose end is off its circle by more is none."""


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
    ends = np.stack([curves.points_at(curve, t0) - start, curves.points_at(curve, t1) - end])
    is_arc &= norms(ends).max(axis=0) < _ON
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
    short = norms(q - p) < size
    rows = np.flatnonzero(short)
    if len(rows):
        middle = curves.points_at(curve[rows], (t0[rows] + t1[rows]) / 2)
        short[rows] = norms(middle - p[rows]) < size
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
    factor = dots(spot, base) / np.maximum(dots(base, base), 1e-300)
    coef[own, 2:6] *= factor[:, None]
    coef[~own, :2] = curves.segments.start[k[~own]]
    coef[~own, 2] = coef[~own, 5] = np.abs(curves.distance[k[~own]])
    kind = np.full(len(curve), Kind.ARC, np.int8)
    return Segments(kind, coef, np.stack([t0, t1], 1), start, end)


def fit_parallels(
    curves: OffsetCurves, curve: Ints, t0: Floats, t1: Floats, start: Floats, end: Floats
) -> tuple[Segments, Ints]:
    """Cubics along parallels, parted until they stay within ``TOLERANCE.fit`` in between, too.

    Ends and end tangents are exact; the two handle lengths are the ones that fit best.
    """
    done: list[tuple[Ints, Floats, Floats]] = []
    row, rounds = np.arange(len(curve)), 0
    c, a, b, p, q = curve, t0, t1, start, end
    while len(row):
        control, error = _fit_once(curves, c, a, b, p, q)
        error[_within(curves, c, a, b, p, q, 1e-4)] = 0.0
        bad = (error >= TOLERANCE.fit) & (rounds < _MOST_ROUNDS)
        # a stretch is no closer to its curve than its ends are
        rows = np.flatnonzero(bad & (error < TOLERANCE.leftover / 2))
        off = [curves.points_at(c[rows], t[rows]) - e[rows] for t, e in ((a, p), (b, q))]
        bad[rows] = error[rows] >= 1.1 * norms(np.stack(off)).max(axis=0)
        done.append((row[~bad], a[~bad], control[~bad]))
        # the error of a cubic that fits at both ends falls with the sixth power of its length
        parts = np.clip(np.ceil((error[bad] / TOLERANCE.fit) ** (1 / 6)), 2, _MOST_PARTS)
        row, c, a, b, p, q = _in_parts(
            curves, parts.astype(np.int64), row[bad], c[bad], a[bad], b[bad], p[bad], q[bad]
        )
        rounds += 1
    rows = np.concatenate([d[0] for d in done])
    begin = np.concatenate([d[1] for d in done])
    control = np.concatenate([d[2] for d in done])
    rising = (t1 >= t0)[rows]
    order = np.lexsort((np.where(rising, begin, -begin), rows))
    return beziers(control[order]), rows[order]


_MOST_PARTS, _MOST_ROUNDS = 4, 8


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
    """Each stretch cut into its number of even ones."""
    index = np.repeat(np.arange(len(row)), parts)
    part = np.arange(len(index)) - np.repeat(np.cumsum(parts) - parts, parts)
    step = ((t1 - t0) / parts)[index]
    a = t0[index] + part * step
    last = part == parts[index] - 1
    b = np.where(last, t1[index], t0[index] + (part + 1) * step)
    p = start[index]
    inner = np.flatnonzero(part > 0)
    p[inner] = curves.points_at(curve[index[inner]], a[inner])
    q = np.where(last[:, None], end[index], np.roll(p, -1, axis=0))
    return row[index], curve[index], a, b, p, q


_SAMPLES = np.linspace(0, 1, 17)[1:-1]
_BETWEEN = (np.r_[0.0, _SAMPLES] + np.r_[_SAMPLES, 1.0]) / 2
_LONG, _LONGEST = 0.1, 0.4
"""Shares of a stretch's length between two samples: where more lies there its middle is looked at,
and it is no stretch for one cubic."""
_EVEN, _LARGEST = 4, 2
_HOPELESS = 20
"""Times the tolerance: a stretch that is off by more after a few steps is parted at once."""


def _fit_once(
    curves: OffsetCurves, curve: Ints, t0: Floats, t1: Floats, p: Floats, q: Floats
) -> tuple[Floats, Floats]:
    """The cubic (m, 4, 2) along each stretch with its ends and end tangents, and how far it is off
    (m,): the lengths of its handles by damped Gauss-Newton steps (Marquardt, 1963) on the
    distances to the curve, at last with large ones weighing more, so that the largest is small."""
    m, k = len(curve), len(_SAMPLES)
    t = t0[:, None] + (t1 - t0)[:, None] * _SAMPLES
    target = as_complex(curves.points_at(np.repeat(curve, k), t.ravel())).reshape(m, k)
    turn = np.sign(t1 - t0)
    inside = [(curve, t0 + (t1 - t0) * 1e-6), (curve, t1 - (t1 - t0) * 1e-6)]
    speed = [as_complex(curves.motion_at(*place)[1]) for place in inside]
    ends = np.stack([_unit(speed[0] * turn), -_unit(speed[1] * turn)], axis=1)
    first, last = as_complex(p), as_complex(q)
    points = np.concatenate([first[:, None], target, last[:, None]], axis=1)
    steps = np.abs(np.diff(points, axis=1))
    length = np.maximum(steps.sum(axis=1), 1e-300)
    # the cubic that runs off and in as fast as the parallel itself is close already
    handles = np.abs(np.stack(speed, axis=1)) * (np.abs(t1 - t0) / 3)[:, None]
    handles = np.clip(handles, 1e-3 * length[:, None], length[:, None])
    fit = _Fit.of(first, last, ends, handles, np.tile(_SAMPLES, (m, 1)), target)
    control, error = fit.control, fit.away.max(axis=1, initial=0)
    row, damping = np.arange(m), np.full(m, 1e-2)
    for round_ in range(_EVEN + _LARGEST):
        more = (error[row] > TOLERANCE.fit / 4) & (damping < 1e5)
        if round_ >= _EVEN // 2:
            more &= error[row] < _HOPELESS * TOLERANCE.fit
        row, damping, fit = row[more], damping[more], fit.take(more)
        if not len(row):
            break
        even = round_ < _EVEN
        handles = fit.stepped(damping, length[row], even=even)
        tried = _Fit.of(first[row], last[row], ends[row], handles, fit.s, target[row])
        better = tried.cost(even=even) < fit.cost(even=even)
        damping = np.where(better, damping / 8, damping * 8)
        fit = fit.where(better, tried)
        control[row], error[row] = fit.control, fit.away.max(axis=1)
    # a loop beyond the samples is seen by its length alone
    around = np.abs(np.diff(control, axis=1)).sum(axis=1)
    rows = np.flatnonzero(around > 1.2 * length + 4 * TOLERANCE.fit)
    if len(rows):
        ahead = np.tile(np.linspace(0, 1, 33), (len(rows), 1))
        places = -_off_fit(control[rows], ahead, np.zeros_like(ahead, complex))[0]
        run = np.abs(np.diff(places, axis=1)).sum(axis=1)
        error[rows[run > 1.1 * length[rows] + 2 * TOLERANCE.fit]] = np.inf
    # so fast in between that what is there is not seen, or has to be looked at
    longest = np.where(length > TOLERANCE.leftover, steps.max(axis=1) / length, 0.0)
    error[longest > _LONGEST] = np.inf
    rows = np.flatnonzero((longest > _LONG) & (error < TOLERANCE.fit))
    if len(rows):
        between = t0[rows, None] + (t1 - t0)[rows, None] * _BETWEEN
        spots = curves.points_at(np.repeat(curve[rows], len(_BETWEEN)), between.ravel())
        middles = as_complex(spots).reshape(len(rows), -1)
        way = np.cumsum(steps[rows], axis=1)
        s = (way - steps[rows] / 2) / length[rows, None]
        off = _at_feet(control[rows], s, middles, 4)[1]
        error[rows] = np.maximum(error[rows], np.abs(off).max(axis=1))
    return control.view(float).reshape(m, 4, 2), error


@dataclass(frozen=True, eq=False)
class _Fit:
    """Cubics with unit directions ``ends`` (m, 2) and lengths ``handles`` (m, 2) of their
    handles, ``s`` (m, k) where they are nearest to the targets, and how far off they are."""

    ends: Places
    handles: Floats
    control: Places
    s: Floats
    gap: Places
    slope: Places

    @classmethod
    def of(
        cls, p: Places, q: Places, ends: Places, handles: Floats, s: Floats, target: Places
    ) -> _Fit:
        inner = np.stack([p, q], axis=1) + handles * ends
        control = np.concatenate([p[:, None], inner, q[:, None]], axis=1)
        return cls(ends, handles, control, *_at_feet(control, s, target, 2))

    @cached_property
    def away(self) -> Floats:
        return np.abs(self.gap)

    def cost(self, *, even: bool) -> Floats:
        return (self.away**2).sum(axis=1) if even else self.away.max(axis=1)

    def stepped(self, damping: Floats, length: Floats, *, even: bool) -> Floats:
        """The handles' lengths (m, 2) after a step."""
        normal = 1j * _unit(self.slope)
        s, r = self.s, 1 - self.s
        a1 = _dot(normal, self.ends[:, :1]) * (3 * r * r * s)
        a2 = _dot(normal, self.ends[:, 1:]) * (3 * r * s * s)
        rest = _dot(self.gap, normal)
        w1, w2 = a1, a2
        if not even:
            weight = self.away / np.maximum(self.away.max(axis=1), 1e-300)[:, None]
            weight = 0.05 + weight * weight
            w1, w2 = weight * a1, weight * a2
        c11, c12, c22 = ((w * a).sum(axis=1) for w, a in ((w1, a1), (w1, a2), (w2, a2)))
        x1, x2 = (w1 * rest).sum(axis=1), (w2 * rest).sum(axis=1)
        c11, c22 = c11 * (1 + damping), c22 * (1 + damping)
        det = np.maximum(c11 * c22 - c12 * c12, 1e-300)
        step = np.stack([x1 * c22 - x2 * c12, c11 * x2 - c12 * x1], axis=1) / det[:, None]
        least, most = 1e-4 * length[:, None], 1.5 * length[:, None]
        return np.clip(self.handles + step, least, most)

    def take(self, rows: Bools) -> _Fit:
        return self if rows.all() else _Fit(*(getattr(self, f.name)[rows] for f in fields(self)))

    def where(self, better: Bools, other: _Fit) -> _Fit:
        if better.all():
            return other
        pairs = ((getattr(self, f.name), getattr(other, f.name)) for f in fields(self))
        return _Fit(*(np.where(better[:, None], y, x) for x, y in pairs))


def _at_feet(
    control: Places, s: Floats, target: Places, steps: int
) -> tuple[Floats, Places, Places]:
    """From close by, s (m, k) where cubics are nearest to the targets, and ``_off_fit`` there."""
    for _ in range(steps):
        gap, slope = _off_fit(control, s, target)
        s = np.clip(s + _dot(gap, slope) / np.maximum(_dot(slope, slope), 1e-300), 0, 1)
    return s, *_off_fit(control, s, target)


def _off_fit(control: Places, s: Floats, target: Places) -> tuple[Places, Places]:
    """From cubics (m, 4) at s (m, k) to the targets (m, k), and the cubics' derivatives."""
    p0, p1, p2, p3 = (control[:, i, None] for i in range(4))
    a, b, c = p3 - 3 * (p2 - p1) - p0, 3 * (p2 - 2 * p1 + p0), 3 * (p1 - p0)
    point = ((a * s + b) * s + c) * s + p0
    return target - point, (3 * a * s + 2 * b) * s + c


def _dot(a: Places, b: Places) -> Floats:
    return a.real * b.real + a.imag * b.imag


def _unit(d: Places) -> Places:
    return d / np.maximum(np.abs(d), 1e-300)
