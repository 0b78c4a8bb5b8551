"""The piece folded flat, fold by fold: where each face comes to lie, and in which order.

The front stays where it is in the flat view. A fold turns what hangs on its moving side
through joints, and not all that lies beyond its line: folds of equal order fold together, and
faces an even number of them away from the front nest without being turned. What cannot be
folded so is told with its place.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from stileblade.card.creases import Direction
from stileblade.folding.boxes import flat_box, mapped_box
from stileblade.folding.faces import Joint, Sheet, sheet_of
from stileblade.folding.troubles import NEAR, Stage, Trouble, caught, hanging, swung_through
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Bools, Floats
from stileblade.geometry.curves.transforms import after, identity
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work

CRUMB = 4.0
"""mm^2: what is no larger and hangs on nothing falls out, and is no part of the closed card."""
COARSE = 0.05
"""mm: overlaps and collisions are looked for on outlines thinned out to this."""


@dataclass(frozen=True, eq=False)
class Face:
    """A face in the flat view and in the closed card: its name, and the panel that it is of.

    ``box`` is its exact box, flat; ``closed`` maps the flat view to its place in the closed
    card; ``level`` counts the layers above it there; ``parent`` and ``joint`` say on what it
    hangs, ``loose`` that it hangs on nothing at all.
    """

    name: str
    panel: str
    cell: Cell
    box: Box
    parent: int | None
    joint: Joint | None
    closed: Floats
    level: int
    loose: bool

    @property
    def turned(self) -> bool:
        """Whether its inside is towards the viewer of the closed card's front."""
        return bool(np.linalg.det(self.closed[:, :2]) < 0)

    @cached_property
    def closed_cell(self) -> Cell:
        return kernel.mapped(self.cell, self.closed)


@dataclass(frozen=True, eq=False)
class Folded:
    """order: the faces' numbers from the front of the closed card to its back."""

    faces: tuple[Face, ...]
    order: tuple[int, ...]
    layers: int
    """Sheets on top of each other at the thickest place."""
    closed_box: Box
    troubles: tuple[Trouble, ...]
    over: Bools
    """Which faces (n, n) lie on or under each other in the closed card."""

    @property
    def closed(self) -> tuple[float, float]:
        """Width and height of the closed outline, exact."""
        return self.closed_box.width, self.closed_box.height


def is_shut(fold: Fold) -> bool:
    return fold.folds and fold.crease.shut


@lru_cache(maxsize=64)
def fold_flat(work: Work) -> Folded:
    """The piece folded flat. Without folds it is its own only face."""
    sheet = sheet_of(work)
    shapes = [kernel.coarser(c, COARSE) for c in sheet.cells]
    shut = [is_shut(f) for f in work.folds]
    closed, apart = _places(work, sheet, shut)
    order, troubles = _folded(work, sheet, shapes)
    parents = dict(sheet.tree())
    placed = [kernel.mapped(s, m) for s, m in zip(shapes, closed, strict=True)]
    over = _overlaps(placed)
    level = [0] * len(placed)
    for n, face in enumerate(order):
        level[face] = max((level[g] + 1 for g in order[:n] if over[face, g]), default=0)
    faces = tuple(
        Face(
            name,
            sheet.panels[i],
            cell,
            flat_box(work, sheet, i),
            parents[i].other(i) if i in parents else None,
            parents.get(i),
            closed[i],
            level[i],
            i not in parents and i != sheet.root,
        )
        for i, (name, cell) in enumerate(zip(sheet.names, sheet.cells, strict=True))
    )
    held = [i for i, f in enumerate(faces) if not f.loose or kernel.area_of(f.cell) > CRUMB]
    boxes = [mapped_box(work, sheet, i, faces[i].box, faces[i].closed) for i in held]
    box = Box(
        min(b.left for b in boxes),
        min(b.head for b in boxes),
        max(b.right for b in boxes),
        max(b.foot for b in boxes),
    )
    return Folded(faces, order, kernel.deepest(placed), box, (*apart, *troubles), over)


@lru_cache(maxsize=64)
def over_each_other(work: Work) -> tuple[tuple[int, ...], ...]:
    """Per fold the numbers of the others with which it opens and shuts in their order: in the closed card
    what lies on either side of it lies on or under what does so of the other. Others turn by themselves."""
    folded = fold_flat(work)
    faces, count = folded.faces, len(work.folds)
    hung = np.zeros((count, len(faces)), bool)
    for number, face in enumerate(faces):
        at: Face | None = face
        while at is not None and at.joint is not None and at.parent is not None:
            hung[at.joint.fold, number] = True
            at = faces[at.parent]
    near = (folded.over | np.eye(len(faces), dtype=bool)).astype(np.int32)
    sides = [hung.astype(np.int32), (~hung).astype(np.int32)]
    # together: whichever side of the one is taken with whichever of the other, they meet
    together = np.ones((count, count), bool)
    for one in sides:
        for other in sides:
            together &= (one @ near @ other.T) > 0
    return tuple(
        tuple(g for g in np.flatnonzero(row).tolist() if g != f) for f, row in enumerate(together)
    )


