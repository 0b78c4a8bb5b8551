"""A spine: the card is wider by it, what is on either side keeps its place on its panel, margins stay."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import run_checks
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.folding.flat import fold_flat
from stileblade.views.findings import changes_of
from stileblade.views.folds import folds_of
from tests.steps.kinds.test_around_the_card import heart, inside_of, size_of
from tests.steps.kinds.test_layers import on_base
from tests.whole import BLANK, CIRCLES, ISO_A6, WINDOW, layer, whole, work_of


def thick(card: Evaluation) -> list[Any]:
    return [f for f in run_checks(card) if f.code == "stack.thick"]


def test_what_is_glued_outside_does_not_hinder_the_fold() -> None:
    """Three hearts on pads outside make 4.5 in all; an insert of 0.3, folded, is 0.6 between the covers."""
    card = whole([BLANK], heart("a", 0), heart("b", 1), heart("c", 2),
                 layer("i", {"kind": "insert"}, side="inside"))  # fmt: skip
    assert card.stack is not None
    assert card.stack.bulk == pytest.approx(5.1)
    assert card.stack.between == pytest.approx(0.6)
    assert thick(card) == []


def inner(key: str, number: int) -> dict[str, Any]:
    return layer(key, {"kind": "overlay"}, fixing="pads", pad=1.0, order=number, side="inside")


@pytest.mark.parametrize("way", [{}, {"swapped": True}, {"kind": "top-fold"}, {"kind": "gatefold"}])
def test_a_spine_widens_the_card_and_keeps_margins(way: dict[str, Any]) -> None:
    """Two hearts inside, 0.3 each on pads of 1: 2.6 between. With a spine of 2.6 the panels stay 105 wide, the card
    is 2.6 wider at each fold, and a mat keeps its 4 mm from the score and its measures; the window its place on the
    panel; the closed card is half the spine wider at each fold, and its envelope follows."""
    pieces = [layer("m", {"kind": "mat", "margin": 4}), inner("a", 0), inner("b", 1),
              layer("e", {"kind": "envelope"}, side="around")]  # fmt: skip
    window = {**WINDOW, "outline": {"kind": "rectangle", "width": 30, "height": 40}}
    card = whole([BLANK, window], *pieces, way={"kind": "side-fold", **way})
    (finding,) = thick(card)
    assert finding.message == (
        "2.6 mm thick between the panels when closed: a single score line will not close on that."
    )
    (mend,) = finding.mends
    wide = evaluate(with_changes(card.design, changes_of(mend, "base")))
    assert thick(wide) == []
    before, after = work_of(card, "base"), work_of(wide, "base")
    folds, upright = len(after.folds), way.get("kind") != "top-fold"
    more = 2.6 * folds
    assert size_of(after.paper) == pytest.approx(
        (size_of(before.paper)[0] + more * upright, size_of(before.paper)[1] + more * (not upright))
    )
    for panel, as_before in zip(after.panels, before.panels, strict=True):
        assert size_of_box(panel.box) == pytest.approx(size_of_box(as_before.box))
    assert [f.apart for f in folds_of(after)] == pytest.approx([2.6] * folds)
    assert [f.apart for f in folds_of(before)] == [0] * folds
    assert size_of(work_of(wide, "m").paper) == pytest.approx(size_of(work_of(card, "m").paper))
    for state, work in ((card, before), (wide, after)):
        box = work.box_of("front")
        mat = on_base(state, "m").bounds
        assert (mat.left - box.left, box.right - mat.right) == pytest.approx((4, 4))
        assert (mat.head - box.head, box.foot - mat.foot) == pytest.approx((4, 4))
        opening = work.windows[0].outline.bounds
        assert opening.centre == pytest.approx(box.centre)
    closed = fold_flat(before).closed, fold_flat(after).closed
    half = more / 2
    assert closed[1] == pytest.approx(
        (closed[0][0] + half * upright, closed[0][1] + half * (not upright)), abs=0.001
    )
    assert wide.stack is not None
    assert card.stack is not None
    assert inside_of(wide)[0] - inside_of(card)[0] == pytest.approx(half * upright, abs=0.001)


def size_of_box(box: Any) -> tuple[float, float]:
    return box.width, box.height


def test_a_mirrored_figure_has_a_spine_as_long_as_its_hinge() -> None:
    """Circles of 110 with a lap of 8: 208 wide when the card is open (their halves' 102 and 102 and the lap's), and 3 more
    with a spine of 3, whose strip is the hinge of 41.183 by 3. A mat keeps its 5 mm from the score."""
    flat = whole(CIRCLES, layer("m", {"kind": "mat", "margin": 5}))
    wide = whole(
        CIRCLES, layer("m", {"kind": "mat", "margin": 5}), way={"kind": "side-fold", "spine": 3}
    )
    before, after = work_of(flat, "base"), work_of(wide, "base")
    assert after.paper.bounds.width == pytest.approx(before.paper.bounds.width + 3)
    assert after.paper.area == pytest.approx(before.paper.area + 3 * 41.183, abs=0.01)
    assert len(after.paper.parts()) == 1
    (span,) = after.spans["fold"]
    assert span.length == pytest.approx(41.183, abs=0.001)
    assert work_of(wide, "m").paper.area == pytest.approx(7748.604, abs=0.001)
    mat = on_base(wide, "m").bounds
    assert mat.left - after.box_of("front").left == pytest.approx(5)
    assert fold_flat(after).closed[0] == pytest.approx(fold_flat(before).closed[0] + 1.5)


def test_an_insert_runs_over_the_spine() -> None:
    wide = whole([BLANK], layer("i", {"kind": "insert", "margin": 2}, side="inside"),
                 way={"kind": "side-fold", "spine": 3}, size=ISO_A6)  # fmt: skip
    insert = work_of(wide, "i")
    assert size_of(insert.paper) == pytest.approx((213 - 4, 144))
    assert insert.paper.area == pytest.approx(209 * 144)
    assert [f.at for f in insert.folds] == pytest.approx([106.5])
