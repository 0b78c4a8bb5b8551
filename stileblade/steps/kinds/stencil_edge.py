"""The outer edge of a panel replaced by the outer line of a figure."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import angle, length, offset, special
from stileblade.geometry.curves.places import Side
from stileblade.geometry.curves.transforms import scaling, translation
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import with_figures
from stileblade.geometry.regions.set_operations import difference, rectangle, union
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Ellipse
from stileblade.piece.edges import shapes_along
from stileblade.piece.sides import must_be_open, side_field
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.handle import Handle, LineHandle, Moved
from stileblade.steps.placing import turned
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step


@register_step
class StencilEdge(Step):
    """A panel cut back, and the surround of a figure welded on so that its outer line is the
    panel's new edge; what is open in the figure is cut. Fold and closed size stay."""

    stage = Stage.WINDOWS
    title = "Stencilled edge"
    words = "shaped border outer line surround replace edge figure"
    sayings = (
        "panel ends in a shape",
        "front cut to a shape",
        "outline as edge",
        "front follows the figure",
        "half of the front is a shape",
    )
    takes = ("outline",)
    kind: Literal["stencil-edge"] = "stencil-edge"
    outline: AnyFigure = figure_field(
        Ellipse(width=44, height=110), "Figure", "Whose outer line becomes the edge."
    )
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.")
    target: str = special("front", "On", "The panel whose edge it becomes.", control="target")
    side: Side = side_field(Side.RIGHT, "The open edge that is replaced.")
    surround: float = length(
        3, "Surround", "Paper left standing round the figure.", least=0, most=100
    )
    margin: float = offset(
        0, "Shorter by", "How much shorter than the edge it is, at either end, with its surround."
    )
    back: float = length(
        0,
        "Cut back",
        "How far the panel is cut back from its edge; 0 is to the figure's middle.",
        least=0,
    )

    def _cut_back(self, figure: Region) -> float:
        return self.back or self.side.depth_of(figure.bounds) / 2

    def placed(self, work: Work, setting: Setting) -> tuple[Region, Region]:
        """The figure, and its surround without openings, where they are welded on."""
        box = work.box_of(self.target)
        region = turned(outline_of(self.outline, setting.shelf), self.turn)
        edge = self.side.length_in(box)
        wished = edge - 2 * self.margin - 2 * self.surround
        if wished <= 0:
            raise StepError(
                "A surround of {} leaves nothing of the edge's {} for the figure.",
                self.surround,
                edge,
                field="surround",
                would_do=3.0,
            )
        share = wished / self.side.length_in(region.bounds)
        region, surround = _surrounded(region, share, self.surround)
        own = region.bounds
        to_edge = self.side.at(box) - self.side.outwards * self.surround - self.side.at(own)
        to_middle = self.side.middle(box) - self.side.middle(own)
        shift = (to_edge, to_middle) if self.side.upright else (to_middle, to_edge)
        matrix = translation(*shift)
        return region.transformed(matrix), surround.transformed(matrix)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        box = work.box_of(self.target)
        must_be_open(work, box, self.side)
        figure, surround = self.placed(work, setting)
        depth, deepest = self.side.depth_of(box), self.side.depth_of(surround.bounds)
        if deepest > depth + 1e-9:
            raise StepError(
                "With its surround the figure is {} deep, more than the panel's {}.",
                deepest,
                depth,
                hint="Turn it, or make it shorter than the edge.",
                field="margin",
                would_do=round(self.side.length_in(box) * (1 - depth / deepest) / 2 + 1, 1),
            )
        back = self._cut_back(surround)
        if back > deepest - 0.1:
            raise StepError(
                "Cut back by {}, the panel does not reach the figure, which is {} deep.",
                back,
                deepest,
                field="back",
                would_do=round(deepest / 2, 1),
            )
        cut = difference(work.paper, rectangle(self.side.band(box, back, 1.0, 1.0)))
        paper = union(cut, surround)
        if paper.pieces > work.paper.pieces:
            raise StepError(
                "The figure's surround does not reach the panel everywhere.",
                hint="Cut back by less, or give it a wider surround.",
                field="back",
                would_do=round(back / 2, 1),
            )
        shapes = shapes_along(self.id, work.panels, box, self.side, back)
        work = replace(work, edges=(*work.edges, *shapes))
        openings = difference(filled(figure), figure)
        if not openings:
            return work.with_paper(paper)
        opened = Opened(self.id, self.target, openings, crosses=False, before=work.paper)
        return work.with_paper(difference(paper, openings), windows=(*work.windows, opened))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        figure, surround = self.placed(before, setting)
        return [
            Told("Figure, along the edge", self.side.length_in(figure.bounds)),
            Told("Figure, across", self.side.depth_of(figure.bounds)),
            Told("Cut back by", self._cut_back(surround)),
        ]

    @property
    def opens(self) -> bool:
        return True

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        _, surround = self.placed(before, setting)
        edge, sign = self.side.at(before.box_of(self.target)), -self.side.outwards
        back = self._cut_back(surround)
        sets = Moved("back", back, float(sign), least=0.1)
        return [LineHandle(sets, self.side.axis, edge + sign * back, edge, word="cut back")]

    def caption(self) -> Caption:
        return Caption("surround", self.surround)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(surround=6)]


@with_figures
def _surrounded(region: Region, share: float, surround: float) -> tuple[Region, Region]:
    """The region scaled, and its surround without openings, wherever they are then moved to."""
    region = region.transformed(scaling(share, share))
    return region, grown_by(filled(region), surround)
