"""Shallow corners that the kernel's buffer would leave out: a hundredth of its distance is none to it.

A step of 0.03 mm in an outline that is grown by 4 mm moves a whole side by as much. Where an outline has
such corners, its stretches between them are buffered by themselves, which ends cannot be left out of.
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.flatten import pack
from stileblade.geometry.curves.parallel import OffsetCurves
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.curves.vectors import crosses, norms

_SHARE = 0.0101
"""Of its distance: corners inside bends are left out by the kernel where they are less deep."""
_SEEN = 0.002
"""mm: what is less deep is left out with no harm."""
_MOST = 200
"""Such corners; a finely drawn outline has thousands of corners so shallow, and no long side that one could move."""


def stretches_between_shallow(
    shape: shapely.Geometry, distance: float, curves: OffsetCurves
) -> np.ndarray | None:
    """The outlines of ``shape`` as lines that begin and end at its shallow corners; None where it has
    none that the kernel would leave out, or is finely drawn."""
    if _SHARE * abs(distance) <= _SEEN:
        return None
    corners = np.unique(pack(curves.segments.start[~curves.runs_on]))
    rings = [shapely.get_coordinates(ring)[:-1] for ring in shapely.get_rings(shape)]
    at = [_shallow(points, distance, corners) for points in rings]
    if not 0 < sum(map(len, at)) <= _MOST:
        return None
    return np.concatenate([_split(p, stops) for p, stops in zip(rings, at, strict=True)])


def _split(points: Floats, stops: Ints) -> np.ndarray:
    """A ring's points (n, 2) as lines from stop to stop; as one that closes where there is none."""
    first = int(stops[0]) if len(stops) else 0
    turned = np.roll(points, -first, axis=0)
    turned = np.concatenate([turned, turned[:1]])
    ends = [*(stops - first).tolist(), len(points)] if len(stops) else [0, len(points)]
    return np.array([shapely.linestrings(turned[a : b + 1]) for a, b in pairwise(ends)], object)


def _shallow(points: Floats, distance: float, corners: Ints) -> Ints:
    """Which of a ring's points are corners inside a bend, as seen from the side that it is moved to, so
    shallow that they would be left out."""
    before, after = np.roll(points, 1, axis=0), np.roll(points, -1, axis=0)
    chord = after - before
    depth = crosses(points - before, chord) / np.maximum(norms(chord), 1e-12)
    inside = -depth if distance > 0 else depth
    shallow = true_at((inside < _SHARE * abs(distance)) & (inside > _SEEN))
    return shallow[np.isin(pack(points[shallow]), corners)]
