"""Mirror with a lap."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from functools import partial
from typing import Final, Literal

from stileblade.card.layout import Panel
from stileblade.errors import StepError
from stileblade.fields import choice, length
from stileblade.folding.hinge import safe_lap
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Box, Side
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import mirror_across
from stileblade.geometry.regions.clipping import clip_line
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.mirroring import weld_mirrored
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import cut_off, intersection, rectangle, union_all
from stileblade.piece.folds import Fold
from stileblade.piece.mirrored import Mirrored, place_at_lap
from stileblade.piece.windows import Copy, Opened
from stileblade.piece.work import Note, Work
from stileblade.steps.beginning import Beginning, Begun
from stileblade.steps.fitting import FitTo
from stileblade.steps.handle import Handle, LineHandle, Moved
from stileblade.steps.kinds.fit import Fit
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, register_step
from stileblade.words import say

_LAPS = 8
"""How often a figure is stretched anew for the lap that the one before it needs, each time at least half a mm more."""


class Towards(StrEnum):
    """Where a mirror image comes; FOLD is one of the others, as the card folds."""

    FOLD = "fold"
    LEFT = "left"
    RIGHT = "right"
    ABOVE = "above"
    BELOW = "below"


_SIDES: Final = {
    Towards.LEFT: Side.LEFT, Towards.RIGHT: Side.RIGHT,
    Towards.ABOVE: Side.HEAD, Towards.BELOW: Side.FOOT,
}  # fmt: skip


def _mirrored(
    windows: tuple[Opened, ...], half: Region, matrix: Floats, panel: str
) -> tuple[Opened, ...]:
    """The windows of the figure where they still are, and their images on the other panel."""
    found: list[Opened] = []
    for window in windows:
        whole = filled(half)
        here = [c for c in (intersection(w.outline, whole) for w in window.each) if c]
        if not here:
            continue
        there = [Copy(c.transformed(matrix), True) for c in here]
        other = "back" if panel == "front" else "front"
        for name, copies in ((other, there), (panel, [Copy(c) for c in here])):
            outline = gather([c.outline for c in copies])
            found.append(Opened(window.step, name, outline, window.crosses, tuple(copies)))
    return tuple(found)


def _with_spine(half: Region, side: Side, at: float, spine: float, matrix: Floats) -> Region:
    """The half, its image, and between them a strip as wide as the spine wherever the half ends there."""
    line = Line.on(side.axis, at)
    parts = [half, half.transformed(matrix)]
    for start, end in clip_line(half, *line.ends_beyond(half.bounds)):
        low, high = sorted((line.place_of(start), line.place_of(end)))
        near, far = sorted((at, at + side.outwards * spine))
        parts.append(
            rectangle(Box(near, low, far, high) if side.axis == "x" else Box(low, near, high, far))
        )
    return union_all(parts)


@register_step
class Mirror(Step):
    """The figure and its mirror image in one piece, the fold between them.

    The two run into each other by the lap: the axis lies half a lap inside the figure's
    extreme, and both halves end there.
    """

    needs_before = Needs.FIGURE
    makes_panels = True
    stage = Stage.MIRROR
    title = "Mirror"
    words = "weld double fold lap reflect shaped card"
    sayings = (
        "mirror",
        "double it",
        "fold along the side",
        "make it a card",
        "two halves",
        "reflect",
        "weld to its copy",
        "folded card",
        "hinge",
        "base of two",
        "lap",
    )
    takes = ("lap",)
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

    def _side(self, setting: Setting) -> Side:
        """Left of a side fold, above a top fold, and on the other side where it opens there."""
        if self.towards is not Towards.FOLD:
            return _SIDES[self.towards]
        side = Side.LEFT if setting.folding.axis == "x" else Side.HEAD
        return side.opposite if setting.folding.swapped else side

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs_figure(work)
        box, side = work.paper.bounds, self._side(setting)
        axis, low, at = side.axis, side.low, place_at_lap(box, side, self.lap)
        depth = side.depth_of(box)
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
        spine = setting.folding.apart
        middle = at - spine / 2 if low else at + spine / 2
        matrix = mirror_across(axis=axis, at=middle)
        own, other = half.bounds, half.bounds.transformed(matrix)
        front, back = (own, other) if low else (other, own)
        return Work(
            _with_spine(half, side, at, spine, matrix)
            if spine
            else weld_mirrored(half, axis=axis, at=at),
            (Panel("back", back), Panel("front", front)),
            (Fold("fold", Line.on(axis, middle), apart=spine),),
            reference=work.reference,
            mirrored=Mirrored(self.id, work.paper, half, side, self.lap),
            front="front",
            windows=_mirrored(work.windows, half, matrix, "front" if low else "back"),
            lines=tuple(
                line.on(half) if low else line.on(half).moved(matrix) for line in work.lines
            ),
            artwork=work.artwork if low or work.artwork is None else work.artwork.moved(matrix),
            notes=work.notes
            + (
                ()
                if low
                else (
                    Note(
                        "mirror.reversed",
                        "Mirrored to the right, the figure shows reversed on the front."
                        if axis == "x"
                        else "Mirrored below, the figure shows reversed on the front.",
                        self.id,
                    ),
                )
            ),
        )

    def caption(self) -> Caption:
        return Caption("lap", self.lap)

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None or not before.paper:
            return []
        box, side = before.paper.bounds, self._side(setting)
        sets = Moved("lap", self.lap, -2.0 * side.outwards, least=0.0)
        at = place_at_lap(box, side, self.lap)
        return [LineHandle(sets, side.axis, at, side.at(box), word="lap")]

    @classmethod
    def beginnings(cls, begun: Begun) -> list[Beginning]:
        about = "The whole card has its outline: two of it in one piece, the fold between them."
        offered = partial(Beginning, "mirrored", 1, "Shaped", about)
        if not begun.setting.folding.way.mirrors:
            return [offered(why=begun.no_halves)]
        steps = begun.figure_steps
        figure, mirror = begun.made(steps).paper, cls()
        if figure.pieces > 1:
            why = say(
                "{title} is of {pieces} separate parts: weld it to a blank, or take one half and give it a surround.",
                title=begun.figure.title,
                pieces=figure.pieces,
            )
            return [offered(why=why)]
        lap = safe_lap(figure, mirror._side(begun.setting), mirror.lap)
        size = (figure.bounds.width, figure.bounds.height)
        found = [offered((*steps, cls(lap=lap)), size)]
        return [*found, cls._stretched(begun)] if begun.fits else found

    @classmethod
    def _stretched(cls, begun: Begun) -> Beginning:
        """The figure stretched both ways, so that the closed card is exactly as large as its size less the margin:
        across the fold by half a lap more, which the mirror cuts off."""
        side = cls()._side(begun.setting)
        wide, high = (mm - 2 * begun.margin for mm in begun.setting.closed)
        start, lap = replace(begun, fits=False).figure_steps, cls().lap
        for _ in range(_LAPS):
            across, down = (lap / 2, 0.0) if side.upright else (0.0, lap / 2)
            fit = Fit(to=FitTo.BOTH, width=wide + across, height=high + down, proportions=False)
            figure, before = begun.made((*start, fit)).paper, lap
            lap = safe_lap(figure, side, lap)
            if lap == before:
                break
        return Beginning(
            "mirrored-stretched", 1, "Shaped, stretched",
            "The same, its figure stretched both ways: closed, the card is exactly as large as chosen.",
            (*start, fit, cls(lap=lap)), (figure.bounds.width, figure.bounds.height),
        )  # fmt: skip

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Circle
        from stileblade.steps.kinds.figure import StartFigure

        return [StartFigure(outline=Circle(diameter=60)), cls(towards=Towards.LEFT, lap=8)]
