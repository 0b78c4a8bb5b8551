"""How straight folds and slits divide a sheet: its faces, and the seams at which they meet.

The sheet's flattened outline is noded with each fold once: corners on a fold's line get exactly the
coordinates that the fold ends at, edges that cross it get a corner there, and what of the outline runs
along it stays an edge of its own. Which faces there are, and which of them meet along a fold, is then
read off shared edges; nothing is decided by how near something lies.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import ranks, run_starts, true_at
from stileblade.geometry.curves.flatten import Flat
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Bools, Floats, Ints
from stileblade.geometry.measures.cells import FINE, Cell
from stileblade.geometry.measures.simplification import simplified
from stileblade.geometry.regions.region import Region

_ON = 1e-5
"""mm: a corner this near to a line is on it; corners are rounded to a tenth of that."""
_SAME = 1e-7
"""mm: places of one line that differ by less are one place."""
_OVER = 0.02
"""Slits run on by so much at either end, so that they reach the outline with its corners left out; and creases
that end within the paper."""
_LEAST_AREA = 1e-4
"""mm^2: a face that is smaller is what flattening left between two lines."""

Stretch = tuple[float, float]
"""Two places along a line, in mm, the lower one first."""


@dataclass(frozen=True)
class Crease:
    """A line, and the stretches of it, apart from each other, at which paper on it is creased."""

    line: Line
    stretches: tuple[Stretch, ...]


@dataclass(frozen=True)
class Seam:
    """A run of a crease, from ``low`` to ``high`` along it, with a face on either side: ``above`` on the side
    of the line's normal, ``below`` on the other."""

    crease: int
    above: int
    below: int
    low: float
    high: float


@dataclass(frozen=True, eq=False)
class Arrangement:
    """faces: from left to right, those one above the other from head to foot. A crease or slit that
    ends within the paper divides nothing."""

    faces: tuple[Cell, ...]
    seams: tuple[Seam, ...]


def arrange(region: Region, creases: Sequence[Crease], slits: Sequence[Floats] = ()) -> Arrangement:
    """The faces of a region that has paper, between creases and slits, polylines (k, 2). Corners of the
    faces' outlines within 0.005 mm are left out, but for those on creases."""
    flat = region.flat
    outline = _Outline(flat)
    cuts = [outline.noded_with(crease) for crease in creases]
    chains = outline.chains()
    ends = np.array([cut.ends for found in cuts for cut in found]).reshape(-1, 2, 2)
    lines = [
        *chains,
        *shapely.linestrings(ends),
        *(shapely.linestrings(_longer(slit)) for slit in slits),
    ]
    faces = _faces(region, shapely.union_all(lines))
    if not len(faces):
        return Arrangement((shapely.box(*region.bounds.as_list()),), ())
    seams = _seams(faces, creases, cuts, slits) if len(ends) else []
    return Arrangement(tuple(faces), tuple(seams))


@dataclass(frozen=True)
class _Cut:
    """A stretch of a crease with paper on both sides, and the coordinates of its ends: those of the
    outline's own corners where it ends at the outline."""

    low: float
    high: float
    ends: tuple[Point, Point]


