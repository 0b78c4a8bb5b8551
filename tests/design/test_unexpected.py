"""What fails unexpectedly in one step, check or picture becomes a finding; the rest is there."""

from __future__ import annotations

import logging
from typing import Any

import pytest

from stileblade.checks import check as checks
from stileblade.checks.check import Severity, run_checks
from stileblade.design.evaluation import evaluate
from stileblade.steps.kinds.window import Window
from stileblade.views import flat, summary
from stileblade.views.bench import view
from stileblade.views.summary import summary_of
from tests.conftest import design_of

BLANK = {"kind": "blank", "id": "a"}
WINDOW = {"kind": "window", "id": "w", "outline": {"kind": "circle", "diameter": 30}}


def broken(*_: Any, **__: Any) -> Any:
    raise ZeroDivisionError("nobody thought of this")


def test_a_step_that_breaks_is_passed_over_and_written_down(
    monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    monkeypatch.setattr(Window, "apply", broken)
    with caplog.at_level(logging.ERROR, "stileblade"):
        evaluation = evaluate(design_of(BLANK, WINDOW, {"kind": "soften", "radius": 3}))
    outcomes = evaluation.pieces[0].outcomes
    assert outcomes[1].work is outcomes[0].work
    assert outcomes[2].problem is None
    (finding,) = (f for f in run_checks(evaluation) if f.code == "step.not-applied")
    assert finding.message == "Window: It could not be computed."
    assert finding.step == "w"
    assert "nobody thought of this" in caplog.text


def test_a_check_that_breaks_says_so_and_the_others_go_on(
    monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    evaluation = evaluate(design_of(BLANK, {**WINDOW, "at": "left", "by": "left", "dx": 4}))
    assert "window.near" in {f.code for f in run_checks(evaluation)}
    monkeypatch.setitem(checks.CHECKS._known, "windows", broken)
    found = {f.code: f for f in run_checks(evaluation)}
    assert found["not-computed"].severity is Severity.ERROR
    assert found["not-computed"].message == "The check of windows could not be computed."
    assert "check of windows" in caplog.text


def test_what_cannot_be_shown_is_left_out_of_the_bench(
    monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    evaluation = evaluate(design_of(BLANK, WINDOW))
    monkeypatch.setattr(flat, "folds_of", broken)
    shown = view(evaluation, evaluation.pieces[0], "w", set())
    assert shown.flat is not None
    assert shown.flat.folds == []
    assert shown.flat.path
    assert shown.rest is not None
    said = [(f.message, f.step) for f in shown.rest.findings if f.code == "not-computed"]
    assert said == [("The folds could not be computed.", "w")]
    assert "folds could not be computed" in caplog.text


@pytest.mark.parametrize("name", ["folded_picture", "card_measures", "run_checks", "evaluate"])
def test_a_design_whose_picture_cannot_be_made_has_its_tile(
    monkeypatch: pytest.MonkeyPatch, name: str
) -> None:
    monkeypatch.setattr(summary, name, broken)
    made = summary_of(design_of(BLANK).model_dump_json())
    assert made.errors == 1
    assert made.picture is None or name == "card_measures"


def test_a_window_seen_through_one_that_is_near_the_edge() -> None:
    """A window that a step carried has no place of its own: it is told of, and not moved."""
    near = {**WINDOW, "at": "left", "by": "left", "dx": 4}
    seen = {"kind": "seen-through", "id": "s", "shown_as": "window"}
    found = [
        f for f in run_checks(evaluate(design_of(BLANK, near, seen))) if f.code == "window.near"
    ]
    assert [(f.step, bool(f.mends)) for f in found] == [("w", True), ("s", False)]


@pytest.mark.parametrize("kind", ["window", "weld", "cut-away", "stencil", "drawn-figure"])
@pytest.mark.parametrize("gap", [-20, -20.05, -1000])
def test_as_many_as_fit_on_top_of_each_other_are_refused(kind: str, gap: float) -> None:
    """Circles of 20 with -20 between them lie in one place: endlessly many would fit."""
    step = {
        "kind": kind,
        "outline": {"kind": "circle", "diameter": 20},
        "repeat": "fit",
        "gap": gap,
    }
    problem = evaluate(design_of(BLANK, step)).pieces[0].outcomes[1].problem
    assert problem is not None
    assert problem.field == "gap"
    assert problem.message.startswith("From one to the next there are only 0 mm")
    assert problem.would_do == 0.6 or problem.would_do == 0.5


def test_a_mend_of_openings_leaves_deliberate_cuts_open() -> None:
    """A ring 90/20 mirrored with lap 8 and a ladder of three slots: five openings, of which two were
    left in; mended, the three slots stay."""
    ring = {"kind": "figure", "outline": {"kind": "ring", "diameter": 90, "opening": 20}}
    mirror = {"kind": "mirror", "towards": "left", "lap": 8}
    ladder = {"kind": "slot-ladder", "count": 3, "first": 8, "change": 2, "height": 3, "between": 3,
              "dx": 22}  # fmt: skip
    design = design_of(ring, mirror, ladder)
    before = evaluate(design)
    work = before.pieces[0].work
    assert work is not None
    assert len(work.paper.openings) == 5
    (finding,) = (f for f in run_checks(before) if f.code == "openings.large")
    assert finding.value == 2
    (mend,) = finding.mends
    assert mend.add is not None
    steps = list(design.pieces[0].steps)
    at = next((i for i, s in enumerate(steps) if s.id == mend.before), len(steps))
    steps.insert(at, mend.add.model_copy(update={"id": "mend"}))
    piece = design.pieces[0].model_copy(update={"steps": steps})
    mended = evaluate(design.model_copy(update={"pieces": [piece]})).pieces[0].work
    assert mended is not None
    assert len(mended.paper.openings) == 3


def test_openings_that_came_after_a_cut_are_filled_by_themselves() -> None:
    """A ring welded on after a window: its opening is not there before the window, so just that one is
    picked."""
    ring = {"kind": "weld", "outline": {"kind": "ring", "diameter": 60, "opening": 30}, "at": "right",
            "by": "left", "dx": -14}  # fmt: skip
    design = design_of(BLANK, WINDOW, ring)
    (finding,) = (f for f in run_checks(evaluate(design)) if f.code == "openings.large")
    (mend,) = finding.mends
    assert mend.before == ""
    assert mend.add is not None
    steps = [*design.pieces[0].steps, mend.add.model_copy(update={"id": "mend"})]
    piece = design.pieces[0].model_copy(update={"steps": steps})
    mended = evaluate(design.model_copy(update={"pieces": [piece]})).pieces[0].work
    assert mended is not None
    assert [round(c.bounds.width, 6) for c in mended.paper.openings] == [30]
