"""A drawing that was read, its shapes put into layers by hand: what makes an artwork of it."""

from __future__ import annotations

import re
from typing import Annotated

from pydantic import Field

from stileblade.fields import Values
from stileblade.outlines.artwork import LONGEST_PATH, MOST_LAYERS, Artwork, Layer

MOST_SHAPES = 20_000
_PLAIN = re.compile(
    r"(path|rect|circle|ellipse|polygon|polyline|line|g|svg|text|layer)?[\d_-]*", re.IGNORECASE
)


class DrawnLayer(Values):
    """Shapes of one layer as path data, in the order of their painting. ``by_hand``: somebody put
    them together."""

    name: str = Field("Layer", max_length=300)
    colour: str = Field("#8c8c8c", pattern=r"^#[0-9a-f]{6}$")
    paths: list[Annotated[str, Field(max_length=LONGEST_PATH)]] = Field(
        min_length=1, max_length=MOST_SHAPES
    )
    by_hand: bool = False


class Drawing(Values):
    """Layers from the lowest to the topmost; ``scale`` is mm per unit of their paths. ``nests``: it is
    one of edges to cut along, where a line inside another bounds an opening."""

    name: str = Field("Artwork", max_length=80)
    scale: float = Field(1.0, gt=0, le=10_000)
    nests: bool = False
    layers: list[DrawnLayer] = Field(min_length=1, max_length=MOST_LAYERS)

    def artwork(self) -> Artwork:
        """One path for each layer. Shapes that the file painted together are painted over each
        other; edges that were put together by hand are openings where they nest."""
        return Artwork(
            name=self.name.strip() or "Artwork",
            scale=self.scale,
            layers=[
                Layer(
                    name=layer.name.strip()[:80] or "Layer",
                    colour=layer.colour,
                    path="".join(layer.paths),
                    rule="evenodd" if self.nests and layer.by_hand else "nonzero",
                )
                for layer in self.layers
            ],
        )


def told_name(name: str) -> str:
    """A name in a file as people write it; "" where it only says what sort of element it is."""
    if _PLAIN.fullmatch(name):
        return ""
    words = re.sub(r"[-_]+", " ", name).strip()
    return words[:1].upper() + words[1:]