class _Outline:
    """The flattened outline, its corners moved onto the lines that they are on, and those put in where
    it crosses lines."""

    def __init__(self, flat: Flat) -> None:
        self.flat = flat
        self.points = flat.points.copy()
        self.pinned = np.zeros(len(flat.points), bool)
        self._put_in: list[tuple[Ints, Floats, Floats]] = []

    def noded_with(self, crease: Crease) -> list[_Cut]:
        """The stretches of the crease that have paper on both sides."""
        line, flat = crease.line, self.flat
        off, along = line.off(flat.points), line.place(flat.points)
        on = np.abs(off) < _ON
        off[on] = 0.0
        fresh = on & ~self.pinned
        self.points[fresh] = _at(line, along[fresh])
        self.pinned |= on
        crosses = true_at(off * off[flat.after] < 0)
        share = off[crosses] / (off[crosses] - off[flat.after[crosses]])
        place = along[crosses] + share * (along[flat.after[crosses]] - along[crosses])
        where = _at(line, place)
        self._put_in.append((crosses, share, where))
        known = dict(zip(along[on].tolist(), map(tuple, self.points[on].tolist()), strict=True))
        known.update(zip(place.tolist(), map(tuple, where.tolist()), strict=True))
        met = np.full(len(off), np.nan)
        met[crosses] = place
        met = np.where(on, along, np.where(on[flat.after], along[flat.after], met))
        beside = [_inside(side, flat.after, met, along) for side in (off <= 0, off < 0)]

        def end(at: float, over: float) -> Point:
            # where the crease ends within the paper it runs on a little, to meet a slit that ends there
            x, y = known.get(at) or line.point_at(at + over)
            return float(x), float(y)

        return [
            _Cut(low, high, (end(low, -_OVER), end(high, _OVER)))
            for stretch in crease.stretches
            for low, high in _common(_common(*beside), [stretch])
        ]

    def chains(self) -> np.ndarray:
        """The outline as lines from pinned corner to pinned corner, others within FINE left out."""
        flat, n = self.flat, len(self.points)
        order, points, pinned = np.arange(n, dtype=float), self.points, self.pinned.copy()
        pinned[run_starts(flat.ring)] = True
        if self._put_in:
            edges = np.concatenate([e for e, _, _ in self._put_in])
            share = np.concatenate([s for _, s, _ in self._put_in])
            # an edge's share may be rounded to 1, where the next corner stands
            order = np.concatenate([order, edges + np.minimum(share, 1 - 1e-12)])
            points = np.concatenate([points, *(p for _, _, p in self._put_in)])
            pinned = np.concatenate([pinned, np.ones(len(edges), bool)])
            sorted_ = np.argsort(order, kind="stable")
            points, pinned = points[sorted_], pinned[sorted_]
            ring = np.concatenate([flat.ring, flat.ring[edges]])[sorted_]
        else:
            ring = flat.ring
        return _simplified(points, pinned, ring)


def _simplified(points: Floats, pinned: Bools, ring: Ints) -> np.ndarray:
    """Lines from one pinned corner to the next of its ring; the first corner of each ring is pinned."""
    n, starts = len(points), true_at(pinned)
    first = run_starts(ring)
    chain = np.cumsum(pinned) - 1
    # each chain ends at the start of the next one, the last of a ring at the ring's first corner
    closing = np.empty(len(starts), np.int64)
    closing[:-1] = starts[1:]
    last = np.append(chain[first[1:]] - 1, len(starts) - 1)
    closing[last] = first
    owner, index = np.empty((2, n + len(starts)), np.int64)
    own = np.arange(n) + chain
    owner[own], index[own] = chain, np.arange(n)
    ends = np.append(starts[1:], n) + np.arange(len(starts))
    owner[ends], index[ends] = np.arange(len(starts)), closing
    lines = shapely.linestrings(points[index], indices=owner)
    return np.asarray(simplified(lines, FINE))


def _at(line: Line, along: Floats) -> Floats:
    """Places (n, 2) of a line; on an upright or level one exactly on it."""
    return line.point + along[:, None] * line.along


def _inside(side: Bools, after: Ints, met: Floats, along: Floats) -> list[Stretch]:
    """Where the line lies on the region, just to the one side of it: ``met`` is where each edge meets the
    line, if it does."""
    hit = true_at(side != side[after])
    where = np.sort(met[hit])
    return list(zip(where[::2].tolist(), where[1::2].tolist(), strict=True))


def _common(first: Sequence[Stretch], second: Sequence[Stretch]) -> list[Stretch]:
    """What lies in a stretch of the first and in one of the second."""
    found = [(max(a, c), min(b, d)) for a, b in first for c, d in second]
    return sorted((low, high) for low, high in found if high - low > _SAME)


def _longer(line: Floats) -> Floats:
    """A polyline run on a little at both ends."""
    out = line.copy()
    for end, inner in ((0, 1), (-1, -2)):
        away = line[end] - line[inner]
        out[end] += away / max(float(np.hypot(*away)), 1e-9) * _OVER
    return out


