"""A word, or a single letter, in a shipped font."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum
from typing import Literal

from pydantic import Field

from stileblade.errors import StepError
from stileblade.fields import choice, length
from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.outlines.artwork import LayerOutlines
from stileblade.outlines.figure import Figure, GivenBy, register_figure
from stileblade.outlines.text.shipped import KINDS, Face, shipped
from stileblade.words import say


class SizedBy(StrEnum):
    CAPITALS = "capitals"
    WIDTH = "width"
    HEIGHT = "height"


@register_figure
class Word(Figure):
    """Letters set in a line, kerned; letters that overlap are one outline."""

    title = "Word"
    given_by = GivenBy.WORD
    words = "text letters font lettering name number glyph alphabet"
    kind: Literal["word"] = "word"
    text: str = Field("Ahoy", title="Text", description="A word or a letter.", max_length=80)
    font: Face = choice(
        Face.SANS,
        "Font",
        "Shipped fonts, of different kinds.",
        {f: k.title for f, k in KINDS.items()},
    )
    sized: SizedBy = choice(
        SizedBy.CAPITALS,
        "Size",
        "What its size is given by.",
        capitals="height of capitals",
        width="width of the word",
        height="height of the word",
    )
    size: float = length(20, "Measure", "The height or width it gets.", above=0)
    spacing: float = length(
        0,
        "Spacing",
        "More between the letters, before a width or height is fitted.",
        least=-50,
        most=200,
    )

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        text = " ".join(self.text.split())
        if not text:
            raise StepError("There is no text yet.", hint="Type a word.", field="text")
        font = shipped(self.font)
        em = self.size / font.cap_height
        line = font.set_line(text, em, spacing=self.spacing)
        if line.missing.strip():
            raise StepError(
                say("The font has no {list}.", list=" ".join(dict.fromkeys(line.missing.strip()))),
                hint="Choose another font, or other letters.",
                field="text",
            )
        region = fill(line.contours)
        if not region:
            raise StepError("The text has no outline.", hint="Type a letter.", field="text")
        if self.sized is SizedBy.CAPITALS:
            return region
        box = region.bounds
        s = self.size / (box.width if self.sized is SizedBy.WIDTH else box.height)
        return region.transformed(scaling(s, s))
