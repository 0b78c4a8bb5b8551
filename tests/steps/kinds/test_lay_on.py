"""Pieces of any kind laid on the card, and figures across the doors of a gatefold."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import run_checks
from stileblade.design.adding import on_card, proposals, with_added
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.geometry.regions.region import Region
from stileblade.views.assembled import assembled_of
from stileblade.views.findings import changes_of
from stileblade.views.pieces import figures_of
from tests.whole import BLANK, ISO_A6, layer, problem_of, whole, work_of

SPLIT = {
    "kind": "split",
    "id": "c",
    "runs": "level",
    "target": "card",
    "edge": "far",
    "distance": 40,
    "strip": 3,
}
"""40 mm off the foot of a card of 210 x 148."""
PART = {"kind": "part", "piece": "base", "step": "c", "number": 2}
DOORS = {"kind": "gatefold", "gap": 1}
DISC = {"kind": "overlay", "outline": {"kind": "circle", "diameter": 40}, "target": "closed front"}


def on_base(card: Evaluation, key: str) -> Region:
    work = work_of(card, key)
    assert work.lying is not None
    return work.paper.transformed(work.lying.matrix)


def test_a_part_that_was_split_off_is_laid_on_the_card() -> None:
    """The strip is 40 - 3 / 2 = 38.5 deep. Its first 100 mm, turned upright, its head 5 below the panel's: from 5 to 105,
    about the front's middle at 157.5."""
    half = {"kind": "slice", "keep": "left", "target": "card", "edge": "near", "distance": 100}
    lay = {"kind": "lay-on", "turn": 90, "at": "head", "by": "head", "dy": 5}
    card = whole([BLANK, SPLIT], layer("strip", PART, half, lay))
    box = on_base(card, "strip").bounds
    assert box.as_list() == pytest.approx([157.5 - 19.25, 5, 157.5 + 19.25, 105])
    assert not [
        f for f in run_checks(card) if f.code in ("layers.start", "layers.out", "layers.fold")
    ]
    view = assembled_of(card)
    assert view is not None
    moves = view.outside.sheets[-1].moves
    assert moves is not None
    assert (moves.step, moves.dx, moves.dy) == ("s3", 0, 5)


def test_on_the_inside_it_is_moved_as_it_is_seen_there() -> None:
    lay = {"kind": "lay-on", "dx": 10}
    figure = {"kind": "figure", "outline": {"kind": "rectangle", "width": 30, "height": 20}}
    card = whole([BLANK], layer("f", figure, lay, side="inside"))
    assert on_base(card, "f").bounds.centre == pytest.approx((157.5 - 10, 74))


def test_a_piece_of_which_nothing_says_where_it_lies_is_laid_by_its_mend() -> None:
    figure = {"kind": "figure", "outline": {"kind": "circle", "diameter": 30}}
    card = whole([BLANK], layer("f", figure))
    (finding,) = (f for f in run_checks(card) if f.code == "layers.start")
    mended = evaluate(with_changes(card.design, changes_of(finding.mends[0], "f")))
    assert run_checks(mended) == []
    assert on_base(mended, "f").bounds.centre == pytest.approx((157.5, 74))


def test_a_layer_is_not_laid_twice() -> None:
    card = whole([BLANK], layer("m", {"kind": "mat"}, {"kind": "lay-on"}))
    assert "lies on the card already" in problem_of(card, "m")


@pytest.mark.parametrize(("panel", "centre"), [("left door", -0.5), ("right door", 209.5)])
def test_a_figure_across_both_doors_is_fixed_on_one(panel: str, centre: float) -> None:
    """The doors of 52 meet with a gap of 1 in the middle of 105, at 52.5. On the left door that is 52.5 from its fold
    at 52, so at -0.5 in the flat view; on the right one, whose fold is at 157, at 209.5. The disc goes with its door,
    and closed it stands out of nothing."""
    card = whole([BLANK], layer("d", DISC, panel=panel), way=DOORS)
    assert on_base(card, "d").bounds.centre == pytest.approx((centre, 74))
    assert not [f for f in run_checks(card) if f.code.startswith("layers.")]
    stack = card.stack
    assert stack is not None
    assert stack.closed == pytest.approx((105, 148), abs=0.01)
    assert stack.bulk == pytest.approx(3 * 0.3, abs=1e-6)


