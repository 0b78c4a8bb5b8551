"""Start: a strip along an edge of a panel."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import length, offset, switch
from stileblade.geometry.curves.places import Box, Side
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.regions.set_operations import intersection, rectangle
from stileblade.piece.lying import Facing, Lying
from stileblade.piece.sides import must_be_open, open_sides, side_field
from stileblade.piece.work import Work
from stileblade.steps.ground import ground_of
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step

_FAR = 1.0


@register_step
class Strip(Step):
    """A strip along an edge of the panel that it lies on. It has the shape of that edge, so far further
    out, to show as a rim beyond it, or so far within it; or it is straight."""

    stage = Stage.OUTLINE
    title = "Strip"
    words = "layer start edge rim border behind reveal trim ribbon"
    sayings = (
        "strip along the edge",
        "ribbon of paper",
        "washi",
        "strip behind",
        "border strip",
    )
    takes = ("deep",)
    starts_with = StartsWith.LAYER
    kind: Literal["strip"] = "strip"
    edge: Side = side_field(Side.FOOT, "Of the panel, as it lies in the flat view.")
    reveal: float = offset(
        3, "Reveal", "How far it shows beyond the edge; negative: how far within it ends."
    )
    deep: float = length(20, "Depth", "From its outermost place to its inner edge.", above=0.5)
    ends: float = length(0, "Shorter by", "At either end than the panel.", least=0, most=300)
    straight: bool = switch(False, "Straight", "On: it does not follow the edge's shape.")

    def apply(self, work: Work | None, setting: Setting) -> Work:
        ground = ground_of(setting)
        if ground.panel:
            must_be_open(ground.host, ground.box, self.edge, field="edge")
        whole = ground.whole
        box = whole.bounds
        shape = rectangle(box) if self.straight else whole
        shape = shape.transformed(translation(*self.edge.place(self.reveal, 0.0)))
        outer = shape.bounds
        band = self.edge.band(outer, self.deep, _FAR)
        band = self._between_ends(band, box)
        strip = intersection(shape, rectangle(band)) if band.width > 0 < band.height else None
        if not strip:
            raise StepError(
                "Nothing is left of the strip.", hint="Make it deeper, or longer.", field="ends",
                would_do=0.0,
            )  # fmt: skip
        paper = ground.seen(strip)
        return Work(
            paper,
            reference=paper.bounds,
            lying=Lying(ground.own_frame(), ground.panel, stands_out=self.reveal > 0),
        )

    def _between_ends(self, band: Box, box: Box) -> Box:
        if self.edge.upright:
            return Box(band.left, box.head + self.ends, band.right, box.foot - self.ends)
        return Box(box.left + self.ends, band.head, box.right - self.ends, band.foot)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        return [Told("Wide", box.width), Told("High", box.height)]

    def caption(self) -> Caption:
        return Caption("reveal", self.reveal)

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        edges = open_sides(card.base, card.panel or "figure")
        edge = next((e for e in (Side.FOOT, Side.RIGHT, Side.LEFT, Side.HEAD) if e in edges), None)
        if edge is None:
            return []
        made = NewPiece("Strip", (cls(edge=edge),), card.panel, Facing.INSIDE,
                        card.next_order(Facing.INSIDE), colour="#a5573c")  # fmt: skip
        return [Proposal("A strip behind an edge", "It shows 3 mm beyond", (made,))]

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls(edge=Side.RIGHT, reveal=8, deep=26)]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.shaped_edge import ShapedEdge

        return [[Blank(), ShapedEdge()]]
