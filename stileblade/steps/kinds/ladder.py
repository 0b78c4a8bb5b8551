"""A column of slots whose widths change by a fixed amount."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, number_of, offset, special
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats, lines
from stileblade.geometry.curves.transforms import after, rotation, translation
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import difference, intersection, rectangle
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.handle import BoxHandle, Handle, Moved
from stileblade.steps.placing import Anchor
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.words import say

NARROWEST = 0.5


class Align(StrEnum):
    CENTRE = "centre"
    LEFT = "left"
    RIGHT = "right"


class CutAs(StrEnum):
    OUT = "out"
    FLAPS = "flaps"


class Hinge(StrEnum):
    """The side of each slot on which its flap hangs, before the ladder is turned."""

    LEFT = "left"
    RIGHT = "right"
    HEAD = "head"
    FOOT = "foot"
    STEM = "stem"


@register_step
class SlotLadder(Step):
    """A column of slots, each wider or narrower than the one above by the same measure; with a
    stem left standing down its middle if wanted."""

    stage = Stage.WINDOWS
    title = "Slot ladder"
    words = "slots lantern strips column cuts windows tree"
    sayings = (
        "row of slots",
        "slits",
        "column of slots",
        "paper lantern slots",
        "slots that get wider",
        "christmas tree slots",
        "vents",
    )
    takes = ("count", "first")
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
    cut: CutAs = choice(
        CutAs.OUT,
        "Slots",
        "What becomes of the paper in them.",
        out="are cut out",
        flaps="are flaps, cut on three sides",
    )
    hinge: Hinge = choice(
        Hinge.FOOT,
        "Flaps hang",
        "The side that is scored instead of cut.",
        left="at the left",
        right="at the right",
        head="at the head",
        foot="at the foot",
        stem="at the stem",
        when={"cut": ["flaps"]},
    )
    turn: float = angle(0, "Turn", "Clockwise, about the centre of all slots.")
    target: str = special("front", "On", "The panel that it is placed by.", control="target")
    at: Anchor = special(Anchor.CENTRE, "Position", "The place on the panel.", control="anchor")
    by: Anchor = special(
        Anchor.CENTRE, "Its point", "The point of the ladder that is set there.", control="anchor"
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
                hint=say(
                    "Take fewer slots ({most} would do), or let them change by less.", most=most
                ),
                field="change",
                would_do=round((NARROWEST - self.first) / (self.count - 1), 2) + 0.01,
            )
        return found

    def boxes(self) -> list[tuple[Box, bool]]:
        """Of the slots, the uppermost one's top at y = 0, in two where a stem parts them, each with
        whether the stem is at its right."""
        widths = self.widths()
        widest = max(widths)
        found = []
        for n, width in enumerate(widths):
            left = {
                Align.LEFT: 0.0,
                Align.CENTRE: (widest - width) / 2,
                Align.RIGHT: widest - width,
            }[self.align]
            head = n * (self.height + self.between)
            foot, right, half = head + self.height, left + width, (width - self.stem) / 2
            if not self.stem:
                found.append((Box(left, head, right, foot), False))
            elif half > 0:
                found.append((Box(left, head, left + half, foot), True))
                found.append((Box(right - half, head, right, foot), False))
        if not found:
            raise StepError(
                "A stem of {} leaves nothing of the slots.",
                self.stem,
                field="stem",
                would_do=round(min(widths) / 3, 1),
            )
        return found

    def slots(self) -> Region:
        return gather([rectangle(box) for box, _ in self.boxes()])

    def _matrix(self, work: Work) -> Floats:
        slots = self.slots()
        turn = rotation(self.turn, about=slots.bounds.centre)
        x, y = self.by.of(slots.transformed(turn).bounds)
        spot = self.at.of(work.box_of(self.target))
        return after(translation(spot[0] - x + self.dx, spot[1] - y + self.dy), turn)

    def placed(self, work: Work) -> Region:
        return self.slots().transformed(self._matrix(work))

    def flaps(self, work: Work) -> tuple[DrawnLine, DrawnLine]:
        """The cuts on three sides of all flaps, and the scores that they hang on."""
        if self.hinge is Hinge.STEM and not self.stem:
            raise StepError(
                "There is no stem for the flaps to hang on.",
                hint="Give the stem a width, or let them hang on another side.",
                field="stem",
                would_do=round(self.first / 5, 1),
            )
        matrix = self._matrix(work)
        cuts, scores = [], []
        for box, stem_right in self.boxes():
            a, b, c, d = box.corners()  # clockwise from the head left
            around = {Hinge.HEAD: (b, c, d, a), Hinge.RIGHT: (c, d, a, b),
                      Hinge.FOOT: (d, a, b, c), Hinge.LEFT: (a, b, c, d)}  # fmt: skip
            side = Hinge.RIGHT if stem_right else Hinge.LEFT
            corners = around[side if self.hinge is Hinge.STEM else self.hinge]
            cuts.append((lines(corners[:-1], corners[1:]).transformed(matrix), False))
            scores.append((lines(corners[-1:], corners[:1]).transformed(matrix), False))
        return (
            DrawnLine(self.id, How.CUT, tuple(cuts)),
            DrawnLine(self.id, How.SCORE, tuple(scores)),
        )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        slots = self.placed(work)
        panel = work.box_of(work.panel_name(self.target))
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
        if self.cut is CutAs.FLAPS:
            return replace(work, lines=(*work.lines, *self.flaps(work)))
        opened = Opened(
            self.id, work.panel_name(self.target), slots, crosses=False, before=work.paper
        )
        return work.with_paper(difference(work.paper, slots), windows=(*work.windows, opened))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        slots = self.slots()
        return [
            Told("Wide", slots.bounds.width),
            Told("High", slots.bounds.height),
            Told("Last slot", self.widths()[-1]),
            Told("Cut out" if self.cut is CutAs.OUT else "In the flaps", slots.area, "mm2"),
        ]

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        slots = self.placed(before)
        return [BoxHandle(*self.moves(before), slots.bounds, slots, word="ladder")]

    def moves(self, before: Work) -> tuple[Moved, Moved]:
        return Moved("dx", self.dx), Moved("dy", self.dy)

    @property
    def opens(self) -> bool:
        return self.cut is CutAs.OUT

    def caption(self) -> Caption:
        return Caption(say("{n} slots", n=self.count))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(height=9, between=7, first=24, change=8)]


def _over(box: Box, panel: Box) -> float:
    return max(
        panel.left - box.left, box.right - panel.right, panel.head - box.head, box.foot - panel.foot
    )
