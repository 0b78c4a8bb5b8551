"""Flattened parts of a region, between straight cuts: what a folded piece is made of.

Cells are polygons of the kernel, corners within 0.005 mm left out. Measures taken of them are
good to that; what must be exact is measured on the outline itself.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any, TypeAlias

import numpy as np
import shapely

from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import Bools, Floats, Ints
from stileblade.geometry.measures.distances import simpler, thin
from stileblade.geometry.measures.simplification import simplified
from stileblade.geometry.regions.region import Region

Cell: TypeAlias = Any
"""A polygon or several of the kernel, which has no types of its own."""
FINE = 0.005


def _sound(shape: Cell) -> Cell:
    return shape if shapely.is_valid(shape) else shapely.make_valid(shape)


def holding(cells: Sequence[Cell], points: Floats) -> Ints:
    """For each of the points (n, 2) the cell that it lies in, -1 where none."""
    shapes = np.array(cells)
    shapely.prepare(shapes)
    hit = shapely.contains_xy(shapes[:, None], points[None, :, 0], points[None, :, 1])
    return np.where(hit.any(axis=0), hit.argmax(axis=0), -1)


def coarser(cell: Cell, tolerance: float) -> Cell:
    """The cell with corners within ``tolerance`` left out, crossing itself nowhere."""
    rough = simpler(
        cell, tolerance
    )  # a fourth of the time, but some cross themselves or lose a ring
    if shapely.is_valid(rough) and len(shapely.get_rings(rough)) == len(shapely.get_rings(cell)):
        return rough
    rough = _sound(simplified(cell, tolerance, valid=True))
    return cell if shapely.is_empty(rough) else rough


def corners(cell: Cell) -> int:
    return int(shapely.get_num_coordinates(cell))


def mapped(cell: Cell, matrix: Floats) -> Cell:
    """Mapped by a 2x3 matrix."""
    return shapely.transform(cell, lambda p: p @ matrix[:, :2].T + matrix[:, 2])


def overlap(first: Cell, second: Cell) -> float:
    """Area in mm^2 that the two have in common."""
    return float(shapely.area(shapely.intersection(first, second)))


def united(cells: Iterable[Cell]) -> Cell:
    return shapely.union_all(list(cells))


def less(first: Cell, second: Cell) -> Cell:
    """What of the first lies outside the second; hairs that only rounding leaves are dropped."""
    if _hidden(first, second):  # of two that all but coincide the kernel makes hard work
        return shapely.Polygon()
    rest = shapely.difference(first, second)
    if shapely.area(rest) < 1e-3:
        return shapely.Polygon()
    return shapely.buffer(shapely.buffer(rest, -FINE), FINE)


def _hidden(first: Cell, second: Cell) -> bool:
    """Whether no more than a hair of the first stands out of the second."""
    if shapely.is_empty(first) or shapely.is_empty(second):
        return False
    (l0, h0, r0, f0), (l1, h1, r1, f1) = shapely.bounds(first), shapely.bounds(second)
    if l0 < l1 - FINE or h0 < h1 - FINE or r0 > r1 + FINE or f0 > f1 + FINE:
        return False
    grown = shapely.buffer(second, FINE, quad_segs=2)
    shapely.prepare(grown)
    return bool(shapely.contains(grown, first))


def common(first: Cell, second: Cell) -> Cell:
    """What the two have in common, without lines and points."""
    return _surfaces(shapely.intersection(first, second))


def _surfaces(shape: Cell) -> Cell:
    if shapely.get_type_id(shape) in (3, 6):
        return shape
    parts = shapely.get_parts(shape)
    return shapely.union_all(parts[np.isin(shapely.get_type_id(parts), (3, 6))])


def flattened(region: Region) -> Cell:
    """All of a region as one cell."""
    return _sound(thin(region, FINE))


def boxes(some: Sequence[Box]) -> Cell:
    """Boxes that do not overlap, as one cell."""
    edges = np.array([box.as_list() for box in some])
    return shapely.multipolygons(shapely.box(*edges.T))


def discs(centres: Floats, radius: float) -> Cell:
    """Circles about places (n, 2) that do not overlap, roughly round, as one cell."""
    return shapely.multipolygons(shapely.buffer(shapely.points(centres), radius, quad_segs=3))


def within(inner: Cell, outer: Cell) -> bool:
    """Whether all of the inner shape but half a mm^2 lies in the outer one."""
    (l0, h0, r0, f0), (l1, h1, r1, f1) = shapely.bounds(inner), shapely.bounds(outer)
    if l0 < l1 - 0.5 or h0 < h1 - 0.5 or r0 > r1 + 0.5 or f0 > f1 + 0.5:
        return False
    return float(shapely.area(inner)) - overlap(inner, outer) <= 0.5


def area_of(cell: Cell) -> float:
    return float(shapely.area(cell))


def moment_of(cell: Cell) -> tuple[float, Floats]:
    """Area in mm^2, and the centre of mass (2,)."""
    return float(shapely.area(cell)), shapely.get_coordinates(shapely.centroid(cell))[0]


def box_of(cell: Cell) -> Box:
    return Box(*map(float, shapely.bounds(cell)))


def near(cell: Cell, points: Floats, reach: float) -> Bools:
    """Which of the points (n, 2) lie in the cell or no further from it than ``reach``; of few, since
    nothing is prepared for it."""
    return np.asarray(shapely.dwithin(cell, shapely.points(points), reach))


def away(cell: Cell, points: Floats) -> Floats:
    """How far the points (n, 2) are from the cell, 0 inside it."""
    return np.asarray(shapely.distance(cell, shapely.points(points)))


def shares_in(cell: Cell, boxes: Sequence[Box]) -> Floats:
    """Areas (n,) of the cell in each of the boxes."""
    found = shapely.box(*np.array([b.as_list() for b in boxes]).T)
    return np.asarray(shapely.area(shapely.intersection(cell, found)))


def points_of(cell: Cell) -> Floats:
    return np.asarray(shapely.get_coordinates(cell))


def length_in(cell: Cell, start: Point, end: Point) -> float:
    """How much of a straight line lies in the cell, its edges not counted."""
    line = shapely.linestrings([start, end])
    inside = shapely.difference(shapely.intersection(line, cell), shapely.boundary(cell))
    return float(shapely.length(inside))


def lines_in(cell: Cell, lines: Sequence[Floats]) -> list[Floats]:
    """What of polylines (n, 2) lies in the cell."""
    some = [line for line in lines if len(line) > 1]
    if not some:
        return []
    found = shapely.intersection(np.array([shapely.linestrings(line) for line in some]), cell)
    # what only touches the cell comes as points, and what misses it as an empty line
    parts = shapely.get_parts(shapely.get_parts(found))
    lines = parts[(shapely.get_type_id(parts) == 1) & ~shapely.is_empty(parts)]
    return [shapely.get_coordinates(line) for line in lines]


def simpler_line(line: Floats, tolerance: float) -> Floats:
    """A polyline (n, 2) with fewer places, within a tolerance."""
    if len(line) < 3:
        return line
    return np.asarray(shapely.get_coordinates(simplified(shapely.linestrings(line), tolerance)))


def beyond(cell: Cell, line: Line, side: float) -> Cell:
    """What of the cell lies on a side of a line: 1 where its normal points to, -1 on the other."""
    points = points_of(cell)
    places = line.place(points)
    reach = float(np.ptp(points, axis=0).sum() + np.abs(line.off(points)).max()) + 1.0
    along = np.array([line.point_at(places.min() - 1), line.point_at(places.max() + 1)])
    away = line.normal * side * reach
    half = shapely.polygons(np.concatenate([along, along[::-1] + away]))
    return shapely.intersection(cell, half)


def deepest(shapes: Sequence[Cell]) -> int:
    """How many of the shapes lie on top of each other at the thickest place (more than a
    hundredth of a mm^2 of it)."""
    return round(thickest([(shape, 1.0) for shape in shapes]))


def thickest(shapes: Sequence[tuple[Cell, float]]) -> float:
    """The greatest sum of heights on any place (of more than a hundredth of a mm^2) that shapes, each with
    its height, lie on: of the faces into which all their outlines part the plane."""
    there = [(shape, height) for shape, height in shapes if not shapely.is_empty(shape)]
    if not there:
        return 0.0
    cells = np.array([shape for shape, _ in there])
    heights = np.array([height for _, height in there])
    lines = shapely.union_all(shapely.boundary(cells))
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(lines)))
    places = shapely.get_coordinates(shapely.point_on_surface(faces[shapely.area(faces) >= 0.01]))
    shapely.prepare(cells)
    hit = shapely.contains_xy(cells[:, None], places[None, :, 0], places[None, :, 1])
    return float((heights @ hit).max(initial=0.0))


def filled_cell(cell: Cell) -> Cell:
    """The cell with its openings closed."""
    parts = shapely.get_parts(cell)
    parts = parts[shapely.get_type_id(parts) == 3]
    return shapely.union_all(shapely.polygons(shapely.get_exterior_ring(parts)))
