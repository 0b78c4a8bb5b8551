"""A piece cut at its folds: its faces, and the joints on which they hang together."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from stileblade.card.creases import Direction
from stileblade.geometry.curves.arrays import ranks
from stileblade.geometry.curves.measurement import extremes
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.cells import Cell, area_of, cells_of, holding, shares_in
from stileblade.geometry.regions.along import points_along
from stileblade.piece.folds import Fold, Span
from stileblade.piece.work import Work

BESIDE = 0.03
"""mm: what lies this near on either side of a crease hangs on it."""
PROBED = 2.0
"""mm from one place to the next at which it is looked at what lies beside a crease."""
MOST_PROBES = 200
_AS_LARGE = 1e-3
"""mm^2: faces whose areas differ by no more count in the order in which they lie."""


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
    """Faces and joints of a piece that has paper."""
    folding = [(i, f) for i, f in enumerate(work.folds) if f.folds]
    spans = [(i, f, s) for i, f in folding for s in work.spans[f.name]]
    slits = [points_along(way) for way in work.slits]
    cells = cells_of(work.paper, [(s.start, s.end) for _, _, s in spans], slits)
    joints: dict[tuple[int, int, int, Direction], Joint] = {}
    pieces = [(i, f, part) for i, f, s in spans for part in _between_crossings(f, s, spans)]
    if pieces:
        beside = _beside([(f, part) for _, f, part in pieces], cells)
        for (i, _, part), faces in zip(pieces, beside, strict=True):
            for a, b in faces:
                joint = Joint(i, a, b, part.start, part.end, part.direction)
                joints.setdefault((i, a, b, part.direction), joint)
    names, panels, root = _named(work, cells)
    return Sheet(tuple(names), tuple(panels), tuple(cells), tuple(joints.values()), root)


def _beside(parts: list[tuple[Fold, Span]], cells: list[Cell]) -> list[list[tuple[int, int]]]:
    """For each part of a fold the faces that lie on either side of it: all along it, since a window
    or a notch may reach up to the fold anywhere."""
    counts = [int(np.clip(span.length / PROBED, 3, MOST_PROBES)) for _, span in parts]
    spots = np.concatenate(
        [
            np.array(span.start)
            + ((np.arange(n) + 0.5) / n)[:, None] * np.subtract(span.end, span.start)
            for (_, span), n in zip(parts, counts, strict=True)
        ]
    )
    part = np.repeat(np.arange(len(parts)), counts)
    normals = np.array([fold.line.normal for fold, _ in parts])[part]
    above = holding(cells, spots + normals * BESIDE)
    below = holding(cells, spots - normals * BESIDE)
    hold = (above >= 0) & (below >= 0) & (above != below)
    known = {*zip(part[hold].tolist(), above[hold].tolist(), below[hold].tolist(), strict=True)}
    found: list[list[tuple[int, int]]] = [[] for _ in parts]
    for number, a, b in sorted(known):
        found[number].append((a, b))
    return found


def _between_crossings(
    fold: Fold, span: Span, others: list[tuple[int, Fold, Span]]
) -> Iterator[Span]:
    """The span in parts, where other folds run across it."""
    low, high = fold.line.place(np.array([span.start, span.end])).tolist()
    stops = [low, high]
    for _, other, crossing in others:
        if other is fold:
            continue
        p, q = ends = np.array([crossing.start, crossing.end])
        off = fold.line.off(ends)
        if off[0] * off[1] < 0 or min(abs(off)) < BESIDE < max(abs(off)):
            meet = p + (q - p) * off[0] / (off[0] - off[1])
            stops.append(float(fold.line.place(meet[None])[0]))
    stops = sorted(s for s in stops if low <= s <= high)
    for a, b in pairwise(stops):
        if b - a > 2 * BESIDE:
            yield Span(fold.line.point_at(a), fold.line.point_at(b), span.direction)


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
