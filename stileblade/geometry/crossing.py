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
    def derivatives_at(self, index: Ints, t: Floats) -> Floats: ...


def clamp(curves: Curves, index: Ints, t: Floats) -> Floats:
    span = curves.span[index]
    return np.clip(t, span.min(axis=1), span.max(axis=1))


def crossings(
    curves: Curves, p: Ints, t: Floats, q: Ints, s: Floats
) -> tuple[Floats, Floats, Bools]:
    """Parameters (t, s) at which curves p and q meet near the guesses, and where it was found.

    Not found: where they run side by side, or end before they meet.
    """
    t, s = t.copy(), s.copy()
    found = np.zeros(len(p), bool)
    both = np.concatenate([p, q])
    for rounds in range(_ROUNDS):
        ts = np.concatenate([t, s])
        here, there = np.split(curves.points_at(both, ts), 2)
        gap = here - there
        # every round starts where the last one stepped to: done when that was the crossing
        if rounds and float(np.abs(gap[found]).max(initial=0.0)) < 1e-11:
            break
        a, b = np.split(curves.derivatives_at(both, ts), 2)
        det = a[:, 1] * b[:, 0] - a[:, 0] * b[:, 1]
        found = np.abs(det) > 1e-7 * np.hypot(*a.T) * np.hypot(*b.T)
        safe = np.where(found, det, 1.0)
        dt = (gap[:, 0] * b[:, 1] - gap[:, 1] * b[:, 0]) / safe
        ds = (gap[:, 0] * a[:, 1] - gap[:, 1] * a[:, 0]) / safe
        t = clamp(curves, p, np.where(found, t + dt, t))
        s = clamp(curves, q, np.where(found, s + ds, s))
        if not found.any():
            break
    here, there = np.split(curves.points_at(both, np.concatenate([t, s])), 2)
    gap = here - there
    return t, s, found & (np.hypot(*gap.T) < 1e-8)


def feet(curves: Curves, index: Ints, t: Floats, points: Floats) -> Floats:
    """Parameters of the points on the curves nearest to ``points``, from close guesses."""
    t = t.copy()
    for _ in range(6):
        d = curves.derivatives_at(index, t)
        gap = points - curves.points_at(index, t)
        step = (gap * d).sum(axis=1) / np.maximum((d * d).sum(axis=1), 1e-300)
        t = clamp(curves, index, t + step)
    return t
