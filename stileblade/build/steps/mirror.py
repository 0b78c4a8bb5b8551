"""Mirror with a lap."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.build.step import Caption, Handle, Setting, Stage, Step, register_step
from stileblade.build.work import Fold, Mirrored, Placed, Work
from stileblade.card.ways import Panel
from stileblade.errors import StepError
from stileblade.fields import choice, length
from stileblade.geometry.line import Axis, Line
from stileblade.geometry.mirroring import weld_mirrored
from stileblade.geometry.region import Box
from stileblade.geometry.set_operations import cut_off
from stileblade.geometry.transforms import after, mirror_across


class Towards(StrEnum):
    """Where a mirror image comes; FOLD is one of the others, as the card folds."""

    FOLD = "fold"
    LEFT = "left"
    RIGHT = "right"
    ABOVE = "above"
    BELOW = "below"

    @property
    def axis(self) -> Axis:
        return "x" if self in (Towards.LEFT, Towards.RIGHT) else "y"

    @property
    def low(self) -> bool:
        """Whether it is the side of smaller coordinates."""
        return self in (Towards.LEFT, Towards.ABOVE)

    def extreme(self, box: Box) -> float:
        if self.axis == "x":
            return box.left if self.low else box.right
        return box.head if self.low else box.foot


@register_step
class Mirror(Step):
    """The figure and its mirror image in one piece, the fold between them.

    The two run into each other by the lap: the axis lies half a lap inside the figure's
    extreme, and both halves end there.
    """

    stage = Stage.MIRROR
    title = "Mirror"
    words = "weld double fold lap reflect shaped card"
    kind: Literal["mirror"] = "mirror"
    towards: Towards = choice(
        Towards.FOLD,
        "Towards",
        "Where the mirror image comes.",
        fold="as the card folds",
        left="to the left",
        right="to the right",
        above="above",
        below="below",
    )
    lap: float = length(3, "Lap", "How far the two halves run into each other.", least=0)

    def _side(self, setting: Setting) -> Towards:
        """Left of a side fold, above a top fold, and on the other side where it opens there."""
        if self.towards is not Towards.FOLD:
            return self.towards
        upright, swapped = setting.folding.axis == "x", setting.folding.swapped
        if upright:
            return Towards.RIGHT if swapped else Towards.LEFT
        return Towards.BELOW if swapped else Towards.ABOVE

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs_figure(work)
        box, side = work.paper.bounds, self._side(setting)
        axis, low, extreme = side.axis, side.low, side.extreme(box)
        at = extreme + self.lap / 2 if low else extreme - self.lap / 2
        depth = box.width if axis == "x" else box.height
        half = cut_off(work.paper, axis=axis, at=at, keep="more" if low else "less")
        if not half:
            raise StepError(
                "A lap of {} is deeper than the figure; {} still leaves something.",
                self.lap,
                2 * depth - 0.1,
                hint="Make the lap smaller.",
                field="lap",
                would_do=round(2 * depth - 0.1, 1),
            )
        matrix = mirror_across(axis=axis, at=at)
        own, other = half.bounds, half.bounds.transformed(matrix)
        front, back = (own, other) if low else (other, own)
        return Work(
            weld_mirrored(half, axis=axis, at=at),
            (Panel("back", back), Panel("front", front)),
            (Fold("fold", Line.on(axis, at)),),
            reference=work.reference,
            mirrored=Mirrored(self.id, work.paper, half, side, self.lap),
            front="front",
            lines=tuple(
                line.on(half) if low else line.on(half).moved(matrix) for line in work.lines
            ),
            artwork=work.artwork
            if low or work.artwork is None
            else Placed(work.artwork.ref, after(matrix, work.artwork.matrix)),
            notes=work.notes
            + (
                ()
                if low
                else (
                    (
                        "mirror.reversed",
                        "Mirrored "
                        + ("to the right" if axis == "x" else "below")
                        + ", the figure shows reversed on the front.",
                    ),
                )
            ),
        )

    def caption(self) -> Caption:
        return Caption("lap", self.lap)

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None or not before.paper:
            return []
        side = self._side(setting)
        extreme = side.extreme(before.paper.bounds)
        factor = 2.0 if side.low else -2.0
        return [
            Handle(
                "line",
                "lap",
                self.lap,
                axis=side.axis,
                at=extreme + self.lap / factor,
                origin=extreme,
                factor=factor,
                least=0.0,
                word="lap",
            )
        ]

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.figure import StartFigure
        from stileblade.outlines.figures.round import Circle

        return [StartFigure(outline=Circle(diameter=60)), cls(towards=Towards.LEFT, lap=8)]
