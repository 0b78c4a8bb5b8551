"""How near places are to lines, by a tree of all their stretches."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property

import numpy as np
import shapely

from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import norms


class Near:
    """Polylines (n, 2), asked for distances."""

    def __init__(self, lines: Sequence[Floats]) -> None:
        start = np.concatenate([line[:-1] for line in lines]) if lines else np.zeros((0, 2))
        end = np.concatenate([line[1:] for line in lines]) if lines else np.zeros((0, 2))
        self.owner = np.repeat(np.arange(len(lines)), [len(line) - 1 for line in lines])
        self.start, self.end = start, end
        self.tree = shapely.STRtree(shapely.linestrings(np.stack([start, end], axis=1)))

    def away(self, places: Floats) -> Floats:
        """mm (n,) from each place to the nearest line; infinite where there is none."""
        if not len(self.start):
            return np.full(len(places), np.inf)
        _, found = self.tree.query_nearest(
            shapely.points(places), return_distance=True, all_matches=False
        )
        return np.asarray(found)

    def within(self, places: Floats, distance: float) -> tuple[Ints, Ints]:
        """All pairs of a place and a stretch that is at most ``distance`` mm from it: their numbers (k,) each."""
        found = self.tree.query(shapely.points(places), predicate="dwithin", distance=distance)
        return found[0], found[1]

    def along(self, places: Floats, stretches: Ints) -> Floats:
        """mm (n,) from the start of its line to where the stretch of each place is nearest to it."""
        way = self.end[stretches] - self.start[stretches]
        size = np.maximum(norms(way), 1e-12)
        ahead = ((places - self.start[stretches]) * way).sum(axis=1) / size
        return np.asarray(self._before[stretches] + np.clip(ahead, 0, size))

    @cached_property
    def _before(self) -> Floats:
        """mm (m,) from the start of its line to each stretch."""
        total = np.concatenate([[0.0], np.cumsum(norms(self.end - self.start))])[:-1]
        first = np.searchsorted(self.owner, self.owner)
        return np.asarray(total - total[first])

    def which(self, places: Floats) -> Ints:
        """The line nearest to each place."""
        return np.asarray(self.owner[self.tree.nearest(shapely.points(places))])


def spaced(line: Floats, every: float) -> Floats:
    """Places (n, 2) along a polyline, at most ``every`` mm apart, its ends a little within."""
    size = norms(np.diff(line, axis=0))
    ends = np.concatenate([[0.0], np.cumsum(size)])
    count = max(2, int(np.ceil(ends[-1] / every)) + 1)
    at = np.linspace(0, ends[-1], count)
    return np.stack([np.interp(at, ends, line[:, 0]), np.interp(at, ends, line[:, 1])], axis=1)
