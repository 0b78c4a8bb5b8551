"""Figures too thin to be cut: said so by every step that takes one."""

from __future__ import annotations

import pytest

from stileblade.design.evaluation import evaluate
from stileblade.steps.placing import PlacedStep
from stileblade.steps.step import STEPS
from tests.conftest import design_of
from tests.promises.values import BEFORE

THIN = {"kind": "ellipse", "width": 78, "height": 0.001}
KINDS = {cls.model_fields["kind"].default: cls for cls in STEPS if "outline" in cls.model_fields}
PLACED = {kind for kind, cls in KINDS.items() if issubclass(cls, PlacedStep)} - {"overlay"}
"""But for the one that wants a piece to lie on."""


@pytest.mark.parametrize("kind", sorted(PLACED | {"figure", "overhang", "stencil-edge"}))
def test_a_figure_that_encloses_nothing_is_told(kind: str) -> None:
    made = evaluate(design_of(*BEFORE[kind], {"kind": kind, "outline": THIN}))
    last = made.pieces[0].outcomes[-1]
    assert last.problem is not None
    assert last.problem.message.startswith("The figure encloses nothing: ")
    assert last.problem.field == "outline"
    assert last.work is last.before
