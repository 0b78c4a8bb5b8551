"""Where two curves meet, by Newton from a close guess; and feet of points on curves."""

from __future__ import annotations

from typing import Protocol

import numpy as np

from stileblade.geometry.segments import Bools, Floats, Ints

_ROUNDS = 10


class Curves(Protocol):
    """Numbered parametric curves, evaluated many at a time; ``span`` (n, 2) bounds t."""

    @property
    def span(self) -> Floats: ...
    def points_at(self, index: Ints, t: Floats) -> Floats: ...
    def motion_at(self, index: Ints, t: Floats) -> tuple[Floats, Floats]:
        """Points and first derivatives by t."""
        ...


def _bounds(curves: Curves, index: Ints) -> tuple[Floats, Floats]:
    span = curves.span[index]
    return span.min(axis=1), span.max(axis=1)


def crossings(
    curves: Curves, p: Ints, t: Floats, q: Ints, s: Floats
) -> tuple[Floats, Floats, Bools]:
    """Parameters (t, s) at which curves p and q meet near the guesses, and where it was found.

    Not found: where they run side by side, or end before they meet.
    """
    t, s = t.copy(), s.copy()
    found = np.zeros(len(p), bool)
    both = np.concatenate([p, q])
    bounds_p, bounds_q = _bounds(curves, p), _bounds(curves, q)
    for rounds in range(_ROUNDS):
        ts = np.concatenate([t, s])
        points, derivatives = curves.motion_at(both, ts)
        gap = points[: len(p)] - points[len(p) :]
        # every round starts where the last one stepped to: done when that was the crossing
        if rounds and float(np.abs(gap[found]).max(initial=0.0)) < 1e-11:
            break
        a, b = derivatives[: len(p)], derivatives[len(p) :]
        det = a[:, 1] * b[:, 0] - a[:, 0] * b[:, 1]
        found = np.abs(det) > 1e-7 * np.hypot(*a.T) * np.hypot(*b.T)
        safe = np.where(found, det, 1.0)
        dt = (gap[:, 0] * b[:, 1] - gap[:, 1] * b[:, 0]) / safe
        ds = (gap[:, 0] * a[:, 1] - gap[:, 1] * a[:, 0]) / safe
        before = ts
        t = np.clip(np.where(found, t + dt, t), *bounds_p)
        s = np.clip(np.where(found, s + ds, s), *bounds_q)
        if np.array_equal(before, np.concatenate([t, s])):
            break
    here, there = np.split(curves.points_at(both, np.concatenate([t, s])), 2)
    gap = here - there
    return t, s, found & (np.hypot(*gap.T) < 1e-8)


def feet(curves: Curves, index: Ints, t: Floats, points: Floats) -> Floats:
    """Parameters of the points on the curves nearest to ``points``, from close guesses."""
    bounds = _bounds(curves, index)
    for _ in range(6):
        here, d = curves.motion_at(index, t)
        step = ((points - here) * d).sum(axis=1) / np.maximum((d * d).sum(axis=1), 1e-300)
        before, t = t, np.clip(t + step, *bounds)
        if float(np.abs(t - before).max(initial=0.0)) < 1e-12:
            break
    return t
