"""Fold lines, creases and softened corners."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from stileblade.design.evaluation import Outcome, evaluate
from stileblade.folding.flat import fold_flat
from stileblade.folding.hinge import hinge_length, perforation
from stileblade.formats.plan import plan_of
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.measurement import signed_area
from stileblade.geometry.measures.turns import corners_of
from stileblade.machine.operation import Operation
from stileblade.piece.folds import Made
from stileblade.piece.work import Work
from tests.conftest import design_of

BLANK = {"kind": "blank"}
PLATE = {"kind": "figure", "outline": {"kind": "rectangle", "width": 184.15, "height": 100}}


def outcomes(*steps: dict[str, Any], **card: Any) -> list[Outcome]:
    return list(evaluate(design_of(*steps, **card)).pieces[0].outcomes)


def made(*steps: dict[str, Any], **card: Any) -> Work:
    found = outcomes(*steps, **card)
    assert [o.problem for o in found if o.problem] == []
    work = found[-1].work
    assert work is not None
    return work


def line(**values: Any) -> dict[str, Any]:
    return {"kind": "fold-line", "target": "figure", **values}


@pytest.mark.parametrize(
    ("values", "axis", "at"),
    [
        ({"edge": "near", "distance": 92.075}, "x", 92.075),
        ({"edge": "far", "distance": 40}, "x", 144.15),
        ({"edge": "middle", "distance": 0}, "x", 92.075),
        ({"edge": "middle", "distance": -10, "runs": "level"}, "y", 40),
        ({"edge": "far", "distance": 30, "runs": "level"}, "y", 70),
    ],
)
def test_a_fold_at_an_exact_place(values: dict[str, Any], axis: str, at: float) -> None:
    """7 1/4 in wide: half of it is 92.075 mm."""
    work = made(PLATE, line(**values))
    (fold,) = work.folds
    assert (fold.axis, fold.at) == (axis, pytest.approx(at, abs=1e-9))
    assert fold_flat(work).layers == 2


def test_a_fold_through_two_places_is_trimmed_to_the_paper() -> None:
    """From (10, 10) to (60, 60) on a plate 184.15 x 100: it runs from corner 0, 0 to 100, 100."""
    work = made(PLATE, line(by="points", x=10, y=10, x2=60, y2=60))
    (span,) = work.spans["fold 1"]
    assert sorted([span.start, span.end]) == [
        pytest.approx((0, 0), abs=1e-6), pytest.approx((100, 100), abs=1e-6),
    ]  # fmt: skip
    assert span.length == pytest.approx(100 * math.sqrt(2))
    assert work.folds[0].axis is None


def test_a_slanting_perforation_keeps_its_pattern() -> None:
    """On 141.421 mm: floor((141.421 - 1) / 3) = 46 cuts of 2 mm."""
    work = made(PLATE, line(by="points", x=10, y=10, x2=60, y2=60, made="perforate"))
    (span,) = work.spans["fold 1"]
    cuts = perforation(span, work.folds[0])
    assert len(cuts) == 46
    assert all(math.dist(a, b) == pytest.approx(2) for a, b in cuts)
    assert hinge_length([span], work.folds[0]) == pytest.approx(span.length - 92)


def test_a_fold_along_the_axis_of_symmetry() -> None:
    """A heart's is upright through its middle; turned by 30 degrees it leans by as much."""
    heart = {"kind": "figure", "outline": {"kind": "heart", "width": 70, "height": 64}}
    work = made(heart, line(by="symmetry"))
    assert (work.folds[0].axis, work.folds[0].at) == ("x", pytest.approx(35, abs=0.01))
    assert fold_flat(work).closed[0] == pytest.approx(35, abs=0.02)
    turned = made(heart, {"kind": "turn", "angle": 30}, line(by="symmetry")).folds[0].line
    assert math.degrees(math.atan2(turned.uy, turned.ux)) % 180 == pytest.approx(120, abs=0.1)


def test_what_has_no_symmetry_says_so() -> None:
    tag = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 20}}
    bite = {"kind": "cut-away", "target": "figure", "at": "head-left", "by": "head-left",
            "outline": {"kind": "rectangle", "width": 25, "height": 12}}  # fmt: skip
    problem = outcomes(tag, bite, line(by="symmetry"))[-1].problem
    assert problem is not None
    assert (problem.field, problem.message) == (
        "by", "The piece has no axis of symmetry: nowhere do 97 % of it fall on themselves.",
    )  # fmt: skip


