"""A figure that stands out over an open edge."""

from __future__ import annotations

import math
from dataclasses import replace
from enum import StrEnum
from functools import partial
from typing import Any, Literal

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, offset, special
from stileblade.geometry.curves.places import Side
from stileblade.geometry.curves.transforms import scaling, translation
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, union
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.piece.sides import must_be_open, side_field
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.beginning import Beginning, Begun
from stileblade.steps.handle import BoxHandle, Handle, Moved
from stileblade.steps.placing import sizing_of, turned
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step

_BEGUN_OUT = 0.4
"""Share of the figure's depth that stands out where a card is begun with it."""
_BEGUN_ROOM = 0.3
"""Share of the card across its creases that this takes at most."""
_BEGUN_DEEP = 0.8
"""Share of the card across its creases that the whole figure takes at most."""


class Sized(StrEnum):
    OWN = "own"
    EDGE = "edge"


class Inner(StrEnum):
    DROPPED = "dropped"
    KEPT = "kept"


@register_step
class Overhang(Step):
    """A figure welded to an open edge of a panel, standing out beyond it by an exact measure: the
    closed card grows by that, and its envelope must take it."""

    stage = Stage.WINDOWS
    title = "Overhang"
    words = "stand out beyond edge weld figure stick over"
    sayings = (
        "stick out over the edge",
        "stand out beyond the edge",
        "over the side",
        "figure beyond the edge",
        "peek over",
    )
    takes = ("out", "outline")
    changes_size = True
    kind: Literal["overhang"] = "overhang"
    outline: AnyFigure = figure_field(Circle(diameter=60), "Figure", "What stands out.")
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.")
    target: str = special("front", "On", "The panel that it is welded to.", control="target")
    side: Side = side_field(Side.RIGHT, "The open edge that it stands out over.")
    out: float = length(15, "Stands out", "How far it reaches beyond the edge.", above=0, most=300)
    along: float = offset(0, "Along the edge", "From the edge's middle; down or right is positive.")
    sized: Sized = choice(
        Sized.OWN,
        "Size",
        "What its size is tied to.",
        own="its own",
        edge="the edge's length",
    )
    margin: float = offset(
        0,
        "Shorter by",
        "How much shorter than the edge it is, at either end.",
        when={"sized": ["edge"]},
    )
    inner: Inner = choice(
        Inner.DROPPED,
        "Openings",
        "What becomes of the figure's inner contours.",
        dropped="are closed",
        kept="are cut through",
    )

    def placed(self, work: Work, setting: Setting) -> Region:
        """The figure where it is welded."""
        box = work.box_of(self.target)
        region = outline_of(self.outline, setting.shelf)
        region = turned(region, self.turn)
        if self.sized is Sized.EDGE:
            wished = self.side.length_in(box) - 2 * self.margin
            if wished <= 0:
                raise StepError(
                    "Less {} at either end leaves nothing of the edge's {}.",
                    self.margin,
                    self.side.length_in(box),
                    field="margin",
                    would_do=0.0,
                )
            share = wished / self.side.length_in(region.bounds)
            region = region.transformed(scaling(share, share))
        own = region.bounds
        depth = self.side.depth_of(own)
        if self.out > depth - 1e-9:
            raise StepError(
                "The figure is {} deep and cannot stand out by {}.",
                depth,
                self.out,
                hint="Let it stand out by less, or make it larger.",
                field="out",
                would_do=round(depth / 2, 1),
            )
        to_edge = self.side.at(box) + self.side.outwards * self.out - self.side.at(own)
        to_middle = self.side.middle(box) + self.along - self.side.middle(own)
        shift = (to_edge, to_middle) if self.side.upright else (to_middle, to_edge)
        return region.transformed(translation(*shift))

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        box = work.box_of(self.target)
        must_be_open(work, box, self.side)
        figure = self.placed(work, setting)
        whole = filled(figure)
        paper = union(work.paper, whole)
        if paper.pieces > work.paper.pieces:
            raise StepError(
                "The figure does not reach the paper: it would be a piece of its own.",
                hint="Move it along the edge, or let it stand out by less.",
                field="along",
                would_do=0.0,
            )
        if self.inner is Inner.DROPPED or not figure.openings:
            return work.with_paper(paper)
        openings = difference(whole, figure)
        opened = Opened(self.id, self.target, openings, crosses=True, before=work.paper)
        return work.with_paper(difference(paper, openings), windows=(*work.windows, opened))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        depth = self.side.depth_of(self.placed(before, setting).bounds)
        return [Told("Standing out", self.out), Told("On the panel", depth - self.out)]

    def _tip(self, figure: Region) -> tuple[float, float]:
        box = figure.bounds
        out, along = self.side.at(box), self.side.middle(box)
        return (out, along) if self.side.upright else (along, out)

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        region, sizing = self.placed(before, setting), None
        if self.sized is Sized.OWN:
            sizing = sizing_of(self.outline, self.turn, setting, self._tip(region))
        moves = self.moves(before)
        return [BoxHandle(*moves, region.bounds, region, "overhang", sizing, self.turn)]

    def moves(self, before: Work) -> tuple[Moved, Moved]:
        out = Moved("out", self.out, float(self.side.outwards), least=0.1)
        along = Moved("along", self.along)
        return (out, along) if self.side.upright else (along, out)

    def drawn_in_by(self, way: float) -> dict[str, float]:
        return {"out": math.floor((self.out - way) * 100 + 1e-6) / 100}

    @property
    def opens(self) -> bool:
        return self.inner is Inner.KEPT

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        if self.sized is not Sized.OWN:
            return {}
        outline = self.outline.scaled(factor, setting.shelf)
        return {"outline": outline, "out": self.out * factor, "along": self.along * factor}

    def caption(self) -> Caption:
        return Caption("out", self.out)

    @classmethod
    def beginnings(cls, begun: Begun) -> list[Beginning]:
        """The front is made as much shorter as the figure stands out of it: the closed card stays as
        large as it was chosen."""
        about = "A plain card, the figure standing out of its front as far as the back reaches."
        offered = partial(Beginning, "welded", 2, "Welded to a blank", about)
        folding, upright = begun.setting.folding, begun.setting.folding.axis == "x"
        side = Side.RIGHT if upright else Side.FOOT
        side = side.opposite if folding.swapped else side
        across, along = begun.setting.closed if upright else begun.setting.closed[::-1]
        width, height = begun.own_size
        deep, long = (width, height) if upright else (height, width)
        share = (
            1.0
            if not begun.fits
            else min(max(along - 2 * begun.margin, 1.0) / long, _BEGUN_DEEP * across / deep)
        )
        margin = round((along - share * long) / 2, 2)
        out = round(min(_BEGUN_OUT * deep * share, _BEGUN_ROOM * across) * 2) / 2
        own = folding.model_copy(update={"front_shorter": out})
        card = replace(begun, setting=replace(begun.setting, folding=own))
        sized = Sized.EDGE if begun.fits else Sized.OWN
        step = cls(outline=begun.figure, side=side, out=out, sized=sized, margin=margin)
        made, size = (*begun.blank_steps, step), (width * share, height * share)
        try:
            card.made(made)
        except StepError as problem:
            return [offered(why=str(problem))]
        return [offered(made, size, own)]

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(outline=Circle(diameter=70), out=34)]
