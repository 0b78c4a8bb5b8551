"""Lines that two steps make in one place: told with their length, and not where they only meet."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import Finding, Severity, run_checks
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import evaluate
from stileblade.views.findings import changes_of
from tests.conftest import design_of

BLANK = {"kind": "blank"}
DRAWN = {"kind": "border-line", "along": "outline", "margin": 4, "how": "draw"}


def told(*steps: dict[str, Any], way: str = "side-fold") -> list[Finding]:
    found = run_checks(evaluate(design_of(BLANK, *steps, way=way)))
    return [f for f in found if f.code == "line.twice"]


def test_a_line_that_two_steps_make_is_told_and_switched_off() -> None:
    (finding,) = told(DRAWN, DRAWN)
    assert finding.severity is Severity.WARNING
    # the front, 107.95 x 139.7, less 4 mm on all sides
    assert finding.value == pytest.approx(2 * (107.95 + 139.7 - 16), abs=0.5)
    assert finding.message.startswith("Steps 2 and 3 make the same line: the machine goes over ")
    design = design_of(BLANK, DRAWN, DRAWN)
    (piece,) = design.pieces
    after = with_changes(design, changes_of(finding.mends[0], piece.id))
    assert not [f for f in run_checks(evaluate(after)) if f.code == "line.twice"]


def test_a_slit_that_is_cut_twice_is_told() -> None:
    (finding,) = told({"kind": "lock"}, {"kind": "lock"}, way="accordion")
    assert finding.value == pytest.approx(25.2, abs=0.1)


@pytest.mark.parametrize(
    "other",
    [
        {**DRAWN, "margin": 4.2},
        {**DRAWN, "how": "score"},
        {**DRAWN, "on": False},
        {"kind": "drawn-figure", "outline": {"kind": "circle", "diameter": 105}},
        {"kind": "drawn-figure", "outline": {"kind": "circle", "diameter": 99.95}},
    ],
    ids=["beside it", "another operation", "switched off", "across it", "touching it"],
)
def test_lines_that_do_not_run_along_each_other_are_fine(other: dict[str, Any]) -> None:
    assert told(DRAWN, other) == []
