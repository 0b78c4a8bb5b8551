"""Windows: openings that a step cut on purpose."""

from __future__ import annotations

from dataclasses import dataclass

from stileblade.geometry.regions.region import Region


@dataclass(frozen=True)
class Opened:
    """A window that a step cut: the step, its panel, its outline, and whether it may cross."""

    step: str
    panel: str
    outline: Region
    crosses: bool
