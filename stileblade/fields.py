"""Values that a person sets: pydantic fields that carry title, unit, bounds, description.

The JSON Schema made from them travels to the browser, which makes its forms of it:
``unit`` is "mm", "deg", "mm2" or "count"; ``control`` names a control that is more than
its type says ("outline", "target", "anchor").
"""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, ConfigDict, Field

LARGEST = 1000.0
"""No length on a card is larger, in mm."""


class Values(BaseModel):
    """Frozen, closed to unknown names, and free of NaN and infinity."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def length(
    default: float,
    title: str,
    description: str,
    *,
    least: float | None = None,
    most: float = LARGEST,
    above: float | None = None,
) -> Any:
    """A length in mm."""
    return Field(
        default,
        title=title,
        description=description,
        ge=least,
        gt=above,
        le=most,
        json_schema_extra={"unit": "mm"},
    )


def offset(default: float, title: str, description: str) -> Any:
    """A length in mm that may be negative."""
    return length(default, title, description, least=-LARGEST)


def angle(default: float, title: str, description: str) -> Any:
    """An angle in degrees, clockwise."""
    return Field(
        default,
        title=title,
        description=description,
        ge=-360,
        le=360,
        json_schema_extra={"unit": "deg"},
    )


def count(default: int, title: str, description: str, *, least: int, most: int) -> Any:
    return Field(
        default,
        title=title,
        description=description,
        ge=least,
        le=most,
        json_schema_extra={"unit": "count"},
    )


def area(default: float, title: str, description: str) -> Any:
    """An area in mm^2."""
    return Field(
        default,
        title=title,
        description=description,
        ge=0,
        le=LARGEST**2,
        json_schema_extra={"unit": "mm2"},
    )


def share(default: float, title: str, description: str, *, least: float, most: float) -> Any:
    """A plain number that is part of a whole."""
    return Field(
        default,
        title=title,
        description=description,
        ge=least,
        le=most,
        json_schema_extra={"unit": "share"},
    )


def choice(default: Any, title: str, description: str, **labels: str) -> Any:
    """One of an enum's members; ``labels`` give the words for them."""
    return Field(
        default, title=title, description=description, json_schema_extra={"labels": dict(labels)}
    )


def special(default: Any, title: str, description: str, *, control: str) -> Any:
    """A value with a control of its own."""
    return Field(
        default, title=title, description=description, json_schema_extra={"control": control}
    )
