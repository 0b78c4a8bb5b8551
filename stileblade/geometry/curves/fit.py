"""Cubics that fit parallels of curves."""

from __future__ import annotations

from dataclasses import dataclass, fields
from functools import cached_property

import numpy as np

from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments, beziers, concatenate
from stileblade.geometry.curves.stretches import Stretches
from stileblade.geometry.curves.vectors import Places, as_complex
from stileblade.tolerance import TOLERANCE


def as_segments(stretches: Stretches) -> tuple[Segments, Ints]:
    """Stretches of offset curves as segments, and which stretch each came from: lines stay lines and
    circular arcs arcs; parallels of other curves are fitted by cubics."""
    is_line, is_arc = stretches.straight_and_round()
    rows = [np.flatnonzero(m) for m in (is_line, is_arc & ~is_line, ~is_arc & ~is_line)]
    straight, round_, other = (stretches.take(m) for m in rows)
    parts = [straight.as_lines()]
    if len(round_):
        parts.append(round_.as_arcs())
    if len(other):
        fitted, row = fit_parallels(other)
        parts.append(fitted)
        rows[2] = rows[2][row]
    row = np.concatenate(rows)
    order = np.argsort(row, kind="stable")
    return concatenate(parts).take(order), row[order]


_MOST_PARTS, _MOST_ROUNDS = 4, 8


def fit_parallels(stretches: Stretches) -> tuple[Segments, Ints]:
    """Cubics along parallels, parted until they stay within ``TOLERANCE.fit`` in between, too; and
    which stretch each came from.

    Ends and end tangents are exact; the two handle lengths are the ones that fit best.
    """
    done: list[tuple[Ints, Floats, Floats]] = []
    row, rounds, left = np.arange(len(stretches)), 0, stretches
    while len(row):
        control, error = _fit_once(left)
        error[left.smaller_than(1e-4)] = 0.0
        bad = (error >= TOLERANCE.fit) & (rounds < _MOST_ROUNDS)
        # a stretch is no closer to its curve than its ends are
        rows = np.flatnonzero(bad & (error < TOLERANCE.leftover / 2))
        bad[rows] = error[rows] >= 1.1 * left.take(rows).off_at_ends
        done.append((row[~bad], left.t0[~bad], control[~bad]))
        # the error of a cubic that fits at both ends falls with the sixth power of its length
        parts = np.clip(np.ceil((error[bad] / TOLERANCE.fit) ** (1 / 6)), 2, _MOST_PARTS)
        parts = parts.astype(np.int64)
        row, left = np.repeat(row[bad], parts), left.take(np.flatnonzero(bad)).in_parts(parts)
        rounds += 1
    rows = np.concatenate([d[0] for d in done])
    begin = np.concatenate([d[1] for d in done])
    control = np.concatenate([d[2] for d in done])
    rising = (stretches.t1 >= stretches.t0)[rows]
    order = np.lexsort((np.where(rising, begin, -begin), rows))
    return beziers(control[order]), rows[order]


_SAMPLES = np.linspace(0, 1, 17)[1:-1]
_BETWEEN = (np.r_[0.0, _SAMPLES] + np.r_[_SAMPLES, 1.0]) / 2
_LONG, _LONGEST = 0.1, 0.4
"""Shares of a stretch's length between two samples: where more lies there its middle is looked at,
and it is no stretch for one cubic."""
_EVEN, _LARGEST = 4, 2
_HOPELESS = 20
"""Times the tolerance: a stretch that is off by more after a few steps is parted at once."""


def _fit_once(left: Stretches) -> tuple[Floats, Floats]:
    """The cubic (m, 4, 2) along each stretch with its ends and end tangents, and how far it is off
    (m,), without end where it cannot be told."""
    m, k = len(left), len(_SAMPLES)
    t = left.t0[:, None] + left.way[:, None] * _SAMPLES
    spots = left.curves.points_at(np.repeat(left.curve, k), t.ravel())
    target, first, last = (
        as_complex(spots).reshape(m, k),
        as_complex(left.start),
        as_complex(left.end),
    )
    points = np.concatenate([first[:, None], target, last[:, None]], axis=1)
    steps = np.abs(np.diff(points, axis=1))
    length = np.maximum(steps.sum(axis=1), 1e-300)
    control, error = _approached(left, target, length)
    error[_with_loops(control, length)] = np.inf
    # so fast in between that what is there is not seen, or has to be looked at
    longest = np.where(length > TOLERANCE.leftover, steps.max(axis=1) / length, 0.0)
    error[longest > _LONGEST] = np.inf
    rows = np.flatnonzero((longest > _LONG) & (error < TOLERANCE.fit))
    if len(rows):
        between = left.t0[rows, None] + left.way[rows, None] * _BETWEEN
        spots = left.curves.points_at(np.repeat(left.curve[rows], len(_BETWEEN)), between.ravel())
        way = np.cumsum(steps[rows], axis=1)
        s = (way - steps[rows] / 2) / length[rows, None]
        off = _at_feet(control[rows], s, as_complex(spots).reshape(len(rows), -1), 4)[1]
        error[rows] = np.maximum(error[rows], np.abs(off).max(axis=1))
    return control.view(float).reshape(m, 4, 2), error


def _approached(left: Stretches, target: Places, length: Floats) -> tuple[Places, Floats]:
    """Cubics (m, 4) and how far they are off at the targets (m, k): the lengths of their handles by
    damped Gauss-Newton steps (Marquardt, 1963) on the distances to the curve, at last with large
    ones weighing more, so that the largest is small."""
    m, way = len(left), left.way
    turn = np.sign(way)
    inside = [left.t0 + way * 1e-6, left.t1 - way * 1e-6]
    speed = [as_complex(left.curves.motion_at(left.curve, t)[1]) for t in inside]
    ends = np.stack([_unit(speed[0] * turn), -_unit(speed[1] * turn)], axis=1)
    first, last = as_complex(left.start), as_complex(left.end)
    # the cubic that runs off and in as fast as the parallel itself is close already
    handles = np.abs(np.stack(speed, axis=1)) * (np.abs(way) / 3)[:, None]
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
    return control, error


def _with_loops(control: Places, length: Floats) -> Ints:
    """Rows of cubics that loop beyond the samples, which is seen by their lengths alone."""
    around = np.abs(np.diff(control, axis=1)).sum(axis=1)
    rows = np.flatnonzero(around > 1.2 * length + 4 * TOLERANCE.fit)
    if not len(rows):
        return rows
    ahead = np.tile(np.linspace(0, 1, 33), (len(rows), 1))
    places = -_off_fit(control[rows], ahead, np.zeros_like(ahead, complex))[0]
    run = np.abs(np.diff(places, axis=1)).sum(axis=1)
    return rows[run > 1.1 * length[rows] + 2 * TOLERANCE.fit]


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
