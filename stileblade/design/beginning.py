"""How a card is begun: from what a person chose first to designs to choose from."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from stileblade.design.document import Card, Design, Piece
from stileblade.design.evaluation import Artworks
from stileblade.outlines.figure import Figure
from stileblade.steps.beginning import Beginning, Begun
from stileblade.steps.step import STEPS
from stileblade.words import say


@dataclass(frozen=True)
class Opening:
    """A way to begin, the design that it gives, which is None where it is not open, and the figure's own
    width and height in mm."""

    beginning: Beginning
    design: Design | None
    own: tuple[float, float]


def openings(
    design: Design, figure: Figure, margin: float, *, fits: bool = True
) -> Iterator[Opening]:
    """The design's card, paper and artworks begun in all ways that the figure allows, the usual first.

    The figure is made as large as the card takes it, ``margin`` mm left free all round, or keeps its own
    size. The design's base is replaced.
    """
    setting = design.setting_for(design.pieces[0], Artworks(design.artworks))
    begun, found = Begun(setting, figure, margin, fits), []
    for kind in STEPS:
        found += kind.beginnings(begun)
    for beginning in sorted(found, key=lambda b: b.place):
        made = _begun(design, beginning) if beginning.steps else None
        yield Opening(beginning, made, begun.own_size)


def _begun(design: Design, beginning: Beginning) -> Design:
    """The design with its base made by the steps; artworks stay where the steps read them."""
    card = design.card
    if beginning.folding is not None:
        card = Card.model_validate({**card.model_dump(), "folding": beginning.folding})
    first = design.pieces[0]
    steps = [{**s.model_dump(mode="json"), "id": ""} for s in beginning.steps]
    data = first.model_dump(mode="json")
    base = Piece.model_validate({**data, "name": say(first.name), "steps": steps})
    read = {name for step in base.steps for name in step.outlines()}
    artworks = {k: v for k, v in design.artworks.items() if k in read}
    return design.model_copy(update={"card": card, "pieces": [base], "artworks": artworks})
