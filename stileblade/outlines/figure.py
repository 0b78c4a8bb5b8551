"""What a figure is: a named outline made from a few values."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import ClassVar

from stileblade.errors import StepError
from stileblade.fields import Values, scaled_lengths
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import remembered
from stileblade.outlines.artwork import LayerOutlines
from stileblade.registry import Registry

FIGURES: Registry[type[Figure]] = Registry("figure")


class GivenBy(StrEnum):
    """What a person chooses a figure by."""

    MEASURES = "measures"
    ARTWORK = "artwork"
    WORD = "word"


class Figure(Values, ABC):
    """An outline by its values. ``kind`` names it in documents.

    ``outline`` returns the region wherever it is convenient; who uses it places it by its box.
    """

    title: ClassVar[str]
    given_by: ClassVar[GivenBy] = GivenBy.MEASURES
    """What a person chooses it by."""
    words: ClassVar[str] = ""
    """Further words under which it is found."""

    @abstractmethod
    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        """The figure's region in mm. ``shelf`` holds the document's artworks by key.

        Raises StepError where the values do not make an outline.
        """

    def reads(self) -> tuple[str, ...]:
        """Keys of the artworks it needs."""
        return ()

    def scaled(self, factor: float, shelf: Mapping[str, LayerOutlines]) -> Figure:
        """The figure that many times as large: all of its lengths. StepError where it makes no outline."""
        values = scaled_lengths(self, factor)
        sizes = self.sizes(outline_of(self, shelf).bounds)
        for name in filter(None, (sizes.across, sizes.down, sizes.both)):
            values[name] = values.get(name) or sizes.shown * factor
        return self.model_copy(update=values)

    def sizes(self, box: Box) -> Sizes:
        """The values that give it its size; ``box`` is the outline's."""
        fields = type(self).model_fields
        if "width" in fields and "height" in fields:
            return Sizes(across="width", down="height")
        return Sizes(both=next((n for n in ("diameter", "size") if n in fields), ""))


@dataclass(frozen=True)
class Sizes:
    """Names of the values for the width, for the height, or for both in proportion, and what they
    stand for where the value itself is 0, in mm."""

    across: str = ""
    down: str = ""
    both: str = ""
    shown: float = 0.0


@remembered
def _outline_of(figure: Figure, read: tuple[tuple[str, LayerOutlines], ...]) -> Region:
    made = figure.outline(dict(read))
    if not made:
        raise StepError(
            "The figure encloses nothing: it is too small or too thin to be cut.",
            hint="Make it larger.",
            field="outline",
        )
    return made


def outline_of(figure: Figure, shelf: Mapping[str, LayerOutlines]) -> Region:
    """The figure's outline, remembered by its values and what it reads: one and the same region,
    so that what is made of it is remembered, too. StepError where it encloses nothing."""
    return _outline_of(figure, tuple((n, shelf[n]) for n in figure.reads() if n in shelf))


def register_figure(cls: type[Figure]) -> type[Figure]:
    FIGURES.add(cls.model_fields["kind"].default, cls)
    return cls


def painted(drawing: Drawing) -> Region:
    """The region that a drawing's closed contours enclose."""
    drawing.finish()
    return fill(drawing.contours)


def stretched(region: Region, width: float, height: float) -> Region:
    """The region scaled so that its box has just this width and height."""
    box = region.bounds
    matrix = scaling(width / box.width, height / box.height, about=(box.left, box.head))
    return region.transformed(matrix)


def require(
    condition: bool, message: str, *lengths: float, field: str, would_do: float | None = None
) -> None:
    """A StepError for ``field`` unless the condition holds; ``{}`` stand for lengths in mm."""
    if not condition:
        raise StepError(message, *lengths, field=field, would_do=would_do)
