"""How often edges cross, told beforehand from a sample of them: what would take minutes and
gigabytes is refused in words instead."""

from __future__ import annotations

import numpy as np

from stileblade.errors import GeometryError
from stileblade.geometry.curves.arrays import nth_of
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import crosses
from stileblade.words import say

MOST_CROSSINGS = 12_000
"""More than any outline that is cut: they take about two seconds."""
_SAMPLES = (40, 160)
_MET_BY_ALL = 2.0
"""An edge meets the one before it and the one after it."""


def crossings_of(points: Floats, ends: Floats) -> float:
    """About how often edges (m, 2) to (m, 2) cross or touch one another, neighbours not counted; 0 where so
    few edges cannot cross too often."""
    n = len(points)
    if n * (n - 1) / 2 <= MOST_CROSSINGS:  # even if each crossed each
        return 0.0
    low, high = np.minimum(points, ends), np.maximum(points, ends)
    order = np.argsort(low[:, 0])
    along, right_of, head_of, foot_of = low[order, 0], high[order, 0], low[order, 1], high[order, 1]
    widest = float((right_of - along).max())
    found = 0.0
    for size in _SAMPLES:  # a few tell where there are very many
        chosen = np.linspace(0, n - 1, min(n, size)).astype(np.int64)
        head = np.searchsorted(along, low[chosen, 0] - widest, "left")
        count = np.searchsorted(along, high[chosen, 0], "right") - head
        place = head.repeat(count) + nth_of(count)
        meets = head_of[place] <= np.repeat(high[chosen, 1], count)
        meets &= foot_of[place] >= np.repeat(low[chosen, 1], count)
        meets &= right_of[place] >= np.repeat(low[chosen, 0], count)
        one, other = chosen.repeat(count)[meets], order[place[meets]]
        a, b, c, d = (p.take(n, axis=0) for n in (one, other) for p in (points, ends))
        parted = crosses(b - a, c - a) * crosses(b - a, d - a) > 0
        parted |= crosses(d - c, a - c) * crosses(d - c, b - c) > 0
        met = int((~parted).sum())
        found = max(met / len(chosen) - 1 - _MET_BY_ALL, 0.0) * n / 2
        if found > 10 * MOST_CROSSINGS:
            break
    return found


def must_cross_seldom(points: Floats, ends: Floats) -> None:
    """GeometryError where edges cross more often than is computed with."""
    number = crossings_of(points, ends)
    if number > MOST_CROSSINGS:
        about = round(number, 2 - len(str(int(number))))
        raise GeometryError(
            say(
                "The outlines cross themselves and each other about {about:,.0f} times; at most {most_crossings:,} are computed with.",
                about=about,
                most_crossings=MOST_CROSSINGS,
            ),
            hint="Take fewer copies, larger gaps or a simpler outline.",
        )
