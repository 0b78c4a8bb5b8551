"""What cuts make of a sheet: cut lines noded, gaps of loose fibres closed, the faces between them.

Noded on a grid of a thousandth of a mm. A face is loose where its outline is cut all round; what no
loose face covers is the sheet.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, TypeAlias

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import begins, true_at
from stileblade.geometry.curves.segments import Bools, Floats, Ints
from stileblade.geometry.curves.vectors import norms

Face: TypeAlias = Any
"""A polygon of the kernel."""
TEARS = 0.05
"""mm: paper that is held by less is torn."""
GRID = 0.001
_HAIR = 0.03
"""mm: a face that is narrower everywhere is a cut that was run over twice, and no paper."""
_FINE = 0.01
_NEAR = 0.03
"""mm: an edge this near to a line that was asked for is of it."""


@dataclass(frozen=True, eq=False)
class Faces:
    """``faces``: what came loose, largest first. ``edges`` (m, 2, 2) are the cuts as noded."""

    faces: tuple[Face, ...]
    edges: Floats
    ends: Floats
    """Places (k, 2) at which cuts end within paper."""


def faces_of(lines: Sequence[Floats]) -> Faces:
    """The faces between cut lines, each a polyline (n, 2)."""
    noded = shapely.get_parts(shapely.unary_union(_once(lines), grid_size=GRID))
    noded, ends = _torn(noded)
    found = shapely.get_parts(shapely.polygonize(noded))
    found = found[shapely.area(found) > 0]
    found = found[~_is_hair(found)]
    order = np.argsort(-shapely.area(found), kind="stable")
    return Faces(tuple(found[order]), _edges(noded), ends)


def _once(lines: Sequence[Floats]) -> Any:
    """The kernel's shapes of the lines; where many stretches are run again, each stretch once: noding costs by the
    square of how often."""
    stretches = np.concatenate([np.hstack([line[:-1], line[1:]]) for line in lines])
    turned = np.where(
        (stretches[:, :1] > stretches[:, 2:3])
        | ((stretches[:, :1] == stretches[:, 2:3]) & (stretches[:, 1:2] > stretches[:, 3:])),
        stretches[:, [2, 3, 0, 1]],
        stretches,
    )
    once = np.unique(turned, axis=0)
    if len(once) > 0.7 * len(stretches):
        return [shapely.linestrings(line) for line in lines]
    once = once[(once[:, :2] != once[:, 2:]).any(axis=1)]
    return shapely.linestrings(once.reshape(-1, 2, 2))


def _torn(noded: np.ndarray) -> tuple[np.ndarray, Floats]:
    """The noded lines with what tears joined, and where cuts still end."""
    for again in (False, True):
        ends, inward = _dangling(noded)
        if not len(ends) or again:
            return noded, ends
        tree = shapely.STRtree(noded)
        spots = shapely.points(ends)
        spot, line = tree.query(spots, predicate="dwithin", distance=TEARS)
        feet = _feet(noded[line], ends[spot], own=line == inward[spot])
        away = norms(feet - ends[spot])
        order = np.lexsort((away, spot))
        nearest = order[begins(spot[order])]
        nearest = nearest[(away[nearest] <= TEARS) & (away[nearest] > 0)]
        bridges = [np.array([ends[spot[k]], feet[k]]) for k in nearest]
        if not bridges:
            return noded, ends
        # a little beyond, so that the bridge surely meets the line that it leads to
        over = [shapely.linestrings([b[0], b[1] + (b[1] - b[0]) * 0.05]) for b in bridges]
        noded = shapely.get_parts(shapely.unary_union([*noded, *over], grid_size=GRID))
    return noded, np.zeros((0, 2))


def _feet(lines: np.ndarray, places: Floats, *, own: Bools) -> Floats:
    """The place (n, 2) of each line nearest to a place; of the line that itself ends there, its far end, infinitely
    far where that is the same place."""
    feet = shapely.get_coordinates(shapely.shortest_line(lines, shapely.points(places)))[::2]
    first, last = (shapely.get_coordinates(shapely.get_point(lines, k)) for k in (0, -1))
    far = np.where((norms(first - places) < GRID)[:, None], last, first)
    far[norms(far - places) <= GRID] = np.inf
    return np.where(own[:, None], far, feet)


def _dangling(noded: np.ndarray) -> tuple[Floats, Ints]:
    """Places (k, 2) at which only one line ends, and its number (k,)."""
    first = shapely.get_coordinates(shapely.get_point(noded, 0))
    last = shapely.get_coordinates(shapely.get_point(noded, -1))
    both = np.rint(np.concatenate([first, last]) / GRID).astype(np.int64)
    number = np.tile(np.arange(len(noded)), 2)
    _, index, count = np.unique(both, axis=0, return_index=True, return_counts=True)
    alone = np.sort(index[count == 1])
    return np.concatenate([first, last])[alone], number[alone]


def _is_hair(faces: np.ndarray) -> Bools:
    thin = 2 * shapely.area(faces) < _HAIR * shapely.length(faces)
    small = true_at(thin)
    if len(small):
        gone = shapely.is_empty(shapely.buffer(faces[small], -_HAIR / 2, quad_segs=2))
        thin[small[~gone]] = False
    return np.asarray(thin)


def _edges(noded: np.ndarray) -> Floats:
    points, which = shapely.get_coordinates(noded, return_index=True)
    same = which[1:] == which[:-1]
    return np.stack([points[:-1][same], points[1:][same]], axis=1)


def runs_along(edges: Floats, lines: Sequence[Floats]) -> tuple[Ints, Ints, Floats]:
    """Which edges (by their middles) run along which lines, within 0.03 mm and in one direction or
    its opposite: numbers of edges, of lines, and how far along the line in mm, each pair's stretches
    singly."""
    if not len(edges) or not lines:
        return np.zeros(0, np.int64), np.zeros(0, np.int64), np.zeros(0)
    start = np.concatenate([line[:-1] for line in lines])
    end = np.concatenate([line[1:] for line in lines])
    owner = np.repeat(np.arange(len(lines)), [len(line) - 1 for line in lines])
    size = norms(end - start)
    before = np.concatenate([np.cumsum(norms(np.diff(line, axis=0))) for line in lines]) - size
    tree = shapely.STRtree(shapely.linestrings(np.stack([start, end], axis=1)))
    middle = edges.mean(axis=1)
    spot, piece = tree.query(shapely.points(middle), predicate="dwithin", distance=_NEAR)
    way = edges[:, 1] - edges[:, 0]
    unit = way / np.maximum(norms(way), 1e-12)[:, None]
    along = (end - start) / np.maximum(size, 1e-12)[:, None]
    tiny = (norms(way)[spot] < 0.1) | (size[piece] < 0.1)
    level = np.abs((unit[spot] * along[piece]).sum(axis=1)) > np.where(tiny, 0.5, 0.98)
    spot, piece = spot[level], piece[level]
    place = before[piece] + np.clip(
        ((middle[spot] - start[piece]) * along[piece]).sum(axis=1), 0, size[piece]
    )
    return spot, owner[piece], place


def enclosed(ring: Floats) -> Any:
    """The kernel's shape of what a closed polyline (n, 2) goes round, valid where it crosses itself, too."""
    # what lies in a hair's breadth costs much to repair, and encloses nothing
    rounded = np.round(ring / _FINE) * _FINE
    rounded = rounded[np.concatenate([[True], (np.diff(rounded, axis=0) != 0).any(axis=1)])]
    shape = shapely.polygons(rounded if len(rounded) > 3 else ring)
    shape = shape if shapely.is_valid(shape) else shapely.make_valid(shape)
    shapely.prepare(shape)
    return shape


def crossing(a: Any, b: Any) -> Floats | None:
    """A place at which two closed polylines cross, neither within the other, of what they enclose; None where there is
    none."""
    if not shapely.intersects(a, b):
        return None
    both = shapely.intersection(a, b)
    area = float(shapely.area(both))
    least = min(float(shapely.area(a)), float(shapely.area(b)))
    if area < 0.05 or area > least - 0.05:
        return None
    return np.asarray(shapely.get_coordinates(shapely.point_on_surface(both))[0])
