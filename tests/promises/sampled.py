"""A registered step after its own sample's steps, as the search shows it."""

from __future__ import annotations

from typing import Any

from stileblade.design.document import Card, Design, Piece
from stileblade.design.evaluation import Evaluation, Outcome, evaluate
from stileblade.steps.step import STEPS, Step


def design_with(cls: type[Step], **values: Any) -> Design:
    """The step's sample in a design, with other values of the step itself."""
    *before, last = cls.sample()
    changed = cls.model_validate({**last.model_dump(), **values})
    pieces = [
        Piece.model_validate(
            {"id": f"p{n}" if n else "base", "steps": [s.model_dump(exclude={"id"}) for s in steps]}
        )
        for n, steps in enumerate([*cls.sample_pieces(), [*before, changed]])
    ]
    return Design(
        card=Card(folding=cls.sample_folding), artworks=dict(cls.sample_artworks), pieces=pieces
    )


def sampled(cls: type[Step], **values: Any) -> tuple[Evaluation, Outcome]:
    """Its evaluation, and what came of the step."""
    evaluation = evaluate(design_with(cls, **values))
    return evaluation, evaluation.pieces[-1].outcomes[-1]


KINDS = STEPS.names()
