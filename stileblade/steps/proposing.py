"""What can be added to a card: each kind of layer says itself what a person would want of it on this card."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from stileblade.outlines.artwork import Artwork
from stileblade.piece.lying import Facing, FixedBy
from stileblade.piece.work import Work
from stileblade.steps.step import Step


@dataclass(frozen=True)
class NewPiece:
    """A piece to be added. It lies on the card's base, or on the piece ``on`` of those that are added with
    it, from 1; ``of`` is the one that its first step is a border of. ``colour`` is that of its paper, "" for
    the base's own; ``thin`` that it is of a light paper, as one writes on and folds envelopes of."""

    name: str
    steps: tuple[Step, ...]
    panel: str = ""
    side: Facing = Facing.OUTSIDE
    order: int = 0
    fixing: FixedBy = FixedBy.GLUE
    colour: str = ""
    light: float = 0.0
    thin: bool = False
    on: int = 0
    of: int = 0


@dataclass(frozen=True)
class Proposal:
    """Pieces that are added together; ``base`` are steps that the base gets first. ``of_whole_card``: they make a whole
    card of a base, and are offered before others while nothing lies on it."""

    title: str
    about: str
    pieces: tuple[NewPiece, ...]
    base: tuple[Step, ...] = ()
    of_whole_card: bool = False


@dataclass(frozen=True, eq=False)
class OnCard:
    """The card that pieces are added to: its finished base, the panel in hand, that base's artwork if it was
    made of one, and the first free place in the stack of each side."""

    base: Work
    panel: str
    artwork: Artwork | None = None
    lying: Mapping[Facing, int] = field(default_factory=dict)

    def next_order(self, side: Facing) -> int:
        return self.lying.get(side, 0)

    @property
    def windows(self) -> list[str]:
        """Keys of the windows in the panel in hand, each once."""
        found = [w.step for w in self.base.windows if w.panel in (self.panel, "front", "figure")]
        return list(dict.fromkeys(found))
