"""A hole to hang the card up by."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, special
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.outlines.figures.straight import Rectangle
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.handle import Handle, LineHandle, Moved
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step


class Shape(StrEnum):
    ROUND = "round"
    SLOT = "slot"


class End(StrEnum):
    HEAD = "head"
    FOOT = "foot"


@register_step
class HangHole(Step):
    """A round hole, or a slot with round ends, in the middle of a panel near its head or foot."""

    stage = Stage.WINDOWS
    title = "Hang hole"
    words = "peg hook thread ribbon tag display eyelet punch"
    sayings = (
        "hole for ribbon",
        "hole for a string",
        "hang tag hole",
        "punch a hole",
        "eyelet",
        "peg hole",
        "hook",
        "hanger",
    )
    takes = ("size",)
    kind: Literal["hang-hole"] = "hang-hole"
    target: str = special("front", "On", "The panel that is hung up.", control="target")
    shape: Shape = choice(
        Shape.ROUND, "Shape", "For a thread or a peg, or for a hook.", round="round", slot="a slot"
    )
    size: float = length(6, "Diameter", "Of the hole; a slot is as high.", least=1, most=60)
    width: float = length(
        28, "Length", "Of the slot, its round ends included.", least=1, when={"shape": ["slot"]}
    )
    end: End = choice(
        End.HEAD, "End", "The end of the panel that it is near.", head="the head", foot="the foot"
    )
    edge: float = length(8, "From the edge", "From the panel's edge to the hole.", least=0.5)

    def hole(self, panel: Box) -> Region:
        """Its outline, in its place. StepError where the slot is shorter than high."""
        if self.shape is Shape.ROUND:
            region = outline_of(Circle(diameter=self.size), {})
        elif self.width > self.size:
            slot = Rectangle(width=self.width, height=self.size, radius=self.size / 2)
            region = outline_of(slot, {})
        else:
            raise StepError(
                "A slot {} long and {} high is no slot.",
                self.width,
                self.size,
                hint="Make it longer than high, or take a round hole.",
                field="width",
                would_do=round(4 * self.size, 1),
            )
        box = region.bounds
        y = panel.head + self.edge if self.end is End.HEAD else panel.foot - self.edge - box.height
        x = panel.centre[0] - box.centre[0]
        return region.transformed(translation(x, y - box.head))

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        name = work.panel_name(self.target)
        panel = work.box_of(name)
        hole = self.hole(panel)
        box = hole.bounds
        if box.width >= panel.width or self.edge + box.height >= panel.height:
            raise StepError(
                "The hole of {} x {} does not fit on the panel of {} x {}.",
                *(box.width, box.height, panel.width, panel.height),
                field="edge" if box.width < panel.width and box.height < panel.height else "size",
                would_do=8.0 if box.height + 8 < panel.height else None,
            )
        if intersection(work.paper, hole).area < hole.area - 1e-6:
            raise StepError(
                "The hole is not wholly on the paper: there is none in its place.",
                hint="Move it further in, or take the other end.",
                field="edge",
            )
        opened = Opened(self.id, name, hole, crosses=False, before=work.paper)
        return work.with_paper(difference(work.paper, hole), windows=(*work.windows, opened))

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        panel = before.box_of(before.panel_name(self.target))
        head = self.end is End.HEAD
        origin, factor = (panel.head, 1.0) if head else (panel.foot, -1.0)
        at = origin + factor * self.edge
        return [LineHandle(Moved("edge", self.edge, factor, 0.5), "y", at, origin, "hole")]

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        panel = after.box_of(after.panel_name(self.target))
        gap = (panel.width - self.hole(panel).bounds.width) / 2
        return [Told("To either side", value=gap)]

    @property
    def opens(self) -> bool:
        return True

    def caption(self) -> Caption:
        return Caption(value=self.size)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(shape=Shape.SLOT, size=9, width=40, edge=14)]
