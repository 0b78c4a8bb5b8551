"""Start: a strip along an edge of a panel."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import length, offset, switch
from stileblade.geometry.curves.places import Box, Side
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import intersection, rectangle
from stileblade.piece.lying import Facing, Lying
from stileblade.piece.sides import must_be_open, open_sides, side_field
from stileblade.piece.work import Work
from stileblade.steps.ground import Ground, ground_of, smaller_by
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
    deep: float = length(
        20,
        "Depth",
        "From the edge to its inner edge; of a shaped edge from the edge's innermost place.",
        above=0.5,
    )
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
        behind = 0.0 if self.straight else self._motif(ground)
        strip = self._cut(shape, box, behind + self.deep)
        if not strip:
            raise StepError(
                "Nothing is left of the strip.", hint="Make it deeper, or longer.", field="ends",
                would_do=0.0,
            )  # fmt: skip
        least = setting.paper.least_width
        if _is_narrow(strip, least, self.edge):
            wider = (self.deep + least * more for more in (1, 2, 4, 8, 16))
            would_do = next(
                (
                    d
                    for d in wider
                    if not _is_narrow(self._cut(shape, box, behind + d), least, self.edge)
                ),
                None,
            )
            raise StepError(
                "Somewhere the strip is narrower than {}, the least that this paper can be cut to.",
                least,
                hint="Make it deeper.",
                field="deep",
                would_do=None if would_do is None else round(would_do, 1),
            )
        paper = ground.seen(strip)
        return Work(
            paper,
            reference=paper.bounds,
            lying=Lying(ground.own_frame(), ground.panel, stands_out=self.reveal > 0),
        )

    def _motif(self, ground: Ground) -> float:
        """How far the edge's innermost place lies behind its outermost, by the steps that shaped it."""
        edges = (e for e in ground.host.edges if e.side is self.edge and e.panel == ground.panel)
        return max((edge.depth for edge in edges), default=0.0)

    def _cut(self, shape: Region, box: Box, deep: float) -> Region:
        """What of the shape lies so deep behind its outermost place, between the strip's ends."""
        band = self._between_ends(self.edge.band(shape.bounds, deep, _FAR), box)
        empty = min(band.width, band.height) <= 0
        return Region.empty() if empty else intersection(shape, rectangle(band))

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
        shaped = [e.side for e in card.base.edges if e.panel == (card.panel or card.base.front)]
        wished = (*shaped, Side.FOOT, Side.RIGHT, Side.LEFT, Side.HEAD)
        edge = next((e for e in wished if e in edges), None)
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


def _is_narrow(strip: Region, least: float, edge: Side) -> bool:
    """Whether a part of the strip is narrower than ``least`` mm between its ends, or along most of its
    length; pointed ends are not counted."""
    cores = [smaller_by(part, least / 2) for part in strip.parts()]
    return any(
        core.pieces != 1 or edge.length_in(core.bounds) < edge.length_in(part.bounds) / 2
        for core, part in zip(cores, strip.parts(), strict=True)
    )
