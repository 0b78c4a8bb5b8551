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
from stileblade.folding.faces import BESIDE, Joint, Sheet, outermost, sheet_of
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.measurement import extremes
from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, identity
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work

COARSE = 0.05
"""mm: overlaps and collisions are looked for on outlines thinned out to this."""
NEAR = 0.05
TIGHT = 1.0
"""mm: a face this near to the crease that it lies in may have no room there."""


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


@dataclass(frozen=True)
class Trouble:
    """Something that cannot be folded. kind: "through" (a face would pass through a crease or
    another face), "tight" (it has no room at a crease), "apart" (creases do not come together).
    ``by`` is the measure in mm, ``at`` where in the flat view."""

    kind: str
    face: str
    fold: str
    by: float
    at: tuple[Point, Point]


@dataclass(frozen=True, eq=False)
class Folded:
    """order: the faces' numbers from the front of the closed card to its back."""

    faces: tuple[Face, ...]
    order: tuple[int, ...]
    layers: int
    """Sheets on top of each other at the thickest place."""
    closed_box: Box
    troubles: tuple[Trouble, ...]

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
            _exact_box(cell, outermost(work)),
            parents[i].other(i) if i in parents else None,
            parents.get(i),
            closed[i],
            level[i],
            i not in parents and i != sheet.root,
        )
        for i, (name, cell) in enumerate(zip(sheet.names, sheet.cells, strict=True))
    )
    boxes = [_closed_box(work, f) for f in faces]
    box = Box(
        min(b.left for b in boxes),
        min(b.head for b in boxes),
        max(b.right for b in boxes),
        max(b.foot for b in boxes),
    )
    return Folded(faces, order, kernel.deepest(placed), box, (*apart, *troubles))


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


def _overlaps(placed: list[Cell]) -> np.ndarray:
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
        troubles += _swung_through(work, sheet, group, moves, behind, order, maps, placed)
        back = [f for f in reversed(order) if moves[f] and behind[f]]
        front = [f for f in reversed(order) if moves[f] and not behind[f]]
        order = front + [f for f in order if not moves[f]] + back
        turned = [t != m for t, m in zip(turned, moves, strict=True)]
        done = [d or g for d, g in zip(done, group, strict=True)]
        maps, _ = _places(work, sheet, done)
        placed = [kernel.mapped(s, m) for s, m in zip(shapes, maps, strict=True)]
        troubles += _caught(work, sheet, done, order, maps, placed)
    once: dict[tuple[str, str, str], Trouble] = {}
    for trouble in troubles:
        once.setdefault((trouble.kind, trouble.face, trouble.fold), trouble)
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
        told.update(dict.fromkeys(_hanging(sheet, group, moving), goes))
    behind = [told.get(face, False) for face in range(len(turned))]
    return moves, behind, odd


def _hanging(sheet: Sheet, group: list[bool], face: int) -> set[int]:
    """The faces that move as one with a face while a group of folds turns."""
    found, waiting = {face}, [face]
    while waiting:
        at = waiting.pop()
        for joint in sheet.joints:
            if at in (joint.a, joint.b) and not group[joint.fold] and joint.other(at) not in found:
                found.add(joint.other(at))
                waiting.append(joint.other(at))
    return found


def _image(line: tuple[Point, Point], matrix: Floats) -> tuple[Point, Point]:
    (a, b), (c, d) = (np.array(line) @ matrix[:, :2].T + matrix[:, 2]).tolist()
    return (a, b), (c, d)


def _side(work: Work, joint: Joint, face: int, maps: list[Floats], line: Line) -> float:
    """1 or -1: the side of the crease's image on which one of its two faces lies beside it."""
    away = work.folds[joint.fold].line.normal * (BESIDE if face == joint.a else -BESIDE)
    spot = np.add(joint.start, joint.end) / 2 + away
    image = maps[face][:, :2] @ spot + maps[face][:, 2]
    return float(np.sign(line.off(image[None])[0]))


def _swung_through(
    work: Work, sheet: Sheet, group: list[bool], moves: list[bool], behind: list[bool],
    order: list[int], maps: list[Floats], placed: list[Cell],
) -> list[Trouble]:  # fmt: skip
    """Faces on the far side of the crease that they turn about, which would have to swing through
    what stays."""
    found = []
    rank = {face: n for n, face in enumerate(order)}
    for joint in sheet.joints:
        if not group[joint.fold] or moves[joint.a] == moves[joint.b]:
            continue
        moving, still = (joint.a, joint.b) if moves[joint.a] else (joint.b, joint.a)
        ends = _image((joint.start, joint.end), maps[still])
        line = Line.through(*ends)
        own = _side(work, joint, moving, maps, line)
        for face in _hanging(sheet, group, moving):
            off = line.off(kernel.points_of(placed[face])) * own
            if off.min() > -1.0 or (off.max() > -NEAR and face == moving):
                continue
            for other in order:
                if moves[other] or (rank[face] > rank[other]) != behind[face]:
                    continue
                if kernel.overlap(placed[face], placed[other]) > 1.0:
                    found.append(
                        Trouble(
                            "through",
                            sheet.names[face],
                            work.folds[joint.fold].name,
                            float(-off.min()),
                            (joint.start, joint.end),
                        )
                    )
                    break
    return found


