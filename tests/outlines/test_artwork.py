"""Artworks: layers in their own units, one scale, a key of what they are."""

from __future__ import annotations

import math

import pytest
from pydantic import ValidationError

from stileblade.errors import StepError
from stileblade.outlines.artwork import MOST_LAYERS, Artwork, Layer, outlines_of
from stileblade.outlines.figures.drawn import Drawn

RING = "M0 0H20V20H0ZM5 5H15V15H5Z"


def artwork(*paths: str, scale: float = 1.0, **more: object) -> Artwork:
    layers = [{"path": p, **more} for p in paths]
    return Artwork.model_validate({"name": "A", "scale": scale, "layers": layers})


def test_the_scale_is_mm_per_unit_for_all_layers() -> None:
    drawn = outlines_of(artwork("M0 0H10V10H0Z", "M20 0H30V10H20Z", scale=2.5))
    assert [r.area for r in drawn.layers] == pytest.approx([625, 625])
    assert drawn.union().bounds.as_list() == pytest.approx([0, 0, 75, 25])


def test_layers_by_their_own_fill_rule() -> None:
    for rule, area in (("nonzero", 400), ("evenodd", 300)):
        assert outlines_of(artwork(RING, rule=rule)).union().area == pytest.approx(area)


def test_unions_of_chosen_layers_are_what_they_cover_together() -> None:
    """Squares of 10, overlapping by half; a circle with arcs far off keeps them."""
    drawn = outlines_of(
        artwork("M0 0H10V10H0Z", "M5 0H15V10H5Z", "M60 0A10 10 0 1 1 40 0A10 10 0 1 1 60 0Z")
    )
    assert drawn.union([0, 1]).area == pytest.approx(150)
    assert drawn.union([1]).area == pytest.approx(100)
    assert drawn.union([2, 2]).area == pytest.approx(100 * math.pi)
    assert drawn.union().pieces == 2
    with pytest.raises(StepError, match="has 3 layers, no layer 4"):
        drawn.union([3])
    with pytest.raises(StepError, match="no layer 0"):
        drawn.union([-1])


def test_a_key_is_of_outlines_and_colours_not_of_names() -> None:
    base = artwork(RING)
    same = base.model_copy(update={"name": "B"})
    assert base.key == same.key
    others = {
        artwork(RING, scale=2).key,
        artwork(RING, RING).key,
        artwork(RING, rule="evenodd").key,
        artwork(RING, colour="#123456").key,
    }
    assert len(others | {base.key}) == 5


@pytest.mark.parametrize(
    ("path", "message"),
    [
        ("M0 0L", "The outline 'A' cannot be read."),
        ("M0 0L9 9Z", "The outline 'A' encloses nothing."),
    ],
)
def test_what_is_no_outline_is_said(path: str, message: str) -> None:
    with pytest.raises(StepError) as caught:
        outlines_of(artwork(path))
    assert caught.value.message.startswith(message)


@pytest.mark.parametrize(
    "values",
    [
        {"layers": []},
        {"layers": [{"path": RING}] * (MOST_LAYERS + 1)},
        {"layers": [{"path": RING, "colour": "blue"}]},
        {"layers": [{"path": RING, "extra": 1}]},
        {"layers": [{"path": RING}], "scale": -1},
        {"layers": [{"path": RING}], "scale": float("nan")},
    ],
)
def test_artworks_are_held_to_their_form(values: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        Artwork.model_validate(values)


def test_a_figure_of_some_layers_is_scaled_to_a_width_or_height() -> None:
    shelf = {"a": outlines_of(artwork("M0 0H10V10H0Z", "M0 0H40V10H0Z"))}
    both = Drawn(ref="a", height=30).outline(shelf)
    one = Drawn(ref="a", layers=(0,), width=30).outline(shelf)
    assert (both.bounds.width, one.bounds.height) == pytest.approx((120, 30))
    stretched = Drawn(ref="a", layers=(0,), width=30, height=5).outline(shelf).bounds
    assert (stretched.width, stretched.height) == pytest.approx((30, 5))
    assert Drawn(ref="a").reads() == ("a",)
    assert Layer(path=RING).colour == "#8c8c8c"
