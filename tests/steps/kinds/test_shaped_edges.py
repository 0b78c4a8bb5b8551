"""Shaped edges over several panels, on edges that were cut back, and fronts that are shorter."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.card.folding import Folding
from stileblade.card.ways import WAYS
from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding.closed import closed_card
from stileblade.folding.flat import fold_flat
from stileblade.steps.kinds.shaped_edge import ShapedEdge
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, work_of

A6 = {"name": "ISO A6", "width": 105, "height": 148}
A7 = {"name": "ISO A7", "width": 74, "height": 105}
EDGE = {"id": "e", "kind": "shaped-edge", "target": "card", "side": "head", "pitch": 35, "depth": 8}


@pytest.mark.parametrize("motif", ["wave", "scallop", "zigzag", "battlement", "deckle", "figure"])
@pytest.mark.parametrize(("size", "each"), [(A6, 3), (A7, 2)])
def test_an_accordion_has_whole_repeats_on_each_panel(
    motif: str, size: dict[str, Any], each: int
) -> None:
    """Pitch 35 along 105: three on each of four panels; on A7, 74 wide, two. Closed, the panels lie on
    each other and nothing of the back is seen."""
    work = work_of(EDGE | {"motif": motif}, way="accordion", size=size)
    step = ShapedEdge(side="head", target="card", pitch=35, depth=8)
    assert step.repeats(size["width"]) == each
    closed = closed_card(work)
    assert closed.reveal_area == pytest.approx(0, abs=0.5)
    assert closed.out_area == pytest.approx(0, abs=0.5)
    assert work.paper.pieces == 1


def test_along_the_whole_edge_it_does_not_care_for_panels() -> None:
    work = work_of(EDGE | {"spread": "whole", "pitch": 28}, way="accordion", size=A7)
    assert closed_card(work).reveal_by > 5


def test_an_edge_that_was_cut_back_is_shaped_where_the_paper_is() -> None:
    """Ten are cut off the front's right, and then a wave of 4 deep: 205.9 wide, with four in it."""
    cut = {"kind": "slice", "keep": "left", "edge": "far", "distance": 10}
    edge = {"kind": "shaped-edge", "depth": 4, "pitch": 20}
    work = work_of(cut, edge)
    assert work.paper.bounds.right == pytest.approx(205.9, abs=1e-3)
    plain = work_of(cut)
    # half of the strip of the depth goes, as the wave is as long above as below its middle
    assert plain.paper.area - work.paper.area == pytest.approx(4 * 139.7 / 2, rel=0.01)
    added = work_of(cut, edge | {"keep": "added"})
    assert added.paper.bounds.right == pytest.approx(209.9, abs=1e-3)


def test_a_folded_edge_is_not_offered() -> None:
    front = ShapedEdge(target="front").offers(work_of())
    assert front["side"] == ["right", "head", "foot"]
    assert ShapedEdge(target="back").offers(work_of())["side"] == ["left", "head", "foot"]
    assert ShapedEdge(target="card").offers(work_of())["side"] == ["left", "right", "head", "foot"]


@pytest.mark.parametrize("way", WAYS.names())
def test_the_front_is_shorter_by_a_value_for_every_way(way: str) -> None:
    """Nothing else changes: the closed card is as large, nothing passes through, and what is seen of
    the rest round the front is as wide as it is shorter."""
    before = fold_flat(work_of(way=way)).closed
    design = design_of(BLANK, way=way, folding={"front_shorter": 12})
    evaluation = evaluate(design)
    work = evaluation.pieces[0].work
    assert work is not None
    assert fold_flat(work).closed == pytest.approx(before, abs=1e-6)
    closed = closed_card(work)
    seen = 25 if way == "gatefold" else 12
    assert closed.reveal_by == pytest.approx(seen, abs=0.01)
    bad = {f.code for f in run_checks(evaluation) if f.code.startswith(("fold.", "hinge."))}
    assert not bad
    assert Folding(kind=way, front_shorter=300).layout(100, 150, 0.3).panels
