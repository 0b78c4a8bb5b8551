"""A registered step after its own sample's steps, as the search shows it."""

from __future__ import annotations

from typing import Any

from stileblade.design.document import Card, Design
from stileblade.design.evaluation import Evaluation, Outcome, evaluate
from stileblade.steps.step import STEPS, Step
from stileblade.views.catalogue import sample_of


def design_with(cls: type[Step], **values: Any) -> Design:
    """The step's sample in a design, with other values of the step itself."""
    *before, last = cls.sample()
    changed = cls.model_validate({**last.model_dump(), **values})
    pieces = sample_of([*cls.sample_pieces(), [*before, changed]], cls.sample_lies)
    return Design(
        card=Card(folding=cls.sample_folding), artworks=dict(cls.sample_artworks), pieces=pieces
    )


def sampled(cls: type[Step], **values: Any) -> tuple[Evaluation, Outcome]:
    """Its evaluation, and what came of the step."""
    evaluation = evaluate(design_with(cls, **values))
    return evaluation, evaluation.pieces[-1].outcomes[-1]


KINDS = STEPS.names()
