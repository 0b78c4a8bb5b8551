"""Grow or shrink an outline: a surround."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, share
from stileblade.fields import offset as signed_length
from stileblade.geometry.offset.offset import BeyondLimit, Join, largest_inset, offset
from stileblade.piece.work import Work
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step


@register_step
class Grow(Step):
    """The outline grown outwards by a margin, or shrunk where it is negative."""

    stage = Stage.OUTLINE
    title = "Surround"
    words = "offset grow shrink margin border inset outset"
    sayings = (
        "5 mm bigger",
        "offset",
        "outset",
        "thicker",
        "fatter",
        "grow",
        "shrink",
        "border round the shape",
        "border round the figure",
        "margin round it",
        "surround",
        "inset the outline",
        "outline round it",
    )
    takes = ("margin",)
    kind: Literal["grow"] = "grow"
    margin: float = signed_length(3, "Margin", "Outwards; negative shrinks the outline.")
    join: Join = choice(
        Join.ROUND,
        "Corners",
        "How outer corners are drawn.",
        round="round",
        mitre="pointed",
        bevel="bevelled",
    )
    mitre_limit: float = share(
        2.0,
        "Point limit",
        "Pointed corners longer than this many margins are rounded.",
        least=1,
        most=20,
        when={"join": ["mitre"]},
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        paper = offset(
            work.paper,
            self.margin,
            join=self.join,
            mitre_limit=self.mitre_limit,
            beyond_limit=BeyondLimit.ROUND,
        )
        if not paper:
            most = largest_inset(work.paper)
            raise StepError(
                "Shrunk by {} nothing is left; at {} the outline vanishes.",
                -self.margin,
                most,
                hint="Shrink it by less.",
                field="margin",
                would_do=-round(most / 2, 1),
            )
        return work.with_paper(paper)

    def grown_to(self, margin: float) -> dict[str, float]:
        return {"margin": margin} if self.join is Join.ROUND else {}

    @property
    def surrounds_by(self) -> float:
        return self.margin if self.join is Join.ROUND else 0.0

    def caption(self) -> Caption:
        return Caption("", self.margin)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.straight import Star
        from stileblade.steps.kinds.figure import StartFigure

        return [StartFigure(outline=Star()), cls(margin=5)]
