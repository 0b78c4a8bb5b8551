"""An outline that was read from a file and is kept in the document."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import length, special
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.regions.region import Region
from stileblade.outlines.artwork import LayerOutlines
from stileblade.outlines.figure import Figure, GivenBy, Sizes, register_figure
from stileblade.words import say


@register_figure
class Drawn(Figure):
    """An outline of the shelf, as read or scaled to a width or height."""

    title = "From the shelf"
    given_by = GivenBy.ARTWORK
    words = "artwork file own drawing"
    kind: Literal["drawn"] = "drawn"
    ref: str = special("", "Outline", "Its name among the document's artworks.", control="artwork")
    layers: tuple[int, ...] = special(
        (), "Layers", "Numbers of the layers it is made of; none means all.", control="layers"
    )
    width: float = length(
        0, "Width", "0 keeps it as read, or in proportion to the height.", least=0
    )
    height: float = length(
        0, "Height", "0 keeps it as read, or in proportion to the width.", least=0
    )

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        region = named(shelf, self.ref).union(self.layers)
        if not region:
            raise StepError("The chosen layers enclose nothing.", field="layers")
        box = region.bounds
        sx = self.width / box.width if self.width else None
        sy = self.height / box.height if self.height else None
        if sx is None and sy is None:
            return region
        return region.transformed(scaling(sx or sy or 1.0, sy or sx or 1.0))

    def sizes(self, box: Box) -> Sizes:
        if self.width and self.height:
            return Sizes(across="width", down="height")
        if self.height:
            return Sizes(both="height")
        return Sizes(both="width", shown=box.width)

    def reads(self) -> tuple[str, ...]:
        return (self.ref,)


def named(shelf: Mapping[str, LayerOutlines], ref: str) -> LayerOutlines:
    """The artwork of a document by its key, or a StepError."""
    if ref in shelf:
        return shelf[ref]
    raise StepError(
        say("The outline {ref!r} is not in this design.", ref=ref)
        if ref
        else "No outline is chosen yet.",
        hint="Choose a figure.",
        field="ref",
    )
