"""Start: an artwork of several layers."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, special
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import (
    after,
    identity,
    mirror_across,
    rotation,
    scaling,
    translation,
)
from stileblade.geometry.offset.offset import offset
from stileblade.geometry.regions.fill import filled
from stileblade.outlines.artwork import Artwork, Layer
from stileblade.outlines.figure import GivenBy
from stileblade.outlines.figures.drawn import named
from stileblade.piece.work import Placed, Work
from stileblade.steps.beginning import Begun
from stileblade.steps.fitting import (
    FitTo,
    factors,
    fitted_length,
    fitted_margin,
    present_fit,
    scaled_fit,
)
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step


@register_step
class StartArtwork(Step):
    """The profile of an artwork as the start of the piece. All its layers share one placement,
    now and later, so that pieces made of them lie in register."""

    stage = Stage.OUTLINE
    title = "Artwork"
    words = "start layers colours profile surround drawing file"
    sayings = (
        "start with a drawing",
        "several colours",
        "svg file",
        "import artwork",
    )
    takes = ("width",)
    starts_with = StartsWith.ARTWORK
    usual = {"to": FitTo.PANEL, "margin": 6.0}
    sample_artworks = {
        "sample": Artwork(
            layers=[
                Layer(
                    name="Hull",
                    colour="#a5573c",
                    path="M5 60H95C92 76 82 82 70 82H30C16 82 8 74 5 60Z",
                ),
                Layer(name="Sail", colour="#e6d5b0", path="M50 6C70 22 84 40 88 56H50Z"),
                Layer(name="Mast", colour="#2f3d54", path="M46 2H50V62H46Z"),
            ]
        )
    }
    kind: Literal["artwork"] = "artwork"
    ref: str = special("", "Artwork", "Its key among the document's artworks.", control="artwork")
    layers: tuple[int, ...] = special(
        (),
        "Profile of",
        "Numbers of the layers whose outer outline is taken; none means all.",
        control="layers",
    )
    filled: bool = Field(
        True, title="Openings filled", description="Off: what is open in all chosen layers stays."
    )
    to: FitTo = choice(
        FitTo.READ,
        "Fit to",
        "What the profile is fitted to, its proportions kept.",
        {"as-read": "its size as read"},
        width="a width",
        height="a height",
        both="width and height",
        panel="the closed card",
    )
    width: float = fitted_length("Width", "The width it gets.", FitTo.WIDTH)
    height: float = fitted_length("Height", "The height it gets.", FitTo.HEIGHT)
    margin: float = fitted_margin(
        "Left free on all sides of the closed card, the surround counted in."
    )
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.")
    flip: bool = Field(False, title="Flip", description="Left for right, before it is turned.")
    surround: float = length(
        0, "Surround", "The profile grown outwards by this much all round.", least=0, most=100
    )
    printed: bool = Field(
        True,
        title="Printed",
        description="Its other layers' colours are on the paper, but for those that are pieces of the card.",
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        drawn = named(setting.shelf, self.ref)
        region = drawn.union(self.layers)
        if not region:
            raise StepError(
                "The chosen layers enclose nothing.", hint="Choose other layers.", field="layers"
            )
        if self.filled:
            region = filled(region)
        turned = self._turned(region.bounds)
        box = region.transformed(turned).bounds
        sx, sy = factors(
            box,
            self.to,
            width=self.width,
            height=self.height,
            closed=setting.closed,
            margin=self.margin + self.surround,
            proportions=True,
        )
        matrix = after(translation(-box.left, -box.head), turned)
        matrix = after(scaling(sx, sy), matrix)
        paper = region.transformed(matrix)
        if self.surround:
            paper = offset(paper, self.surround)
            if self.filled:
                paper = filled(paper)
        own = self.layers or (0,)
        others = tuple(n for n in range(len(drawn.layers)) if n not in own)
        placed = Placed(self.ref, matrix, others if self.printed else ())
        return Work(paper, reference=paper.bounds, artwork=placed)

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        if self.to is not FitTo.READ:
            return scaled_fit(self.to, self.width, self.height, factor)
        box = named(setting.shelf, self.ref).union(self.layers).bounds
        width = box.transformed(self._turned(box)).width * factor
        return {"to": FitTo.WIDTH, "width": width}

    @property
    def sizes_anew(self) -> bool:
        return True

    def present(self, after: Work) -> dict[str, float]:
        return present_fit(after.paper.bounds.shrunk(self.surround))

    def _turned(self, box: Box) -> Floats:
        x, y = box.centre
        flipped = mirror_across(axis="x", at=x) if self.flip else identity()
        return after(rotation(self.turn, about=(x, y)), flipped)

    def caption(self) -> Caption:
        if self.to is FitTo.HEIGHT:
            return Caption("high", self.height)
        if self.to in (FitTo.WIDTH, FitTo.BOTH):
            return Caption("wide", self.width)
        if self.to is FitTo.PANEL:
            return Caption("margin", self.margin)
        return Caption("as read")

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        drawn = named(setting.shelf, self.ref)
        read = drawn.union(self.layers).bounds
        now = after.reference
        found = [
            Told("Read wide", read.width),
            Told("Read high", read.height),
            Told("Now wide", now.width),
            Told("Now high", now.height),
        ]
        if after.paper.pieces > 1:
            note = "a surround, a weld or a tab makes them one"
            found.append(Told("Parts", after.paper.pieces, "count", note))
        return found

    def outlines(self) -> tuple[str, ...]:
        return (self.ref,)

    @classmethod
    def begun_with(cls, begun: Begun) -> tuple[Step, ...]:
        to = FitTo.PANEL if begun.fits else FitTo.READ
        return tuple(
            cls(ref=ref, to=to, margin=begun.margin)
            for ref in begun.figure.reads()[:1]
            if begun.figure.given_by is GivenBy.ARTWORK
        )

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls(ref="sample", surround=3)]
