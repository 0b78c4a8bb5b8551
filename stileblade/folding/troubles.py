"""What cannot be folded: faces that would pass through others, or have no room at a crease."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from stileblade.folding.faces import BESIDE, Joint, Sheet
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.piece.work import Work

NEAR = 0.05
"""mm: what is as near as this lies on a crease."""
TIGHT = 1.0
"""mm: a face this near to the crease that it lies in may have no room there."""
Word = Literal["through", "tight", "apart"]
Stroke = tuple[Point, Point]


@dataclass(frozen=True)
class Trouble:
    """Something that cannot be folded. what: "through" (a face would pass through a crease or
    another face), "tight" (it has no room at a crease), "apart" (creases do not come together).
    ``by`` is the measure in mm, ``at`` where in the flat view."""

    what: Word
    face: str
    fold: str
    by: float
    at: tuple[Point, Point]


@dataclass(frozen=True, eq=False)
class Stage:
    """The card between two groups of folds: its faces from the front to the back, the map of each from
    the flat view, and its cell there."""

    work: Work
    sheet: Sheet
    order: list[int]
    maps: list[Floats]
    placed: list[Cell]

    @cached_property
    def rank(self) -> dict[int, int]:
        """How far from the front each face is."""
        return {face: n for n, face in enumerate(self.order)}

    def side(self, joint: Joint, face: int, line: Line) -> float:
        """1 or -1: the side of the crease's image on which one of its two faces lies beside it."""
        away = self.work.folds[joint.fold].line.normal * (BESIDE if face == joint.a else -BESIDE)
        spot = np.add(joint.start, joint.end) / 2 + away
        matrix = self.maps[face]
        return float(np.sign(line.off((matrix[:, :2] @ spot + matrix[:, 2])[None])[0]))

    def trouble(self, what: Word, face: int, joint: Joint, by: float) -> Trouble:
        fold = self.work.folds[joint.fold].name
        return Trouble(what, self.sheet.names[face], fold, by, (joint.start, joint.end))


def swung_through(
    stage: Stage, group: list[bool], moves: list[bool], behind: list[bool]
) -> list[Trouble]:
    """Faces on the far side of the crease that they turn about, which would have to swing through
    what stays."""
    found = []
    sheet, order, placed, rank = stage.sheet, stage.order, stage.placed, stage.rank
    for joint in sheet.joints:
        if not group[joint.fold] or moves[joint.a] == moves[joint.b]:
            continue
        moving, still = (joint.a, joint.b) if moves[joint.a] else (joint.b, joint.a)
        ends = _image((joint.start, joint.end), stage.maps[still])
        line = Line.through(*ends)
        own = stage.side(joint, moving, line)
        for face in hanging(sheet, group, moving):
            off = line.off(kernel.points_of(placed[face])) * own
            if off.min() > -1.0 or (off.max() > -NEAR and face == moving):
                continue
            for other in order:
                if moves[other] or (rank[face] > rank[other]) != behind[face]:
                    continue
                if kernel.overlap(placed[face], placed[other]) > 1.0:
                    found.append(stage.trouble("through", face, joint, float(-off.min())))
                    break
    return found


def caught(stage: Stage, done: list[bool]) -> list[Trouble]:
    """Faces that lie between the two sides of a shut crease and reach to it or through it, and
    creases that would have to run through each other."""
    found = []
    order, placed, rank = stage.order, stage.placed, stage.rank
    shut = [j for j in stage.sheet.joints if done[j.fold]]
    lines = [_image((j.start, j.end), stage.maps[j.a]) for j in shut]
    for joint, ends in zip(shut, lines, strict=True):
        low, high = sorted((rank[joint.a], rank[joint.b]))
        line = Line.through(*ends)
        inward = stage.side(joint, joint.a, line)
        for face in order[low + 1 : high]:
            least = float((line.off(kernel.points_of(placed[face])) * inward).min())
            if least > TIGHT or _creased_there(shut, lines, face, line):
                continue
            through = least < -NEAR and kernel.length_in(placed[face], *ends) > 0.1
            if through or (abs(least) <= TIGHT and _beside(line, ends, placed[face])):
                word: Word = "through" if through else "tight"
                found.append(stage.trouble(word, face, joint, abs(least)))
    return found + _run_through(stage, shut, lines)


def _run_through(stage: Stage, shut: list[Joint], lines: list[Stroke]) -> list[Trouble]:
    """Creases that would have to run through each other."""
    found, rank = [], stage.rank
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
            one, two = (stage.side(j, j.a, line) for j in (first, second))
            if off.max() < NEAR and shared > 0.1 and one == two:
                found.append(stage.trouble("through", second.a, first, 0.0))
    return found


def _creased_there(shut: list[Joint], lines: list[Stroke], face: int, line: Line) -> bool:
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


def hanging(sheet: Sheet, group: list[bool], face: int) -> set[int]:
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
