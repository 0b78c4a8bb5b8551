"""What a layer does at the folds of what it lies on."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Literal

import numpy as np

from stileblade.card.creases import Direction
from stileblade.errors import StepError
from stileblade.fields import choice, length, special
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection, polygon
from stileblade.piece.folds import Fold
from stileblade.piece.lying import AtFolds, Lying
from stileblade.piece.work import Work
from stileblade.steps.ground import inverse
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step
from stileblade.words import named, say

_LEAST = 0.5
"""mm of a layer across a fold: less is none."""


class Way(StrEnum):
    ENDED = "ended"
    CREASED = "creased"
    HALF = "half"


class Keep(StrEnum):
    BOTH = "both"
    OWN = "own"


@register_step
class AtFoldsStep(Step):
    """Decides what a layer does that lies across a fold of its host: it ends on either side, is creased with
    it, or is fixed on one side only, to stand when the card is opened."""

    stage = Stage.FOLDS
    title = "At the folds"
    words = "layer fold across crease end half fixed stand pop over hinge"
    sayings = (
        "layer over the fold",
        "crease the layer",
        "half fixed",
        "figure that pops over the hinge",
    )
    for_layers = True
    kind: Literal["at-folds"] = "at-folds"
    way: Way = choice(
        Way.CREASED, "At a fold", "What the layer does there.",
        ended="it ends on either side", creased="it is creased with it",
        half="it is fixed on one side only",
    )  # fmt: skip
    gap: float = length(
        1, "Gap", "From its ends to the fold.", least=0, most=50, when={"way": ["ended"]}
    )
    keep: Keep = choice(
        Keep.BOTH, "Keep", "Of what is ended.", when={"way": ["ended"]},
        both="both sides", own="what is on its own panel",
    )  # fmt: skip
    fixed_on: str = special(
        "", "Fixed on", "The host's panel; empty means its own.", control="target",
        when={"way": ["half"]}, empty="its own panel",
    )  # fmt: skip

    def placed_on(self, setting: Setting) -> Work | None:
        return setting.pieces.get(setting.lies.host)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        lying, host = work.lying, setting.host
        if lying is None:
            raise StepError(
                "The piece lies on no other one, so no fold lies under it.",
                hint="Take this step away, or begin the piece with a layer.",
            )
        folds = folds_under(work, host)
        if not folds:
            raise StepError(
                "It lies across no fold of what it lies on.",
                hint="This step does nothing here, and can go.",
            )
        if self.way is Way.CREASED:
            at = replace(lying, panel="", at_folds=AtFolds.CREASED)
            return replace(work, folds=(*work.folds, *folds), lying=at)
        if self.way is Way.HALF:
            panel = self.fixed_on or lying.panel
            if panel not in [p.name for p in host.panels]:
                raise StepError(
                    say("What it lies on has no panel {panel!r}.", panel=panel),
                    hint=say(
                        "Panels are: {join}.",
                        join=", ".join(named(p.name) for p in host.panels) or "none",
                    ),
                    field="fixed_on",
                )
            return replace(work, lying=replace(lying, panel=panel, at_folds=AtFolds.HALF))
        return self._ended(work, lying, host, folds)

    def _ended(self, work: Work, lying: Lying, host: Work, folds: list[Fold]) -> Work:
        paper = work.paper
        box = paper.bounds
        reach = box.width + box.height + 10
        centre = np.array(host.box_of(lying.panel).centre) if lying.panel else None
        for fold in folds:
            along, normal = fold.line.along * reach, fold.line.normal
            middle = np.array(fold.line.point_at(fold.line.place_of(box.centre)))
            if self.keep is Keep.BOTH or centre is None:
                if self.gap:
                    paper = difference(paper, _band(middle, along, normal, -self.gap, self.gap))
                continue
            own = inverse(lying.matrix) @ np.r_[centre, 1.0]
            side = 1.0 if fold.line.off(own[None])[0] > 0 else -1.0
            low, high = sorted((side * self.gap, side * reach))
            paper = intersection(paper, _band(middle, along, normal, low, high))
        if not paper:
            raise StepError("Nothing of it is left beside the folds.", field="gap", would_do=0.0)
        return work.with_paper(paper, lying=replace(lying, at_folds=AtFolds.ENDED))

    def caption(self) -> Caption:
        return Caption(str(self.way))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Circle
        from stileblade.steps.kinds.overlay import Overlay

        return [Overlay(outline=Circle(diameter=60), dx=-50), cls()]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank

        return [[Blank()]]


def _band(middle: Floats, along: Floats, normal: Floats, low: float, high: float) -> Region:
    corners = [
        middle - along + normal * low, middle + along + normal * low,
        middle + along + normal * high, middle - along + normal * high,
    ]  # fmt: skip
    return polygon([(float(x), float(y)) for x, y in corners])


def folds_under(work: Work, host: Work) -> list[Fold]:
    """The host's folds that a layer lies across, in the layer's own flat view."""
    if work.lying is None:
        return []
    back = inverse(work.lying.matrix)
    over = bool(np.linalg.det(back[:, :2]) < 0)
    found = []
    for fold in host.folds:
        if not fold.folds or not host.spans[fold.name]:
            continue
        ends = np.array([p for s in host.spans[fold.name] for p in (s.start, s.end)])
        (ax, ay), (bx, by) = (
            back[:, :2] @ np.array(fold.line.point_at(t)) + back[:, 2] for t in (0.0, 100.0)
        )
        line = Line.through((float(ax), float(ay)), (float(bx), float(by)))
        crease = replace(fold.crease, stretches=())
        if over:
            turned = {Direction.MOUNTAIN: Direction.VALLEY, Direction.VALLEY: Direction.MOUNTAIN}
            crease = replace(crease, direction=turned[crease.direction])
        name = fold.name if fold.name not in [f.name for f in work.folds] else f"host's {fold.name}"
        made = Fold(name, line, crease)
        spans = work.spans_of(made)
        mine = fold.line.place(ends)
        low, high = float(mine.min()), float(mine.max())
        at = [
            fold.line.place_of(_mapped(work.lying.matrix, p))
            for s in spans
            for p in (s.start, s.end)
        ]
        over_paper = bool(at) and min(at) < high - _LEAST and max(at) > low + _LEAST
        if over_paper and sum(s.length for s in spans) > _LEAST:
            found.append(made)
    return found


def _mapped(matrix: Floats, point: tuple[float, float]) -> tuple[float, float]:
    x, y = (matrix[:, :2] @ np.array(point) + matrix[:, 2]).tolist()
    return x, y
