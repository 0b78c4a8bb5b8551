"""Paper, as it is bought."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from stileblade.fields import Values, choice, length

Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-f]{6}$")]


class Grain(StrEnum):
    LONG = "long"
    SHORT = "short"
    UNKNOWN = "unknown"


class Paper(Values):
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
    thickness: float = length(0.3, "Thickness", "Of one sheet.", least=0.02, most=5)
    weight: float = Field(
        240,
        title="Weight",
        description="In grams for each square metre.",
        ge=20,
        le=3000,
        json_schema_extra={"unit": "g/m2"},
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


def weight_of(area: float, paper: Paper) -> float:
    """Grams of an area in mm^2."""
    return area * 1e-6 * paper.weight
