"""Figures set many times: grids, rings, as many as fit, and mirrored to other sides."""

from __future__ import annotations

import math
from typing import Any

import pytest

from stileblade.design.evaluation import Outcome, evaluate
from stileblade.piece.work import Work
from tests.conftest import design_of

BLANK = {"kind": "blank"}
DISC = {"kind": "circle", "diameter": 10}
FRONT = (107.95, 0.0, 215.9, 139.7)


def last(**values: Any) -> Outcome:
    step = {"kind": "window", "outline": DISC, **values}
    return evaluate(design_of(BLANK, step)).pieces[0].outcomes[-1]


def made(**values: Any) -> Work:
    outcome = last(**values)
    assert outcome.problem is None, outcome.problem
    assert outcome.work is not None
    return outcome.work


def centres(work: Work) -> list[tuple[float, float]]:
    return sorted((c.bounds.centre for c in work.paper.openings), key=lambda p: (p[1], p[0]))


def test_columns_and_rows_are_placed_as_one() -> None:
    """3 x 2 discs of 10, 8 between: 46 x 28, centred on the panel."""
    found = centres(made(repeat="grid", columns=3, rows=2, gap=8))
    x, y = 107.95 * 1.5, 69.85
    assert found == [
        pytest.approx((x + 18 * i, y + 9 * j)) for j in (-1, 1) for i in (-1, 0, 1)
    ]  # fmt: skip


def test_a_ring_begins_at_the_head_and_turns_its_copies() -> None:
    """Eight round a radius of 30; a drop-shaped figure always points outwards."""
    found = centres(made(repeat="ring", count=8, radius=30))
    x, y = 107.95 * 1.5, 69.85
    assert len(found) == 8
    for cx, cy in found:
        assert math.hypot(cx - x, cy - y) == pytest.approx(30)
    assert min(found, key=lambda p: p[1]) == pytest.approx((x, y - 30))
    bars = made(repeat="ring", count=4, radius=30,
                outline={"kind": "rectangle", "width": 4, "height": 12})  # fmt: skip
    sizes = sorted(
        (round(c.bounds.width, 6), round(c.bounds.height, 6)) for c in bars.paper.openings
    )
    assert sizes == [(4, 12), (4, 12), (12, 4), (12, 4)]


def test_as_many_as_fit_are_spread_evenly() -> None:
    """On 107.95 x 139.7 with at least 8: floor(99.95 / 18) = 5 by floor(131.7 / 18) = 7, the gaps
    (107.95 - 50) / 6 = 9.658 and (139.7 - 70) / 8 = 8.7125 to the edges as well."""
    found = centres(made(repeat="fit", gap=8))
    assert len(found) == 35
    across, down = (107.95 - 50) / 6, (139.7 - 70) / 8
    assert found[0] == pytest.approx((107.95 + across + 5, down + 5))
    assert found[1][0] - found[0][0] == pytest.approx(10 + across)
    assert found[-1] == pytest.approx((215.9 - across - 5, 139.7 - down - 5))


@pytest.mark.parametrize(
    ("also", "places"),
    [
        ("sides", [(127.95, 30), (195.9, 30)]),
        ("ends", [(127.95, 30), (127.95, 109.7)]),
        ("corners", [(127.95, 30), (195.9, 30), (127.95, 109.7), (195.9, 109.7)]),
    ],
)
def test_mirror_images_at_the_other_sides(also: str, places: list[tuple[float, float]]) -> None:
    found = centres(made(at="head-left", by="centre", dx=20, dy=30, also=also))
    assert found == [pytest.approx(p) for p in places]


def test_notches_at_all_four_corners_in_one_step() -> None:
    """Quarter discs of r = 12 cut from the open card's corners: a whole disc is gone."""
    notch = {"kind": "cut-away", "target": "card", "at": "head-left", "by": "centre",
             "also": "corners", "outline": {"kind": "circle", "diameter": 24}}  # fmt: skip
    work = evaluate(design_of(BLANK, notch)).pieces[0].work
    assert work is not None
    assert 215.9 * 139.7 - work.paper.area == pytest.approx(144 * math.pi, abs=1e-6)
    assert work.paper.nodes == 8


def test_copies_that_overlap_become_one() -> None:
    work = made(repeat="grid", columns=4, rows=1, gap=-4)
    assert len(work.paper.openings) == 1
    assert work.paper.openings[0].bounds.width == pytest.approx(4 * 10 - 3 * 4)


@pytest.mark.parametrize(
    ("values", "message", "would_do"),
    [
        (
            {"repeat": "grid", "columns": 50, "rows": 20},
            "50 columns of 20 are more than 400 copies.",
            8,
        ),
        (
            {"repeat": "fit", "gap": 60},
            "Not even one fits: it is 10 mm in 107.95 mm, with 60 mm to either edge.",
            48.9,
        ),
    ],
)
def test_what_cannot_be_repeated_says_what_would_do(
    values: dict[str, Any], message: str, would_do: float
) -> None:
    problem = last(**values).problem
    assert problem is not None
    assert (problem.message, problem.would_do) == (message, pytest.approx(would_do))
