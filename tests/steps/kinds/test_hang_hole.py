"""A hole to hang the card up by."""

from __future__ import annotations

import math
from typing import Any

import pytest

from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, problem_of, work_of

HOLE = {"kind": "hang-hole"}


@pytest.mark.parametrize(
    ("values", "area", "box"),
    [
        ({}, 9 * math.pi, (158.925, 8, 164.925, 14)),
        ({"end": "foot", "edge": 10}, 9 * math.pi, (158.925, 123.7, 164.925, 129.7)),
        (
            {"shape": "slot", "width": 28},
            22 * 6 + 9 * math.pi,
            (147.925, 8, 175.925, 14),
        ),
        ({"target": "back", "size": 4}, 4 * math.pi, (51.975, 8, 55.975, 12)),
    ],
)
def test_it_is_in_the_middle_of_its_panel(
    values: dict[str, Any], area: float, box: tuple[float, ...]
) -> None:
    """On an A2 side fold the front's middle is at 161.925, the back's at 53.975."""
    work = work_of({**HOLE, **values})
    assert 215.9 * 139.7 - work.paper.area == pytest.approx(area, abs=1e-6)
    assert work.windows[0].outline.bounds.as_tuple() == pytest.approx(box, abs=1e-9)


@pytest.mark.parametrize(
    ("values", "field"),
    [
        ({"shape": "slot", "width": 5}, "width"),
        ({"edge": 200}, "edge"),
        ({"shape": "slot", "width": 300}, "size"),
    ],
)
def test_it_says_why_not(values: dict[str, Any], field: str) -> None:
    assert problem_of({**HOLE, **values}).field == field


def test_it_is_not_cut_where_there_is_no_paper() -> None:
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 40}, "at": "head", "by": "head",
              "dy": 2}  # fmt: skip
    assert "not wholly on the paper" in problem_of(window, HOLE).message


def test_near_the_edge_it_is_told_of_as_windows_are() -> None:
    found = {f.code for f in run_checks(evaluate(design_of(BLANK, {**HOLE, "edge": 2})))}
    assert "window.near" in found
