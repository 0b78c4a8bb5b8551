"""Faces of a piece between its folds, and where they lie when it is closed.

The front stays where it is in the flat view; each further face is mirrored across the fold
that joins it. The closed outline is the union of all faces as they lie.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from stileblade.build.work import Fold, Work
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats
from stileblade.geometry.set_operations import cut_off, union
from stileblade.geometry.transforms import after, identity, mirror_across


@dataclass(frozen=True, eq=False)
class Face:
    """A panel's paper in the flat view; ``parent`` is the face it hangs on by ``fold``."""

    panel: str
    region: Region
    parent: int | None
    fold: Fold | None
    closed: Floats
    """Maps the flat view to its place in the closed card."""


@dataclass(frozen=True, eq=False)
class Folded:
    faces: tuple[Face, ...]
    outline: Region
    """Of the closed card."""
    layers: int
    """Sheets on top of each other at the thickest place."""

    @property
    def closed(self) -> tuple[float, float]:
        box = self.outline.bounds
        return box.width, box.height


@lru_cache(maxsize=64)
def fold_flat(work: Work) -> Folded:
    """The piece folded flat. Without folds it is its own only face."""
    folds = sorted(work.folds, key=lambda f: f.at)
    if not folds:
        face = Face("", work.paper, None, None, identity())
        return Folded((face,), work.paper, 1)
    regions = []
    rest = work.paper
    for fold in folds:
        regions.append(cut_off(rest, axis=fold.axis, at=fold.at, keep="less"))
        rest = cut_off(rest, axis=fold.axis, at=fold.at, keep="more")
    regions.append(rest)
    names = [p.name for p in work.panels]
    front = names.index(work.front)
    places: dict[int, Floats] = {front: identity()}
    faces: dict[int, Face] = {front: Face(names[front], regions[front], None, None, identity())}
    order = [*range(front - 1, -1, -1), *range(front + 1, len(names))]
    for i in order:
        parent = i + 1 if i < front else i - 1
        fold = folds[min(i, parent)]
        places[i] = after(places[parent], mirror_across(axis=fold.axis, at=fold.at))
        faces[i] = Face(names[i], regions[i], parent, fold, places[i])
    outline = faces[front].region
    for i in order:
        outline = union(outline, faces[i].region.transformed(faces[i].closed))
    return Folded(tuple(faces[i] for i in range(len(names))), outline, len(names))
