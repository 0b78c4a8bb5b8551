"""Round off corners."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.build.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.build.work import Work
from stileblade.errors import StepError
from stileblade.fields import choice, length
from stileblade.geometry.offset import Join, largest_inset, offset
from stileblade.geometry.region import Region, gather
from stileblade.geometry.set_operations import difference


class Which(StrEnum):
    OUTER = "outer"
    INNER = "inner"
    BOTH = "both"


class Of(StrEnum):
    OUTLINE = "outline"
    ALL = "all"


@register_step
class Soften(Step):
    """Corners rounded off: outer ones, so that they do not lift, inner ones, so that they do not
    tear. All that is narrower than twice the radius goes."""

    stage = Stage.WINDOWS
    title = "Soften corners"
    words = "round radius fillet smooth sharp"
    kind: Literal["soften"] = "soften"
    radius: float = length(3, "Radius", "Of the rounding.", above=0, most=100)
    which: Which = choice(
        Which.OUTER,
        "Corners",
        "Which corners are rounded.",
        outer="outer ones",
        inner="inner ones",
        both="both",
    )

    of: Of = choice(
        Of.OUTLINE,
        "Of",
        "The outer outline alone, or windows and grilles as well.",
        outline="the outer outline",
        all="windows, too",
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        if self.of is Of.ALL:
            return work.with_paper(self._softened(work.paper))
        shells = gather([c.as_region() for c in work.paper.contours if not c.opening])
        softened = self._softened(shells)
        openings = gather([c.as_region() for c in work.paper.openings])
        return work.with_paper(difference(softened, openings) if openings else softened)

    def _softened(self, paper: Region) -> Region:
        if self.which is not Which.OUTER:
            grown = offset(paper, self.radius, join=Join.ROUND)
            paper = offset(grown, -self.radius, join=Join.ROUND)
        if self.which is not Which.INNER:
            inset = offset(paper, -self.radius, join=Join.ROUND)
            if not inset:
                most = largest_inset(paper)
                raise StepError(
                    "A radius of {} rounds everything away; {} is the most here.",
                    self.radius,
                    most,
                    field="radius",
                    would_do=round(most * 0.5, 1),
                )
            paper = offset(inset, self.radius, join=Join.ROUND)
        return paper

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None or not before.paper:
            return []
        return [Told("Area changed", after.paper.area - before.paper.area, "mm2")]

    def caption(self) -> Caption:
        return Caption("radius", self.radius)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.blank import Blank

        return [Blank(), cls(radius=16)]
