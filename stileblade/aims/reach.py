"""From the present value to one at which the figure is as wished: bracketing, then false position that
cannot get stuck (the Illinois variant; Dowell and Jarratt 1971), stepwise for whole numbers."""

from __future__ import annotations

import math
from collections.abc import Callable

from stileblade.aims.trial import Reached, Trial
from stileblade.design.document import Relation

_EXACT = 5e-4
FLAT = 1e-7


def reach(trial: Trial, slope: float) -> Reached | None:
    """From the present value to one at which the figure is as wished, or as near as it comes."""
    v = trial.variable
    start = v.value, trial.off(v.value) or 0.0
    bracket = _bracket(trial, start, slope) or _scan(trial, start)
    if bracket is None:
        return _nearest(trial)
    if v.whole:
        return _whole(trial, *bracket)
    good = _between(trial.off, *bracket)
    return _neat(trial, good) or _nearest(trial)


End = tuple[float, float]


def _bracket(trial: Trial, start: End, slope: float) -> tuple[End, End] | None:
    """Two values, with what the figure is off there, on either side of the target."""
    v, last = trial.variable, start
    step = -start[1] / slope * 1.1
    step = math.copysign(max(abs(step), 1.0 if v.whole else 0.05), step)
    for _ in range(9):
        at = min(max(last[0] + step, v.low), v.high)
        at = float(round(at)) if v.whole else at
        if abs(at - last[0]) < 1e-6:
            return None
        off = trial.off(at)
        if off is None:  # too far: there the card cannot be made
            step /= 3
            continue
        if off == 0 or (off > 0) != (start[1] > 0):
            return last, (at, off)
        if abs(off) > abs(last[1]) + 1e-6:  # it turns back: it comes no nearer that way
            step = -step / 2 if last is not start else step / 4
            continue
        rise = (off - last[1]) / (at - last[0])
        last = at, off
        step = -off / rise * 1.1 if abs(rise) > FLAT else step * 2
        step = math.copysign(min(abs(step), 4 * abs(at - start[0]) + 1.0), -off * rise or step)
    return None


def _scan(trial: Trial, start: End) -> tuple[End, End] | None:
    """Where following the slope came to nothing: a bracket further off on either side, if one is met."""
    v = trial.variable
    reach = max(abs(v.value), 5.0)
    for way in (1.0, -1.0):
        last = start
        for share in (0.5, 1.0, 2.0, 4.0):
            at = v.value + way * share * reach
            at = float(round(at)) if v.whole else at
            off = trial.off(at) if v.low <= at <= v.high else None
            if off is None:
                break
            if (off > 0) != (start[1] > 0):
                return last, (at, off)
            last = at, off
    return None


def _between(off: Callable[[float], float | None], a: End, b: End) -> tuple[End, End]:
    """The bracket drawn together."""
    side = 0
    (x0, f0), (x1, f1) = a, b
    g0, g1 = f0, f1
    for _ in range(24):
        if abs(x1 - x0) < 1e-4 or min(abs(f0), abs(f1)) < _EXACT / 4:
            break
        x = (x0 * g1 - x1 * g0) / (g1 - g0) if g1 != g0 else (x0 + x1) / 2
        f = off(x)
        if f is None:
            x = (x0 + x1) / 2
            f = off(x)
            if f is None:
                break
        if (f > 0) == (f1 > 0):
            x1, f1, g1 = x, f, f
            g0 = g0 / 2 if side == 1 else g0
            side = 1
        else:
            x0, f0, g0 = x, f, f
            g1 = g1 / 2 if side == -1 else g1
            side = -1
    return (x0, f0), (x1, f1)


def _neat(trial: Trial, bracket: tuple[End, End]) -> Reached | None:
    """Of the two ends the good one, with as few digits as it stays good with."""
    ends = sorted(bracket, key=lambda end: abs(end[1]))
    best = next((end for end in ends if trial.good(end[1])), None)
    if best is None:
        return None
    other = ends[0] if ends[1] is best else ends[1]
    away = math.copysign(1.0, best[0] - other[0]) if best[0] != other[0] else 1.0
    for digits in (1, 2, 3):
        scale = 10.0**digits
        rounded = (math.ceil if away > 0 else math.floor)(best[0] * scale - away * 1e-6) / scale
        off = trial.off(rounded)
        exact = trial.wish.relation is Relation.EXACTLY
        if off is not None and trial.good(off) and (not exact or abs(off) <= 1e-3):
            return _reached(trial, rounded, off)
    return _reached(trial, *best)


def _whole(trial: Trial, a: End, b: End) -> Reached | None:
    """Whole numbers between the two ends, halved."""
    (x0, f0), (x1, f1) = a, b
    while abs(x1 - x0) > 1:
        middle = float(round((x0 + x1) / 2))
        off = trial.off(middle)
        if off is None:
            break
        if (off > 0) == (f1 > 0):
            x1, f1 = middle, off
        else:
            x0, f0 = middle, off
    good = [end for end in ((x0, f0), (x1, f1)) if trial.good(end[1])]
    return _reached(trial, *good[0]) if good else _nearest(trial)


def _nearest(trial: Trial) -> Reached | None:
    """What of all that was tried came nearest."""
    tried = [(x, off) for x in trial.figures if (off := trial.off(x)) is not None]
    if not tried:
        return None
    x, off = min(tried, key=lambda end: (not trial.good(end[1]), abs(end[1])))
    return None if x == trial.variable.value else _reached(trial, x, off)


def _reached(trial: Trial, value: float, off: float) -> Reached:
    return Reached(trial.variable, value, off + trial.wish.target, trial.good(off))
