"""Figures over several panels of the closed card's front, and slivers."""

from __future__ import annotations

import math
from typing import Any

import pytest

from stileblade.checks.check import Severity, run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding.closed import closed_card
from stileblade.geometry.measures.cells import area_of
from stileblade.steps.kinds.window import Window
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, problem_of, work_of

SQUARE = {"name": "150 mm square", "width": 150, "height": 150}
GATE = {"size": SQUARE, "way": "gatefold"}
PORTHOLE = {
    "id": "w",
    "kind": "window",
    "target": "closed front",
    "outline": {"kind": "circle", "diameter": 80},
}


@pytest.mark.parametrize("gap", [1.0, 4.0])
def test_a_porthole_lies_in_the_middle_of_both_doors(gap: float) -> None:
    """Each door has the part of the circle beyond half the gap; closed, together they are the circle."""
    card = {**GATE, "folding": {"gap": gap}}
    work = work_of(PORTHOLE, **card)
    r, h = 40.0, gap / 2
    half = r * r * math.acos(h / r) - h * math.sqrt(r * r - h * h)
    assert work_of(**card).paper.area - work.paper.area == pytest.approx(2 * half, abs=1e-3)
    assert [w.panel for w in work.windows] == ["right door", "left door"]
    boxes = {p.name: p.box for p in work.panels}
    left, right = boxes["left door"], boxes["right door"]
    for window in work.windows:
        box = window.outline.bounds
        assert box.height == pytest.approx(2 * math.sqrt(r * r - h * h), abs=1e-6)
        inner = box.left if window.panel == "left door" else box.right
        edge = left.left if window.panel == "left door" else right.right
        assert inner == pytest.approx(edge, abs=1e-6)
    # closed, front: the doors with the circle out, seen through the gap and the porthole
    closed = closed_card(work)
    doors = 2 * left.width * 150
    assert area_of(closed.front) == pytest.approx(doors - 2 * half, abs=1.0)
    evaluation = evaluate(design_of(BLANK, PORTHOLE, **card))
    bad = [f for f in run_checks(evaluation) if f.severity is not Severity.NOTE]
    assert bad == []


def test_strips_are_left_to_stand_at_the_meeting_edges() -> None:
    work = work_of(PORTHOLE | {"edge_strip": 3}, **GATE)
    boxes = {p.name: p.box for p in work.panels}
    for window in work.windows:
        box = window.outline.bounds
        if window.panel == "left door":
            assert box.left == pytest.approx(boxes["left door"].left + 3, abs=1e-6)
        else:
            assert box.right == pytest.approx(boxes["right door"].right - 3, abs=1e-6)
    assert len(work.paper.openings) == 2


@pytest.mark.parametrize("step", [
    {"kind": "drawn-figure", "outline": {"kind": "heart", "width": 60}},
    {"kind": "cut-away", "outline": {"kind": "circle", "diameter": 30}, "dy": 10},
])  # fmt: skip
def test_lines_and_figures_lie_over_both_doors(step: dict[str, Any]) -> None:
    work = work_of(step | {"target": "closed front"}, **GATE)
    assert len(work.lines_on_paper) == (1 if step["kind"] == "drawn-figure" else 0)
    left = next(p.box for p in work.panels if p.name == "left door")
    right = next(p.box for p in work.panels if p.name == "right door")
    assert right.right - left.left == pytest.approx(299, abs=1e-6)
    assert work.paper.area <= work_of(**GATE).paper.area + 1e-6


def test_it_is_offered_where_several_panels_are_in_front() -> None:
    assert "closed front" in Window().targets(work_of(**GATE))
    assert "closed front" not in Window().targets(work_of())
    assert "single panel" in problem_of(PORTHOLE).message


def test_slivers_of_a_weld_are_said_and_dropped() -> None:
    """Half discs of r 20 that stand out of the front's right edge by 0.69 and by 3 mm: the one is a
    sliver of 2 sqrt(20^2 - 19.31^2) = 10.4 along the edge, the other is not."""

    def disc(out: float) -> dict[str, Any]:
        return {"id": "d", "kind": "weld", "outline": {"kind": "circle", "diameter": 40}, "at": "right",
                "by": "right", "dx": out}  # fmt: skip

    fine = evaluate(design_of(BLANK, disc(3)))
    assert "sliver" not in {f.code for f in run_checks(fine)}
    (found,) = [f for f in run_checks(evaluate(design_of(BLANK, disc(0.69)))) if f.code == "sliver"]
    assert found.message == "One sliver is left at the outline: 0.69 x 10.4 mm."
    assert (found.severity, found.step) == (Severity.WARNING, "d")
    (mend,) = found.mends
    dropped = work_of(disc(0.69) | mend.values)
    assert dropped.paper.area == pytest.approx(work_of().paper.area, abs=1e-6)
    assert work_of(disc(0.69) | {"least": 0.5}).notes == ()


def test_slivers_of_a_part_are_said_and_dropped() -> None:
    """A bar of 60 x 1 across the head of the front takes a strip of half a mm off its edge."""
    cut = {"id": "s", "kind": "split", "by": "figure", "target": "front", "at": "head",
           "outline": {"kind": "rectangle", "width": 60, "height": 1}}  # fmt: skip
    (found,) = [f for f in run_checks(evaluate(design_of(BLANK, cut))) if f.code == "sliver"]
    assert found.message == "One sliver is left at the outline: 0.50 x 60.0 mm."
    (mend,) = found.mends
    whole = work_of().paper.area
    assert whole - work_of(cut).paper.area == pytest.approx(30, abs=1e-6)
    assert work_of(cut | mend.values).paper.area == pytest.approx(whole, abs=1e-6)