def test_a_line_beside_the_paper_says_what_would_do() -> None:
    problem = outcomes(PLATE, line(edge="near", distance=300))[-1].problem
    assert problem is not None
    assert problem.message == "There is no paper on the line."
    assert (problem.field, problem.would_do) == ("distance", pytest.approx(92.08, abs=0.01))


def test_a_fold_at_the_place_of_another_takes_its_place() -> None:
    work = made(BLANK, line(target="card", edge="middle", distance=0, made="perforate"))
    (fold,) = work.folds
    assert (fold.name, fold.made) == ("fold", Made.PERFORATE)
    assert fold_flat(work).closed == pytest.approx((107.95, 139.7))


def test_texture_and_tears_fold_nothing() -> None:
    """Six ribs at a pitch of 3 and a line to tear along: scored and perforated, but one face."""
    ribs = line(purpose="texture", lines=6, pitch=3, distance=20)
    tear = line(purpose="tear", made="perforate", distance=150)
    work = made(PLATE, ribs, tear)
    assert [f.at for f in work.folds] == pytest.approx([20, 23, 26, 29, 32, 35, 150])
    assert len(fold_flat(work).faces) == 1
    evaluation = evaluate(design_of(PLATE, ribs, tear))
    plan = plan_of(evaluation, evaluation.pieces[0])
    assert len(plan.lines[Operation.SCORE]) == 6
    assert len(plan.lines[Operation.PERFORATE]) == 33  # floor((100 - 1) / 3)


def test_folds_skip_windows_and_end_at_the_outline() -> None:
    window = {"kind": "window", "target": "card", "crosses": True,
              "outline": {"kind": "circle", "diameter": 40}}  # fmt: skip
    work = made(BLANK, window)
    first, second = work.spans["fold"]
    assert (first.end[1], second.start[1]) == pytest.approx((49.85, 89.85), abs=1e-6)


def test_a_setback_and_a_spine_in_the_file() -> None:
    """Set back by 2 the two scores of a spine of 1.2 are 135.7 long, 0.6 beside the fold."""
    crease = {"kind": "crease", "made": "score", "setback": 2, "spine": 1.2}
    evaluation = evaluate(design_of(BLANK, crease))
    scores = plan_of(evaluation, evaluation.pieces[0]).lines[Operation.SCORE]
    found = [(s.segments.start[0].tolist(), s.segments.end[0].tolist()) for s in scores]
    assert [a[0] for a, _ in found] == pytest.approx([107.35, 108.55])
    for a, b in found:
        assert sorted([a[1], b[1]]) == pytest.approx([2, 137.7])


@pytest.mark.parametrize(
    ("which", "change"),
    [("outer", -(4 - math.pi) * 25), ("inner", 0.0), ("both", -(4 - math.pi) * 25)],
)
def test_softened_corners_are_arcs(which: str, change: float) -> None:
    """Four right angles rounded with r = 5 lose (4 - pi) r^2; a plate has no inner corners."""
    work = made(PLATE, {"kind": "soften", "radius": 5, "which": which})
    assert work.paper.area - 18415 == pytest.approx(change, abs=1e-6)
    assert signed_area(work.paper.segments) == pytest.approx(18415 + change, abs=1e-6)
    assert work.paper.nodes == (4 if which == "inner" else 8)


@pytest.mark.parametrize("picks", [[(0, 0)], [(1, 0.99), (0.02, 1)], [(0, 0), (1, 0), (1, 1)]])
def test_picked_corners_alone_are_rounded(picks: list[tuple[float, float]]) -> None:
    """Each right angle rounded with r = 5 loses (1 - pi / 4) r^2 and becomes an arc."""
    step = {"kind": "soften", "radius": 5, "which": "picked", "picks": picks}
    work = made(PLATE, step)
    lost = len(picks) * (1 - math.pi / 4) * 25
    assert 18415 - work.paper.area == pytest.approx(lost, abs=1e-6)
    assert work.paper.nodes == 4 + len(picks)
    kinds = work.paper.segments.kind.tolist()
    assert (kinds.count(Kind.ARC), kinds.count(Kind.LINE)) == (len(picks), 4)


