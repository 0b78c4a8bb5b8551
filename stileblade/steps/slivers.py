"""What an operation leaves standing out of the paper, or cut into it, by so little that it is not meant."""

from __future__ import annotations

from dataclasses import dataclass

from stileblade.fields import When, length, switch
from stileblade.geometry.measures.distances import depth_beyond
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import difference, union_all
from stileblade.piece.work import Note
from stileblade.words import say

_NONE = 1e-3
"""mm^2: what is less is rounding."""


def least_field(*, when: When | None = None) -> float:
    """The field for the width below which something is a sliver."""
    least: float = length(
        0.8, "Sliver", "What stands out or in by less is said; 0 says nothing.", least=0, most=20,
        when=when,
    )  # fmt: skip
    return least


def drop_field(*, when: When | None = None) -> bool:
    """The field for whether slivers are dropped."""
    drop: bool = switch(False, "Drop slivers", "They are cut off, and filled.", when=when)
    return drop


@dataclass(frozen=True, eq=False)
class Slivers:
    """What stands out, and what is cut in, each by less than a width."""

    out: tuple[Region, ...]
    into: tuple[Region, ...]

    def __len__(self) -> int:
        return len(self.out) + len(self.into)

    def dropped(self, paper: Region) -> Region:
        if self.out:
            paper = difference(paper, gather(list(self.out)))
        return union_all([paper, *self.into])

    def note(self, step: str) -> Note:
        """What is said of them, with what would drop them."""
        boxes = [p.bounds for p in (*self.out, *self.into)][:2]
        sizes = ", ".join(
            say(
                "{small:.2f} x {large:.1f} mm",
                small=min(b.width, b.height),
                large=max(b.width, b.height),
            )
            for b in boxes
        )
        message = say(
            "One sliver is left at the outline: {sizes}. | {n} slivers are left at the outline: {sizes}.",
            n=len(self),
            sizes=sizes,
        )
        return Note("sliver", message, step, warning=True, mend=("drop them", {"drop": True}))


def slivers_of(before: Region, after: Region, least: float) -> Slivers:
    """Parts of the paper that an operation added to, or took from, the edge of what was there, that
    reach less than ``least`` mm beyond it."""
    if least <= 0:
        return Slivers((), ())
    return Slivers(_shallow(after, before, least), _shallow(before, after, least))


def _shallow(first: Region, second: Region, least: float) -> tuple[Region, ...]:
    """Parts of the first that reach less than so far beyond the second."""
    rest = difference(first, second)
    return tuple(
        part for part in rest.parts() if part.area > _NONE and depth_beyond(part, second) < least
    ) if rest else ()  # fmt: skip
