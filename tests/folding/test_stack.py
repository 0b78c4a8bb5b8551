"""Layers at their heights, on their faces, and what of them counts in the closed card."""

from __future__ import annotations

import pytest

from stileblade.folding.flat import fold_flat
from stileblade.geometry.measures import cells as kernel
from tests.whole import BLANK, CIRCLES, WINDOW, layer, whole

DISC = {"kind": "overlay", "outline": {"kind": "circle", "diameter": 30}}


def heights(*layers: dict[str, object], base: object = None) -> dict[str, tuple[float, float]]:
    stack = whole(base or [BLANK], *layers).stack  # type: ignore[arg-type]
    assert stack is not None
    return {la.key: (round(la.low, 6), round(la.high, 6)) for la in stack.layers}


def test_layers_side_by_side_lie_at_one_height() -> None:
    found = heights(layer("a", {**DISC, "dy": -40}), layer("b", {**DISC, "dy": 40}, order=1),
                    layer("c", {**DISC, "dy": 20}, order=2))  # fmt: skip
    assert found == {"a": (0, 0.3), "b": (0, 0.3), "c": (0.3, 0.6)}


def test_pads_lift_what_they_carry_and_what_lies_on_it() -> None:
    found = heights(layer("a", DISC, fixing="pads", pad=2), layer("b", DISC, order=1))
    assert found == {"a": (0, 2.3), "b": (2.3, 2.6)}


def test_a_layer_on_a_layer_lies_above_it_and_one_beneath_it_below() -> None:
    found = heights(layer("a", DISC), layer("on", DISC, host="a"),
                    layer("under", DISC, host="a", side="inside"))  # fmt: skip
    assert list(found) == ["under", "a", "on"]
    assert [low for low, _ in found.values()] == [0, 0.3, 0.6]


def test_inside_too_what_lies_on_a_layers_outside_is_nearer_to_the_viewer() -> None:
    """A mat inside shows its outside, an insert its inside."""
    mat = layer("m", {"kind": "mat"}, side="inside")
    found = heights(mat, layer("on", DISC, host="m"))
    assert found == {"m": (0, 0.3), "on": (0.3, 0.6)}
    insert = layer("i", {"kind": "insert"}, side="inside")
    found = heights(insert, layer("on", {"kind": "mat", "margin": 30}, host="i", side="inside"))
    assert found == {"i": (0, 0.3), "on": (0.3, 0.6)}


def test_both_sides_are_stacked_by_themselves() -> None:
    found = heights(layer("out", {"kind": "mat"}), layer("in", {"kind": "insert"}, side="inside"))
    assert set(found.values()) == {(0, 0.3)}


def test_an_insert_moves_with_each_face_and_counts_twice() -> None:
    card = whole(CIRCLES, layer("i", {"kind": "insert"}, side="inside"))
    stack = card.stack
    assert stack is not None
    (insert,) = stack.layers
    assert len({face for face, _ in insert.cells}) == 2
    assert sum(kernel.area_of(c) for _, c in insert.cells) == pytest.approx(17572.25, abs=5)
    assert stack.bulk == pytest.approx(4 * 0.3)


def test_a_backing_shown_in_a_window_is_no_thicker_than_itself() -> None:
    stack = whole([BLANK, WINDOW], layer("b", {"kind": "backing"}, side="inside")).stack
    assert stack is not None
    assert stack.bulk == pytest.approx(3 * 0.3)


def test_what_stands_out_makes_the_closed_card_larger() -> None:
    strip = {"kind": "strip", "edge": "right", "reveal": 4}
    card = whole([BLANK], layer("s", strip, side="inside", panel="front"))
    assert card.stack is not None
    assert card.stack.closed == pytest.approx((109, 148))
    alone = whole([BLANK])
    assert alone.stack is not None
    assert alone.stack.closed == fold_flat(alone.stack.base.work).closed


def test_the_same_card_has_one_stack() -> None:
    first, second = (whole([BLANK], layer("m", {"kind": "mat"})) for _ in range(2))
    assert first.stack is not None
    assert second.stack is not None
    assert first.stack is first.stack
    assert first.stack.bulk == second.stack.bulk
