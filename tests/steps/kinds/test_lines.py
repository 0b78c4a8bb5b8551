"""Lines that are drawn, stitched, scored or perforated, and never cut."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from stileblade.design.evaluation import Outcome, evaluate
from stileblade.formats.plan import plan_of
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import lines
from stileblade.geometry.regions.along import length_of, stitches, within
from stileblade.geometry.regions.set_operations import difference, rectangle
from stileblade.machine.operation import Operation
from stileblade.outlines.figures.round import Circle
from stileblade.piece.lines import How
from stileblade.piece.work import Work
from tests.conftest import design_of

BLANK = {"kind": "blank"}
WINDOW = {"kind": "window", "outline": {"kind": "circle", "diameter": 40}}


def last(*steps: dict[str, Any], **card: Any) -> Outcome:
    return evaluate(design_of(*steps, **card)).pieces[0].outcomes[-1]


def made(*steps: dict[str, Any], **card: Any) -> Work:
    outcome = last(*steps, **card)
    assert outcome.problem is None, outcome.problem
    assert outcome.work is not None
    return outcome.work


def lengths(work: Work) -> list[float]:
    return [length_of(way) for line in work.lines_on_paper for way, _ in line.ways]


def border(**values: Any) -> dict[str, Any]:
    return {"kind": "border-line", "how": "draw", **values}


def test_a_line_inside_a_panel() -> None:
    """5 in from a panel of 107.95 x 139.7: 2 * (97.95 + 129.7) = 455.3."""
    (length,) = lengths(made(BLANK, border(margin=5)))
    assert length == pytest.approx(455.3, abs=1e-6)


def test_a_line_round_a_window() -> None:
    """r = 20 and 3 more: 2 pi 23, measured by chords of its flattened curve."""
    (length,) = lengths(made(BLANK, WINDOW, border(along="windows", margin=3)))
    assert length == pytest.approx(2 * math.pi * 23, rel=5e-3)


def test_lines_are_never_cut_and_keep_the_paper() -> None:
    for how, operation in (
        ("draw", Operation.DRAW), ("stitch", Operation.DRAW), ("score", Operation.SCORE),
        ("perforate", Operation.PERFORATE),
    ):  # fmt: skip
        steps = (BLANK, border(how=how, margin=8))
        evaluation = evaluate(design_of(*steps))
        plan = plan_of(evaluation, evaluation.pieces[0])
        assert len(plan.lines[Operation.CUT_OUTER]) == 1
        assert plan.lines[Operation.CUT_INNER] == []
        # the fold is scored as well
        assert len(plan.lines[operation]) >= (2 if operation is Operation.SCORE else 1)
        assert made(*steps).paper.area == made(BLANK).paper.area


@pytest.mark.parametrize(("stitch", "between"), [(4, 2), (7.3, 1), (0.5, 9)])
def test_stitches_come_out_even(stitch: float, between: float) -> None:
    """A whole number, all alike but for the corners they go round, with the asked proportion."""
    work = made(BLANK, border(how="stitch", stitch=stitch, between=between, margin=5))
    found = lengths(work)
    expected = []
    for side in (97.95, 129.7) * 2:
        count = max(1, round((side + between) / (stitch + between)))
        share = side / (count * stitch + (count - 1) * between)
        expected += [stitch * share] * count
    assert sorted(found) == pytest.approx(sorted(expected), rel=1e-6)


def test_an_open_way_begins_and_ends_with_a_stitch() -> None:
    way = lines([(0.0, 0.0)], [(100.0, 0.0)])
    found = stitches(way, 4, 2, closed=False)
    assert len(found) == 17
    assert (found[0].start[0, 0], found[-1].end[-1, 0]) == pytest.approx((0, 100))


def test_a_way_is_kept_where_there_is_paper() -> None:
    """A circle of r = 30 over a strip 20 high: two arcs of 2 asin(1 / 3) * 30 each."""
    circle = Circle(diameter=60).outline({})
    way = next(circle.contours).segments
    x, y = circle.bounds.centre
    strip = rectangle(Box(x - 50, y - 10, x + 50, y + 10))
    found = within(strip, way, closed=True)
    assert [closed for _, closed in found] == [False, False]
    assert [length_of(w) for w, _ in found] == pytest.approx([60 * math.asin(1 / 3)] * 2, abs=0.05)
    for part, _ in found:
        ends = np.concatenate([part.start[:1], part.end[-1:]])
        assert np.abs(np.abs(ends[:, 1] - y) - 10).max() < 0.01
    assert within(rectangle(Box(-500, -500, 500, 500)), way, closed=True) == [(way, True)]
    assert (
        within(difference(strip, circle), rectangle(Box(x, y, x + 1, y + 1)).segments, closed=True)
        == []
    )


def test_a_window_cut_later_cuts_the_line() -> None:
    """A word's line under a window that comes after it is not drawn in the air."""
    figure = {"kind": "drawn-figure", "outline": {"kind": "rectangle", "width": 60, "height": 20}}
    assert lengths(made(BLANK, figure)) == pytest.approx([160])
    cut = sum(lengths(made(BLANK, figure, WINDOW)))
    # of the two long sides 2 * sqrt(20^2 - 10^2) each lie in the window
    assert cut == pytest.approx(160 - 2 * 2 * math.sqrt(300), abs=0.05)


def test_a_drawn_figure_goes_with_the_mirror_on_the_front() -> None:
    """Drawn before the mirror: below the fold after mirroring above, on the front alone."""
    steps = [
        {"kind": "figure", "outline": {"kind": "circle", "diameter": 100}},
        {"kind": "drawn-figure", "target": "figure",
         "outline": {"kind": "rectangle", "width": 30, "height": 10}},
        {"kind": "turn", "angle": 90},
        {"kind": "mirror", "towards": "above", "lap": 10},
    ]  # fmt: skip
    work = made(*steps)
    (line,) = work.lines_on_paper
    assert line.how is How.DRAW
    ((way, closed),) = line.ways
    assert closed
    box = way.start.min(axis=0), way.start.max(axis=0)
    assert box[1] - box[0] == pytest.approx([10, 30])
    front = next(p.box for p in work.panels if p.name == "front")
    assert front.head < box[0][1] < box[1][1] < front.foot


@pytest.mark.parametrize(
    ("step", "message"),
    [
        (border(along="windows"), "There is no window on 'front'."),
        (border(margin=80), "A margin of 80 mm leaves nothing inside; 53.9"),
        ({"kind": "drawn-figure", "dx": 400, "outline": {"kind": "circle", "diameter": 5}},
         "There is no paper under the line."),
    ],
)  # fmt: skip
def test_a_line_that_cannot_be_says_why(step: dict[str, Any], message: str) -> None:
    problem = last(BLANK, step).problem
    assert problem is not None
    # half of the panel's 107.95, found to a hundredth
    assert problem.message.startswith(message)
