"""Slits: what they let drop, run across, or come too near to."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from stileblade.checks.check import Finding, Severity, run_checks
from stileblade.design.evaluation import Evaluation, PieceOutcome, evaluate
from stileblade.geometry.curves.segments import Segments, lines
from stileblade.piece.lines import DrawnLine, How
from tests.conftest import design_of


def with_slit(points: list[tuple[float, float]], *steps: dict[str, Any]) -> list[Finding]:
    """The findings about a slit in an A2 side fold, 215.9 x 139.7 with its fold at 107.95."""
    evaluation = evaluate(design_of({"kind": "blank"}, *steps))
    (piece,) = evaluation.pieces
    assert piece.work is not None
    way: Segments = lines(points[:-1], points[1:])
    cut = DrawnLine("cut", How.CUT, ((way, False),))
    work = replace(piece.work, lines=(*piece.work.lines, cut))
    last = replace(piece.outcomes[-1], work=work)
    made = PieceOutcome(piece.piece, piece.paper, piece.setting, (*piece.outcomes[:-1], last))
    found = run_checks(Evaluation(evaluation.design, (made,)))
    return [f for f in found if f.code.startswith("slit")]


def test_a_slit_well_inside_a_panel_is_fine() -> None:
    assert with_slit([(130, 30), (180, 30)]) == []
    assert with_slit([(130, 30), (180, 30), (180, 60)]) == []


def test_a_slit_across_the_fold_is_told_with_its_place() -> None:
    (finding,) = with_slit([(80, 50), (130, 50)])
    assert (finding.code, finding.severity) == ("slit.across", Severity.WARNING)
    assert finding.message == "A slit runs across fold: it opens when the card is folded."
    assert finding.step == "cut"
    ((start, end),) = finding.place.lines
    assert ((start[0] + end[0]) / 2, start[1]) == pytest.approx((107.95, 50))


def test_a_slit_that_ends_at_the_fold_does_not_cross_it() -> None:
    assert with_slit([(107.95, 50), (150, 50)]) == []


def test_where_the_fold_has_a_gap_nothing_is_crossed() -> None:
    """A box from 49.85 to 89.85 along the fold, which has no crease there."""
    box = {"kind": "forward-step", "width": 40, "less": 30, "more": 30}
    assert with_slit([(100, 70), (106, 70)], box) == []


@pytest.mark.parametrize(("gap", "told"), [(0.6, True), (1.2, False)])
def test_a_slit_beside_an_edge(gap: float, told: bool) -> None:
    found = with_slit([(130, gap), (180, gap)])
    assert [f.code for f in found] == (["slit.near"] if told else [])
    if told:
        assert found[0].message == "A slit runs 0.6 mm from a cut edge; 1 mm is safe."


def test_a_corner_cut_loose_is_an_error() -> None:
    """From the head to the right edge: what lies beyond hangs on nothing."""
    (finding,) = with_slit([(180, 0), (215.9, 40)])
    assert (finding.code, finding.severity) == ("slit.loose", Severity.ERROR)
    assert finding.message == "A part is cut loose: nothing holds it."


def test_two_parts_cut_loose() -> None:
    found = with_slit([(0, 100), (40, 139.7)], {
        "kind": "lettering", "text": "H", "dy": -30,
    })  # fmt: skip
    assert [f.code for f in found] == ["slit.loose"]