def test_across_the_doors_it_must_lie_on_one_of_them_and_outside() -> None:
    back = whole([BLANK], layer("d", DISC, panel="back"), way=DOORS)
    assert "is not in front when the card is closed" in problem_of(back, "d")
    inside = whole([BLANK], layer("d", DISC, panel="left door", side="inside"), way=DOORS)
    assert "there is no closed front" in problem_of(inside, "d")
    single = whole([BLANK], layer("d", DISC))
    assert "front is a single panel" in problem_of(single, "d")


def test_a_figure_across_both_doors_is_proposed_for_cards_with_doors() -> None:
    def titles(way: dict[str, Any]) -> dict[str, Any]:
        card = on_card(whole([BLANK], size=ISO_A6, way=way))
        assert card is not None
        return {p.title: p for p in proposals(card)}

    title = "A figure across both doors"
    assert title not in titles({"kind": "side-fold"})
    base = whole([BLANK], way=DOORS)
    design, (key,) = with_added(base.design, titles(DOORS)[title])
    card = evaluate(design)
    assert work_of(card, key).paper
    assert not [f for f in run_checks(card) if f.code.startswith("layers.")]


def test_a_layer_taken_alone_lies_where_it_lies_among_all() -> None:
    """Squares of 60 and 20: the small one, proposed alone, lies 20 from the head left of the large one."""
    base = whole(
        [{"kind": "artwork", "ref": "a", "layers": [0], "to": "width", "width": 90}, {"kind": "mirror"}],
        artworks={"a": {"layers": [{"name": "Large", "colour": "#112233", "path": "M0 0H60V60H0Z"},
                                   {"name": "Small", "colour": "#445566", "path": "M20 20H40V40H20Z"}]}},
    )  # fmt: skip
    card = on_card(base)
    assert card is not None
    made = {p.title: p for p in proposals(card)}
    boxes = []
    for title in ("All layers of the artwork", "Small alone"):
        design, keys = with_added(base.design, made[title])
        added = evaluate(design)
        boxes.append(on_base(added, keys[-1]).bounds.as_list())
    assert boxes[0] == pytest.approx(boxes[1], abs=1e-9)
    work = base.pieces[0].work
    assert work is not None
    large = work.box_of("front")
    assert boxes[1][0] == pytest.approx(large.right - 90 + 30, abs=1e-6)


@pytest.mark.parametrize(
    ("start", "windows", "others"),
    [
        ({"kind": "backing", "window": "w"}, ["front"], {}),
        ({"kind": "backing", "window": "w"}, ["front", "back"], {"back": {"window": ""}}),
        ({"kind": "mat"}, [], {"back": {}}),
        ({"kind": "overlay", "target": "step:w"}, ["front"], {"back": {"target": "figure"}}),
    ],
)
def test_the_same_on_another_panel_is_offered_where_there_is_something_for_it(
    start: dict[str, Any], windows: list[str], others: dict[str, dict[str, Any]]
) -> None:
    """A backing on a panel without a window would have no paper."""
    cut = [
        {"kind": "window", "id": "w" if panel == "front" else "v", "target": panel,
         "outline": {"kind": "circle", "diameter": 40}}
        for panel in windows
    ]  # fmt: skip
    side = "inside" if start["kind"] == "backing" else "outside"
    card = whole([BLANK, *cut], layer("l", start, side=side))
    (figures,) = (f for f in figures_of(card) if f.id == "l")
    assert {o.panel: o.values for o in figures.others} == others
    for other in figures.others:
        there = layer("l", {**start, **other.values}, side=side, panel=other.panel)
        assert work_of(whole([BLANK, *cut], there), "l").paper
