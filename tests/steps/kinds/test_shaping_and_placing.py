"""What the placed steps, fit, turn, flip, grow, fill and crease do."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import pytest

from stileblade.design.evaluation import Evaluation, Outcome
from stileblade.piece.work import Work

Run = Callable[..., Evaluation]
RECT = {"kind": "rectangle", "width": 60, "height": 40}
FIGURE = {"kind": "figure", "outline": RECT}
BLANK = {"kind": "blank"}


def last(evaluation: Evaluation) -> Outcome:
    return evaluation.pieces[0].outcomes[-1]


def finished(evaluation: Evaluation) -> Work:
    work = evaluation.pieces[0].work
    assert work is not None
    return work


def box_after(evaluation: Evaluation) -> list[float]:
    return finished(evaluation).paper.bounds.as_list()


@pytest.mark.parametrize(
    ("fit", "size"),
    [
        ({"to": "width", "width": 90}, (90, 60)),
        ({"to": "height", "height": 20}, (30, 20)),
        ({"to": "width", "width": 90, "proportions": False}, (90, 40)),
        ({"to": "both", "width": 30, "height": 30, "proportions": False}, (30, 30)),
        ({"to": "both", "width": 30, "height": 30}, (30, 20)),
        ({"to": "panel", "margin": 10}, (87.95, 87.95 * 40 / 60)),
        ({"to": "panel", "margin": 10, "proportions": False}, (87.95, 119.7)),
    ],
)
def test_fit(evaluated: Run, fit: dict[str, Any], size: tuple[float, float]) -> None:
    box = finished(evaluated(FIGURE, {"kind": "fit", **fit})).paper.bounds
    assert (box.width, box.height) == pytest.approx(size, abs=1e-9)


def test_a_margin_that_leaves_nothing_says_so(evaluated: Run) -> None:
    outcome = last(evaluated(FIGURE, {"kind": "fit", "to": "panel", "margin": 60}))
    assert outcome.problem is not None
    assert outcome.problem.message == (
        "A margin of 60 mm on both sides leaves nothing of 107.95 mm."
    )


def test_turning_and_flipping_keep_the_centre(evaluated: Run) -> None:
    """60 x 40 turned by a quarter about (30, 20): 10..50 by -10..50."""
    assert box_after(evaluated(FIGURE, {"kind": "turn", "angle": 90})) == pytest.approx(
        [10, -10, 50, 50]
    )
    tag = {"kind": "figure", "outline": {"kind": "wave-top", "width": 60, "height": 40}}
    flipped = finished(evaluated(tag, {"kind": "flip", "swap": "head-foot"}))
    assert flipped.paper.bounds.as_list() == pytest.approx([0, 0, 60, 40])
    # the wave is at the foot now, so the centre of mass has gone up
    assert flipped.paper.centroid[1] < 20


def test_clockwise_is_clockwise_as_seen(evaluated: Run) -> None:
    """A pentagon's tip points up; turned by 90 it points to the right."""
    pentagon = {"kind": "figure", "outline": {"kind": "star", "points": 3, "diameter": 60}}
    box = box_after(evaluated(pentagon, {"kind": "turn", "angle": 90}))
    work = finished(evaluated(pentagon, {"kind": "turn", "angle": 90}))
    assert work.paper.centroid[0] < (box[0] + box[2]) / 2


def test_growing_a_square_and_shrinking_it_away(evaluated: Run) -> None:
    square = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 60}}
    work = finished(evaluated(square, {"kind": "grow", "margin": 3}))
    assert work.paper.area == pytest.approx(4348.274, abs=1e-3)
    outcome = last(evaluated(square, {"kind": "grow", "margin": -31}))
    assert outcome.problem is not None
    assert outcome.problem.message == (
        "Shrunk by 31 mm nothing is left; at 30 mm the outline vanishes."
    )


def test_fill_below_an_area(evaluated: Run) -> None:
    ring = {"kind": "figure", "outline": {"kind": "ring", "diameter": 60, "opening": 2}}
    small = evaluated(ring, {"kind": "fill", "which": "below", "below": 3.2})
    assert finished(small).paper.openings == []
    kept = evaluated(ring, {"kind": "fill", "which": "below", "below": 3.1})
    assert len(finished(kept).paper.openings) == 1  # pi mm^2


def test_a_window_centred_on_a_panel_has_its_centre(evaluated: Run) -> None:
    """A2 front: 107.95 to 215.9 by 0 to 139.7, centre 161.925, 69.85."""
    work = finished(evaluated(BLANK, {"kind": "window", "outline": RECT}))
    assert work.paper.openings[0].bounds.centre == pytest.approx((161.925, 69.85), abs=1e-9)
    assert work.paper.area == pytest.approx(215.9 * 139.7 - 2400, abs=1e-6)


