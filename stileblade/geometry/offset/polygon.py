"""The kernel's polygon that an offset is traced from: where it is on curves, where it is needed."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final, Literal

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import neighbours, true_at
from stileblade.geometry.curves.crossing import feet, nearest_places
from stileblade.geometry.curves.parallel import Of
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments
from stileblade.geometry.curves.vectors import crosses, norms
from stileblade.geometry.offset.near import Lines
from stileblade.geometry.offset.source import Source
from stileblade.geometry.regions.runs import Runs
from stileblade.geometry.regions.trace import ResultRings
from stileblade.tolerance import TOLERANCE

_DOUBTFUL: Final = 4.0
"""Runs shorter than so many times the distance are compared with the kernel's polygon."""
SIDES: Final[tuple[Literal["left"], Literal["right"]]] = ("left", "right")
BETWEEN: Final = np.array([0.25, 0.5, 0.75])
"""Shares of a stretch at which it is looked at."""
_TIMES: Final = 2
_ALONG: Final = np.linspace(0, 1, 17)
_AHEAD: Final = np.r_[0.0, BETWEEN]
"""Shares of the rest of a run at which it may turn back."""
_NEAR: Final = np.arange(1, 4)
_FAR: Final = np.arange(4, 12)
"""Which places of the kernel's polygon are tried on either side of a bridge."""


@dataclass(frozen=True, eq=False)
class Places:
    """Vertices of the kernel's rings (k,): the ring's first, how many it has, and which of them."""

    first: Ints
    size: Ints
    place: Ints

    def take(self, rows: Ints | Bools) -> Places:
        return Places(self.first[rows], self.size[rows], self.place[rows])


@dataclass(frozen=True, eq=False)
class Reached:
    """steps (k,) that were gone, 0 where it was nowhere; t (k,) and places (k, 2) on the curves."""

    steps: Ints
    t: Floats
    foot: Floats

    @classmethod
    def none(cls, ends: Floats) -> Reached:
        return cls(np.zeros(len(ends), np.int64), ends.copy(), np.zeros((len(ends), 2)))

    def take(self, rows: Ints) -> Reached:
        return Reached(self.steps[rows], self.t[rows], self.foot[rows])

    def put(self, rows: Ints, found: Reached) -> None:
        self.steps[rows], self.t[rows], self.foot[rows] = found.steps, found.t, found.foot


