"""Parts that a step cut a piece into."""

from __future__ import annotations

from dataclasses import dataclass

from stileblade.geometry.regions.region import Region


@dataclass(frozen=True, eq=False)
class Parted:
    """All parts of the paper that a step made, those that it kept among them, in their order from
    left to right and from head to foot."""

    step: str
    parts: tuple[Region, ...]
    kept: tuple[int, ...]
