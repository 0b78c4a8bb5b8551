"""How often edges cross, told beforehand from a sample of them: what would take minutes and
gigabytes is refused in words instead."""

from __future__ import annotations

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.curves.segments import Floats
from stileblade.words import say

MOST_CROSSINGS = 12_000
"""More than any outline that is cut: they take about two seconds."""
_SAMPLES = (40, 400)
_MET_BY_ALL = 2.0
"""An edge meets the one before it and the one after it."""


def crossings_of(points: Floats, ends: Floats) -> float:
    """About how often edges (m, 2) to (m, 2) cross or touch one another, neighbours not counted."""
    n = len(points)
    if n < 3:
        return 0.0
    edges = shapely.linestrings(np.stack([points, ends], axis=1))
    tree = shapely.STRtree(edges)
    found = 0.0
    for size in _SAMPLES:  # a few tell where there are very many
        chosen = np.linspace(0, n - 1, min(n, size)).astype(np.int64)
        met = len(tree.query(edges[chosen], predicate="intersects")[0])
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
