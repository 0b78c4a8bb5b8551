"""Cut a window in a panel."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from stileblade.build.placement import PlacedStep
from stileblade.build.step import Caption, Setting, Stage, Step, register_step
from stileblade.build.work import Opened, Work
from stileblade.errors import StepError
from stileblade.geometry.region import Box
from stileblade.geometry.set_operations import difference


@register_step
class Window(PlacedStep):
    """An opening cut in a panel, placed by head, middle or foot and left, centre or right."""

    stage = Stage.WINDOWS
    title = "Window"
    words = "aperture opening porthole cut out"
    kind: Literal["window"] = "window"
    crosses: bool = Field(
        False,
        title="May cross a fold",
        description="On: the window is meant to run across a fold or an edge.",
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        figure = self.placed(work, setting)
        panel = work.box_of(self.target)
        if not self.crosses:
            self._must_fit(figure.bounds, panel)
        paper = difference(work.paper, figure)
        if not paper:
            raise StepError(
                "The window covers the whole piece: nothing would be left.",
                hint="Make it smaller.",
                field="outline",
            )
        opened = Opened(self.id, self.target, figure, self.crosses)
        return work.with_paper(paper, windows=(*work.windows, opened))

    def _must_fit(self, box: Box, panel: Box) -> None:
        if box.width > panel.width + 1e-9 or box.height > panel.height + 1e-9:
            share = 0.8 * min(panel.width / box.width, panel.height / box.height)
            raise StepError(
                "The window of {} x {} is larger than the panel of {} x {}.",
                *(box.width, box.height, panel.width, panel.height),
                *(box.width * share, box.height * share),
                hint="{} x {} would do.",
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

    def caption(self) -> Caption:
        return Caption(self.outline.title.lower())

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.blank import Blank
        from stileblade.outlines.figures.shaped import Arch

        return [Blank(), cls(outline=Arch(width=44, height=70, rise=22))]
