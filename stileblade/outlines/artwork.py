"""Artwork: an outline read from a file, or several in layers with their colours and order.

It is kept as it was read, in its own units; ``scale`` says how many mm one of them is. All
layers share that, and whatever placement the artwork gets: they stay in register.
"""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass

from pydantic import Field

from stileblade.errors import GeometryError, ReadingError, StepError
from stileblade.fields import Values
from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.paths.pathdata import region_from_path
from stileblade.geometry.regions.fill import FillRule
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import remembered
from stileblade.geometry.regions.set_operations import union_all
from stileblade.words import say

LONGEST_PATH = 8_000_000
MOST_LAYERS = 60


class Layer(Values):
    """What is painted in one colour: path data in the artwork's units, y downwards."""

    name: str = Field("Layer", max_length=80)
    colour: str = Field("#8c8c8c", pattern=r"^#[0-9a-f]{6}$")
    path: str = Field(max_length=LONGEST_PATH)
    rule: FillRule = "nonzero"


class Artwork(Values):
    """Layers from the lowest to the topmost; ``scale`` is mm per unit of their paths."""

    name: str = Field("Outline", max_length=80)
    scale: float = Field(1.0, gt=0, le=10_000)
    layers: list[Layer] = Field(min_length=1, max_length=MOST_LAYERS)

    @property
    def key(self) -> str:
        """The name by which documents and shelves hold it: a digest of its outlines and colours."""
        colours = " ".join(layer.colour for layer in self.layers)
        digest = hashlib.blake2b(f"{colours}\n{self.content}".encode(), digest_size=8)
        return f"a{digest.hexdigest()}"

    @property
    def content(self) -> str:
        """All that its outlines depend on, as text."""
        return "\n".join([repr(self.scale), *(f"{la.rule}:{la.path}" for la in self.layers)])


@dataclass(frozen=True)
class LayerOutlines:
    """The outlines of an artwork's layers in mm. Read once more they are the same regions, and
    so equal."""

    name: str
    layers: tuple[Region, ...]
    scale: float

    def union(self, chosen: Sequence[int] = ()) -> Region:
        """What the chosen layers cover together (none chosen: all of them)."""
        numbers = sorted(set(chosen)) or range(len(self.layers))
        for number in numbers:
            if not 0 <= number < len(self.layers):
                raise StepError(
                    say(
                        "The artwork {name!r} has {n} layers, no layer {number}.",
                        name=self.name,
                        n=len(self.layers),
                        number=number + 1,
                    ),
                    hint="Choose its layers anew.",
                    field="layers",
                )
        return _united(tuple(self.layers[n] for n in numbers))


def outlines_of(artwork: Artwork) -> LayerOutlines:
    """The artwork's outlines. StepError where a path cannot be read or nothing is painted."""
    layers = []
    for layer in artwork.layers:
        try:
            layers.append(_scaled(layer.path, layer.rule, artwork.scale))
        except (ReadingError, GeometryError) as error:
            raise StepError(
                say("The outline {name!r} cannot be read. {error}", name=artwork.name, error=error)
            ) from error
    if not any(layers):
        raise StepError(
            say("The outline {name!r} encloses nothing.", name=artwork.name), field="outline"
        )
    return LayerOutlines(artwork.name, tuple(layers), artwork.scale)


@remembered
def _scaled(path: str, rule: FillRule, scale: float) -> Region:
    region = region_from_path(path, rule)
    return region if scale == 1 else region.transformed(scaling(scale, scale))


@remembered
def _united(regions: tuple[Region, ...]) -> Region:
    return union_all(regions)
