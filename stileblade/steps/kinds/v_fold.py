"""A V fold: paper that comes forward to a point when the card is opened."""

from __future__ import annotations

import math
from dataclasses import replace
from enum import StrEnum
from typing import Literal

from stileblade.card.creases import Crease, Direction, Stretch
from stileblade.errors import StepError
from stileblade.fields import angle, choice, length
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Axis, Point
from stileblade.geometry.curves.segments import lines
from stileblade.geometry.regions.set_operations import difference, polygon
from stileblade.piece.folds import Fold
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.steps.across import AcrossFold
from stileblade.steps.handle import Handle, LineHandle, Moved
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, Told, register_step
from stileblade.words import say

LEAST_ANGLE, MOST_ANGLE = 8.0, 75.0


class Points(StrEnum):
    """Where along the fold the V comes to its point."""

    BACK = "back"
    ON = "on"

    @property
    def sign(self) -> float:
        return -1.0 if self is Points.BACK else 1.0


@register_step
class VFold(AcrossFold):
    """A slit across a fold and two slanting creases from its ends to a point of the fold: between them the
    fold bends the other way, so that it comes forward as a V when the card is opened."""

    needs_before = Needs.FOLD
    stage = Stage.WINDOWS
    title = "V fold"
    words = "pop up beak mouth angle slant point triangle forward"
    sayings = (
        "beak",
        "mouth",
        "v fold",
        "pop out triangle",
        "slanting fold",
    )
    takes = ("width", "angle")
    kind: Literal["v-fold"] = "v-fold"
    width: float = length(
        50, "Slit", "How long it is, half of it on either side of the fold.", above=2
    )
    angle: float = angle(35, "Angle", "Between each slanting crease and the fold, 8 to 75 degrees.")
    points: Points = choice(
        Points.BACK,
        "Comes to its point",
        "On which side of the slit.",
        back="towards the head or left",
        on="towards the foot or right",
    )

    @property
    def deep(self) -> float:
        """From the slit to the point, along the fold."""
        return self.width / 2 / math.tan(math.radians(self.angle))

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        if not LEAST_ANGLE <= self.angle <= MOST_ANGLE:
            raise StepError(
                say(
                    "An angle of {angle:g} degrees is not folded: {least_angle:g} to {most_angle:g} are.",
                    angle=self.angle,
                    least_angle=LEAST_ANGLE,
                    most_angle=MOST_ANGLE,
                ),
                field="angle",
                would_do=min(max(self.angle, LEAST_ANGLE), MOST_ANGLE),
            )
        fold = self.fold_of(work)
        at = self.middle(work, fold)
        tip = at + self.points.sign * self.deep
        low, high = sorted((at, tip))
        self.must_be_whole(work, fold, low, high)
        ends = [self._spot(fold, at, side * self.width / 2) for side in (-1.0, 1.0)]
        point = self._spot(fold, tip, 0.0)
        if difference(polygon([ends[0], ends[1], point]), work.paper):
            raise StepError(
                "There is not paper all over the V: it runs over an edge or a window.",
                hint="Make it smaller, or move it along the fold.",
                field="width",
                would_do=round(self.width / 2, 1),
            )
        made = self._creases(work, fold, point, ends, (low, high))
        folds = tuple(
            replace(f, crease=f.crease.without(low, high)) if f is fold else f for f in work.folds
        )
        cut = DrawnLine(self.id, How.CUT, ((lines([ends[0]], [ends[1]]), False),))
        return replace(work, folds=(*folds, *made), lines=(*work.lines, cut))

    def _spot(self, fold: Fold, along: float, aside: float) -> Point:
        return (fold.at + aside, along) if fold.axis == "x" else (along, fold.at + aside)

    def _creases(
        self, work: Work, fold: Fold, point: Point, ends: list[Point], middle: tuple[float, float]
    ) -> list[Fold]:
        """The fold between point and slit, bent the other way, and both slanting ones. Round the point the
        angles add up to 180 degrees each second one (Kawasaki), so that it folds flat."""
        own = fold.crease
        other = Direction.VALLEY if fold.direction is Direction.MOUNTAIN else Direction.MOUNTAIN
        number = 1 + sum(f.name.startswith("v ") for f in work.folds) // 3
        inner = replace(own, direction=other, inner=True, stretches=(Stretch(*middle, other),))
        made = [replace(fold, name=f"v {number}.1", crease=inner, step=self.id, spine=0.0)]
        gain = 1 / math.cos(math.radians(self.angle))
        for part, end in enumerate(ends, 2):
            line = Line.through(point, end)
            a, b = sorted(line.place_of(p) for p in (point, end))
            crease = self._slanting(own, gain, Stretch(a, b, fold.direction))
            made.append(
                replace(
                    fold,
                    name=f"v {number}.{part}",
                    line=line,
                    crease=crease,
                    step=self.id,
                    spine=0.0,
                )
            )
        return made

    def _slanting(self, own: Crease, gain: float, stretch: Stretch) -> Crease:
        slanting = replace(own, inner=True, gain=gain, stretches=(stretch,))
        return replace(slanting, half=slanting.geared(own.half), stand=slanting.geared(own.stand))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        return [
            Told("Deep", self.deep, note="from the slit to the point"),
            Told("Slanting crease", math.hypot(self.deep, self.width / 2)),
        ]

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        fold = self.fold_of(before)
        at = self.middle(before, fold)
        axis: Axis = fold.axis or "x"
        other: Axis = "y" if axis == "x" else "x"
        wide = Moved("width", self.width, 2.0, least=2.1)
        along = Moved("along", self.along)
        return [
            LineHandle(wide, axis, fold.at + self.width / 2, fold.at, word="slit"),
            LineHandle(along, other, at, at - self.along, word="along"),
        ]

    def caption(self) -> Caption:
        return Caption("", self.angle, "deg")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(width=70)]
