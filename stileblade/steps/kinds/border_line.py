"""A line inset from the outline, or round the windows."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, special
from stileblade.geometry.offset.offset import largest_inset, offset
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import intersection, rectangle, union
from stileblade.piece.work import Work
from stileblade.steps.lining import Lining, LiningStep
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step


class Along(StrEnum):
    OUTLINE = "outline"
    WINDOWS = "windows"


@register_step
class BorderLine(LiningStep):
    """A line at a margin inside a panel's outline, or round its windows: drawn, stitched, scored or
    perforated, but not cut."""

    stage = Stage.WINDOWS
    title = "Line round"
    words = "draw border stitch pen inset frame decorate sew"
    kind: Literal["border-line"] = "border-line"
    along: Along = choice(
        Along.OUTLINE,
        "Along",
        "What it follows.",
        outline="the outline, inside it",
        windows="the windows, round them",
    )
    target: str = special("front", "On", "The panel that it is on.", control="target")
    margin: float = length(5, "Margin", "From there.", least=0.2, most=200)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        panel = rectangle(work.box_of(self.target)) if work.panels else None
        if self.along is Along.OUTLINE:
            return self.lined(work, self._inset(work, panel), "margin")
        windows = [w.outline for w in work.windows]
        if panel:
            windows = [w for w in windows if intersection(w, panel)]
        if not windows:
            raise StepError(
                f"There is no window on {self.target!r}.",
                hint="Cut one first, or follow the outline.",
                field="along",
            )
        grown = Region.empty()
        for window in windows:
            grown = union(grown, offset(window, self.margin))
        return self.lined(work, grown, "margin")

    def _inset(self, work: Work, panel: Region | None) -> Region:
        """The outer outline of what lies on the panel, moved inwards."""
        shells = gather([c.as_region() for c in work.paper.contours if not c.opening])
        part = intersection(shells, panel) if panel else shells
        inset = offset(part, -self.margin)
        if not inset:
            most = largest_inset(part)
            raise StepError(
                "A margin of {} leaves nothing inside; {} is the most here.",
                self.margin,
                most,
                field="margin",
                would_do=round(most / 2, 1),
            )
        return inset

    def caption(self) -> Caption:
        return Caption(
            {"draw": "pen", "stitch": "stitched", "score": "scored"}.get(self.how, "perforated"),
            self.margin,
        )

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(how=Lining.STITCH, stitch=9, between=6, margin=9)]
