"""Grilles: bars that stand at both ends, in every copy of a window."""

from __future__ import annotations

import re
from typing import Any

import pytest

from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from stileblade.unexpected import Attempts
from stileblade.views.flat import flat_of
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, problem_of, work_of

SQUARE = {"name": "150 mm square", "width": 150, "height": 150}
GATE = {"size": SQUARE, "way": "gatefold"}
AT_THE_EDGE = {"id": "w", "kind": "window", "outline": {"kind": "circle", "diameter": 80},
               "target": "right door", "at": "right", "by": "centre", "crosses": True}  # fmt: skip


def grille(**more: Any) -> dict[str, Any]:
    return {"id": "g", "kind": "grille", "bar": 3, "gap": 6, **more}


def test_bars_are_clipped_to_the_paper_beyond_the_door() -> None:
    """150 square gatefold: 299 open. Upright bars in the half circle on the door stand; none lies
    beyond it, and it is one piece."""
    work = work_of(AT_THE_EDGE, grille(), **GATE)
    assert work.paper.bounds.width == pytest.approx(299, abs=1e-6)
    assert work.paper.pieces == 1
    # the bar in the middle is half a bar, along the edge of the door: with those at 9, 18, 27, 36
    (door,) = [p.box for p in work.panels if p.name == "right door"]
    assert door.right == pytest.approx(299, abs=1e-6)


def test_bars_that_would_end_in_the_air_are_left_out_and_that_is_said() -> None:
    """Level bars run to the edge of the door and end there: none is left."""
    problem = problem_of(AT_THE_EDGE, grille(angle=90), **GATE)
    assert problem.message == "No bar stands at both ends: each would end in the air."
    assert problem.would_do == 0
    work = work_of(AT_THE_EDGE, grille(angle=45), **GATE)
    assert work.paper.pieces == 1
    assert work.paper.bounds.width == pytest.approx(299, abs=1e-6)
    (note,) = work.notes
    assert (note.code, note.step) == ("grille.left-out", "g")
    design = design_of(BLANK, AT_THE_EDGE, grille(angle=45), **GATE)
    (said,) = [f for f in run_checks(evaluate(design)) if f.code == "grille.left-out"]
    assert said.step == "g"
    assert re.fullmatch(r"\d+ bars would end in the air, .* and are left out.", said.message)


def test_bars_hold_each_other() -> None:
    """In both directions, the one along the door's edge holds the level ones."""
    both = work_of(AT_THE_EDGE, grille(pattern="both"), **GATE)
    assert both.paper.pieces == 1
    assert both.notes == ()
    assert both.paper.area > work_of(AT_THE_EDGE, grille(), **GATE).paper.area + 200
    assert both.paper.bounds.width == pytest.approx(299, abs=1e-6)


def test_a_wheel_at_the_edge_of_a_door_is_one_piece() -> None:
    work = work_of(AT_THE_EDGE, grille(pattern="wheel", spokes=8, gap=9), **GATE)
    assert work.paper.pieces == 1
    assert work.paper.bounds.width == pytest.approx(299, abs=1e-6)


@pytest.mark.parametrize("pattern", ["one", "both", "wheel"])
def test_a_grille_is_centred_in_each_of_two_by_two_windows(pattern: str) -> None:
    """The same bars in all four: the paper added is four times that in one of them."""
    one = {"id": "w", "kind": "window", "outline": {"kind": "rectangle", "width": 30, "height": 40}}
    four = one | {"repeat": "grid", "columns": 2, "rows": 2, "gap": 10}
    bars = grille(pattern=pattern, angle=20)
    alone = work_of(one, bars).paper.area - work_of(one).paper.area
    all_four = work_of(four, bars).paper.area - work_of(four).paper.area
    assert alone > 100
    assert all_four == pytest.approx(4 * alone, abs=1e-6)
    single = work_of(four, bars | {"window": "w.3"}).paper.area - work_of(four).paper.area
    assert single == pytest.approx(alone, abs=1e-6)
    missing = problem_of(four, bars | {"window": "w.5"})
    assert missing.message == "The window of step 'w' has 4 copies; there is no copy 5."


def test_a_grille_reaches_the_copy_on_the_other_panel_as_its_mirror_image() -> None:
    """A slanted grille in a window that both doors have: closed, both are each other's mirror images."""
    window = {"id": "w", "kind": "window", "outline": {"kind": "circle", "diameter": 40},
              "target": "left door", "also_on": "right door", "mirrored": False}  # fmt: skip
    work = work_of(
        window | {"mirrored": True, "target": "front", "also_on": "back"}, grille(angle=30)
    )
    assert len(work.windows) == 2
    axis = work.folds[0].at
    half = [c for c in work.paper.openings if c.bounds.centre[0] < axis]
    other = [c for c in work.paper.openings if c.bounds.centre[0] > axis]
    assert len(half) == len(other) > 3
    here = sorted((2 * axis - c.bounds.right, c.bounds.head) for c in half)
    there = sorted((c.bounds.left, c.bounds.head) for c in other)
    assert here == [pytest.approx(p, abs=1e-3) for p in there]


def test_copies_are_offered_by_name_and_folds_only_where_they_can_be_chosen() -> None:
    four = {"id": "w", "kind": "window", "outline": {"kind": "circle", "diameter": 20},
            "repeat": "grid", "columns": 2, "rows": 2}  # fmt: skip
    evaluation = evaluate(design_of(BLANK, four, grille()))
    piece = evaluation.pieces[0]
    flat = flat_of(evaluation, piece, piece.outcomes[-1], Attempts())
    assert flat is not None
    assert [w.key for w in flat.windows] == ["w", "w.1", "w.2", "w.3", "w.4"]
    assert flat.windows[1].title == "step 2, Window on front, 1 of 4"
    box = {"id": "b", "kind": "forward-step"}
    tab = {"id": "t", "kind": "tab"}
    evaluation = evaluate(design_of(BLANK, box, tab))
    piece = evaluation.pieces[0]
    flat = flat_of(evaluation, piece, piece.outcomes[-1], Attempts())
    assert flat is not None
    assert flat.offers["fold"] == ["fold"]
    assert len(piece.outcomes[1].work.folds) > 1  # type: ignore[union-attr]