def _caught(
    work: Work, sheet: Sheet, done: list[bool], order: list[int], maps: list[Floats],
    placed: list[Cell],
) -> list[Trouble]:  # fmt: skip
    """Faces that lie between the two sides of a shut crease and reach to it or through it, and
    creases that would have to run through each other."""
    found = []
    rank = {face: n for n, face in enumerate(order)}
    shut = [j for j in sheet.joints if done[j.fold]]
    lines = [_image((j.start, j.end), maps[j.a]) for j in shut]
    for joint, ends in zip(shut, lines, strict=True):
        low, high = sorted((rank[joint.a], rank[joint.b]))
        line = Line.through(*ends)
        inward = _side(work, joint, joint.a, maps, line)
        for face in order[low + 1 : high]:
            least = float((line.off(kernel.points_of(placed[face])) * inward).min())
            if least > TIGHT or _creased_there(shut, lines, face, line):
                continue
            through = least < -NEAR and kernel.length_in(placed[face], *ends) > 0.1
            if through or (abs(least) <= TIGHT and _beside(line, ends, placed[face])):
                found.append(
                    Trouble(
                        "through" if through else "tight",
                        sheet.names[face],
                        work.folds[joint.fold].name,
                        abs(least),
                        (joint.start, joint.end),
                    )
                )
    for n, (first, ends) in enumerate(zip(shut, lines, strict=True)):
        for second, others in zip(shut[:n], lines[:n], strict=True):
            a, b = sorted((rank[first.a], rank[first.b]))
            c, d = sorted((rank[second.a], rank[second.b]))
            if not (a < c < b < d or c < a < d < b):
                continue
            line = Line.through(*ends)
            off = np.abs(line.off(np.array(others)))
            p, q = np.sort(line.place(np.array(ends))), np.sort(line.place(np.array(others)))
            shared = min(p[1], q[1]) - max(p[0], q[0])
            one, two = (_side(work, j, j.a, maps, line) for j in (first, second))
            if off.max() < NEAR and shared > 0.1 and one == two:
                found.append(
                    Trouble(
                        "through",
                        sheet.names[second.a],
                        work.folds[first.fold].name,
                        0.0,
                        (first.start, first.end),
                    )
                )
    return found


def _creased_there(
    shut: list[Joint], lines: list[tuple[Point, Point]], face: int, line: Line
) -> bool:
    """Whether the face is itself creased along the line: then it nests there."""
    return any(
        face in (j.a, j.b) and np.abs(line.off(np.array(ends))).max() < NEAR
        for j, ends in zip(shut, lines, strict=True)
    )


def _beside(line: Line, ends: tuple[Point, Point], cell: Cell) -> bool:
    """Whether some of the cell's edge lies along the stretch of the line."""
    points = kernel.points_of(cell)
    near = np.abs(line.off(points)) <= TIGHT
    low, high = np.sort(line.place(np.array(ends)))
    place = line.place(points[near])
    return bool(len(place)) and bool(min(place.max(), high) - max(place.min(), low) > 1.0)


def _exact_box(cell: Cell, points: Floats) -> Box:
    """The cell's box, each side taken from the true outline where that is found beside it."""
    rough = kernel.box_of(cell)
    reach = 0.03
    near = points[
        (points[:, 0] >= rough.left - reach) & (points[:, 0] <= rough.right + reach)
        & (points[:, 1] >= rough.head - reach) & (points[:, 1] <= rough.foot + reach)
    ]  # fmt: skip
    sides = []
    for column, side, lowest in (
        (0, rough.left, True), (1, rough.head, True), (0, rough.right, False), (1, rough.foot, False),
    ):  # fmt: skip
        values = near[np.abs(near[:, column] - side) <= reach, column]
        sides.append(float(values.min() if lowest else values.max()) if len(values) else side)
    return Box(*sides)


def _closed_box(work: Work, face: Face) -> Box:
    """The face's exact box in the closed card."""
    linear = face.closed[:, :2]
    if linear[0, 1] == 0 == linear[1, 0]:  # upright and level stay so
        return face.box.transformed(face.closed)
    moved = work.paper.transformed(face.closed)
    points = moved.segments.points_at(*extremes(moved.segments))
    corners = outermost(work) @ linear.T + face.closed[:, 2]
    return _exact_box(face.closed_cell, np.concatenate([points, corners]))
