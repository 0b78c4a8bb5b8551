"""A column of slots whose widths change by a fixed amount."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.build.placement import Anchor, place_at
from stileblade.build.step import Caption, Handle, Setting, Stage, Step, Told, register_step
from stileblade.build.work import Opened, Work
from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, number_of, offset, special
from stileblade.geometry.region import Box, Region
from stileblade.geometry.set_operations import difference, intersection, rectangle, union
from stileblade.geometry.transforms import rotation

NARROWEST = 0.5


class Align(StrEnum):
    CENTRE = "centre"
    LEFT = "left"
    RIGHT = "right"


@register_step
class SlotLadder(Step):
    """A column of slots, each wider or narrower than the one above by the same measure; with a
    stem left standing down its middle if wanted."""

    stage = Stage.WINDOWS
    title = "Slot ladder"
    words = "slots lantern strips column cuts windows tree"
    kind: Literal["slot-ladder"] = "slot-ladder"
    count: int = number_of(6, "Slots", "How many there are.", least=1, most=100)
    first: float = length(20, "First", "How wide the uppermost slot is.", least=NARROWEST)
    change: float = offset(6, "Wider by", "Each next one; negative is narrower, 0 all alike.")
    height: float = length(5, "Height", "Of each slot.", above=0)
    between: float = length(4, "Between", "Paper left between two slots.", above=0)
    align: Align = choice(
        Align.CENTRE,
        "Aligned",
        "Where the slots stand below each other.",
        centre="by their centres",
        left="at the left",
        right="at the right",
    )
    stem: float = length(0, "Stem", "Width left standing down the middle; 0 is none.", least=0)
    turn: float = angle(0, "Turn", "Clockwise, about the centre of all slots.")
    target: str = special("front", "On", "The panel that it is placed by.", control="target")
    at: Anchor = special(Anchor.CENTRE, "At", "The place on the panel.", control="anchor")
    by: Anchor = special(
        Anchor.CENTRE, "By", "The place of the ladder that is set there.", control="anchor"
    )
    dx: float = offset(0, "To the right", "Moved on from there; negative is to the left.")
    dy: float = offset(0, "Down", "Moved on from there; negative is up.")

    def widths(self) -> list[float]:
        """Of the slots, from the uppermost down. StepError where one would vanish."""
        found = [self.first + n * self.change for n in range(self.count)]
        if min(found) < NARROWEST:
            most = int((self.first - NARROWEST) / -self.change) + 1
            raise StepError(
                "The last slot would be {} wide.",
                min(found),
                hint=f"Take fewer slots ({most} would do), or let them change by less.",
                field="change",
                would_do=round((NARROWEST - self.first) / (self.count - 1), 2) + 0.01,
            )
        return found

    def slots(self) -> Region:
        """All slots, the uppermost one's top at y = 0."""
        widths = self.widths()
        widest = max(widths)
        whole = Region.empty()
        for n, width in enumerate(widths):
            left = {
                Align.LEFT: 0.0,
                Align.CENTRE: (widest - width) / 2,
                Align.RIGHT: widest - width,
            }[self.align]
            top = n * (self.height + self.between)
            slot = rectangle(Box(left, top, left + width, top + self.height))
            if self.stem:
                middle = left + width / 2
                stem = Box(middle - self.stem / 2, top - 1, middle + self.stem / 2,
                           top + self.height + 1)  # fmt: skip
                slot = difference(slot, rectangle(stem))
            whole = union(whole, slot)
        if not whole:
            raise StepError(
                "A stem of {} leaves nothing of the slots.",
                self.stem,
                field="stem",
                would_do=round(min(widths) / 3, 1),
            )
        return whole

    def placed(self, work: Work) -> Region:
        slots = self.slots()
        slots = slots.transformed(rotation(self.turn, about=slots.bounds.centre))
        return place_at(slots, self.at.of(work.box_of(self.target)), self.by, self.dx, self.dy)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        slots = self.placed(work)
        panel = work.box_of(self.target)
        over = _over(slots.bounds, panel)
        if over > 1e-9:
            raise StepError(
                "The ladder of {} x {} runs {} over the edge of its panel.",
                slots.bounds.width,
                slots.bounds.height,
                over,
                hint="Move it, or take fewer or smaller slots.",
                field="count",
                would_do=max(1, self.count - 1),
            )
        if not intersection(work.paper, slots):
            raise StepError("There is no paper under the slots.", field="dx", would_do=0.0)
        opened = Opened(self.id, self.target, slots, crosses=False)
        return work.with_paper(difference(work.paper, slots), windows=(*work.windows, opened))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        slots = self.slots()
        return [
            Told("Wide", slots.bounds.width),
            Told("High", slots.bounds.height),
            Told("Last slot", self.widths()[-1]),
            Told("Cut out", slots.area, "mm2"),
        ]

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        slots = self.placed(before)
        box = slots.bounds
        return [
            Handle(
                "box",
                "dx",
                self.dx,
                field_y="dy",
                value_y=self.dy,
                outline=slots,
                box=(box.left, box.head, box.right, box.foot),
                word="ladder",
            )
        ]

    def caption(self) -> Caption:
        return Caption(f"{self.count} slots")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.blank import Blank

        return [Blank(), cls(height=9, between=7, first=24, change=8)]


def _over(box: Box, panel: Box) -> float:
    return max(
        panel.left - box.left, box.right - panel.right, panel.head - box.head, box.foot - panel.foot
    )