def _places(work: Work, sheet: Sheet, shut: list[bool]) -> tuple[list[Floats], list[Trouble]]:
    """Each face's map with the given folds shut; and joints that do not come together then."""
    maps = [identity() for _ in sheet.cells]
    hung = set()
    for face, joint in sheet.tree():
        hung.add(joint)
        parent = maps[joint.other(face)]
        maps[face] = (
            after(parent, work.folds[joint.fold].line.mirror()) if shut[joint.fold] else parent
        )
    apart = []
    for joint in sheet.joints:
        if joint in hung:
            continue
        ends = np.array([joint.start, joint.end])
        images = [ends @ maps[f][:, :2].T + maps[f][:, 2] for f in (joint.a, joint.b)]
        by = float(norms(images[0] - images[1]).max())
        image = maps[joint.a]
        if shut[joint.fold]:
            image = after(image, work.folds[joint.fold].line.mirror())
        same = np.allclose(image, maps[joint.b], atol=1e-3)
        if by > NEAR or not same:
            apart.append(
                Trouble(
                    "apart",
                    sheet.names[joint.b],
                    work.folds[joint.fold].name,
                    by,
                    (joint.start, joint.end),
                )
            )
    return maps, apart


def _overlaps(placed: list[Cell]) -> Bools:
    n = len(placed)
    found = np.zeros((n, n), bool)
    for i in range(n):
        for j in range(i):
            found[i, j] = found[j, i] = kernel.overlap(placed[i], placed[j]) > 0.5
    return found


def _folded(work: Work, sheet: Sheet, shapes: list[Cell]) -> tuple[tuple[int, ...], list[Trouble]]:
    """The order from front to back, after all groups of folds in their sequence. Steps that stand
    forward fold between their panels and have no say in how these fold."""
    whole = sheet
    inner = [work.folds[j.fold].crease.inner for j in sheet.joints]
    sheet = replace(
        sheet, joints=tuple(j for j, i in zip(sheet.joints, inner, strict=True) if not i)
    )
    strips = _strips([j for j, i in zip(whole.joints, inner, strict=True) if i], sheet, whole)
    order = [f for f in range(len(shapes)) if f not in strips]
    turned = [False] * len(shapes)
    done = [False] * len(work.folds)
    troubles: list[Trouble] = []
    for number in sorted({f.crease.order for f in work.folds if is_shut(f)}):
        group = [is_shut(f) and f.crease.order == number for f in work.folds]
        moves, behind, odd = _moving(work, sheet, group, turned)
        troubles += odd
        if not any(moves):
            continue
        maps, _ = _places(work, sheet, done)
        placed = [kernel.mapped(s, m) for s, m in zip(shapes, maps, strict=True)]
        stage = Stage(work, sheet, order, maps, placed)
        troubles += swung_through(stage, group, moves, behind)
        back = [f for f in reversed(order) if moves[f] and behind[f]]
        front = [f for f in reversed(order) if moves[f] and not behind[f]]
        order = front + [f for f in order if not moves[f]] + back
        turned = [t != m for t, m in zip(turned, moves, strict=True)]
        done = [d or g for d, g in zip(done, group, strict=True)]
        maps, _ = _places(work, sheet, done)
        placed = [kernel.mapped(s, m) for s, m in zip(shapes, maps, strict=True)]
        troubles += caught(Stage(work, sheet, order, maps, placed), done)
    once: dict[tuple[str, str, str], Trouble] = {}
    for trouble in troubles:
        once.setdefault((trouble.what, trouble.face, trouble.fold), trouble)
    return tuple(_with_strips(order, strips, whole)), list(once.values())


def _strips(inner: list[Joint], outer: Sheet, whole: Sheet) -> set[int]:
    """The faces of steps that stand forward: those that hang on their folds alone."""
    hung = {whole.root} | {f for j in outer.joints for f in (j.a, j.b)}
    return {f for j in inner for f in (j.a, j.b)} - hung


def _with_strips(order: list[int], strips: set[int], sheet: Sheet) -> list[int]:
    """The order with the strips between the panels that they hang on, each strip's face next to
    its own panel."""
    left = set(strips)
    while left:
        placed = {
            j.other(f): f
            for j in sheet.joints
            for f in (j.a, j.b)
            if f in left and j.other(f) in order
        }
        if not placed:
            return order + sorted(left)
        panel = min(placed, key=order.index)
        order.insert(order.index(panel) + 1, placed[panel])
        left.discard(placed[panel])
    return order


def _moving(
    work: Work, sheet: Sheet, group: list[bool], turned: list[bool]
) -> tuple[list[bool], list[bool], list[Trouble]]:
    """Which faces the group turns over, and whether they go behind; contradictions as troubles."""
    moves = [False] * len(turned)
    odd: list[Trouble] = []
    told: dict[int, bool] = {}
    for face, joint in sheet.tree():
        moves[face] = moves[joint.other(face)] != group[joint.fold]
    for joint in sheet.joints:
        if not group[joint.fold]:
            continue
        still, moving = (joint.b, joint.a) if moves[joint.a] else (joint.a, joint.b)
        if moves[still] or not moves[moving]:
            continue
        goes = (joint.direction is not Direction.VALLEY) != turned[still]
        if told.get(moving, goes) != goes:
            fold = work.folds[joint.fold]
            odd.append(
                Trouble("apart", sheet.names[moving], fold.name, 0.0, (joint.start, joint.end))
            )
            continue
        told.update(dict.fromkeys(hanging(sheet, group, moving), goes))
    behind = [told.get(face, False) for face in range(len(turned))]
    return moves, behind, odd
