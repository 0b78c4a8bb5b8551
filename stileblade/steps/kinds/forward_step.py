"""A box that comes forward when the card is opened."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Literal

from stileblade.card.creases import Direction, Stretch
from stileblade.errors import StepError
from stileblade.fields import length, number_of
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import lines
from stileblade.geometry.regions.set_operations import difference, rectangle
from stileblade.piece.folds import Fold
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.steps.across import AcrossFold
from stileblade.steps.handle import Handle, LineHandle, Moved
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, Told, register_step
from stileblade.words import say

MOST_LEVELS = 3
"""Boxes on boxes."""
_SAME = 1e-6


def index_of(work: Work, fold: Fold) -> int:
    """The number of the fold of that name: it is another object after a box was set on it."""
    return next(i for i, f in enumerate(work.folds) if f.name == fold.name)


def _not_cut_yet(
    work: Work, axis: str, place: float, near: float, far: float
) -> list[tuple[Point, Point]]:
    """Stretches of a slit at a place along the fold, from ``near`` to ``far`` across it, that no other
    slit on the same line has cut already."""
    own, across = (1, 0) if axis == "x" else (0, 1)
    free = [(near, far)]
    for line in work.lines:
        if line.how is not How.CUT:
            continue
        for way, _ in line.ways:
            for start, end in zip(way.start.tolist(), way.end.tolist(), strict=True):
                if max(abs(start[own] - place), abs(end[own] - place)) > _SAME:
                    continue
                a, b = sorted((start[across], end[across]))
                free = [
                    part
                    for low, high in free
                    for part in ((low, min(high, a)), (max(low, b), high))
                    if part[1] - part[0] > _SAME
                ]
    return [((a, place), (b, place)) if axis == "x" else ((place, a), (place, b)) for a, b in free]


@register_step
class ForwardStep(AcrossFold):
    """Two slits across a fold and three folds between them: a strip that comes forward as a box
    when the card is opened to a right angle, and folds away between the panels."""

    needs_before = Needs.FOLD
    stage = Stage.WINDOWS
    title = "Step forward"
    words = "box pop up slits parallel fold stage shelf layer"
    sayings = (
        "pop up",
        "pop up box",
        "box that stands forward",
        "stage",
        "shelf that pops",
        "step",
    )
    takes = ("width",)
    kind: Literal["forward-step"] = "forward-step"
    width: float = length(40, "Wide", "Along the fold, between the two slits.", above=1)
    less: float = length(
        25, "Left or above", "How far it reaches on the left or upper panel.", above=1
    )
    more: float = length(
        25, "Right or below", "How far it reaches on the right or lower panel.", above=1
    )

    count: int = number_of(1, "How many", "Side by side along the fold.", least=1, most=40)
    between: float = length(
        8, "Between", "From one to the next; at 0 they share a slit.", least=0,
        when={"count": [str(n) for n in range(2, 41)]},
    )  # fmt: skip

    def offers(self, before: Work) -> dict[str, list[str]]:
        """Folds of other steps forward as well: a box on a box."""
        return super().offers(before) | {"fold": [f.name for f in self._creases(before)]}

    def _creases(self, work: Work) -> list[Fold]:
        return [f for f in work.folds if f.axis and f.folds and f.crease.level < MOST_LEVELS]

    def fold_of(self, work: Work) -> Fold:
        inner = next((f for f in self._creases(work) if f.name == self.fold), None)
        return inner if inner is not None and inner.crease.inner else super().fold_of(work)

    def _extents(self, work: Work, fold: Fold) -> list[tuple[float, float]]:
        """Of each, where it begins and ends along the fold."""
        pitch = self.width + self.between
        first = self.middle(work, fold) - (self.count * pitch - self.between) / 2
        return [(first + i * pitch, first + i * pitch + self.width) for i in range(self.count)]

    def _box(self, fold: Fold, low: float, high: float) -> Box:
        near, far = fold.at - self.less, fold.at + self.more
        return Box(near, low, far, high) if fold.axis == "x" else Box(low, near, high, far)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        fold = self.fold_of(work)
        assert fold.axis is not None
        self._must_fit(work, fold)
        for low, high in self._extents(work, fold):
            work = self._with_one(work, work.folds[index_of(work, fold)], low, high)
        return work

    def _with_one(self, work: Work, fold: Fold, low: float, high: float) -> Work:
        assert fold.axis is not None
        self.must_be_whole(work, fold, low, high)
        self._must_be_free(work, fold, low, high)
        box = self._box(fold, low, high)
        if difference(rectangle(box), work.paper):
            raise StepError(
                "There is not paper all over the strip: it runs over an edge or a window.",
                hint="Make it smaller, or move it along the fold.",
                field="width",
                would_do=round(self.width / 2, 1),
            )
        other = Direction.VALLEY if fold.direction is Direction.MOUNTAIN else Direction.MOUNTAIN
        made = []
        number = self._number(work)
        for part, (at, direction) in enumerate(
            (
                (fold.at - self.less, fold.direction),
                (fold.at - self.less + self.more, other),
                (fold.at + self.more, fold.direction),
            ),
            start=1,
        ):
            crease = replace(
                fold.crease,
                direction=direction,
                inner=True,
                level=fold.crease.level + 1,
                stretches=(Stretch(low, high, direction),),
            )
            line = Line.on(fold.axis, at)
            name = f"step {number}.{part}"
            made.append(replace(fold, name=name, line=line, crease=crease, step=self.id, spine=0.0))
        gap = replace(fold, crease=fold.crease.without(low, high))
        folds = tuple(gap if f is fold else f for f in work.folds)
        near, far = fold.at - self.less, fold.at + self.more
        ways = [
            (lines([a], [b]), False)
            for place in (low, high)
            for a, b in _not_cut_yet(work, fold.axis, place, near, far)
        ]
        cut = (DrawnLine(self.id, How.CUT, tuple(ways)),) if ways else ()
        return replace(work, folds=(*folds, *made), lines=(*work.lines, *cut))

    def _must_be_free(self, work: Work, fold: Fold, low: float, high: float) -> None:
        """No other crease runs through the strip."""
        near, far = fold.at - self.less + _SAME, fold.at + self.more - _SAME
        for other in work.folds:
            if other.name == fold.name or other.axis != fold.axis or not near < other.at < far:
                continue
            for span in work.spans[other.name]:
                a, b = sorted(other.line.place_of(p) for p in (span.start, span.end))
                if min(b, high) - max(a, low) > _SAME:
                    raise StepError(
                        say("{name} runs through the strip.", name=other.name),
                        hint="Make it less deep, or move it along the fold.",
                        field="more" if other.at > fold.at else "less",
                        would_do=round(abs(other.at - fold.at) * 0.8, 1),
                    )

    def _number(self, work: Work) -> int:
        """Of the next box among all steps forward."""
        return 1 + max(
            (int(n) for n in re.findall(r"step (\d+)\.1", " ".join(f.name for f in work.folds))),
            default=0,
        )

    def _must_fit(self, work: Work, fold: Fold) -> None:
        """Closed, the strip's middle fold lies so far from the fold as both parts are deep."""
        for panel in work.panels:
            box = panel.box
            low, high = (box.left, box.right) if fold.axis == "x" else (box.head, box.foot)
            if min(abs(low - fold.at), abs(high - fold.at)) > 0.01:
                continue
            out = self.less + self.more - (high - low)
            if out > _SAME:
                raise StepError(
                    say("Closed, the step would stand {{}} out of {name}.", name=panel.name),
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
