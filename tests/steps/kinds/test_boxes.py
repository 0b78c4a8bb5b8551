"""Steps forward: full heights, several, neighbours, boxes on boxes."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding.closed import closed_card
from stileblade.folding.faces import sheet_of
from stileblade.folding.flat import fold_flat
from stileblade.formats.plan import plan_of
from stileblade.geometry.regions.along import length_of
from stileblade.machine.operation import Operation
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, problem_of, work_of

A7 = {"name": "A7", "width": 127, "height": 177.8}
TOP = {"size": A7, "way": "top-fold"}


def box(**more: Any) -> dict[str, Any]:
    return {"kind": "forward-step", "width": 40, **more}


def cut_length(*steps: dict[str, Any], **card: Any) -> float:
    evaluation = evaluate(design_of(BLANK, *steps, **card))
    lines = plan_of(evaluation, evaluation.pieces[0]).lines[Operation.CUT_INNER]
    return sum(length_of(line.segments) for line in lines)


def test_a_box_from_the_full_height_of_a_panel() -> None:
    """100 and 77.8 on panels of 177.8: it comes to the edge and not beyond it."""
    work = work_of(box(less=100, more=77.8), **TOP)
    assert closed_card(work).box.height == pytest.approx(177.8, abs=1e-6)
    assert not [f for f in run_checks(evaluate(design_of(BLANK, box(less=100, more=77.8), **TOP)))
                if f.severity == "error"]  # fmt: skip
    over = problem_of(box(less=100, more=77.9), **TOP)
    assert over.message == "Closed, the step would stand 0.1 mm out of back."


def test_a_mend_does_not_offer_the_value_that_is_there() -> None:
    for steps in ([box(less=100, more=77.9)], [box(less=90, more=90)], [box(width=500)]):
        design = design_of(BLANK, *steps, **TOP)
        for finding in run_checks(evaluate(design)):
            for mend in finding.mends:
                own = design.pieces[0].steps[1]
                assert all(getattr(own, name, None) != value for name, value in mend.values.items())


def test_several_in_one_step_stand_evenly_about_the_middle() -> None:
    """Three of 20, 10 apart, on 139.7: together 80, from 29.85 to 109.85."""
    work = work_of(box(width=20, count=3, between=10))
    folds = [f for f in work.folds if f.crease.inner]
    assert [f.name for f in folds] == [f"step {n}.{p}" for n in (1, 2, 3) for p in (1, 2, 3)]
    places = sorted({p for f in folds for s in f.crease.stretches for p in (s.low, s.high)})
    assert places == pytest.approx([29.85, 49.85, 59.85, 79.85, 89.85, 109.85])
    assert len(sheet_of(work).cells) == 2 + 3 * 2
    assert not fold_flat(work).troubles


def test_neighbours_share_a_slit() -> None:
    """Two boxes of 25 and 20 deep, side by side: three slits of 45, not four."""
    apart = cut_length(box(width=20, less=25, more=20, count=2, between=5))
    beside = cut_length(box(width=20, less=25, more=20, count=2, between=0))
    assert apart == pytest.approx(4 * 45, abs=1e-6)
    assert beside == pytest.approx(3 * 45, abs=1e-6)
    two = [
        box(id="a", width=20, less=25, more=20, along=-10),
        box(id="b", width=20, less=15, more=12, along=10),
    ]
    assert cut_length(*two) == pytest.approx(2 * 45 + 27, abs=1e-6)
    work = work_of(*two)
    assert not fold_flat(work).troubles


def test_boxes_on_boxes_to_three_levels() -> None:
    steps = [
        box(id="a", width=60, less=30, more=30),
        box(id="b", width=40, less=12, more=12, fold="step 1.2"),
        box(id="c", width=20, less=5, more=5, fold="step 2.2"),
    ]
    work = work_of(*steps)
    assert [f.crease.level for f in work.folds] == [0, 1, 1, 1, 2, 2, 2, 3, 3, 3]
    folded = fold_flat(work)
    assert not folded.troubles
    assert len(folded.faces) == 2 + 3 * 2
    assert closed_card(work).box.width == pytest.approx(107.95, abs=1e-6)
    fourth = problem_of(*steps, box(id="d", width=8, less=2, more=2, fold="step 3.2"))
    assert fourth.message == "There is no fold 'step 3.2'."
    deep = problem_of(steps[0], box(id="b", width=40, less=40, more=12, fold="step 1.2"))
    assert "runs through the strip" in deep.message
    offered = evaluate(design_of(BLANK, *steps)).pieces[0].outcomes[-1]
    assert offered.before is not None
    assert offered.step.offers(offered.before)["fold"] == [
        "fold", *(f"step {n}.{p}" for n in (1, 2) for p in (1, 2, 3)),
    ]  # fmt: skip
