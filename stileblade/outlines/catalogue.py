"""All figures as one discriminated union, for documents and their schema."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import Field

from stileblade.fields import When, counting
from stileblade.outlines.figure import FIGURES, Figure
from stileblade.registry import import_all

import_all("stileblade.outlines.figures")

if TYPE_CHECKING:
    AnyFigure = Figure
else:
    _members: Any = reduce(or_, FIGURES)
    AnyFigure = Annotated[_members, Field(discriminator="kind")]


def figure_field(default: Figure, title: str, description: str, *, when: When | None = None) -> Any:
    """A figure as a step's value."""
    return Field(
        default,
        title=title,
        description=description,
        json_schema_extra={"control": "outline", **counting(when)},
    )
