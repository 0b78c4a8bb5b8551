"""Faces of a piece between its folds, and where they lie when it is closed.

The front stays where it is in the flat view; each further face is mirrored across the fold
that joins it. The closed outline is the union of all faces as they lie.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from stileblade.build.work import Fold, Work
from stileblade.geometry.measurement import extremes
from stileblade.geometry.region import Box, Region
from stileblade.geometry.segments import Floats
from stileblade.geometry.set_operations import cut_off
from stileblade.geometry.transforms import after, identity, mirror_across


@dataclass(frozen=True, eq=False)
class Face:
    """A panel's paper in the flat view: what lies in ``strip`` (from, to) along the fold's axis.

    ``box`` is its exact box; ``parent`` the face it hangs on by ``fold``; ``closed`` maps the
    flat view to its place in the closed card.
    """

    panel: str
    strip: tuple[float, float]
    box: Box
    parent: int | None
    fold: Fold | None
    closed: Floats


@dataclass(frozen=True, eq=False)
class Folded:
    faces: tuple[Face, ...]
    axis: str
    layers: int
    """Sheets on top of each other at the thickest place."""

    @property
    def closed(self) -> tuple[float, float]:
        """Width and height of the closed outline, exact."""
        boxes = [f.box.transformed(f.closed) for f in self.faces]
        return (
            max(b.right for b in boxes) - min(b.left for b in boxes),
            max(b.foot for b in boxes) - min(b.head for b in boxes),
        )


@lru_cache(maxsize=64)
def fold_flat(work: Work) -> Folded:
    """The piece folded flat. Without folds it is its own only face."""
    folds = sorted(work.folds, key=lambda f: f.at)
    whole = (-np.inf, np.inf)
    if not folds:
        return Folded((Face("", whole, work.paper.bounds, None, None, identity()),), "x", 1)
    axis = folds[0].axis
    stops = [-np.inf, *(f.at for f in folds), np.inf]
    strips = [(float(a), float(b)) for a, b in pairwise(stops)]
    points = _outermost(work)
    names = [p.name for p in work.panels]
    front = names.index(work.front)
    places: dict[int, Floats] = {front: identity()}
    faces: dict[int, Face] = {}
    for i in (front, *range(front - 1, -1, -1), *range(front + 1, len(names))):
        parent, fold = None, None
        if i != front:
            parent = i + 1 if i < front else i - 1
            fold = folds[min(i, parent)]
            places[i] = after(places[parent], mirror_across(axis=fold.axis, at=fold.at))
        box = _box_in(points, axis, strips[i])
        faces[i] = Face(names[i], strips[i], box, parent, fold, places[i])
    return Folded(tuple(faces[i] for i in range(len(names))), axis, len(names))


def region_of(work: Work, face: Face) -> Region:
    """The face's paper, cut exactly at its folds."""
    region = work.paper
    axis = work.folds[0].axis if work.folds else "x"
    low, high = face.strip
    if np.isfinite(low):
        region = cut_off(region, axis=axis, at=low, keep="more")
    if np.isfinite(high):
        region = cut_off(region, axis=axis, at=high, keep="less")
    return region


def _outermost(work: Work) -> Floats:
    """Places where a face's box can be reached: corners, extremes of curves, ends of spans."""
    segments = work.paper.segments
    points = [segments.start, segments.points_at(*extremes(segments))]
    spans = [p for found in work.spans.values() for s in found for p in (s.start, s.end)]
    if spans:
        points.append(np.array(spans))
    return np.concatenate(points)


def _box_in(points: Floats, axis: str, strip: tuple[float, float]) -> Box:
    across = points[:, 0] if axis == "x" else points[:, 1]
    inside = points[(across >= strip[0] - 1e-9) & (across <= strip[1] + 1e-9)]
    if not len(inside):
        return Box(0.0, 0.0, 0.0, 0.0)
    (left, head), (right, foot) = inside.min(axis=0), inside.max(axis=0)
    return Box(float(left), float(head), float(right), float(foot))
