"""A figure across a fold that stands up when the card is folded."""

from __future__ import annotations

import math
from dataclasses import replace
from enum import StrEnum
from typing import Any, Literal

import numpy as np

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length
from stileblade.geometry.curves.segments import Segments
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.regions.along import length_of
from stileblade.geometry.regions.clipping import clip_line
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import cut_off, difference
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.piece.folds import Fold
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.across import AcrossFold
from stileblade.steps.handle import BoxHandle, Handle, Moved
from stileblade.steps.placing import sizing_of, turned
from stileblade.steps.repeating import together
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, Told, register_step
from stileblade.words import say

_ON = 1e-6


class StaysOn(StrEnum):
    """The side of the fold in whose plane the figure stays."""

    MORE = "more"
    LESS = "less"


@register_step
class StandingFigure(AcrossFold):
    """A figure across a fold, cut round on one side only: the crease stops at it and goes on behind
    it, so that it stands up out of the fold, in the plane of the other panel."""

    needs_before = Needs.FOLD
    stage = Stage.WINDOWS
    title = "Standing figure"
    words = "stand up pop fold cut round half"
    sayings = (
        "figure that stands up",
        "stand up figure",
        "stand",
        "cut half round",
        "figure that stands on the fold",
    )
    takes = ("outline", "turn")
    changes_size = True
    kind: Literal["standing-figure"] = "standing-figure"
    outline: AnyFigure = figure_field(Circle(diameter=50), "Figure", "What stands up.")
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.")
    stays: StaysOn = choice(
        StaysOn.MORE,
        "Stays with",
        "The panel in whose plane it stays.",
        more="the right or lower panel",
        less="the left or upper panel",
    )
    over: float = length(
        25, "Stands over", "How far it reaches beyond the fold: how high it stands.", above=0.5,
        most=300,
    )  # fmt: skip
    relief: float = length(
        1.2,
        "Relief",
        "Radius of a round hole at either end of the cut, so that it does not tear on; 0 is none.",
        least=0,
        most=10,
    )

    @property
    def _sign(self) -> float:
        """Along the axis at right angles to the fold, towards where it stands out."""
        return -1.0 if self.stays is StaysOn.MORE else 1.0

    def placed(self, work: Work, setting: Setting) -> Region:
        fold = self.fold_of(work)
        region = filled(outline_of(self.outline, setting.shelf))
        region = turned(region, self.turn)
        box, upright = region.bounds, fold.axis == "x"
        low, high = (box.left, box.right) if upright else (box.head, box.foot)
        tip = low if self._sign < 0 else high
        across = fold.at + self._sign * self.over - tip
        along = self.middle(work, fold) - box.centre[1 if upright else 0]
        if self.over > high - low - 0.5:
            raise StepError(
                "The figure is {} deep there and cannot stand {} over the fold: nothing would "
                "hold it.",
                high - low,
                self.over,
                hint="Let it stand over by less, or make it larger.",
                field="over",
                would_do=round((high - low) / 2, 1),
            )
        return region.transformed(translation(*((across, along) if upright else (along, across))))

    def _standing(self, figure: Region, fold: Fold) -> Region:
        """What of the figure is cut round."""
        assert fold.axis is not None
        keep = "less" if self._sign < 0 else "more"
        return cut_off(figure, axis=fold.axis, at=fold.at, keep=keep)

    def _slit(self, part: Region, fold: Fold) -> tuple[Segments, float, float]:
        """The cut round the standing part, open at the fold, and where it meets the fold."""
        (contour,) = part.contours
        s = contour.segments
        middle = s.points_at(np.arange(len(s)), s.span.mean(axis=1))
        on = np.all([np.abs(fold.line.off(p)) < _ON for p in (s.start, middle, s.end)], axis=0)
        if on.sum() != 1:
            raise StepError(
                say(
                    "The figure meets {name} in {count} places, not in one.",
                    name=fold.name,
                    count=int(on.sum()),
                ),
                hint="Let it stand over by more or less, or turn it.",
                field="over",
            )
        first = int(np.flatnonzero(on)[0])
        low, high = sorted(fold.line.place(np.array([s.start[first], s.end[first]])).tolist())
        return s.take((first + 1 + np.arange(len(s) - 1)) % len(s)), low, high

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        fold = self.fold_of(work)
        figure = self.placed(work, setting)
        part = self._standing(figure, fold)
        if part.pieces != 1:
            raise StepError(
                say(
                    "The figure lies in {pieces} parts beyond {name}.",
                    pieces=part.pieces,
                    name=fold.name,
                ),
                hint="Let it stand over by more or less, or turn it.",
                field="over",
            )
        slit, low, high = self._slit(part, fold)
        self.must_be_whole(work, fold, low, high)
        if difference(part, work.paper):
            raise StepError(
                "The figure runs over the edge of its panel or through a window.",
                hint="Move it along the fold, or make it smaller.",
                field="over",
                would_do=round(self.over / 2, 1),
            )
        paper, windows = work.paper, work.windows
        if self.relief:
            hole = Circle(diameter=2 * self.relief).outline({})
            cx, cy = hole.bounds.centre
            ends = [fold.line.point_at(place) for place in (low, high)]
            holes = together([hole.transformed(translation(x - cx, y - cy)) for x, y in ends])
            paper = difference(paper, holes)
            windows = (*windows, Opened(self.id, work.front, holes, crosses=True))
        folds = tuple(
            replace(f, crease=f.crease.without(low, high)) if f is fold else f for f in work.folds
        )
        cut = DrawnLine(self.id, How.CUT, ((slit, False),))
        return replace(work, paper=paper, windows=windows, folds=folds, lines=(*work.lines, cut))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        fold = self.fold_of(before)
        slit, low, high = self._slit(self._standing(self.placed(before, setting), fold), fold)
        # what the relief takes of it holds nothing
        held = clip_line(after.paper, fold.line.point_at(low), fold.line.point_at(high))
        return [
            Told("Cut round", length_of(slit)),
            Told("Held along", sum(math.dist(a, b) for a, b in held)),
        ]

    def _tip(self, figure: Region, upright: bool) -> tuple[float, float]:
        box = figure.bounds
        x, y = box.centre
        if upright:
            return (box.left if self._sign < 0 else box.right, y)
        return (x, box.head if self._sign < 0 else box.foot)

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        figure, upright = self.placed(before, setting), self.fold_of(before).axis == "x"
        sizing = sizing_of(self.outline, self.turn, setting, self._tip(figure, upright))
        moves = self.moves(before)
        return [BoxHandle(*moves, figure.bounds, figure, "figure", sizing, self.turn)]

    def moves(self, before: Work) -> tuple[Moved, Moved]:
        over, along = Moved("over", self.over, self._sign, least=1.0), Moved("along", self.along)
        return (over, along) if self.fold_of(before).axis == "x" else (along, over)

    def drawn_in_by(self, way: float) -> dict[str, float]:
        return {"over": math.floor((self.over - way) * 100 + 1e-6) / 100}

    @property
    def opens(self) -> bool:
        return self.relief > 0

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        outline = self.outline.scaled(factor, setting.shelf)
        return {"outline": outline, "over": self.over * factor, "along": self.along * factor}

    def caption(self) -> Caption:
        return Caption("over", self.over)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(outline=Circle(diameter=90), over=50)]
