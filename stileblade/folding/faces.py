"""A piece cut at its folds: its faces, and the joints on which they hang together."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from stileblade.card.creases import ENDLESS, Direction, Stretch
from stileblade.geometry.curves.arrays import ranks
from stileblade.geometry.curves.measurement import extremes
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.arrangement import Crease, arrange
from stileblade.geometry.measures.cells import Cell, area_of, shares_in
from stileblade.geometry.regions.along import points_along_each
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work

BESIDE = 0.03
"""mm: from a crease to a place that is surely on one side of it."""
_AS_LARGE = 1e-3
"""mm^2: faces whose areas differ by no more count in the order in which they lie."""


_ROUNDED = 1e-5
"""mm: corners of flattened outlines are rounded by less."""
HOLDS = 1e-3
"""mm: what hangs on less of a crease hangs on nothing."""


@dataclass(frozen=True)
class Joint:
    """A stretch of a fold with a face on either side. ``fold`` is its number in the piece; face
    ``a`` lies on the side that the fold's normal points to."""

    fold: int
    a: int
    b: int
    start: Point
    end: Point
    direction: Direction

    def other(self, face: int) -> int:
        return self.b if face == self.a else self.a


@dataclass(frozen=True, eq=False)
class Sheet:
    """names and cells of the faces, and the panel that most of each lies in; root is the face that
    stays where it is."""

    names: tuple[str, ...]
    panels: tuple[str, ...]
    cells: tuple[Cell, ...]
    joints: tuple[Joint, ...]
    root: int

    def tree(self) -> Iterator[tuple[int, Joint]]:
        """Faces other than the root with the joint that they hang on, each after its parent."""
        seen, waiting = {self.root}, [self.root]
        while waiting:
            face = waiting.pop(0)
            for joint in self.joints:
                if face in (joint.a, joint.b):
                    other = joint.other(face)
                    if other not in seen:
                        seen.add(other)
                        waiting.append(other)
                        yield other, joint


@lru_cache(maxsize=64)
def sheet_of(work: Work) -> Sheet:
    """Faces and joints of a piece that has paper. Which faces there are, and which hang together, is read
    off the outline noded with the folds."""
    numbers = [i for i, f in enumerate(work.folds) if f.folds]
    creases = [
        Crease(fold.line, tuple((s.low, s.high) for s in _stretches(fold)))
        for fold in (work.folds[i] for i in numbers)
    ]
    slits = points_along_each(work.slits)
    made = arrange(work.paper, creases, slits)
    joints: dict[tuple[int, int, int, Direction], Joint] = {}
    for seam in sorted(made.seams, key=lambda s: s.low - s.high):
        if seam.high - seam.low < HOLDS:
            continue
        number = numbers[seam.crease]
        fold, middle = work.folds[number], (seam.low + seam.high) / 2
        direction = next(s.direction for s in _stretches(fold) if s.low <= middle <= s.high)
        ends = _exact(work, fold, seam.low), _exact(work, fold, seam.high)
        joint = Joint(number, seam.above, seam.below, *ends, direction)
        joints.setdefault((number, seam.above, seam.below, direction), joint)
    order = sorted(
        joints.values(), key=lambda j: (j.fold, work.folds[j.fold].line.place_of(j.start))
    )
    cells = list(made.faces)
    names, panels, root = _named(work, cells)
    return Sheet(tuple(names), tuple(panels), made.faces, tuple(order), root)


def _exact(work: Work, fold: Fold, along: float) -> Point:
    """The place of a fold so far along it: the exact end of a span where it is one but for rounding."""
    for span in work.spans[fold.name]:
        for end in (span.start, span.end):
            if abs(fold.line.place_of(end) - along) < _ROUNDED:
                return end
    return fold.line.point_at(along)


def _stretches(fold: Fold) -> tuple[Stretch, ...]:
    return fold.crease.stretches or (Stretch(-ENDLESS, ENDLESS, fold.direction),)


def _named(work: Work, cells: list[Cell]) -> tuple[list[str], list[str], int]:
    """Names by the panel that most of each cell lies in, numbered where it is not the largest;
    those panels; and the root: the largest part of the front panel."""
    by_size = (
        ranks(-np.array([area_of(c) for c in cells]), _AS_LARGE).argsort(kind="stable").tolist()
    )
    names, panels, used = [""] * len(cells), [""] * len(cells), dict[str, int]()
    boxes = [p.box for p in work.panels]
    for i in by_size:
        name = "part"
        if boxes:
            name = work.panels[int(np.argmax(shares_in(cells[i], boxes)))].name
        panels[i] = name
        used[name] = used.get(name, 0) + 1
        names[i] = name if used[name] == 1 else f"{name} {used[name]}"
    root = names.index(work.front) if work.front in names else by_size[0]
    return names, panels, root


@lru_cache(maxsize=64)
def outermost(work: Work) -> Floats:
    """Places (n, 2) where a face's box can be reached: corners, extremes of curves, ends of spans."""
    segments = work.paper.segments
    points = [segments.start, segments.points_at(*extremes(segments))]
    spans = [p for found in work.spans.values() for s in found for p in (s.start, s.end)]
    if spans:
        points.append(np.array(spans))
    return np.concatenate(points)
