"""Paper, as it is bought."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from stileblade.fields import Values, angle, choice, counting, length, number_of, share
from stileblade.tracing import ReadByPart

Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-f]{6}$")]


class Grain(StrEnum):
    LONG = "long"
    SHORT = "short"
    UNKNOWN = "unknown"


class Pattern(StrEnum):
    NONE = "none"
    STRIPES = "stripes"
    DOTS = "dots"
    CHECKS = "checks"
    LINES = "lines"


_PATTERNED = {"pattern": ["stripes", "dots", "checks", "lines"]}


class Paper(Values, ReadByPart):
    """A stock: its two faces, its thickness and weight, and the sheet it comes in."""

    id: str = Field("paper", title="Key", description="Its key in the document.", max_length=40)
    name: str = Field("Card stock", title="Name", description="What it is called.", max_length=60)
    outside: Colour = Field(
        "#a9c4cc",
        title="Outside",
        description="Colour of the face that is outside.",
        json_schema_extra={"control": "colour"},
    )
    inside: Colour = Field(
        "#f6f1e4",
        title="Inside",
        description="Colour of the face that is inside.",
        json_schema_extra={"control": "colour"},
    )
    pattern: Pattern = choice(
        Pattern.NONE, "Pattern", "Printed on its outside.",
        none="none", stripes="stripes", dots="dots", checks="checks", lines="lines to write on",
    )  # fmt: skip
    pattern_colour: Colour = Field(
        "#5d7078",
        title="Pattern's colour",
        description="Of the pattern on its outside.",
        json_schema_extra={"control": "colour", **counting(_PATTERNED)},
    )
    pitch: float = length(
        6,
        "Pitch",
        "From one stripe, dot or line to the next.",
        least=0.5,
        most=200,
        when=_PATTERNED,
    )
    pattern_turn: float = angle(0, "Pattern turned", "Clockwise.", when=_PATTERNED)
    price: float = Field(
        0,
        title="Price",
        description="Of a sheet, in whatever money; 0 is not known.",
        ge=0,
        le=100_000,
    )
    light: float = share(
        0, "See-through", "Share of light that it lets through: 0 is none, vellum about 0.6.",
        least=0, most=0.95,
    )  # fmt: skip
    thickness: float = length(0.3, "Thickness", "Of one sheet.", least=0.02, most=5)
    weight: float = Field(
        240,
        title="Weight",
        description="In grams for each square metre.",
        ge=20,
        le=3000,
        json_schema_extra={"unit": "g/m2"},
    )
    cut_runs: int = number_of(
        1,
        "Runs of a cut",
        "How many times the knife runs along each cut, as thick board wants.",
        least=1,
        most=8,
    )
    grain: Grain = choice(
        Grain.LONG,
        "Grain",
        "Which side of the sheet the fibres run along.",
        long="along the long side",
        short="along the short side",
        unknown="not known",
    )
    sheet_width: float = length(210, "Sheet width", "Of the sheet as bought.", least=20, most=2000)
    sheet_height: float = length(
        297, "Sheet height", "Of the sheet as bought.", least=20, most=2000
    )
    edge: float = length(
        5, "Edge", "On each side of the sheet, where the machine cannot reach.", least=0, most=100
    )

    @property
    def least_width(self) -> float:
        """The narrowest paper that may be left standing, in mm."""
        return max(1.5, 4 * self.thickness)

    @property
    def usable(self) -> tuple[float, float]:
        """Width and height of what the machine reaches of a sheet."""
        return self.sheet_width - 2 * self.edge, self.sheet_height - 2 * self.edge


@dataclass(frozen=True)
class Sheet:
    """A format in which paper is sold, upright, in mm."""

    name: str
    width: float
    height: float


SHEETS = (
    Sheet("A4", 210, 297),
    Sheet("letter", 215.9, 279.4),
    Sheet("legal", 215.9, 355.6),
    Sheet("12 x 12 in", 304.8, 304.8),
    Sheet("A3", 297, 420),
    Sheet("12 x 18 in", 304.8, 457.2),
    Sheet("320 x 450 mm", 320, 450),
    Sheet("A2", 420, 594),
    Sheet("500 x 700 mm", 500, 700),
    Sheet("700 x 1000 mm", 700, 1000),
)


def price_of(area: float, paper: Paper) -> float:
    """Of an area in mm^2, as its share of a sheet."""
    return area / (paper.sheet_width * paper.sheet_height) * paper.price


def weight_of(area: float, paper: Paper) -> float:
    """Grams of an area in mm^2."""
    return area * 1e-6 * paper.weight
