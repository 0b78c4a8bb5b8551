"""A width or height that is shown of a figure is the thing's, and typing it makes it so: every step that places a figure,
with every figure."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.design.evaluation import evaluate
from stileblade.outlines.figure import FIGURES, GivenBy
from stileblade.steps.placing import PlacedStep
from stileblade.steps.step import STEPS
from tests.conftest import design_of
from tests.promises.sampled import sampled
from tests.whole import BLANK, ISO_A6

PLACED = [kind for kind in STEPS.names() if issubclass(STEPS[kind], PlacedStep)]
MEASURED = [f for f in FIGURES.names() if FIGURES[f].given_by is GivenBy.MEASURES]
VARIED: dict[str, list[dict[str, Any]]] = {
    "window": [{}, {"sized": "fit", "margin": 12.5}, {"sized": "fill", "margin": 20}],
}
"""Values with which a figure gets its size otherwise than by its own."""


def _placed(kind: str, figure: dict[str, Any], **values: Any) -> Any:
    step = {"kind": kind, "id": "s", "target": "front", "outline": figure, **values}
    piece = evaluate(design_of(BLANK, step, size=ISO_A6)).pieces[0]
    return piece, piece.outcomes[1]


@pytest.mark.parametrize("kind", [k for k in PLACED if not STEPS[k].starts_with])
@pytest.mark.parametrize("figure", MEASURED)
def test_what_is_shown_is_so_and_what_is_typed_becomes_so(kind: str, figure: str) -> None:
    form = FIGURES[figure]()
    for values in VARIED.get(kind, [{}]):
        piece, outcome = _placed(kind, form.model_dump(mode="json"), **values)
        step, before = outcome.step, outcome.before
        box = step.turned_figure(before, piece.setting).bounds
        otherwise = step.sized_otherwise(before, piece.setting)
        sizes = form.sizes(box)
        for name, real in ((sizes.across, box.width), (sizes.down, box.height)):
            if name:
                shown = (
                    otherwise.values[f"outline.{name}"]
                    if otherwise
                    else getattr(step.outline, name)
                )
                assert shown == pytest.approx(real, abs=0.001), (values, name)
        if otherwise is None:
            continue
        typed = dict(otherwise.values)
        first = next(iter(typed))
        typed[first] *= 1.1
        own = {key.removeprefix("outline."): value for key, value in typed.items()}
        again, made = _placed(
            kind, {**form.model_dump(mode="json"), **own}, **{**values, **otherwise.beside}
        )
        wide = made.step.turned_figure(made.before, again.setting).bounds.width
        assert wide == pytest.approx(1.1 * box.width, abs=0.05), (values, first)


def test_the_window_of_a_new_card_says_its_real_size() -> None:
    """ISO A6, an oval of 70 x 50 in proportion within margins of 12.5: the panel's 105 leave 80, and 57.143 high."""
    piece, outcome = _placed(
        "window", {"kind": "ellipse", "width": 70, "height": 50}, sized="fit", margin=12.5
    )
    found = outcome.step.sized_otherwise(outcome.before, piece.setting)
    assert found.values == pytest.approx({"outline.width": 80, "outline.height": 57.143})
    assert found.beside == {"sized": "own"}
    own, made = _placed(
        "window", {"kind": "ellipse", "width": 60, "height": 80}, sized="own", margin=12.5
    )
    box = made.step.turned_figure(made.before, own.setting).bounds
    assert (box.width, box.height) == pytest.approx((60, 80))


def test_every_step_with_a_figure_of_its_own_says_its_size() -> None:
    for kind in PLACED:
        evaluation, outcome = sampled(STEPS[kind])
        if outcome.before is not None:
            setting = evaluation.pieces[-1].setting
            assert outcome.step.sized_otherwise(outcome.before, setting) is None
