"""When faces come loose, and what is still to be done in them then."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Bools, Floats, Ints
from stileblade.geometry.measures.faces import Face
from stileblade.geometry.measures.widths import widest

_GRID = 1000.0
_HAIR = 0.02
_FINE = 0.01


def edges_by_place(edges: Floats) -> dict[tuple[int, int, int, int], int]:
    """Edges by their ends, whichever way they run."""
    ends = np.rint(edges * _GRID).astype(np.int64).reshape(-1, 4)
    swap = (ends[:, 0] > ends[:, 2]) | ((ends[:, 0] == ends[:, 2]) & (ends[:, 1] > ends[:, 3]))
    ends[swap] = ends[swap][:, [2, 3, 0, 1]]
    return {(a, b, c, d): i for i, (a, b, c, d) in enumerate(ends.tolist())}


def _edges_of(ring: Face, known: dict[tuple[int, int, int, int], int]) -> Ints:
    points = np.rint(shapely.get_coordinates(ring) * _GRID).astype(np.int64).tolist()
    found = []
    for (ax, ay), (bx, by) in pairwise(points):
        key = (ax, ay, bx, by) if (ax, ay) <= (bx, by) else (bx, by, ax, ay)
        number = known.get(key)
        if number is not None:
            found.append(number)
    return np.array(found, np.int64)


def loose_at(faces: Sequence[Face], edges: Floats, times: Floats) -> Floats:
    """When the outer outline of each face was whole (n,), from the times (m,) of the edges."""
    known = edges_by_place(edges)
    found = np.zeros(len(faces))
    for i, face in enumerate(faces):
        around = _edges_of(shapely.get_exterior_ring(face), known)
        found[i] = times[around].max() if len(around) else 0.0
    return found


def together(faces: Sequence[Face]) -> list[Face]:
    """What faces that share a cut make together, where they are several: it is loose from the sheet as
    one, before the cuts between them are done."""
    if len(faces) < 2:
        return []
    shapes = np.array(faces)
    first, second = shapely.STRtree(shapes).query(shapes, predicate="intersects")
    pairs = first < second
    first, second = first[pairs], second[pairs]
    shared = shapely.length(shapely.intersection(shapes[first], shapes[second])) > 0.5
    group = np.arange(len(faces))
    for a, b in zip(first[shared], second[shared], strict=True):
        group[group == group[b]] = group[a]
    found = []
    for number in np.unique(group):
        members = shapes[group == number]
        if len(members) > 1:
            whole = shapely.union_all(members)
            found += [p for p in shapely.get_parts(whole) if shapely.get_type_id(p) == 3]
    return found


def filled(face: Face) -> Face:
    """The face as if nothing were cut out of it."""
    return shapely.polygons(shapely.get_exterior_ring(face))


def inside(face: Face, places: Floats) -> Bools:
    """Which places (n, 2) lie within a face by more than a twentieth of a mm."""
    inner = shapely.buffer(face, -0.05, quad_segs=2)
    if shapely.is_empty(inner):
        return np.zeros(len(places), bool)
    shapely.prepare(inner)
    return np.asarray(shapely.contains_xy(inner, places[:, 0], places[:, 1]))


def box_of(face: Face) -> Box:
    return Box(*(float(v) for v in shapely.bounds(face)))


def area_of(face: Face) -> float:
    return float(shapely.area(face))


def rings_in(face: Face) -> int:
    """How many contours a face has."""
    return 1 + int(shapely.get_num_interior_rings(face))


def outlines_of(face: Face) -> list[Floats]:
    """The contours of a face as closed polylines (n, 2)."""
    rings = shapely.get_rings(face)
    return [np.asarray(shapely.get_coordinates(ring)) for ring in rings]


def middle_of(face: Face) -> tuple[float, float]:
    """A place within the face."""
    (x, y) = shapely.get_coordinates(shapely.point_on_surface(face))[0]
    return float(x), float(y)


def apart(first: Face, second: Face) -> float:
    """The greatest distance in mm of two faces' outlines from each other. At needle-sharp tips, where a
    hair's breadth moves the end far, it is how wide the strip is that one has and the other has not."""
    a = shapely.segmentize(shapely.boundary(_shaved(first)), 1.0)
    b = shapely.segmentize(shapely.boundary(_shaved(second)), 1.0)
    away = float(shapely.hausdorff_distance(a, b))
    if away <= _FINE:
        return away
    return min(away, widest(shapely.symmetric_difference(first, second)))


def _shaved(face: Face) -> Face:
    """Without what is no wider than a hair: a cut there and back."""
    inner = shapely.buffer(face, -_HAIR / 2, join_style="mitre")
    found = shapely.buffer(inner, _HAIR / 2, join_style="mitre")
    return face if shapely.is_empty(found) else found


def likeness(first: Face, second: Face) -> float:
    """Of two faces, what they share as a part of what they cover, 0 to 1."""
    both = float(shapely.area(shapely.intersection(first, second)))
    return both / max(float(shapely.area(first)) + float(shapely.area(second)) - both, 1e-12)


def polygon(places: Floats) -> Face:
    """What a closed polyline encloses."""
    return shapely.polygons(places)


def mapped(face: Face, matrix: Floats) -> Face:
    """Mapped by a 2x3 matrix."""
    return shapely.transform(face, lambda p: p @ matrix[:, :2].T + matrix[:, 2])


def holding(faces: Sequence[Face], place: tuple[float, float]) -> Ints:
    """Numbers of the faces that a place lies in."""
    if not len(faces):
        return np.zeros(0, np.int64)
    return true_at(shapely.intersects_xy(np.array(faces), *place))
