"""Cubics that run along places, with their ends and end directions given: the two handles' lengths are
the ones that fit best, by damped Gauss-Newton steps on the distances to the curve (Marquardt, 1963)."""

from __future__ import annotations

from dataclasses import dataclass, fields
from functools import cached_property

import numpy as np

from stileblade.geometry.curves.segments import Bools, Floats
from stileblade.geometry.curves.vectors import Places

_EVEN, _LARGEST = 4, 2
_HOPELESS = 20
"""Times the tolerance: a cubic that is off by more after a few steps is given up."""


def approached(
    ends: tuple[Places, Places, Places],
    handles: Floats,
    s: Floats,
    target: Places,
    length: Floats,
    tolerance: float,
) -> tuple[Places, Floats]:
    """Cubics (m, 4) and how far they are off at the targets (m, k), which they pass at about ``s``
    (m, k); ``ends`` are where they begin and end (m,) and the unit directions (m, 2) of their
    handles, ``handles`` (m, 2) the lengths to begin with, ``length`` (m,) how long they are, in mm.

    At last large distances weigh more, so that the largest is small; what is within a quarter of
    the tolerance is left as it is."""
    first, last, along = ends
    fit = _Fit.of(first, last, along, handles, s, target)
    control, error = fit.control, fit.away.max(axis=1, initial=0)
    row, damping = np.arange(len(first)), np.full(len(first), 1e-2)
    for round_ in range(_EVEN + _LARGEST):
        more = (error[row] > tolerance / 4) & (damping < 1e5)
        if round_ >= _EVEN // 2:
            more &= error[row] < _HOPELESS * tolerance
        row, damping, fit = row[more], damping[more], fit.take(more)
        if not len(row):
            break
        even = round_ < _EVEN
        handles = fit.stepped(damping, length[row], even=even)
        tried = _Fit.of(first[row], last[row], along[row], handles, fit.s, target[row])
        better = tried.cost(even=even) < fit.cost(even=even)
        damping = np.where(better, damping / 8, damping * 8)
        fit = fit.where(better, tried)
        control[row], error[row] = fit.control, fit.away.max(axis=1)
    return control, error


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
        return cls(ends, handles, control, *at_feet(control, s, target, 2))

    @cached_property
    def away(self) -> Floats:
        return np.abs(self.gap)

    def cost(self, *, even: bool) -> Floats:
        return (self.away**2).sum(axis=1) if even else self.away.max(axis=1)

    def stepped(self, damping: Floats, length: Floats, *, even: bool) -> Floats:
        """The handles' lengths (m, 2) after a step."""
        normal = 1j * unit(self.slope)
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


def at_feet(
    control: Places, s: Floats, target: Places, steps: int
) -> tuple[Floats, Places, Places]:
    """From close by, s (m, k) where cubics are nearest to the targets, and ``off_cubic`` there."""
    for _ in range(steps):
        gap, slope = off_cubic(control, s, target)
        s = np.clip(s + _dot(gap, slope) / np.maximum(_dot(slope, slope), 1e-300), 0, 1)
    return s, *off_cubic(control, s, target)


def off_cubic(control: Places, s: Floats, target: Places) -> tuple[Places, Places]:
    """From cubics (m, 4) at s (m, k) to the targets (m, k), and the cubics' derivatives."""
    p0, p1, p2, p3 = (control[:, i, None] for i in range(4))
    a, b, c = p3 - 3 * (p2 - p1) - p0, 3 * (p2 - 2 * p1 + p0), 3 * (p1 - p0)
    point = ((a * s + b) * s + c) * s + p0
    return target - point, (3 * a * s + 2 * b) * s + c


def _dot(a: Places, b: Places) -> Floats:
    return a.real * b.real + a.imag * b.imag


def unit(d: Places) -> Places:
    return d / np.maximum(np.abs(d), 1e-300)
