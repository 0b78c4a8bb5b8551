"""What a window shows, put on the panel behind it."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, offset, special
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection
from stileblade.piece.carrying import carried
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.lining import Lining, LiningStep, lined_by
from stileblade.steps.repeating import together
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, Told, register_step
from stileblade.words import say


class As(StrEnum):
    WINDOW = "window"
    LINE = "line"


_LINED = {"shown_as": ["line"]}


@register_step
class SeenThrough(LiningStep):
    """A window carried through the closed card onto the panel behind it, in exact register: cut
    there as well, or put there as a line, by which a picture or a layer is placed."""

    needs_before = Needs.WINDOW
    stage = Stage.WINDOWS
    title = "Seen through"
    words = "project register behind window through layer place align"
    sayings = (
        "show through the window",
        "draw where the window is",
        "line up with the window",
        "behind the hole",
    )
    kind: Literal["seen-through"] = "seen-through"
    window: str = special(
        "",
        "Window",
        "Which window; empty means the last one.",
        control="window",
        empty="the last one cut",
    )
    onto: str = special("back", "Onto", "The panel that is seen through it.", control="target")
    shown_as: As = choice(
        As.LINE, "Becomes", "What it becomes there.", window="a window", line="a line"
    )
    how: Lining = lined_by(when=_LINED)
    margin: float = offset(
        0, "Larger by", "All round; negative is smaller. A layer to be glued is larger."
    )

    def _carried(self, work: Work) -> Region:
        """The window's outline on the panel behind, and that of each of its copies elsewhere."""
        windows = work.windows_of(self.window)
        elsewhere = [w for w in windows if w.panel != self.onto]
        return together([self._seen(work, w) for w in elsewhere or windows])

    def _seen(self, work: Work, opened: Opened) -> Region:
        source = opened.panel
        names = [p.name for p in work.panels]
        if source not in names:  # by the card, or by the figure: where its middle lies
            x, y = opened.outline.bounds.centre
            source = next(
                (p.name for p in work.panels
                 if p.box.left <= x <= p.box.right and p.box.head <= y <= p.box.foot),
                work.front,
            )  # fmt: skip
        if source == self.onto:
            raise StepError(
                say("The window is in {source!r} itself.", source=source),
                hint="Choose the panel that lies behind it.",
                field="onto",
            )
        image = opened.outline.transformed(carried(work, source, self.onto))
        grown = grown_by(image, self.margin)
        if not grown:
            raise StepError(
                "Smaller by {}, nothing is left of the window.",
                -self.margin,
                field="margin",
                would_do=0.0,
            )
        return grown

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        image = self._carried(work)
        if self.shown_as is As.LINE:
            return self.lined(work, image, "onto")
        if not intersection(work.paper, image):
            raise StepError("There is no paper behind the window.", field="onto")
        opened = Opened(self.id, self.onto, image, crosses=False, before=work.paper)
        return work.with_paper(difference(work.paper, image), windows=(*work.windows, opened))

    def tells(self, before: Work | None, after: Work, setting: object) -> list[Told]:
        if self.shown_as is As.LINE:
            return super().tells(before, after, setting)
        box = after.windows[-1].outline.bounds
        return [Told("Wide", box.width), Told("High", box.height)]

    @property
    def opens(self) -> bool:
        return self.shown_as is As.WINDOW

    def caption(self) -> Caption:
        return Caption(say("onto {onto}", onto=self.onto))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Circle
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.window import Window

        return [Blank(), Window(outline=Circle(diameter=60)), cls()]
