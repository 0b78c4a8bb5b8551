"""Bars left standing across a window."""

from __future__ import annotations

import math
from enum import StrEnum
from typing import Literal

import numpy as np

from stileblade.errors import StepError
from stileblade.fields import angle as degrees
from stileblade.fields import choice, length, number_of, special
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import rotation, translation
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection, rectangle, union
from stileblade.outlines.figures.round import Circle
from stileblade.piece.work import Work
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step

MOST_BARS = 400


class Pattern(StrEnum):
    ONE = "one"
    BOTH = "both"
    WHEEL = "wheel"


@register_step
class Grille(Step):
    """Strips left standing across a window: bars in one direction or two, one of them in the
    centre, or rings and spokes. They end welded to the frame, so that none floats."""

    stage = Stage.WINDOWS
    title = "Grille"
    words = "bars lantern porthole strips spokes rings grid"
    kind: Literal["grille"] = "grille"
    window: str = special(
        "",
        "Window",
        "Which window; empty means the last one cut.",
        control="window",
        empty="the last one cut",
    )
    pattern: Pattern = choice(
        Pattern.ONE,
        "Bars",
        "How they run.",
        one="in one direction",
        both="in two directions",
        wheel="rings and spokes",
    )
    bar: float = length(3, "Bar", "How wide each bar is.", above=0, most=100)
    gap: float = length(6, "Gap", "Between two bars.", above=0, most=500)
    angle: float = degrees(0, "Angle", "Clockwise; at 0 the first bars stand upright.")
    spokes: int = number_of(
        8, "Spokes", "How many run to the frame.", least=1, most=120, when={"pattern": ["wheel"]}
    )

    def bars(self, outline: Region) -> tuple[Region, int]:
        """The bars across an outline, reaching beyond it, and how many they are."""
        box = outline.bounds
        reach = math.hypot(box.width, box.height) / 2 + 1
        centre = box.centre
        if self.pattern is Pattern.WHEEL:
            return self._wheel(centre, reach)
        turned = outline.transformed(rotation(-self.angle, about=centre)).bounds
        bars = self._parallel(turned, centre, reach, upright=True)
        if self.pattern is Pattern.BOTH:
            bars += self._parallel(turned, centre, reach, upright=False)
        whole = Region.empty()
        for bar in bars:
            whole = union(whole, rectangle(bar))
        return whole.transformed(rotation(self.angle, about=centre)), len(bars)

    def _parallel(
        self, box: Box, centre: tuple[float, float], reach: float, *, upright: bool
    ) -> list[Box]:
        low, high = (box.left, box.right) if upright else (box.head, box.foot)
        middle = centre[0] if upright else centre[1]
        pitch = self.bar + self.gap
        # every bar of which something lies in the window
        first = math.ceil((low - middle - self.bar / 2) / pitch + 1e-9)
        last = math.floor((high - middle + self.bar / 2) / pitch - 1e-9)
        if last - first + 1 > MOST_BARS:
            least = (high - low) / MOST_BARS - self.bar
            raise StepError(
                f"More than {MOST_BARS} bars would stand in the window.",
                hint="Make the gap larger.",
                field="gap",
                would_do=round(max(least * 2, self.bar), 1),
            )
        found = []
        for n in range(first, last + 1):
            a = middle + n * pitch - self.bar / 2
            b = a + self.bar
            if upright:
                found.append(Box(a, centre[1] - reach, b, centre[1] + reach))
            else:
                found.append(Box(centre[0] - reach, a, centre[0] + reach, b))
        return found

    def _wheel(self, centre: tuple[float, float], reach: float) -> tuple[Region, int]:
        x, y = centre
        pitch = self.bar + self.gap
        rings = int(np.floor((reach - self.bar / 2) / pitch))
        if rings + self.spokes > MOST_BARS:
            raise StepError(
                f"More than {MOST_BARS} rings and spokes would stand in the window.",
                hint="Make the gap larger.",
                field="gap",
                would_do=round(reach / 20, 1),
            )
        whole = _disc(self.bar, centre)
        for n in range(1, rings + 1):
            ring = difference(
                _disc(2 * n * pitch + self.bar, centre), _disc(2 * n * pitch - self.bar, centre)
            )
            whole = union(whole, ring)
        for n in range(self.spokes):
            spoke = rectangle(Box(x - self.bar / 2, y - reach, x + self.bar / 2, y))
            turn = self.angle + 360 * n / self.spokes
            whole = union(whole, spoke.transformed(rotation(turn, about=centre)))
        return whole, rings + self.spokes

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        opened = work.window_of(self.window)
        bars, _ = self.bars(opened.outline)
        standing = intersection(bars, opened.outline)
        if not difference(opened.outline, bars):
            raise StepError(
                "The bars fill the whole window.",
                hint="Make the gap larger.",
                field="gap",
                would_do=round(self.bar * 2, 1),
            )
        return work.with_paper(union(work.paper, standing))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        outline = before.window_of(self.window).outline
        bars, count = self.bars(outline)
        left = difference(outline, bars)
        return [
            Told("Bars", count, "count"),
            Told("Open", left.area, "mm2"),
            Told("Open share", left.area / outline.area * 100, "percent"),
        ]

    def caption(self) -> Caption:
        return Caption("bars of", self.bar)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.window import Window

        return [
            Blank(),
            Window(outline=Circle(diameter=70)),
            cls(bar=5, gap=10, pattern=Pattern.BOTH),
        ]


def _disc(diameter: float, centre: tuple[float, float]) -> Region:
    disc = Circle(diameter=diameter).outline({})
    x, y = disc.bounds.centre
    return disc.transformed(translation(centre[0] - x, centre[1] - y))
