"""Steps by what is said, for the search."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from stileblade.steps.searching import search
from stileblade.units import Unit


class HitView(BaseModel):
    """A step that may be meant, the values that were said, and those in words."""

    kind: str
    values: dict[str, Any]
    told: list[str]


def hits(text: str, unit: Unit) -> list[HitView]:
    """The steps that may be meant, the likeliest first."""
    return [
        HitView(kind=h.kind, values=dict(h.values), told=list(h.told)) for h in search(text, unit)
    ]