def test_placing_by_anchor_and_exact_offset(evaluated: Run) -> None:
    window = {
        "kind": "window", "outline": RECT, "target": "back",
        "at": "foot-left", "by": "foot-left", "dx": 12.5, "dy": -7,
    }  # fmt: skip
    work = finished(evaluated(BLANK, window))
    assert work.paper.openings[0].bounds.as_list() == pytest.approx([12.5, 92.7, 72.5, 132.7])


@pytest.mark.parametrize(
    ("window", "message", "field", "would_do"),
    [
        (
            {"outline": {"kind": "circle", "diameter": 120}},
            "The window of 120 mm x 120 mm is larger than the panel of 107.95 mm x 139.7 mm.",
            "outline",
            86.4,  # 120 times 0.8 * 107.95 / 120, to a tenth
        ),
        (
            {"outline": RECT, "dx": -30},
            "The window runs 6.03 mm over the edge of its panel.",
            "dx",
            -23.975,
        ),
    ],
)
def test_a_window_that_does_not_fit_says_what_would(
    evaluated: Run, window: dict[str, Any], message: str, field: str, would_do: float
) -> None:
    """107.95 * 0.8 = 86.36. And 53.975 - 30 = 23.975 of room to the left, 30 wished: 6.025."""
    outcome = last(evaluated(BLANK, {"kind": "window", **window}))
    assert outcome.problem is not None
    assert outcome.problem.message == message
    assert outcome.problem.field == field
    assert outcome.problem.would_do == pytest.approx(would_do, abs=1e-3)
    assert outcome.work is not None
    assert not outcome.work.windows


def test_a_window_may_cross_when_it_says_so(evaluated: Run) -> None:
    window = {"kind": "window", "outline": RECT, "target": "card", "crosses": True}
    work = finished(evaluated(BLANK, window))
    assert len(work.spans["fold"]) == 2
    assert sum(s.length for s in work.spans["fold"]) == pytest.approx(99.7, abs=1e-9)


def test_welding_to_a_blank_keeps_its_panels(evaluated: Run) -> None:
    """A disc of 70 on the open edge: half of it stands over, 35 mm."""
    weld = {"kind": "weld", "outline": {"kind": "circle", "diameter": 70}, "at": "right"}
    work = finished(evaluated(BLANK, weld))
    assert [p.box.width for p in work.panels] == pytest.approx([107.95, 107.95])
    assert work.paper.bounds.right == pytest.approx(215.9 + 35)
    assert work.paper.area == pytest.approx(215.9 * 139.7 + math.pi * 35**2 / 2, abs=1e-6)


def test_cutting_away(evaluated: Run) -> None:
    bite = {"kind": "cut-away", "outline": {"kind": "circle", "diameter": 70}, "at": "right"}
    work = finished(evaluated(BLANK, bite))
    assert work.paper.area == pytest.approx(215.9 * 139.7 - math.pi * 35**2 / 2, abs=1e-6)
    missed = last(evaluated(BLANK, {**bite, "dx": 200}))
    assert missed.problem is not None
    assert missed.problem.message == "The figure does not touch the piece: nothing is cut away."


def test_shaping_steps_ask_for_a_figure(evaluated: Run) -> None:
    for kind in ("fit", "turn", "flip", "mirror"):
        problem = last(evaluated(BLANK, {"kind": kind})).problem
        assert problem is not None
        assert problem.message == "The piece has its panels and folds already."
    nothing = last(evaluated({"kind": "turn"})).problem
    assert nothing is not None
    assert nothing.hint == "Start with a blank or a figure."


def test_creases_by_name(evaluated: Run) -> None:
    crease = {"kind": "crease", "made": "perforate", "cut": 2, "leave": 1}
    fold = finished(evaluated(BLANK, crease)).folds[0]
    assert (fold.made, fold.cut, fold.leave) == ("perforate", 2, 1)
    problem = last(evaluated(BLANK, {**crease, "fold": "spine"})).problem
    assert problem is not None
    assert str(problem) == "There is no fold 'spine'. Folds: fold."


@pytest.mark.parametrize(
    ("outline", "message"),
    [
        ({"kind": "rectangle", "width": 20, "height": 10, "radius": 6},
         "A corner radius of 6 mm does not fit; the shorter side is 10 mm."),
        ({"kind": "ring", "diameter": 20, "opening": 20},
         "The opening of 20 mm is not smaller than the ring of 20 mm."),
        ({"kind": "drawn", "ref": "gone"}, "The outline 'gone' is not in this design."),
    ],
)  # fmt: skip
def test_figures_that_cannot_be_say_why(
    evaluated: Run, outline: dict[str, Any], message: str
) -> None:
    problem = last(evaluated({"kind": "figure", "outline": outline})).problem
    assert problem is not None
    assert problem.message == message