def _faces(region: Region, noded: shapely.Geometry) -> np.ndarray:
    """The faces that are paper, in their order."""
    found = shapely.get_parts(shapely.polygonize([noded]))
    found = found[shapely.area(found) > _LEAST_AREA]
    inner = shapely.get_coordinates(shapely.point_on_surface(found))
    paper = region.polygons
    shapely.prepare(paper)
    found = found[shapely.contains_xy(paper, inner[:, 0], inner[:, 1])]
    if not len(found):
        return found
    left, head, _, _ = shapely.bounds(found).T
    order = np.lexsort((ranks(head, 2 * FINE), ranks(left, 2 * FINE)))
    return np.asarray(shapely.orient_polygons(found[order]))


def _seams(
    faces: np.ndarray,
    creases: Sequence[Crease],
    cuts: Sequence[Sequence[_Cut]],
    slits: Sequence[Floats],
) -> list[Seam]:
    """Runs of creases along which two faces share edges."""
    rings, face = shapely.get_rings(faces, return_index=True)
    points, ring = shapely.get_coordinates(rings, return_index=True)
    same = ring[1:] == ring[:-1]
    starts, ends, owner = points[:-1][same], points[1:][same], face[ring[:-1][same]]
    found: list[Seam] = []
    for number, crease in enumerate(creases):
        spans = [(cut.low, cut.high) for cut in cuts[number]]
        line = crease.line
        level = (np.abs(line.off(starts)) < _ON) & (np.abs(line.off(ends)) < _ON)
        if not spans or not level.any():
            continue
        p, q, faces_there = starts[level], ends[level], owner[level]
        by_edge = dict(zip(map(_key, p, q), faces_there.tolist(), strict=True))
        low, high = line.place(p), line.place(q)
        # faces run counter-clockwise by their coordinates: they lie to the left of their edges
        above = ((q - p) @ line.along) * _left_is_above(line) > 0
        slit = _slit_along(line, slits)
        for i in true_at(above):
            other = by_edge.get(_key(q[i], p[i]))
            a, b = sorted((float(low[i]), float(high[i])))
            middle = (a + b) / 2
            if other is None or other == faces_there[i]:
                continue
            if _holds(spans, middle) and not _holds(slit, middle):
                found.append(Seam(number, int(faces_there[i]), int(other), a, b))
    return _in_runs(found)


def _left_is_above(line: Line) -> float:
    """1 where the normal points to the left of the line's direction by coordinates, else -1."""
    left = np.array([-line.uy, line.ux])
    return 1.0 if float(left @ line.normal) > 0 else -1.0


def _key(a: Floats, b: Floats) -> bytes:
    return bytes(np.concatenate([a, b]).tobytes())


def _slit_along(line: Line, slits: Sequence[Floats]) -> list[Stretch]:
    """Where slits run along the line."""
    found: list[Stretch] = []
    for slit in slits:
        on = np.abs(line.off(slit)) < _ON
        along = line.place(slit)
        pairs = zip(along[:-1][on[:-1] & on[1:]], along[1:][on[:-1] & on[1:]], strict=True)
        found += [(float(min(a, b)), float(max(a, b))) for a, b in pairs]
    return found


def _holds(stretches: Sequence[Stretch], at: float) -> bool:
    return any(low <= at <= high for low, high in stretches)


def _in_runs(seams: Sequence[Seam]) -> list[Seam]:
    """The seams, those that follow on each other as one."""
    found: list[Seam] = []
    for seam in sorted(seams, key=lambda s: (s.crease, s.above, s.below, s.low)):
        before = found[-1] if found else None
        pair = (seam.crease, seam.above, seam.below)
        if (
            before is not None
            and (before.crease, before.above, before.below) == pair
            and seam.low - before.high < _SAME
        ):
            found[-1] = Seam(*pair, before.low, seam.high)
        else:
            found.append(seam)
    return found