def test_an_inner_and_an_outer_corner_are_picked_together_and_told_apart() -> None:
    """A plate with a notch of 40 x 20 in its edge: one corner of the notch's ground gains what one
    of its mouth loses."""
    notch = {"kind": "cut-away", "outline": {"kind": "rectangle", "width": 40, "height": 40},
             "at": "head"}  # fmt: skip
    before = made(PLATE, notch)
    box = before.paper.bounds
    corners = corners_of(before.paper)
    assert len(corners) == 8
    assert sorted(round(a) for a in corners.inside()) == [90] * 6 + [270] * 2
    inner = corners.places[corners.turn < 0][0]
    mouth = corners.places[(corners.turn > 0) & (np.abs(corners.places[:, 0] - inner[0]) < 1e-6)][0]
    picks = [((x - box.left) / box.width, (y - box.head) / box.height) for x, y in (inner, mouth)]
    after = made(PLATE, notch, {"kind": "soften", "radius": 4, "which": "picked", "picks": picks})
    assert after.paper.area == pytest.approx(before.paper.area, abs=1e-6)
    assert after.paper.nodes == before.paper.nodes + 2


def test_corners_that_cannot_be_rounded_alone_say_so() -> None:
    """A radius that takes the whole end of a narrow plate takes corners that are not picked."""
    narrow = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 12}}
    step = {"kind": "soften", "radius": 5, "which": "picked"}
    found = outcomes(narrow, {**step, "picks": []})[-1].problem
    assert found is not None
    assert found.message == "No corner is picked yet."
    wide = {**step, "radius": 6.5, "picks": [(0, 0)]}
    whole = outcomes(narrow, wide)[-1].problem
    assert whole is not None
    assert whole.field == "radius"
    plate = {"kind": "figure", "outline": {"kind": "rectangle", "width": 120, "height": 80}}
    pole = {"kind": "cut-away", "outline": {"kind": "rectangle", "width": 105, "height": 100},
            "dy": -40}  # fmt: skip
    sides = [{**pole, "at": "left"}, {**pole, "at": "right"}]
    shape = made(plate, *sides).paper
    x, y = shape.segments.start[np.lexsort(shape.segments.start.T)[0]]
    share = ((x - shape.bounds.left) / 120, (y - shape.bounds.head) / shape.bounds.height)
    tip = outcomes(plate, *sides, {**step, "radius": 12, "picks": [share]})[-1].problem
    assert tip is not None
    assert tip.message == "A radius of 12 mm takes corners with it that are not picked."
    assert tip.would_do == pytest.approx(6)
    far = outcomes(narrow, {**step, "picks": [(0.5, 0.5)]})[-1].problem
    assert far is not None
    assert far.message == "No corner is picked yet."
    both = made(narrow, {**step, "picks": [(0, 0), (0, 1)]})
    assert 720 - both.paper.area == pytest.approx(2 * (1 - math.pi / 4) * 25, abs=1e-6)


def test_too_large_a_radius_says_what_would_do() -> None:
    problem = outcomes(PLATE, {"kind": "soften", "radius": 60})[-1].problem
    assert problem is not None
    assert problem.message == "A radius of 60 mm rounds everything away; 50 mm is the most here."
    assert problem.would_do == pytest.approx(25)


def test_softening_the_outline_leaves_windows_and_bars_as_they_are() -> None:
    """Bars of 3 mm would go with a radius of 6; the outline alone is rounded."""
    window = {"kind": "window", "outline": {"kind": "rectangle", "width": 60, "height": 40}}
    bars = {"kind": "grille", "bar": 3, "gap": 6}
    before = made(BLANK, window, bars)
    after = made(BLANK, window, bars, {"kind": "soften", "radius": 6})
    assert len(after.paper.openings) == len(before.paper.openings) == 8
    assert before.paper.area - after.paper.area == pytest.approx((4 - math.pi) * 36, abs=1e-6)
    everything = made(BLANK, window, bars, {"kind": "soften", "radius": 6, "of": "all"})
    assert len(everything.paper.openings) == 1
