"""Join two halves that hardly touch, with a tab across the fold."""

from __future__ import annotations

from typing import Literal

import numpy as np

from stileblade.errors import StepError
from stileblade.fields import length as positive
from stileblade.fields import offset as signed
from stileblade.geometry.curves.places import Box
from stileblade.geometry.measures.distances import inner_point
from stileblade.geometry.regions.set_operations import intersection, rectangle, union
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.steps.across import OnFold
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, Told, register_step


@register_step
class HingeTab(OnFold):
    """A rectangle of paper across a fold, so long along it and so far to each side of it, welded
    to both halves: a hinge for figures that only touch."""

    needs_before = Needs.FOLD
    stage = Stage.MIRROR
    title = "Hinge tab"
    words = "join bridge hinge connect weld touch"
    sayings = (
        "hinge tab",
        "join the halves",
        "halves fall apart",
        "bridge between the halves",
        "more hinge",
        "glue tab",
        "weak fold",
    )
    takes = ("length", "reach")
    kind: Literal["tab"] = "tab"
    length: float = positive(22, "Length", "Along the fold: what it adds to the hinge.", above=0)
    reach: float = positive(10, "Reach", "To each side of the fold.", above=0)
    offset: float = signed(
        0, "Moved on", "Along the fold from the middle of the paper there, down or right."
    )

    def _box(self, work: Work, fold: Fold) -> Box:
        spans = work.spans[fold.name]
        if spans:
            places = [fold.line.place_of(p) for s in spans for p in (s.start, s.end)]
            middle = (min(places) + max(places)) / 2
        else:
            middle = work.paper.bounds.centre[1 if fold.axis == "x" else 0]
        low, high = (middle + self.offset + s * self.length / 2 for s in (-1, 1))
        near, far = fold.at - self.reach, fold.at + self.reach
        return Box(near, low, far, high) if fold.axis == "x" else Box(low, near, high, far)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        fold = self.fold_of(work)
        tab = rectangle(self._box(work, fold))
        on_paper = intersection(work.paper, tab)
        inner = np.array([inner_point(part) for part in on_paper.parts()]).reshape(-1, 2)
        sides = set((fold.line.off(inner) > 0).tolist())
        if len(sides) < 2 and not work.spans[fold.name]:
            raise StepError(
                "The tab does not reach the paper on both sides of the fold.",
                hint="Let it reach farther, or move it along the fold.",
                field="reach",
                would_do=round(self.reach * 2, 1),
            )
        return work.with_paper(union(work.paper, tab))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        spans = after.spans[self.fold_of(after).name]
        return [Told("Hinge", sum(s.length for s in spans))]

    def caption(self) -> Caption:
        return Caption("", self.length)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Circle
        from stileblade.steps.kinds.figure import StartFigure
        from stileblade.steps.kinds.mirror import Mirror, Towards

        return [
            StartFigure(outline=Circle(diameter=60)),
            Mirror(towards=Towards.LEFT, lap=0),
            cls(length=16, reach=7),
        ]
