"""How a layer lies: on what, on which side of it, and what becomes of it at its host's folds."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from stileblade.geometry.curves.segments import Floats


class Facing(StrEnum):
    """On which side of its host a piece lies, or whether it goes round the closed card."""

    OUTSIDE = "outside"
    INSIDE = "inside"
    AROUND = "around"


class Around(StrEnum):
    """What goes round the closed card, from the inside out: each holds all that comes before it."""

    NOTHING = ""
    BAND = "band"
    ENVELOPE = "envelope"

    @property
    def rank(self) -> int:
        return _RANKS[self]


_RANKS = {around: rank for rank, around in enumerate(Around)}


class FixedBy(StrEnum):
    """How it is held: ``PADS`` have a height of their own, glue and slits have none."""

    GLUE = "glue"
    PADS = "pads"
    TUCKED = "tucked"


class AtFolds(StrEnum):
    """What a layer does that lies across a fold of its host."""

    UNDECIDED = "undecided"
    ENDED = "ended"
    CREASED = "creased"
    HALF = "half"


@dataclass(frozen=True)
class Lies:
    """Where a piece's document says that it lies: the key of its host, "" for none; one of the host's
    panels, "" for its front; and the side."""

    host: str = ""
    panel: str = ""
    side: Facing = Facing.OUTSIDE


@dataclass(frozen=True, eq=False)
class Lying:
    """``matrix`` (2, 3) takes the layer's own flat view to its host's, as that is seen from outside: where
    it mirrors, the layer's outside is towards the host's inside. ``panel`` is the host's panel that it
    lies on, or is fixed on where it is fixed ``HALF``; "" where the host has none, or all of them."""

    matrix: Floats
    panel: str = ""
    at_folds: AtFolds = AtFolds.UNDECIDED
    stands_out: bool = False
    """Whether it is meant to reach beyond what it lies on."""
    covers: bool = False
    """Whether it is meant to lie over windows."""