@dataclass(frozen=True, eq=False)
class Polygon:
    """The kernel's polygons, and the source that they are the buffers of.

    Invariant: its vertices are off their distance by no more than the flattening, but for bevels,
    mitres and flat caps.
    """

    rings: ResultRings
    source: Source

    def reached(
        self, curves_of: Ints, ends: tuple[Floats, Floats], at: Places, way: int
    ) -> Reached:
        """After how many places from ``at`` (k,), ahead or back in their rings, these are on the
        curves ``curves_of`` (k,) again; ``ends`` are the runs' parameters here and at their other
        ends.

        Places from where a run goes on without turning back come first, however far."""
        curves, found = self.source.curves, Reached.none(ends[0])
        # what is close first, then from all over the curves
        for search, steps in ((feet, _NEAR), (feet, _FAR), (nearest_places, np.r_[_NEAR, _FAR])):
            left = true_at(found.steps == 0)
            if not len(left):
                break
            row, step = np.nonzero(steps < at.size[left, None])
            row, n = left[row], steps[step]
            spot = self.rings.points[at.first[row] + (at.place[row] + n * way) % at.size[row]]
            curve = curves_of[row]
            t = search(curves, curve, ends[0][row], spot)
            foot = curves.points_at(curve, t)
            hit = true_at(norms(foot - spot) < TOLERANCE.on_curve)
            row, n, t, foot, curve = row[hit], n[hit], t[hit], foot[hit], curve[hit]
            ahead = t + _AHEAD[:, None] * (ends[1][row] - t)
            back = curves.runs_back(np.tile(curve, len(_AHEAD)), ahead.ravel())
            back = back.reshape(len(_AHEAD), len(t))
            on, turns = ~back[0], np.logical_or.reduce(back[1:])
            row, n, t, foot, turns = row[on], n[on], t[on], foot[on], turns[on]
            if search is feet:
                row, n, t, foot = row[~turns], n[~turns], t[~turns], foot[~turns]
                turns = turns[~turns]
            order = np.lexsort((n, turns, row))
            row, first_of = np.unique(row[order], return_index=True)
            nearest = order[first_of]
            found.steps[row], found.t[row], found.foot[row] = n[nearest], t[nearest], foot[nearest]
        return found

    def strays(self, made: Segments, row: Ints, runs: Runs) -> Ints:
        """Those of the runs whose segments have their middles nowhere near the kernel's polygon: in
        bends so tight that one leg lies on the other, what is nearest to an edge is a guess."""
        curves = self.source.curves
        length = norms(runs.point[neighbours(runs.ring)[0]] - runs.point)
        segment = curves.segment(runs.curve)
        doubtful = length < _DOUBTFUL * np.abs(curves.distance[segment])
        arc = (curves.of(runs.curve) == Of.ARC) & ~(runs.exact0 & runs.exact1)
        doubtful &= curves.curved(runs.curve) | arc
        piece = true_at(doubtful[row])
        spots = shapely.points(made.points_at(piece, made.span[piece].mean(axis=1)))
        ring = runs.ring[row[piece]]
        ends = np.searchsorted(self.rings.ring, np.arange(len(self.rings.shell) + 1))
        heads = np.searchsorted(ring, np.arange(len(self.rings.shell) + 1))
        allowed = max(4 * curves.flatness, TOLERANCE.crossing)
        out = np.zeros(len(piece), bool)
        for r in np.unique(ring).tolist():
            outline = shapely.linearrings(self.rings.points[ends[r] : ends[r + 1]])
            shapely.prepare(outline)
            mine = slice(heads[r], heads[r + 1])
            out[mine] = ~shapely.dwithin(outline, spots[mine], allowed)
        return np.unique(row[piece[out]])

    def too_near(self, points: Floats, curve: Ints) -> Bools:
        """Which of the points (k, 2) on curves are nearer to the source than the distance."""
        curves = self.source.curves
        segment = curves.segment(curve)
        least = np.abs(curves.distance[segment]) - 2 * curves.flatness
        out = np.zeros(len(points), bool)
        if len(points) and least.max() > 0:
            near = self.lines.near(points, self.source.job_of_segment[segment])
            out[near.spot[near.away < least.take(near.spot)]] = True
        return out

    def nearest_edges(self, points: Floats, job: Ints) -> Ints:
        """The flattened edges (k,) of jobs (k,) that points (k, 2) are nearest to."""
        nearest = self._tree.query_nearest(self._spots(points, job), all_matches=False)[1]
        return self.source.edges[nearest]

    def on_outline(self, ways: list[Floats], job: Ints) -> list[Floats]:
        """Ways (k, 2) along the kernel's polygon, each of a job, at their distance from the source's
        own curves, with places in the middles of pieces that cut the outline's bends short."""
        middles = [(way[1:] + way[:-1]) / 2 for way in ways]
        sizes = np.array([2 * len(way) - 1 for way in ways])
        both = [part for pair in zip(ways, middles, strict=True) for part in pair]
        placed = self._at_distance(np.concatenate(both), np.repeat(job, sizes))
        found = []
        for own in np.split(placed, np.cumsum(sizes)[:-1]):
            way, middle = own[: len(own) // 2 + 1], own[len(own) // 2 + 1 :]
            chord, gap = np.diff(way, axis=0), middle - way[:-1]
            length = np.maximum(norms(chord), 1e-12)
            across = np.abs(crosses(chord, gap)) / length
            short = (across > TOLERANCE.flatten) & (length > 2 * TOLERANCE.leftover)
            found.append(np.insert(way, true_at(short) + 1, middle[short], axis=0))
        return found

    def _at_distance(self, points: Floats, job: Ints) -> Floats:
        """Points (k, 2) of the buffers of jobs (k,) that are hardly off their distance, put at their
        distance from the source's own curves; others, as of bevels and flat caps, stay."""
        curves, out = self.source.curves, points.copy()
        distance = self.source.reach[job]
        for _ in range(_TIMES):  # beside a corner another curve may be the nearer one then
            spots = self._spots(out, job)
            reach = distance + 2 * curves.flatness
            spot, hit = self._tree.query(spots, predicate="dwithin", distance=reach)
            foot = self._feet(self.source.edges[hit], out[spot])
            away = norms(out[spot] - foot)
            order = np.lexsort((away, spot))
            spot, nearest = np.unique(spot[order], return_index=True)
            foot, away = foot[order[nearest]], away[order[nearest]]
            gap, wanted = out[spot] - foot, distance[spot]
            close = np.abs(away - wanted) < 2 * curves.flatness
            moved = foot + gap * (wanted / np.maximum(away, 1e-12))[:, None]
            out[spot[close]] = moved[close]
        return out

    def _feet(self, edge: Ints, points: Floats) -> Floats:
        """The nearest to each of the points (k, 2) on the curves behind flattened edges (k,): among
        many, as a search may leave a tight bend."""
        flat, segments = self.source.flat, self.source.curves.segments
        index, count = flat.segment[edge], len(_ALONG)
        t0, step = flat.t0[edge], (flat.t1 - flat.t0)[edge]
        t = t0[:, None] + step[:, None] * _ALONG
        places = segments.points_at(np.repeat(index, count), t.ravel()).view(complex)
        places = places.reshape(-1, count)
        spot = np.ascontiguousarray(points).view(complex)
        run = np.diff(places, axis=1)
        gap = (spot - places[:, :-1]) * run.conj()
        share = np.clip(gap.real / np.maximum(np.abs(run) ** 2, 1e-300), 0, 1)
        foot = places[:, :-1] + share * run
        nearest = np.abs(spot - foot).argmin(axis=1)
        return foot[np.arange(len(edge)), nearest].view(float).reshape(-1, 2)

    @cached_property
    def lines(self) -> Lines:
        """The flattened ``edges``, as near as the kernel's polygon may be to them."""
        source, edges = self.source, self.source.edges
        ends = source.flat.points.take(edges, axis=0), source.flat.ends.take(edges, axis=0)
        reach = source.reach + source.curves.flatness
        return Lines(*ends, source.job[edges], reach, len(self.rings.points))

    @cached_property
    def _tree(self) -> shapely.STRtree:
        """The flattened ``edges`` by place, jobs side by side."""
        flat, edges = self.source.flat, self.source.edges
        ends = flat.points[edges], flat.ends[edges]
        return shapely.STRtree(
            shapely.linestrings(np.stack(ends, axis=1) + _aside(self.source.job[edges])[:, None])
        )

    def _spots(self, points: Floats, job: Ints) -> np.ndarray:
        return shapely.points(points + _aside(job))


def _aside(job: Ints) -> Floats:
    return np.stack([job * TOLERANCE.aside, np.zeros(len(job))], axis=1)
