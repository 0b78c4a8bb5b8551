"""Drawings becoming artworks: layers joined, openings where edges nest, names tidied."""

from __future__ import annotations

import pytest

from stileblade.outlines.artwork import outlines_of
from stileblade.outlines.drawing import Drawing, DrawnLayer, told_name

RIM, EYE = "M0 0H10V10H0Z", "M2 2H6V6H2Z"


@pytest.mark.parametrize(
    ("nests", "by_hand", "area"),
    [(True, True, 84.0), (True, False, 100.0), (False, True, 100.0), (False, False, 100.0)],
)
def test_edges_put_together_by_hand_are_openings_where_they_nest(
    nests: bool, by_hand: bool, area: float
) -> None:
    drawing = Drawing(nests=nests, layers=[DrawnLayer(paths=[RIM, EYE], by_hand=by_hand)])
    assert outlines_of(drawing.artwork()).union().area == pytest.approx(area)


def test_a_drawing_without_names_gets_plain_ones() -> None:
    artwork = Drawing(name="  ", scale=2, layers=[DrawnLayer(name=" ", paths=[RIM])]).artwork()
    assert (artwork.name, artwork.layers[0].name, artwork.scale) == ("Artwork", "Layer", 2)


@pytest.mark.parametrize(
    ("written", "told"),
    [
        ("path12-3", ""),
        ("Layer_1", ""),
        ("g", ""),
        ("light-house_door", "Light house door"),
        ("  ", ""),
        ("grid", "Grid"),
    ],
)
def test_names_that_say_only_what_sort_an_element_is_are_none(written: str, told: str) -> None:
    assert told_name(written) == told
