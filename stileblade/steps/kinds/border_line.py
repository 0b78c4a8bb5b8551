"""A line inset from the outline, or round the windows."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, number_of, special
from stileblade.geometry.curves.segments import Segments
from stileblade.geometry.offset.offset import largest_inset, offset
from stileblade.geometry.regions.along import within
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import intersection, rectangle, union_all
from stileblade.piece.work import Work
from stileblade.steps.lining import Lining, LiningStep
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step
from stileblade.words import say


class Along(StrEnum):
    OUTLINE = "outline"
    WINDOWS = "windows"


class Edges(StrEnum):
    ALL = "all"
    CUT = "cut"


@register_step
class BorderLine(LiningStep):
    """A line at a margin inside a panel's outline, or round its windows, one or several: drawn,
    stitched, pricked, scored or perforated, but not cut. It follows the outline as it is in the end,
    whatever step comes later."""

    stage = Stage.WINDOWS
    title = "Border line"
    words = "draw border stitch pen inset frame decorate sew sewn"
    sayings = (
        "emboss line",
        "embossed border",
        "stitch line",
        "stitched border",
        "dashed line",
        "dashed border",
        "dotted line",
        "sewing line",
        "sew round the edge",
        "thread holes",
        "prick holes",
        "border",
        "frame line",
        "line along the edge",
        "line round the window",
        "pen line round",
    )
    takes = ("margin",)
    kind: Literal["border-line"] = "border-line"
    along: Along = choice(
        Along.OUTLINE,
        "Follows",
        "What it follows.",
        outline="the outline, inside it",
        windows="the windows, round them",
    )
    target: str = special("front", "On", "The panel that it is on.", control="target")
    edges: Edges = choice(
        Edges.ALL,
        "Runs along",
        "Whether it runs along the folds as well, or from fold to fold.",
        all="edges and folds",
        cut="cut edges only",
        when={"along": ["outline"]},
    )
    margin: float = length(5, "Margin", "From there.", least=0.2, most=200)
    count: int = number_of(1, "Lines", "How many, each further in or out.", least=1, most=20)
    apart: float = length(3, "Apart", "From one line to the next.", least=0.2, most=100)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        return self.following(self.needs(work), self._traced, "margin")

    def _traced(self, work: Work) -> list[tuple[Segments, bool]]:
        """All the lines on a work."""
        panel = rectangle(work.box_of(self.target)) if work.panels else None
        found: list[tuple[Segments, bool]] = []
        for number in range(self.count):
            margin = self.margin + number * self.apart
            if self.along is Along.WINDOWS:
                found += [(c.segments, True) for c in self._round(work, panel, margin).contours]
            elif panel and self.edges is Edges.CUT:
                # the whole piece's inset, which the folds do not hold up
                inset = self._inset(work, None, margin)
                found += [
                    part for c in inset.contours for part in within(panel, c.segments, closed=True)
                ]
            else:
                found += [(c.segments, True) for c in self._inset(work, panel, margin).contours]
        return found

    def _round(self, work: Work, panel: Region | None, margin: float) -> Region:
        """The windows grown."""
        windows = [w.outline for w in work.windows]
        if panel:
            windows = [w for w in windows if intersection(w, panel)]
        if not windows:
            raise StepError(
                say("There is no window on {target!r}.", target=self.target),
                hint="Cut one first, or follow the outline.",
                field="along",
            )
        return union_all([offset(window, margin) for window in windows])

    def _inset(self, work: Work, panel: Region | None, margin: float) -> Region:
        """The outer outline of what lies on the panel, moved inwards."""
        shells = gather([c.as_region() for c in work.paper.contours if not c.opening])
        part = intersection(shells, panel) if panel else shells
        inset = offset(part, -margin)
        if not inset:
            most = largest_inset(part)
            raise StepError(
                "A margin of {} leaves nothing inside; {} is the most here.",
                margin,
                most,
                field="margin",
                would_do=round(most / 2 / self.count, 1),
            )
        return inset

    def caption(self) -> Caption:
        return Caption(
            {
                Lining.DRAW: "pen",
                Lining.STITCH: "stitched",
                Lining.PRICK: "pricked",
                Lining.SCORE: "scored",
                Lining.PERFORATE: "perforated",
            }[self.how],
            self.margin,
        )

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(how=Lining.STITCH, stitch=9, between=6, margin=9)]
