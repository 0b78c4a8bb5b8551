"""Set a fold line at an exact place."""

from __future__ import annotations

import math
from dataclasses import replace
from enum import StrEnum
from typing import Literal

from stileblade.card.creases import Crease, Direction
from stileblade.errors import StepError
from stileblade.fields import angle as degrees
from stileblade.fields import choice, length, number_of, offset, special
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Box
from stileblade.geometry.measures.symmetry import symmetry_axis
from stileblade.geometry.regions.set_operations import rectangle
from stileblade.piece.folds import Fold, Made
from stileblade.piece.work import Work
from stileblade.steps.creasing import CreasingStep
from stileblade.steps.handle import BoxHandle, Handle, LineHandle, Moved
from stileblade.steps.measured import Edge, Runs, edge_field, runs_field
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.words import say

SAME = 0.01
"""mm: a fold this near to an earlier one takes its place."""


class By(StrEnum):
    PLACE = "place"
    POINTS = "points"
    ANGLE = "angle"
    SYMMETRY = "symmetry"


class Purpose(StrEnum):
    FOLD = "fold"
    TEXTURE = "texture"
    TEAR = "tear"


@register_step
class FoldLine(CreasingStep):
    """A line to fold on, exactly where it is wanted and only where there is paper: at a measure
    from an edge or the middle, through two places, at an angle, or along the figure's axis of
    symmetry. Also a perforation to tear along, or a row of score lines as texture.
    """

    stage = Stage.FOLDS
    title = "Fold line"
    words = "score crease perforate position angle symmetry axis texture tear ribs"
    sayings = (
        "score line",
        "fold here",
        "another fold",
        "perforated line",
        "tear line",
        "tear off",
        "tear strip",
        "coupon",
        "score at an angle",
        "diagonal fold",
        "half fold",
        "fold in the middle",
        "scoring",
        "ribbed texture",
    )
    takes = ("distance", "angle")
    kind: Literal["fold-line"] = "fold-line"
    by: By = choice(
        By.PLACE,
        "Place by",
        "What its place is given by.",
        place="a measure",
        points="two places",
        angle="an angle",
        symmetry="the axis of symmetry",
    )
    target: str = special(
        "card",
        "Measured on",
        "Whose box it is measured on.",
        control="target",
        when={"by": ["place", "points", "angle"]},
    )
    runs: Runs = runs_field(when={"by": ["place"]})
    edge: Edge = edge_field(Edge.NEAR, when={"by": ["place"]})
    distance: float = offset(
        40,
        "Distance",
        "From there inwards; from the middle, right or down.",
        when={"by": ["place"]},
    )
    x: float = offset(0, "From the left", "A place that it runs through.",
                      when={"by": ["points", "angle"]})  # fmt: skip
    y: float = offset(0, "From the head", "A place that it runs through.",
                      when={"by": ["points", "angle"]})  # fmt: skip
    x2: float = offset(50, "Then from the left", "The other place.", when={"by": ["points"]})
    y2: float = offset(50, "Then from the head", "The other place.", when={"by": ["points"]})
    angle: float = degrees(45, "Angle", "Clockwise from a level line.", when={"by": ["angle"]})
    purpose: Purpose = choice(
        Purpose.FOLD,
        "Purpose",
        "What the line is for.",
        fold="to fold on",
        tear="to tear off",
        texture="as texture",
    )
    direction: Direction = choice(
        Direction.MOUNTAIN,
        "Direction",
        "Which way the crease points, as seen from outside.",
        mountain="mountain",
        valley="valley",
        when={"purpose": ["fold"]},
    )
    order: int = number_of(
        1, "Folded as", "When it is folded; equal numbers fold together.", least=1, most=40,
        when={"purpose": ["fold"]},
    )  # fmt: skip
    lines: int = number_of(
        6, "Lines", "How many there are.", least=1, most=200, when={"purpose": ["texture"]}
    )
    pitch: float = length(
        3, "Pitch", "From one to the next, to the right or down.", above=0.1, most=200,
        when={"purpose": ["texture"]},
    )  # fmt: skip

    def line(self, work: Work) -> Line:
        """The line that the values give on the work."""
        if self.by is By.SYMMETRY:
            found = symmetry_axis(work.paper)
            if found is None:
                raise StepError(
                    "The piece has no axis of symmetry: nowhere do 97 % of it fall on themselves.",
                    hint="Place the line by a measure.",
                    field="by",
                )
            return found
        box = work.box_of(self.target)
        if self.by is By.POINTS:
            a, b = (box.left + self.x, box.head + self.y), (box.left + self.x2, box.head + self.y2)
            if math.dist(a, b) < 0.1:
                raise StepError(
                    "The two places are the same: no line goes through them.",
                    field="x2",
                    would_do=self.x + 50,
                )
            return Line.through(a, b)
        if self.by is By.ANGLE:
            a = (box.left + self.x, box.head + self.y)
            turn = math.radians(self.angle)
            return Line.through(a, (a[0] + 100 * math.cos(turn), a[1] + 100 * math.sin(turn)))
        return Line.on(self.runs.axis, self._at(box))

    def _at(self, box: Box) -> float:
        origin, sign = self.edge.origin(box, self.runs.axis)
        return origin + sign * self.distance

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        line = self.line(work)
        count = self.lines if self.purpose is Purpose.TEXTURE else 1
        # texture runs on to the right or down from its first line
        sign = 1.0 if line.axis == "x" else -1.0
        folds = list(work.folds)
        touched = False
        for n in range(count):
            fold = self._fold(work, line.moved(sign * n * self.pitch) if n else line, n)
            if not work.spans_of(fold):
                continue
            touched = True
            folds = [f for f in folds if not self._same(f, fold)] + [fold]
        if not touched:
            raise StepError(
                "There is no paper on the line.",
                hint="Place it where the piece is.",
                field={"place": "distance", "symmetry": "by"}.get(self.by, "x"),
                would_do=self._inside(work),
            )
        return replace(work, folds=tuple(folds))

    def _inside(self, work: Work) -> float | None:
        if self.by is not By.PLACE:
            return None
        box = work.box_of(self.target)
        origin, sign = self.edge.origin(box, self.runs.axis)
        middle = work.paper.bounds.centre[0 if self.runs is Runs.UPRIGHT else 1]
        return round((middle - origin) * sign, 2)

    def _same(self, old: Fold, new: Fold) -> bool:
        if old.folds != new.folds or old.axis is None:
            return False
        return old.axis == new.axis and abs(old.at - new.at) < SAME

    def _fold(self, work: Work, line: Line, n: int) -> Fold:
        names = [f.name for f in work.folds]
        stem = {"fold": "fold", "tear": "tear", "texture": "rib"}[self.purpose]
        same = next((f.name for f in work.folds if self._same(f, Fold("", line, folds=True))), "")
        number = 1 + sum(name.split(" ")[0] == stem for name in names) + n
        name = same if same and self.purpose is Purpose.FOLD else f"{stem} {number}"
        while name in names and name != same:
            number += 1
            name = f"{stem} {number}"
        crease = Crease(self.direction, self.order, half=105, stand=140)
        fold = Fold(name, line, crease, folds=self.purpose is Purpose.FOLD, step=self.id)
        return self.onto(fold)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        made = [f for f in after.folds if f.step == self.id]
        found = [Told("On paper", sum(s.length for f in made for s in after.spans[f.name]))]
        if len(made) == 1 and made[0].axis:
            box = after.box_of("card") if after.panels else after.paper.bounds
            fold = made[0]
            low, high = (box.left, box.right) if fold.axis == "x" else (box.head, box.foot)
            words = ("left", "right") if fold.axis == "x" else ("head", "foot")
            found += [
                Told(say("From the {words}", words=words[0]), fold.at - low),
                Told(say("From the {words}", words=words[1]), high - fold.at),
                Told("From the middle", fold.at - (low + high) / 2),
            ]
        return found

    def caption(self) -> Caption:
        if self.purpose is Purpose.TEXTURE:
            return Caption(say("{n} ribs", n=self.lines), self.pitch)
        if self.by is By.PLACE:
            return Caption(
                {"near": "at", "middle": "from middle", "far": "from far"}[self.edge], self.distance
            )
        if self.by is By.ANGLE:
            return Caption("", self.angle, "deg")
        return Caption({"points": "two places", "symmetry": "symmetry"}[self.by])

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None or self.by is By.SYMMETRY:
            return []
        box = before.box_of(self.target)
        if self.by is not By.PLACE:
            names = [("x", "y"), ("x2", "y2")][: 2 if self.by is By.POINTS else 1]
            return [self._point(box, x, y) for x, y in names]
        origin, sign = self.edge.origin(box, self.runs.axis)
        sets = Moved("distance", self.distance, sign)
        return [LineHandle(sets, self.runs.axis, self._at(box), origin, word="fold")]

    def _point(self, box: Box, x: str, y: str) -> Handle:
        """A place that the line runs through, to be moved."""
        dx, dy = float(getattr(self, x)), float(getattr(self, y))
        px, py = box.left + dx, box.head + dy
        spot = rectangle(Box(px - 0.5, py - 0.5, px + 0.5, py + 0.5))
        return BoxHandle(Moved(x, dx), Moved(y, dy), spot.bounds, spot, word="place")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.straight import Rectangle
        from stileblade.steps.kinds.figure import StartFigure

        start = StartFigure(outline=Rectangle(width=100, height=70))
        return [start, cls(made=Made.PERFORATE, cut=6, leave=4)]
