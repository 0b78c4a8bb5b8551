"""Cut a window in a panel."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from functools import partial
from typing import Literal

from pydantic import Field

from stileblade.errors import StepError
from stileblade.fields import choice, length
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, union
from stileblade.outlines.figure import outline_of
from stileblade.piece.windows import Copy, Opened
from stileblade.piece.work import CLOSED, Work
from stileblade.steps.beginning import Beginning, Begun
from stileblade.steps.placing import PlacedStep, outline_of_all
from stileblade.steps.repeating import all_apart
from stileblade.steps.step import (
    Caption,
    Setting,
    SizedOtherwise,
    Stage,
    Step,
    register_step,
)
from stileblade.words import within


class Sized(StrEnum):
    OWN = "own"
    FIT = "fit"
    FILL = "fill"


@register_step
class Window(PlacedStep):
    """An opening cut in a panel, placed by head, middle or foot and left, centre or right."""

    stage = Stage.WINDOWS
    title = "Window"
    words = "aperture opening porthole cut out"
    by_figure = 1.0
    sayings = (
        "hole",
        "round opening",
        "opening",
        "window",
        "porthole",
        "cut a hole",
        "cut a hole in the front",
        "pocket window",
        "peephole",
        "aperture",
        "round window",
        "square window",
        "cutout",
        "frame",
        "see through",
    )
    takes = ("outline",)
    kind: Literal["window"] = "window"
    crosses: bool = Field(
        False,
        title="May cross a fold",
        description="On: the window is meant to run across a fold or an edge.",
    )

    sized: Sized = choice(
        Sized.OWN,
        "Size",
        "What gives the window its size.",
        own="its own",
        fit="margins, in proportion",
        fill="margins, all round",
    )
    margin: float = length(
        12, "Margin", "From the panel's edges to the window.", least=0, most=500,
        when={"sized": ["fit", "fill"]},
    )  # fmt: skip
    frame: float = length(
        0,
        "Frame",
        "Width of a border left or put round it, where the paper does not reach that far; 0 is none.",
        least=0,
        most=200,
    )

    @property
    def sizable(self) -> bool:
        return self.sized is Sized.OWN

    def turned_figure(self, work: Work, setting: Setting) -> Region:
        region = super().turned_figure(work, setting)
        if self.sized is Sized.OWN:
            return region
        box, own = self.target_box(work), region.bounds
        room = (box.width - 2 * self.margin, box.height - 2 * self.margin)
        if min(room) <= 0:
            raise StepError(
                "Margins of {} leave nothing of the panel's {}.",
                self.margin,
                min(box.width, box.height),
                field="margin",
                would_do=round(min(box.width, box.height) / 8, 1),
            )
        across, down = room[0] / own.width, room[1] / own.height
        if self.sized is Sized.FIT:
            across = down = min(across, down)
        return region.transformed(scaling(across, down))

    def sized_otherwise(self, before: Work, setting: Setting) -> SizedOtherwise | None:
        if self.sizable or self.turn % 180:
            return None
        box = self.turned_figure(before, setting).bounds
        own = outline_of(self.outline, setting.shelf).bounds
        sizes = self.outline.sizes(own)
        found = {sizes.across: box.width, sizes.down: box.height}
        if sizes.both:  # a measure of its own, which need not be the width of its box
            now = getattr(self.outline, sizes.both) or sizes.shown
            found[sizes.both] = now * box.width / own.width
        values = {f"outline.{name}": round(mm, 3) for name, mm in found.items() if name}
        return SizedOtherwise(values, {"sized": Sized.OWN.value}) if values else None

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        parts = self.by_panel(work, setting)
        figure = outline_of_all([c for _, copies in parts for c in copies])
        across = self.crosses or self.target == CLOSED
        if not across:
            name, here = parts[0]
            self._must_fit(outline_of_all(here).bounds, work.box_of(name))
        paper = work.paper
        if self.frame:
            paper = union(paper, grown_by(filled(figure), self.frame))
        paper = difference(paper, figure)
        if not paper:
            raise StepError(
                "The window covers the whole piece: nothing would be left.",
                hint="Make it smaller.",
                field="outline",
            )
        opened = [
            replace(self._opened(panel, copies, crosses=across), before=work.paper)
            for panel, copies in reversed(parts)
        ]
        return work.with_paper(paper, windows=(*work.windows, *opened))

    def _opened(self, panel: str, copies: list[Copy], *, crosses: bool) -> Opened:
        whole = outline_of_all(copies)
        if len(copies) > 1 and not all_apart([c.outline for c in copies]):
            copies = [Copy(part) for part in whole.parts()]
        return Opened(self.id, panel, whole, crosses, tuple(copies))

    def _must_fit(self, box: Box, panel: Box) -> None:
        if box.width > panel.width + 1e-9 or box.height > panel.height + 1e-9:
            share = 0.8 * min(panel.width / box.width, panel.height / box.height)
            if (box.left < panel.left and box.right > panel.right) or (
                box.head < panel.head and box.foot > panel.foot
            ):
                raise StepError(
                    "The window of {} x {} is larger than the panel of {} x {}.",
                    *(box.width, box.height, panel.width, panel.height),
                    *(box.width * share, box.height * share),
                    hint="{} x {} would do.",
                    field="outline",
                    would_do=round(box.width * share, 1),
                )
            over = max(panel.left - box.left, box.right - panel.right,
                       panel.head - box.head, box.foot - panel.foot)  # fmt: skip
            raise StepError(
                "The window of {} x {} runs {} over the edge of its panel, which is {} x {}.",
                *(box.width, box.height, over, panel.width, panel.height),
                *(box.width * share, box.height * share),
                hint="{} x {} would go on it. Or say that it may cross the fold.",
                field="outline",
                would_do=round(box.width * share, 1),
            )
        for field, low, high, edge_low, edge_high in (
            ("dx", box.left, box.right, panel.left, panel.right),
            ("dy", box.head, box.foot, panel.head, panel.foot),
        ):
            over = max(edge_low - low, high - edge_high)
            if over > 1e-9:
                value = getattr(self, field)
                back = value + max(edge_low - low, 0) - max(high - edge_high, 0)
                raise StepError(
                    "The window runs {} over the edge of its panel.",
                    over,
                    hint="Move it back, or say that it may cross the fold.",
                    field=field,
                    would_do=round(back, 4),
                )

    @property
    def opens(self) -> bool:
        return True

    def caption(self) -> Caption:
        return Caption(within(self.outline.title))

    @classmethod
    def beginnings(cls, begun: Begun) -> list[Beginning]:
        about = "A plain card with the figure cut out of its front."
        offered = partial(Beginning, "window", 3, "With a window", about)
        steps = begun.blank_steps
        margin = round(0.12 * min(begun.setting.closed) * 2) / 2
        sized = Sized.FIT if begun.fits else Sized.OWN
        window = cls(outline=begun.figure, sized=sized, margin=max(margin, begun.margin))
        try:
            box = window.turned_figure(begun.made(steps), begun.setting).bounds
            begun.made((*steps, window))
        except StepError as problem:
            return [offered(why=str(problem))]
        size = (box.width, box.height)
        return [offered((*steps, window), size)]

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.shaped import Arch
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(outline=Arch(width=44, height=70, rise=22))]
