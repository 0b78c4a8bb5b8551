"""Regions from contours that may cross themselves and each other, by a fill rule.

Contours that neither cross nor touch are sorted out by what lies in what. For the others
all edges are noded and polygonised by the kernel; a face is inside by its winding number
("nonzero") or the parity of it ("evenodd"), and the curves are traced back.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.curves.arrays import (
    both,
    nth_of,
    offsets_of,
    run_ends,
    run_sizes,
    run_starts,
    true_at,
)
from stileblade.geometry.curves.flatten import Flat, flatten
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import Floats, Ints, Segments, concatenate
from stileblade.geometry.regions.estimate import must_cross_seldom
from stileblade.geometry.regions.nesting import Nesting, nested
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import run_kernel, united
from stileblade.geometry.regions.trace import Sources, trace_all
from stileblade.tolerance import TOLERANCE
from stileblade.words import say

FillRule = Literal["nonzero", "evenodd"]
_PAIRS = 200_000
"""Edges and spots are compared about this many at a time."""
_MOST_BANDS = 4096


@dataclass(frozen=True, eq=False)
class Painted:
    """Closed contours that are painted together by one rule."""

    contours: list[Segments]
    rule: FillRule = "nonzero"

    def __post_init__(self) -> None:
        if self.rule not in ("nonzero", "evenodd"):
            raise GeometryError(
                say("rule={rule!r}: choose 'nonzero' or 'evenodd'.", rule=self.rule)
            )


def fill(contours: list[Segments], rule: FillRule = "nonzero") -> Region:
    """The region that closed contours paint. Contours without area paint nothing."""
    return fill_all([Painted(contours, rule)])[0]


def fill_all(paintings: Sequence[Painted]) -> list[Region]:
    """The region of each painting: as ``fill``, many at once at a fraction of the cost."""
    found = [Region.empty()] * len(paintings)
    contours = [c for p in paintings for c in p.contours]
    if not contours:
        return found
    loose = _Loose.of(
        contours, np.repeat(np.arange(len(found)), [len(p.contours) for p in paintings])
    )
    if not len(loose.job):
        return found
    rings = shapely.linearrings(loose.flat.points, indices=loose.flat.ring)
    shapes = shapely.polygons(rings)
    valid = shapely.is_valid(shapes)
    starts = run_starts(loose.job)
    ends = run_ends(starts, len(loose.job))
    simple = np.logical_and.reduceat(valid, starts)
    sets = [np.arange(a, b) for a, b in zip(starts[simple], ends[simple], strict=True)]
    rules = [paintings[loose.job[s[0]]].rule for s in sets]
    for members, nesting in zip(sets, nested(rings, shapes, sets, rules), strict=True):
        job = loose.job[members[0]]
        if nesting is None:
            simple[np.searchsorted(starts, members[0])] = False
        else:
            found[job] = loose.region(nesting)
    crossing = [(int(a), int(b)) for a, b in zip(starts[~simple], ends[~simple], strict=True)]
    if crossing:
        jobs = loose.job[[a for a, _ in crossing]]
        regions = _crossing(
            [loose.part(a, b) for a, b in crossing],
            [paintings[job].rule for job in jobs],
            [bool(valid[a:b].all()) for a, b in crossing],
        )
        for job, region in zip(jobs, regions, strict=True):
            found[job] = region
    return found


@dataclass(frozen=True, eq=False)
class _Loose:
    """Contours side by side, all that enclose nothing left out; job (r,) is each one's."""

    segments: Segments
    rings: Ints
    job: Ints
    flat: Flat

    @staticmethod
    def of(contours: list[Segments], job: Ints) -> _Loose:
        segments = concatenate(contours)
        ring = np.repeat(np.arange(len(contours)), [len(c) for c in contours])
        still = (segments.kind == Kind.LINE) & both(segments.start == segments.end)
        segments, ring = segments.take(~still), ring[~still]
        offsets = np.append(run_starts(ring), len(ring))
        flat = flatten(segments, offsets)
        size = np.bincount(flat.ring, minlength=len(offsets) - 1)
        thick = size >= 3
        # of twice their signed area; what crosses itself may have none and yet enclose something
        (x0, y0), (x1, y1) = flat.points.T, flat.ends.T
        turned = np.bincount(flat.ring, x0 * y1 - x1 * y0, minlength=len(size))
        unsure = thick & (np.abs(turned) < TOLERANCE.leftover)
        if unsure.any():
            big = unsure[flat.ring]
            hulls = shapely.linearrings(
                flat.points[big], indices=(unsure.cumsum() - 1)[flat.ring[big]]
            )
            thick[unsure] = shapely.area(shapely.convex_hull(hulls)) > 0
        loose = _Loose(segments, offsets, job[ring[offsets[:-1]]] if len(ring) else job[:0], flat)
        return loose if thick.all() else loose._only(true_at(thick))

    def _only(self, rings: Ints) -> _Loose:
        sizes = np.diff(self.rings)[rings]
        keep = np.isin(np.repeat(np.arange(len(self.rings) - 1), np.diff(self.rings)), rings)
        segments, offsets = self.segments.take(keep), offsets_of(sizes)
        return _Loose(segments, offsets, self.job[rings], flatten(segments, offsets))

    def part(self, first: int, last: int) -> tuple[Segments, Flat]:
        """Rings that may cross themselves and each other."""
        own = slice(int(self.rings[first]), int(self.rings[last]))
        return self.segments.take(own), self.flat.only(first, last)

    def region(self, nesting: Nesting) -> Region:
        """Rings that bound what is painted, each turned as its part asks for."""
        if not len(nesting.rings):
            return Region.empty()
        parts = []
        for ring, backwards in zip(nesting.rings, nesting.backwards, strict=True):
            own = self.segments.take(slice(int(self.rings[ring]), int(self.rings[ring + 1])))
            parts.append(own.reversed() if backwards else own)
        offsets = np.cumsum([0, *map(len, parts)])
        return Region(parts[0] if len(parts) == 1 else concatenate(parts), offsets, nesting.shell)


