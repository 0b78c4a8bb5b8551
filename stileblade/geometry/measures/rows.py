"""Shapes as rows of cells: which cells of a grid lie in a shape grown by a margin."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, TypeAlias

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import nth_of, true_at
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.transforms import after, rotation, scaling
from stileblade.geometry.measures.simplification import simplified
from stileblade.geometry.regions.region import Region

Shape: TypeAlias = Any
"""Polygons of the kernel."""
_COARSE = 0.05


def shape_of(region: Region) -> Shape:
    """The region for the kernel, within its flattening tolerance."""
    return region.polygons


def turning(turn_deg: float, *, flipped: bool = False) -> Floats:
    """Mirrored left for right where it lies turned over, then turned clockwise (y downwards): 2 x 3."""
    return after(rotation(turn_deg), scaling(-1.0 if flipped else 1.0, 1.0))


def turned(shape: Shape, turn_deg: float, *, flipped: bool = False) -> Shape:
    """Turned over and turned, its box at 0, 0."""
    found = mapped(shape, turning(turn_deg, flipped=flipped))
    left, head, _, _ = shapely.bounds(found)
    return moved(found, -left, -head)


def moved(shape: Shape, x: float, y: float) -> Shape:
    return shapely.transform(shape, lambda p: p + [x, y])


def mapped(shape: Shape, matrix: Floats) -> Shape:
    """Mapped by a 2x3 matrix."""
    return shapely.transform(shape, lambda p: p @ matrix[:, :2].T + matrix[:, 2])


def size_of(shape: Shape) -> tuple[float, float]:
    """Width and height of its box in mm."""
    left, head, right, foot = shapely.bounds(shape)
    return float(right - left), float(foot - head)


def box_of(shape: Shape) -> tuple[float, float, float, float]:
    left, head, right, foot = shapely.bounds(shape)
    return float(left), float(head), float(right), float(foot)


def distances(shapes: Sequence[Shape], places: Floats) -> Floats:
    """mm (n,) from each place (n, 2) to the nearest shape, 0 within one; infinite where there is none."""
    found = np.full(len(places), np.inf)
    if len(shapes) and len(places):
        at, away = shapely.STRtree(list(shapes)).query_nearest(
            shapely.points(places), return_distance=True, all_matches=False
        )
        found[at[0]] = away
    return found


def beside(area: Shape, shapes: Sequence[Shape], margin: float) -> Shape:
    """What of an area keeps a margin to all shapes; by a twentieth of a mm more, since round corners are
    chords."""
    held = [shapely.buffer(shape, margin + _COARSE, quad_segs=16) for shape in shapes]
    return shapely.difference(area, shapely.union_all(held))


def nearest_place(area: Shape, place: tuple[float, float]) -> tuple[float, float] | None:
    """The place of an area that is nearest to another; None where it is empty."""
    if shapely.is_empty(area):
        return None
    x, y = shapely.get_coordinates(shapely.shortest_line(area, shapely.points(place)))[0]
    return float(x), float(y)


def narrowest(shape: Shape) -> float:
    """Degrees clockwise, from 0 to 90, by which the smallest box that holds it, however turned, lies
    turned; 0 for what is no area."""
    box = shapely.minimum_rotated_rectangle(shape)
    corners = shapely.get_coordinates(box)
    if len(corners) < 4:
        return 0.0
    x, y = corners[1] - corners[0]
    return float(np.degrees(np.arctan2(y, x)) % 90)


def area_of(shape: Shape) -> float:
    return float(shapely.area(shape))


def grown(shape: Shape, margin: float) -> Shape:
    """Grown by a margin, coarsely: for rasters."""
    return shapely.buffer(simplified(shape, _COARSE, valid=True), margin, quad_segs=4)


def filled(shape: Shape) -> Shape:
    """With its windows and holes as if they were not cut."""
    rings = shapely.get_exterior_ring(shapely.get_parts(shape))
    return shapely.union_all(shapely.polygons(rings))


def disc(x: float, y: float, radius: float) -> Shape:
    return shapely.buffer(shapely.points(x, y), radius)


def rectangle(left: float, head: float, right: float, foot: float) -> Shape:
    return shapely.box(left, head, right, foot)


def path_of(shape: Shape) -> str:
    """A flattened shape as path data, to a thousandth of a mm."""
    said = []
    for ring in shapely.get_rings(shapely.get_parts(shape)):
        places = " ".join(f"{x:.3f} {y:.3f}" for x, y in shapely.get_coordinates(ring)[:-1])
        said.append(f"M{places}Z")
    return "".join(said)


def rows_of(shape: Shape, cell: float) -> Ints:
    """Runs (n, 3) of cells whose middles lie in the shape: row, first column, one beyond the last. Cell
    (0, 0) has its corner at 0, 0; rows and columns may be negative."""
    rings = shapely.get_rings(shapely.get_parts(shape))
    points, ring = shapely.get_coordinates(rings, return_index=True)
    same = ring[1:] == ring[:-1]
    a, b = points[:-1][same] / cell - 0.5, points[1:][same] / cell - 0.5
    # rows whose middle lies from the upper end, included, to the lower, not included
    low, high = np.minimum(a[:, 1], b[:, 1]), np.maximum(a[:, 1], b[:, 1])
    first, last = np.ceil(low).astype(np.int64), np.ceil(high).astype(np.int64)
    count = last - first
    which = np.repeat(np.arange(len(a)), count)
    row = first[which] + nth_of(count)
    share = (row - a[which, 1]) / (b[which, 1] - a[which, 1])
    x = a[which, 0] + share * (b[which, 0] - a[which, 0])
    order = np.lexsort((x, row))
    row, x = row[order], x[order]
    runs = np.stack([row[::2], np.ceil(x[::2]), np.ceil(x[1::2])], axis=1).astype(np.int64)
    return np.asarray(runs[runs[:, 2] > runs[:, 1]])


def nearest(shape: Shape, others: list[Shape], reach: float) -> tuple[float, int]:
    """The smallest distance in mm from a shape to others, and to which; infinite, -1 where none is
    within ``reach``. Overlapping is less than nothing: -1."""
    if not others:
        return np.inf, -1
    left, head, right, foot = shapely.bounds(shape)
    boxes = shapely.bounds(np.array(others))
    near = true_at(
        (boxes[:, 0] < right + reach) & (boxes[:, 2] > left - reach)
        & (boxes[:, 1] < foot + reach) & (boxes[:, 3] > head - reach)
    )  # fmt: skip
    best, which = np.inf, -1
    for k in near:
        away = float(shapely.distance(shape, others[k]))
        if away == 0 and shapely.relate_pattern(shape, others[k], "T********"):
            away = -1.0
        if away < best:
            best, which = away, int(k)
    return best, which
