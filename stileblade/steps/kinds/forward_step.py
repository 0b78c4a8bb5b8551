"""A box that comes forward when the card is opened."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from stileblade.card.creases import Direction, Stretch
from stileblade.errors import StepError
from stileblade.fields import length
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import lines
from stileblade.geometry.regions.set_operations import difference, rectangle
from stileblade.piece.folds import Fold
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.steps.across import AcrossFold
from stileblade.steps.handle import Handle, LineHandle, Moved
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step


@register_step
class ForwardStep(AcrossFold):
    """Two slits across a fold and three folds between them: a strip that comes forward as a box
    when the card is opened to a right angle, and folds away between the panels."""

    stage = Stage.WINDOWS
    title = "Step forward"
    words = "box pop up slits parallel fold stage shelf layer"
    kind: Literal["forward-step"] = "forward-step"
    width: float = length(40, "Wide", "Along the fold, between the two slits.", above=1)
    less: float = length(
        25, "Left or above", "How far it reaches on the left or upper panel.", above=1
    )
    more: float = length(
        25, "Right or below", "How far it reaches on the right or lower panel.", above=1
    )

    def _extent(self, work: Work, fold: Fold) -> tuple[float, float]:
        middle = self.middle(work, fold)
        return middle - self.width / 2, middle + self.width / 2

    def _box(self, work: Work, fold: Fold) -> Box:
        low, high = self._extent(work, fold)
        near, far = fold.at - self.less, fold.at + self.more
        return Box(near, low, far, high) if fold.axis == "x" else Box(low, near, high, far)

    def _crease(self, work: Work) -> float:
        """Where the strip's middle fold lies: as far from the one edge as the other panel's part is
        deep, so that its sides are parallel to the panels."""
        return self.fold_of(work).at - self.less + self.more

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        fold = self.fold_of(work)
        assert fold.axis is not None
        low, high = self._extent(work, fold)
        self.must_be_whole(work, fold, low, high)
        self._must_fit(work, fold)
        box = self._box(work, fold)
        if difference(rectangle(box), work.paper):
            raise StepError(
                "There is not paper all over the strip: it runs over an edge or a window.",
                hint="Make it smaller, or move it along the fold.",
                field="width",
                would_do=round(self.width / 2, 1),
            )
        other = Direction.VALLEY if fold.direction is Direction.MOUNTAIN else Direction.MOUNTAIN
        made = []
        for number, (at, direction) in enumerate(
            (
                (fold.at - self.less, fold.direction),
                (self._crease(work), other),
                (fold.at + self.more, fold.direction),
            ),
            start=1,
        ):
            crease = replace(
                fold.crease,
                direction=direction,
                inner=True,
                stretches=(Stretch(low, high, direction),),
            )
            line = Line.on(fold.axis, at)
            name = self._name(work, number)
            made.append(replace(fold, name=name, line=line, crease=crease, step=self.id, spine=0.0))
        gap = replace(fold, crease=fold.crease.without(low, high))
        folds = tuple(gap if f is fold else f for f in work.folds)
        near, far = fold.at - self.less, fold.at + self.more
        ends = [((near, p), (far, p)) if fold.axis == "x" else ((p, near), (p, far))
                for p in (low, high)]  # fmt: skip
        ways = tuple((lines([a], [b]), False) for a, b in ends)
        cut = DrawnLine(self.id, How.CUT, ways)
        return replace(work, folds=(*folds, *made), lines=(*work.lines, cut))

    def _name(self, work: Work, number: int) -> str:
        steps = {f.step for f in work.folds if f.crease.inner}
        return f"step {len(steps) + 1}.{number}"

    def _must_fit(self, work: Work, fold: Fold) -> None:
        """Closed, the strip's middle fold lies so far from the fold as both parts are deep."""
        for panel in work.panels:
            box = panel.box
            low, high = (box.left, box.right) if fold.axis == "x" else (box.head, box.foot)
            if min(abs(low - fold.at), abs(high - fold.at)) > 0.01:
                continue
            out = self.less + self.more - (high - low)
            if out > 0:
                raise StepError(
                    f"Closed, the step would stand {{}} out of {panel.name}.",
                    out,
                    hint="Make it less deep: both parts together are at most a panel's width.",
                    field="more" if self.more >= self.less else "less",
                    would_do=round(max(self.more, self.less) - out - 3, 1),
                )

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        return [
            Told("High, at a right angle", self.less),
            Told("Deep, at a right angle", self.more),
            Told("Closed, it reaches", self.less + self.more, note="from the fold"),
        ]

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        fold = self.fold_of(before)
        axis = fold.axis or "x"
        less = Moved("less", self.less, -1.0, least=1.1)
        more = Moved("more", self.more, least=1.1)
        return [
            LineHandle(less, axis, fold.at - self.less, fold.at, word="step"),
            LineHandle(more, axis, fold.at + self.more, fold.at, word="step"),
        ]

    def caption(self) -> Caption:
        return Caption("wide", self.width)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(width=60)]