def _crossing(
    parts: list[tuple[Segments, Flat]], rules: Sequence[FillRule], simple: Sequence[bool]
) -> list[Region]:
    """``simple``: that none of a part's rings crosses itself."""
    shapes = [
        _faces_inside(flat, rule, by_itself)
        for (_, flat), rule, by_itself in zip(parts, rules, simple, strict=True)
    ]
    return trace_all(shapes, Sources.of(parts))


def _faces_inside(flat: Flat, rule: FillRule, simple: bool) -> shapely.Geometry:
    moving = true_at(flat.keys != flat.keys[flat.after])
    points, ring = flat.points[moving], flat.ring[moving]
    must_cross_seldom(points, flat.ends[moving])
    # whole rings are noded, and their faces found, many times as fast as edge by edge
    starts = run_starts(ring)
    size = run_sizes(starts, len(ring))
    encloses = np.repeat(size >= 3, size)
    number = np.repeat(np.cumsum(size >= 3) - 1, size)
    rings = shapely.linearrings(points[encloses], indices=number[encloses])
    backwards = shapely.is_ccw(rings)
    if simple and rule == "nonzero" and (backwards == backwards[:1]).all():
        return run_kernel(united, *shapely.polygons(rings))  # no face goes round by none
    noded = run_kernel(shapely.union_all, rings)
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(noded)))
    if not len(faces):
        return shapely.MultiPolygon()
    spots = shapely.get_coordinates(shapely.point_on_surface(faces))
    edges = np.stack([flat.points, flat.ends], axis=1)[moving]
    number = winding_numbers(edges, spots)
    inside = number % 2 != 0 if rule == "evenodd" else number != 0
    return shapely.coverage_union_all(faces[inside])  # a tenth of the time: they share whole edges


def winding_numbers(edges: Floats, spots: Floats) -> Ints:
    """How often directed edges (m, 2, 2) go round each of the points (k, 2): edges count that cross
    a point's level on one side of it, and bands of height tell which of them may."""
    out = np.zeros(len(spots), np.int64)
    if not len(edges) or not len(spots):
        return out
    x0, y0, x1, y1 = np.ascontiguousarray(edges.reshape(-1, 4).T)
    place, level = spots.T
    low, high = np.minimum(y0, y1), np.maximum(y0, y1)
    base, top = float(low.min()), float(high.max())
    # bands about as high as the edges are, so that each edge lies in two or three
    wanted = (top - base) / max(float((high - low).mean()), 1e-9)
    bands = int(min(max(wanted, 1), _MOST_BANDS))
    scale = bands / max(top - base, 1e-9)

    def band(at: Floats) -> Ints:
        return np.clip(((at - base) * scale).astype(np.int64), 0, bands - 1)

    first, last = band(low), band(high)
    times = last - first + 1
    edge = np.arange(len(edges)).repeat(times)
    of_edge = first[edge] + nth_of(times)
    edge = edge[np.argsort(of_edge, kind="stable")]
    begin = offsets_of(np.bincount(of_edge, minlength=bands))
    own = band(level)
    count = np.diff(begin)[own]
    block = count.cumsum() // _PAIRS
    for part in np.split(np.arange(len(spots)), true_at(np.diff(block)) + 1):
        spot = np.repeat(part, count[part])
        nth = nth_of(count[part])
        pair = edge[np.repeat(begin[own[part]], count[part]) + nth]
        up = y0[pair] <= level[spot]
        passing = true_at(up != (y1[pair] <= level[spot]))
        spot, pair, up = spot[passing], pair[passing], up[passing]
        ahead = (x1[pair] - x0[pair]) * (level[spot] - y0[pair])
        side = ahead - (place[spot] - x0[pair]) * (y1[pair] - y0[pair])
        turns = (up & (side > 0)).astype(np.int64) - (~up & (side < 0))
        out += np.bincount(spot, turns, minlength=len(spots)).astype(np.int64)
    return out


def filled(region: Region, *, below: float | None = None) -> Region:
    """The region with its openings closed: all, or those smaller than ``below`` mm^2."""
    keep = [
        r
        for r in range(len(region.shell))
        if region.shell[r] == r or (below is not None and region.contour(r).area >= below)
    ]
    return with_rings(region, keep)


def with_rings(region: Region, keep: Sequence[int]) -> Region:
    """The region with only some of its openings: ``keep`` are the numbers of the rings that
    stay, in order, all shells among them. What lies in a closed opening is swallowed by it."""
    if len(keep) == len(region.shell):
        return region
    rows = np.asarray(keep, np.int64)
    closed = np.setdiff1d(np.arange(len(region.shell)), rows)
    shells = rows[region.shell[rows] == rows]
    if len(shells) > 1:
        holes = np.array([region.contour(int(r)).as_region().polygons for r in closed])
        x, y = region.segments.start[region.rings[shells]].T
        swallowed = shells[shapely.contains_xy(holes[:, None], x[None], y[None]).any(axis=0)]
        rows = rows[~np.isin(region.shell[rows], swallowed)]
    sizes = np.diff(region.rings)[rows]
    index = np.concatenate([np.arange(region.rings[r], region.rings[r + 1]) for r in rows])
    shell = np.searchsorted(rows, region.shell[rows])
    return Region(region.segments.take(index), offsets_of(sizes), shell)
