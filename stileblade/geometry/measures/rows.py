"""Shapes of the kernel: measured, moved, and as rows of the cells of a grid that they touch."""

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
COARSE = 0.02
"""mm."""
_QUARTER = 8
"""Chords of a quarter of a circle."""
_PASSING = 1e-3
"""mm: so much into each other two shapes pass."""
_BESIDE = 0.05
"""mm: as much more than a margin is kept where corners are chords."""
_EXACT = 1e-6


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
    held = [shapely.buffer(shape, margin + _BESIDE, quad_segs=16) for shape in shapes]
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


def coarse(shape: Shape) -> Shape:
    """With fewer corners, nowhere off by more than ``COARSE``."""
    return simplified(shape, COARSE, valid=True)


def grown(shape: Shape, margin: float) -> Shape:
    """All that is nearer to a shape than a margin, and hardly more: whatever is outside of it, and is itself off by
    ``COARSE`` at most, keeps the margin. Its box is grown by the margin exactly."""
    left, head, right, foot = shapely.bounds(shape)
    # corners of the chords lie on the circle, their middles within it
    reach = (margin + 2 * COARSE) / np.cos(np.pi / 4 / _QUARTER)
    around = shapely.buffer(coarse(shape), reach, quad_segs=_QUARTER)
    return shapely.clip_by_rect(around, left - margin, head - margin, right + margin, foot + margin)


def free_way(shape: Shape, others: Sequence[Shape], axis: int, most: float) -> float:
    """mm by which a shape can be moved to the left (axis 0) or towards the head (1) until it meets one of the others, at
    most so much; within ``_PASSING`` for those that it passes closely."""
    across = 1 - axis
    box = np.array(shapely.bounds(shape))
    own = _edges(shape, axis)
    for other in others:
        there = np.array(shapely.bounds(other))
        beside = there[across] >= box[across + 2] or there[across + 2] <= box[across]
        if beside or there[axis] >= box[axis + 2] or there[axis + 2] <= box[axis] - most:
            continue
        edges = _edges(other, axis)
        ways = np.concatenate([_ways(own[:, :2], edges), -_ways(edges[:, :2], own)])
        ways = ways[ways > -_PASSING]
        if len(ways):
            most = min(most, max(0.0, float(ways.min())))
    return most


def _edges(shape: Shape, axis: int) -> Floats:
    """Edges (n, 4) of all rings, each from its lesser x; with x and y changed for each other for axis 0."""
    points, ring = shapely.get_coordinates(
        shapely.get_rings(shapely.get_parts(shape)), return_index=True
    )
    points = points if axis == 1 else points[:, ::-1]
    same = ring[1:] == ring[:-1]
    a, b = points[:-1][same], points[1:][same]
    right = (a[:, 0] <= b[:, 0])[:, None]
    return np.concatenate([np.where(right, a, b), np.where(right, b, a)], axis=1)


def _ways(points: Floats, edges: Floats) -> Floats:
    """From each edge down to each point that lies in its stretch of x."""
    x, left, right = points[:, :1], edges[:, 0], edges[:, 2]
    at, which = np.nonzero((x > left + _PASSING) & (x < right - _PASSING))
    found = edges[which]
    share = (points[at, 0] - found[:, 0]) / (found[:, 2] - found[:, 0])
    return np.asarray(points[at, 1] - found[:, 1] - share * (found[:, 3] - found[:, 1]))


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


def touched(shape: Shape, cell: float) -> Ints:
    """Runs (n, 3) of cells that a shape has a part of, each as long as it can be: row, first column, one beyond the
    last. Cell (0, 0) has its corner at 0, 0; rows and columns may be negative."""
    rings = shapely.get_rings(shapely.get_parts(shape))
    points, ring = shapely.get_coordinates(rings, return_index=True)
    same = ring[1:] == ring[:-1]
    a, b = points[:-1][same] / cell, points[1:][same] / cell
    down = (a[:, 1] <= b[:, 1])[:, None]
    a, b = np.where(down, a, b), np.where(down, b, a)
    return _joined(np.concatenate([_along(a, b), _within(a, b)]))


def _along(a: Floats, b: Floats) -> Ints:
    """Runs of the cells through which edges pass, from ``a`` down to ``b`` in cells."""
    row, which = _rows_between(np.floor(a[:, 1] + _EXACT), np.ceil(b[:, 1] - _EXACT))
    upper, lower = a[which], b[which]
    height = lower[:, 1] - upper[:, 1]
    flat = height < _EXACT
    share = (np.stack([row, row + 1]) - upper[:, 1]) / np.where(flat, 1.0, height)
    share = np.where(flat, [[0.0], [1.0]], np.clip(share, 0, 1))
    x = upper[:, 0] + share * (lower[:, 0] - upper[:, 0])
    first, last = np.floor(x.min(axis=0) + _EXACT), np.ceil(x.max(axis=0) - _EXACT)
    return np.stack([row, first, last], axis=1).astype(np.int64)


def _within(a: Floats, b: Floats) -> Ints:
    """Runs of cells whose middles lie between edges, from ``a`` down to ``b`` in cells."""
    # rows whose middle lies from the upper end, included, to the lower, not included
    row, which = _rows_between(np.ceil(a[:, 1] - 0.5), np.ceil(b[:, 1] - 0.5))
    share = (row + 0.5 - a[which, 1]) / (b[which, 1] - a[which, 1])
    x = a[which, 0] + share * (b[which, 0] - a[which, 0])
    order = np.lexsort((x, row))
    row, x = row[order], x[order]
    first, last = np.floor(x[::2] + _EXACT), np.ceil(x[1::2] - _EXACT)
    return np.stack([row[::2], first, last], axis=1).astype(np.int64)


def _rows_between(first: Floats, last: Floats) -> tuple[Ints, Ints]:
    """All rows from the first of each edge to one before its last, and the number of the edge."""
    count = np.maximum(last - first, 0).astype(np.int64)
    which = np.repeat(np.arange(len(first)), count)
    return first.astype(np.int64)[which] + nth_of(count), which


def _joined(runs: Ints) -> Ints:
    """Runs that meet or overlap in their row as one."""
    runs = runs[runs[:, 2] > runs[:, 1]]
    runs = runs[np.lexsort((runs[:, 1], runs[:, 0]))]
    found: list[list[int]] = []
    for row, first, last in runs.tolist():
        if found and found[-1][0] == row and first <= found[-1][2]:
            found[-1][2] = max(found[-1][2], last)
        else:
            found.append([row, first, last])
    return np.array(found, dtype=np.int64).reshape(-1, 3)


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
