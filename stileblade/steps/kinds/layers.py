"""Start: layers of the host's artwork, in register."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, special
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, identity
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import intersection, union_all
from stileblade.outlines.artwork import LayerOutlines
from stileblade.outlines.beneath import closed_beneath, shadow_of
from stileblade.outlines.figures.drawn import named
from stileblade.piece.carrying import carried
from stileblade.piece.lying import Facing, Lying
from stileblade.piece.small_parts import is_small, joined
from stileblade.piece.work import Placed, Work
from stileblade.steps.ground import Ground, ground_of, inverse
from stileblade.steps.kinds.artwork import StartArtwork
from stileblade.steps.kinds.drawn_layers import DrawnLayers, Parts
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step
from stileblade.words import say


class Beneath(StrEnum):
    DRAWN = "drawn"
    MARGIN = "margin"
    WHOLE = "whole"


class AtEdges(StrEnum):
    CUT = "cut"
    STAND = "stand"


class SmallParts(StrEnum):
    KEPT = "kept"
    LEFT_OUT = "left_out"
    JOINED = "joined"


class As(StrEnum):
    LAYERS = "layers"
    SHADOW = "shadow"


MOST_ALONE = 8
"""Of an artwork of more layers, one alone is not proposed: all are, and the others are removed."""


@register_step
class Layers(Step):
    """Layers of the artwork that the base was made of, where they lie on it: they follow every fit, turn
    and flip of the base, and lie in register with each other."""

    stage = Stage.OUTLINE
    title = "Artwork's layers"
    words = "layer start colour drawing register shadow paper artwork inlay"
    sayings = (
        "layers of the artwork",
        "colours on top",
        "coloured pieces",
        "paper layers",
        "shadow layer",
    )
    takes = ("margin",)
    starts_with = StartsWith.LAYER
    sample_artworks = StartArtwork.sample_artworks
    kind: Literal["layers"] = "layers"
    layers: tuple[int, ...] = special(
        (), "Layers", "Numbers of the artwork's layers; none means all.", control="layers"
    )
    made_as: As = choice(
        As.LAYERS, "Made into", "What is made of them.",
        layers="themselves", shadow="their shadow, to lie behind them",
    )  # fmt: skip
    margin: float = length(
        2, "Margin", "By which the shadow is larger.", least=0, most=100,
        when={"made_as": ["shadow"]},
    )  # fmt: skip
    beneath: Beneath = choice(
        Beneath.DRAWN, "Under upper layers", "What becomes of it where others lie on it.",
        when={"made_as": ["layers"]},
        drawn="as drawn", margin="runs on under them a little", whole="runs on all the way",
    )  # fmt: skip
    beneath_margin: float = length(
        2, "Runs on by", "Under the layers on it, so that no gap shows.", least=0, most=50,
        when={"beneath": ["margin"]},
    )  # fmt: skip
    step_in: float = length(
        0, "Drawn back by", "From the outline of what it lies on, which shows as a rim.",
        least=0, most=50, when={"made_as": ["layers"]},
    )  # fmt: skip
    small_parts: SmallParts = choice(
        SmallParts.KEPT, "Small parts", "Under 25 mm\u00b2 or narrower than 2 mm everywhere.",
        kept="kept", left_out="left out", joined="joined to the next part",
    )  # fmt: skip
    bridge: float = length(
        2, "Bridge", "How wide what joins them is.", least=0.5, most=50,
        when={"small_parts": ["joined"]},
    )  # fmt: skip
    at_edges: AtEdges = choice(
        AtEdges.CUT, "Beyond the card", "Where it reaches over the panel's edges and folds.",
        cut="cut with it", stand="left to stand over",
    )  # fmt: skip
    edge_margin: float = length(
        0, "Within the edge by", "Where it is cut.", least=0, most=50, when={"at_edges": ["cut"]}
    )

    def draws_small_parts(self) -> Step | None:
        return DrawnLayers(layers=self.layers, parts=Parts.SMALL)

    def is_of_layer(self, number: int) -> bool:
        return self.made_as is As.LAYERS and (not self.layers or number in self.layers)

    def _artwork(self, setting: Setting) -> Placed:
        placed = setting.host.artwork
        if placed is None:
            raise StepError(
                "What it lies on was not made of an artwork of layers.",
                hint="Start the base with an artwork.",
            )
        return placed

    def _matrix(self, ground: Ground, placed: Placed) -> Floats:
        """From mm of the artwork to the host's flat view: on another panel than the front as it would lie
        there by folding."""
        host = ground.host
        if not ground.panel or ground.panel == host.front:
            return placed.matrix
        return after(carried(host, host.front, ground.panel), placed.matrix)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        ground, placed = ground_of(setting), self._artwork(setting)
        drawn = named(setting.shelf, placed.ref)
        matrix = self._matrix(ground, placed)
        if self.made_as is As.SHADOW:
            own = shadow_of(drawn, self.layers, self.margin, matrix)
        else:
            own = self._own(drawn, matrix)
            if self.step_in and own:
                own = intersection(own, self._below(drawn, matrix, own, ground))
        if self.at_edges is AtEdges.CUT and own:
            edge = ground.whole
            if self.edge_margin:
                edge = ground.less(self.edge_margin, 0.0)
            own = intersection(own, edge)
        if not own:
            raise StepError(
                "Nothing of the chosen layers is left: others lie on all of them, or they lie beside"
                " the panel.",
                hint="Choose other layers, or let them run on under the others.",
                field="layers",
            )
        if self.small_parts is SmallParts.LEFT_OUT:
            large = [part for part in own.parts() if not is_small(part)]
            if not large:
                raise StepError(
                    "All parts of it are small.", hint="Keep them.", field="small_parts"
                )
            own = gather(large)
        elif self.small_parts is SmallParts.JOINED:
            own = joined(own, self.bridge)
        frame = self._frame(ground)
        paper = own.transformed(inverse(frame))
        return Work(
            paper,
            reference=paper.bounds,
            lying=Lying(frame, ground.panel, stands_out=self.at_edges is AtEdges.STAND),
            artwork=Placed(placed.ref, after(inverse(frame), matrix)),
        )

    def _frame(self, ground: Ground) -> Floats:
        """As the host lies, or as it is seen from its inside."""
        return ground.own_frame() if ground.side is Facing.INSIDE else identity()

    def _numbers(self, drawn: LayerOutlines) -> list[int]:
        return sorted(set(self.layers)) or list(range(len(drawn.layers)))

    def _own(self, drawn: LayerOutlines, matrix: Floats) -> Region:
        """The chosen layers, closed beneath those that lie on them."""
        if self.beneath is Beneath.DRAWN:
            return drawn.union(self.layers).transformed(matrix)
        under = None if self.beneath is Beneath.WHOLE else self.beneath_margin
        return closed_beneath(drawn, self._numbers(drawn), under, matrix)

    def _below(self, drawn: LayerOutlines, matrix: Floats, own: Region, ground: Ground) -> Region:
        """What the layers lie on, less the margin: the artwork's lower layers where these carry most of
        them, else the panel."""
        lower = [la for la in drawn.layers[: self._numbers(drawn)[0]] if la]
        if lower:
            carries = filled(union_all(lower)).transformed(matrix)
            if intersection(own, carries).area > own.area / 2:
                return grown_by(carries, -self.step_in)
        return ground.less(self.step_in, 0.0)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        parts = after.paper.parts()
        found = [Told("Wide", after.paper.bounds.width), Told("High", after.paper.bounds.height)]
        if len(parts) > 1:
            found.append(Told("Parts", len(parts), "count"))
            found.append(Told("Smallest part", parts[-1].area, "mm2"))
        return found

    def caption(self) -> Caption:
        if self.made_as is As.SHADOW:
            return Caption("shadow", self.margin)
        return Caption(", ".join(str(n + 1) for n in self.layers[:4]) or "all layers")

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        if card.artwork is None:
            return []
        order, count = card.next_order(Facing.OUTSIDE), len(card.artwork.layers)
        by_colour: dict[str, list[int]] = {}
        for number, layer in enumerate(card.artwork.layers):
            by_colour.setdefault(layer.colour, []).append(number)
        each = tuple(
            NewPiece(layer.name, (cls(layers=(n,), beneath=Beneath.MARGIN),), card.panel, order=order + n,
                     colour=layer.colour)
            for n, layer in enumerate(card.artwork.layers)
        )  # fmt: skip
        together = tuple(
            NewPiece(card.artwork.layers[numbers[0]].name, (cls(layers=tuple(numbers), beneath=Beneath.MARGIN),),
                     card.panel, order=order + numbers[0], colour=colour)
            for colour, numbers in by_colour.items()
        )  # fmt: skip
        alone = [
            Proposal(say("{layer} alone", layer=layer.name), "In register with the base", (piece,))
            for layer, piece in zip(card.artwork.layers, each, strict=True)
        ]
        shadow = NewPiece("Shadow", (cls(made_as=As.SHADOW),), card.panel, order=order,
                          colour="#33424f")  # fmt: skip
        about = "In register, 2 mm further under those on them"
        found = [Proposal("The whole card", "Insert, and a paper for each colour of the artwork",
                          (*together, *_insert(card)), base=_mirror(card), of_whole_card=True)]  # fmt: skip
        found.append(Proposal("All layers of the artwork", about, each))
        if len(by_colour) < count:
            found.append(Proposal("The artwork by its colours", about, together))
        found.append(Proposal("The artwork's shadow", "Grown by 2 mm, openings filled", (shadow,)))
        return [*found, *(alone if 1 < count <= MOST_ALONE else [])]

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls(layers=(0, 1))]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        return [StartArtwork.sample()]


def _insert(card: OnCard) -> tuple[NewPiece, ...]:
    from stileblade.steps.kinds.insert import Insert

    order = card.next_order(Facing.INSIDE)
    return (NewPiece("Insert", (Insert(),), "", Facing.INSIDE, order, colour="#fbf8ef", thin=True),)


def _mirror(card: OnCard) -> tuple[Step, ...]:
    """What makes a card of the outline, where it is none yet."""
    from stileblade.steps.kinds.mirror import Mirror

    return () if card.base.panels else (Mirror(),)
