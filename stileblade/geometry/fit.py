"""Offset curves as segments: lines and arcs as themselves, all others as cubics that fit."""

from __future__ import annotations

from dataclasses import dataclass, fields
from functools import cached_property

import numpy as np

from stileblade.geometry.parallel import OffsetCurves, circular
from stileblade.geometry.segments import Floats, Ints, Kind, Segments, beziers, concatenate, lines
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
    is_arc &= np.hypot(ends[..., 0], ends[..., 1]).max(axis=0) < _ON
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

    Ends and end tangents are exact; the two handle lengths are the ones that fit best.
    """
    done: list[tuple[Ints, Floats, Floats]] = []
    todo, parts = np.arange(len(curve)), 1
    while len(todo):
        of, c, a, b, p, q = _in_parts(
            curves, parts, todo, curve[todo], t0[todo], t1[todo], start[todo], end[todo]
        )
        control, error = _fit_once(curves, c, a, b, p, q)
        good = (error < TOLERANCE.fit) | _within(curves, c, a, b, p, q, 1e-4)
        bad = ~good.reshape(-1, parts).all(axis=1) & (parts < _MOST_PARTS)
        ready = np.repeat(~bad, parts)
        done.append((of[ready], a[ready], control[ready]))
        todo, parts = todo[bad], parts + 1 + parts // 4
    rows = np.concatenate([d[0] for d in done])
    begin = np.concatenate([d[1] for d in done])
    control = np.concatenate([d[2] for d in done])
    rising = (t1 >= t0)[rows]
    order = np.lexsort((np.where(rising, begin, -begin), rows))
    return beziers(control[order]), rows[order]


_MOST_PARTS = 100


def _in_parts(
    curves: OffsetCurves,
    parts: int,
    row: Ints,
    curve: Ints,
    t0: Floats,
    t1: Floats,
    start: Floats,
    end: Floats,
) -> tuple[Ints, Ints, Floats, Floats, Floats, Floats]:
    """Each stretch cut into a number of even ones."""
    index = np.repeat(np.arange(len(row)), parts)
    part = np.tile(np.arange(parts), len(row))
    step = ((t1 - t0) / parts)[index]
    a = t0[index] + part * step
    last = part == parts - 1
    b = np.where(last, t1[index], t0[index] + (part + 1) * step)
    p = np.where((part == 0)[:, None], start[index], curves.points_at(curve[index], a))
    q = np.where(last[:, None], end[index], np.roll(p, -1, axis=0))
    return row[index], curve[index], a, b, p, q


_SAMPLES = np.linspace(0, 1, 17)[1:-1]
_EVEN, _LARGEST = 8, 4


def _fit_once(
    curves: OffsetCurves, curve: Ints, t0: Floats, t1: Floats, p: Floats, q: Floats
) -> tuple[Floats, Floats]:
    """The cubic (m, 4, 2) along each stretch with its ends and end tangents, and how far it is off
    (m,): the lengths of its handles by damped Gauss-Newton steps (Marquardt, 1963) on the
    distances to the curve, at last with large ones weighing more, so that the largest is small."""
    m, k = len(curve), len(_SAMPLES)
    t = t0[:, None] + (t1 - t0)[:, None] * _SAMPLES
    index = np.repeat(curve, k)
    target = curves.points_at(index, t.ravel()).reshape(m, k, 2)
    turn = np.sign(t1 - t0)[:, None]
    speed = [curves.motion_at(curve, t)[1] for t in (t0 + (t1 - t0) * 1e-6, t1 - (t1 - t0) * 1e-6)]
    first, last = _unit(speed[0] * turn), -_unit(speed[1] * turn)
    points = np.concatenate([p[:, None], target, q[:, None]], axis=1)
    along = np.cumsum(np.hypot(*np.moveaxis(np.diff(points, axis=1), 2, 0)), axis=1)
    length = np.maximum(along[:, -1], 1e-300)
    ends = np.stack([first, last], axis=1)
    # the cubic that runs off and in as fast as the parallel itself is close already
    handles = np.stack([np.hypot(*v.T) for v in speed], axis=1) * (np.abs(t1 - t0) / 3)[:, None]
    handles = np.clip(handles, 1e-3 * length[:, None], length[:, None])
    fit = _Fit.of(p, q, ends, handles, np.tile(_SAMPLES, (m, 1)), target)
    control, error = fit.control, fit.away.max(axis=1, initial=0)
    row, damping = np.arange(m), np.full(m, 1e-2)
    for round_ in range(_EVEN + _LARGEST):
        more = (error[row] > TOLERANCE.fit / 4) & (damping < 1e5)
        row, damping, fit = row[more], damping[more], fit.take(more)
        if not len(row):
            break
        even = round_ < _EVEN
        handles = fit.stepped(damping, length[row], even=even)
        tried = _Fit.of(p[row], q[row], ends[row], handles, fit.s, target[row])
        better = tried.cost(even=even) < fit.cost(even=even)
        damping = np.where(better, damping / 8, damping * 8)
        fit = fit.where(better, tried)
        control[row], error[row] = fit.control, fit.away.max(axis=1)
    return control, error


@dataclass(frozen=True, eq=False)
class _Fit:
    """Cubics with unit directions ``ends`` (m, 2, 2) and lengths ``handles`` (m, 2) of their
    handles, ``s`` (m, k) where they are nearest to the targets, and how far off they are."""

    ends: Floats
    handles: Floats
    control: Floats
    s: Floats
    gap: Floats
    slope: Floats

    @classmethod
    def of(
        cls, p: Floats, q: Floats, ends: Floats, handles: Floats, s: Floats, target: Floats
    ) -> _Fit:
        inner = np.stack([p, q], axis=1) + handles[..., None] * ends
        control = np.concatenate([p[:, None], inner, q[:, None]], axis=1)
        for _ in range(2):
            gap, slope = _off_fit(control, s, target)
            move = (gap * slope).sum(axis=2) / np.maximum((slope * slope).sum(axis=2), 1e-300)
            s = np.clip(s + move, 0, 1)
        return cls(ends, handles, control, s, *_off_fit(control, s, target))

    @cached_property
    def away(self) -> Floats:
        return np.hypot(self.gap[..., 0], self.gap[..., 1])

    def cost(self, *, even: bool) -> Floats:
        return (self.away**2).sum(axis=1) if even else self.away.max(axis=1)

    def stepped(self, damping: Floats, length: Floats, *, even: bool) -> Floats:
        """The handles' lengths (m, 2) after a step."""
        size = np.maximum(np.hypot(self.slope[..., 0], self.slope[..., 1]), 1e-300)
        normal = np.stack([-self.slope[..., 1], self.slope[..., 0]], axis=2) / size[..., None]
        s, r = self.s, 1 - self.s
        reach = (normal[:, None] * self.ends[:, :, None]).sum(axis=3)  # (m, 2, k)
        a = reach * np.stack([3 * r * r * s, 3 * r * s * s], axis=1)
        rest = (self.gap * normal).sum(axis=2)
        weight = np.ones_like(rest)
        if not even:
            weight = 0.05 + (self.away / np.maximum(self.away.max(axis=1), 1e-300)[:, None]) ** 2
        wa = weight[:, None] * a
        c11, c12, c22 = ((wa[:, i] * a[:, j]).sum(axis=1) for i, j in ((0, 0), (0, 1), (1, 1)))
        x1, x2 = (wa[:, 0] * rest).sum(axis=1), (wa[:, 1] * rest).sum(axis=1)
        c11, c22 = c11 * (1 + damping), c22 * (1 + damping)
        det = np.maximum(c11 * c22 - c12 * c12, 1e-300)
        step = np.stack([x1 * c22 - x2 * c12, c11 * x2 - c12 * x1], axis=1) / det[:, None]
        least, most = 1e-4 * length[:, None], 1.5 * length[:, None]
        return np.clip(self.handles + step, least, most)

    def take(self, rows: np.ndarray) -> _Fit:
        return _Fit(*(getattr(self, f.name)[rows] for f in fields(self)))

    def where(self, better: np.ndarray, other: _Fit) -> _Fit:
        pairs = ((getattr(self, f.name), getattr(other, f.name)) for f in fields(self))
        return _Fit(*(np.where(better.reshape(-1, *[1] * (x.ndim - 1)), y, x) for x, y in pairs))


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
