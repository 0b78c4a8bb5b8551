"""Windows: openings that a step cut on purpose."""

from __future__ import annotations

from dataclasses import dataclass, replace

from stileblade.geometry.regions.region import Region


@dataclass(frozen=True, eq=False)
class Copy:
    """One of the copies in which a figure was set, and whether it is a mirror image of it."""

    outline: Region
    mirrored: bool = False


@dataclass(frozen=True, eq=False)
class Opened:
    """A window that a step cut: the step, its panel, its outline, and whether it may cross;
    ``copies`` where the step set it more than once."""

    step: str
    panel: str
    outline: Region
    crosses: bool
    copies: tuple[Copy, ...] = ()
    mirrored: bool = False
    before: Region | None = None
    """The paper that it was cut from."""

    @property
    def each(self) -> list[Opened]:
        """The copies, each a window by itself."""
        if not self.copies:
            return [self]
        return [
            replace(self, outline=copy.outline, copies=(), mirrored=copy.mirrored)
            for copy in self.copies
        ]
