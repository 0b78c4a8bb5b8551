"""From joined runs to regions: contours closed, wrong ones put right, loops taken out."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import compress

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import neighbours, true_at
from stileblade.geometry.curves.measurement import signed_areas
from stileblade.geometry.curves.parallel import Of, OffsetCurves
from stileblade.geometry.curves.segments import (
    Bools,
    Ints,
    Segments,
    concatenate,
    lines,
)
from stileblade.geometry.curves.vectors import crosses, norms
from stileblade.geometry.offset.bridges import Joined, with_bridges
from stileblade.geometry.offset.polygon import SIDES, Polygon
from stileblade.geometry.regions.assemble import rejoin
from stileblade.geometry.regions.fill import Painted, fill_all
from stileblade.geometry.regions.region import Region, gather, shell_polygons
from stileblade.geometry.regions.runs import Runs
from stileblade.geometry.regions.trace import shared_out
from stileblade.tolerance import TOLERANCE


@dataclass(frozen=True, eq=False)
class Contours:
    """Segments (n,) of rings (n,), and which of their joints are new: no joint of the source."""

    segments: Segments
    ring: Ints
    fresh: Bools


def finished(
    contours: Contours, lost: Ints, doubtful: Ints | None, polygon: Polygon, count: int
) -> list[Region]:
    """The regions of so many jobs. Rings that are ``lost``, or another size than the kernel's, become the
    kernel's own polygon; jobs with ``doubtful`` rings, all of them where None, are looked at for
    loops."""
    rings = polygon.rings
    contours = _with_kernel_rings(contours, lost, polygon)
    region, present = rejoin(contours.segments, contours.ring, rings.shell, fresh=contours.fresh)
    found = shared_out(region, rings.origin[present], count)
    if doubtful is None:
        return simple(found)
    numbers = np.unique(rings.origin[np.r_[doubtful, lost]]).tolist()
    for number, one in zip(numbers, simple([found[i] for i in numbers]), strict=True):
        found[number] = one
    return found


def contours_of(
    made: Segments, row: Ints, runs: Runs, joints: Joined, curves: OffsetCurves
) -> Contours:
    """Runs as segments, each of a row, with their bridges, without what has no length."""
    _, before = neighbours(runs.ring)
    made, row = with_bridges(made, row, joints, before)
    long_enough = (norms(made.end - made.start) > 1e-7) | (
        np.abs(made.span[:, 1] - made.span[:, 0]) > 1
    )
    made, row = made.take(true_at(long_enough)), row[long_enough]
    ring = runs.ring[row]
    of, source = curves.of(runs.curve[row]), curves.segment(runs.curve[row])
    before = neighbours(ring)[1]
    mitred = (of >= Of.INTO_TIP) | (of[before] >= Of.INTO_TIP)
    return Contours(made, ring, mitred | (np.abs(source - source[before]) > 1))


def _with_kernel_rings(contours: Contours, lost: Ints, polygon: Polygon) -> Contours:
    """With the kernel's own polygon for rings that are ``lost``, or another size than it: where
    features are finer than the flattening, corners cannot all be found on the curves, and an arc
    may have run the long way round."""
    rings, made, ring = polygon.rings, contours.segments, contours.ring
    u, v = rings.points, rings.points[rings.after]
    count = len(rings.shell)
    around = np.bincount(rings.ring, norms(v - u), minlength=count)
    wanted = np.bincount(rings.ring, crosses(u, v), minlength=count) / 2
    area = np.bincount(ring, signed_areas(made), minlength=count)
    bad = np.abs(area - wanted) > TOLERANCE.crossing * around + TOLERANCE.leftover
    bad[lost] = True
    if not bad.any():
        return contours
    kept, numbers = true_at(~bad[ring]), true_at(bad)
    first, last = (np.searchsorted(rings.ring, numbers, side) for side in SIDES)
    ways = [np.r_[u[i:j], u[i : i + 1]] for i, j in zip(first, last, strict=True)]
    ways = polygon.on_outline(ways, rings.origin[numbers])
    parts = [lines(way[:-1], np.r_[way[1:-1], way[:1]]) for way in ways]
    made = concatenate([made.take(kept), *parts])
    count_of = [len(part) for part in parts]
    ring = np.r_[ring[kept], np.repeat(numbers, count_of)]
    fresh = np.r_[contours.fresh[kept], np.zeros(sum(count_of), bool)]
    order = np.argsort(ring, kind="stable")
    return Contours(made.take(order), ring[order], fresh[order])


def simple(regions: list[Region]) -> list[Region]:
    """The regions without loops in which contours cross themselves, by less than their curves are
    fitted to: where two parallels run close beside each other."""
    whole = gather(regions)
    if not whole:
        return regions
    owner = np.repeat(np.arange(len(regions)), [len(region.shell) for region in regions])
    polygons, shells = shell_polygons(whole.flat.points, whole.flat.ring, whole.shell)
    present, of = np.unique(owner[shells], return_inverse=True)
    crossing = present[~shapely.is_valid(shapely.multipolygons(polygons, indices=of))].tolist()
    found, anew = list(regions), []
    for i in crossing:
        parts = regions[i].parts()
        valid = shapely.is_valid([part.polygons for part in parts])
        if valid.all():  # they overlap
            valid, parts = np.array([False]), [regions[i]]
        found[i] = gather(list(compress(parts, valid)))
        anew += [(i, Painted([c.segments for c in p.contours])) for p in compress(parts, ~valid)]
    for (i, _), filled in zip(anew, fill_all([painting for _, painting in anew]), strict=True):
        found[i] = gather([found[i], filled])
    return found
