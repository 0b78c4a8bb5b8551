"""Shallow corners that the kernel's buffer would leave out: a hundredth of its distance is none to it.

A step of 0.03 mm in an outline that is grown by 4 mm moves a whole side by as much. Where an outline has
such corners, its stretches between them are buffered by themselves, which ends cannot be left out of.
"""

from __future__ import annotations

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


def stretches_between_shallow(
    shape: shapely.Geometry, distance: float, curves: OffsetCurves
) -> np.ndarray | None:
    """The outlines of ``shape`` as lines that begin and end at its shallow corners; None where it has
    none that the kernel would leave out."""
    if _SHARE * abs(distance) <= _SEEN:
        return None
    corners = np.unique(pack(curves.segments.start[~curves.runs_on]))
    found, any_shallow = [], False
    for ring in shapely.get_rings(shape):
        points = shapely.get_coordinates(ring)[:-1]
        at = _shallow(points, distance, corners)
        any_shallow |= len(at) > 0
        closed = np.concatenate([points, points[:1]])
        if not len(at):
            found.append(shapely.linestrings(closed))
            continue
        turned = np.roll(points, -int(at[0]), axis=0)
        stops = np.append(at - at[0], len(points))
        turned = np.concatenate([turned, turned[:1]])
        found += [
            shapely.linestrings(turned[a : b + 1])
            for a, b in zip(stops[:-1].tolist(), stops[1:].tolist(), strict=True)
        ]
    return np.array(found, object) if any_shallow else None


def _shallow(points: Floats, distance: float, corners: Ints) -> Ints:
    """Which of a ring's points are corners inside a bend, as seen from the side that it is moved to, so
    shallow that they would be left out."""
    before, after = np.roll(points, 1, axis=0), np.roll(points, -1, axis=0)
    chord = after - before
    depth = crosses(points - before, chord) / np.maximum(norms(chord), 1e-12)
    inside = -depth if distance > 0 else depth
    shallow = true_at((inside < _SHARE * abs(distance)) & (inside > _SEEN))
    return shallow[np.isin(pack(points[shallow]), corners)]
