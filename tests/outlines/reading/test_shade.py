"""Translucent shapes: their colour is what is seen, and what is translucent all over is shade."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.outlines.reading.kinds import read_file

HEAD = 'xmlns="http://www.w3.org/2000/svg" width="40" height="40" viewBox="0 0 40 40"'


def read(body: str) -> dict[str, Any]:
    return read_file(f"<svg {HEAD}>{body}</svg>".encode(), "", "auto").as_data()


GREEN = '<rect width="20" height="20" fill="#00ff00"/>'
GLEAM = '<rect x="5" width="10" height="20" fill="#000" opacity=".5"/>'


def test_what_is_translucent_all_over_is_shade_and_said() -> None:
    found = read(GREEN + GLEAM)
    assert [(la["colour"], la["shade"]) for la in found["layers"]] == [
        ("#00ff00", False),
        ("#008000", True),
    ]
    assert found["remarks"][0].startswith(
        "Translucent all over, as shadows and gleams are: 1 shape"
    )


def test_a_drawing_that_is_all_translucent_keeps_all_of_it() -> None:
    found = read('<g opacity=".4"><rect width="20" height="20" fill="#00ff00"/></g>')
    assert [(la["colour"], la["shade"]) for la in found["layers"]] == [("#99ff99", False)]
    assert found["remarks"] == []
    page = '<rect width="40" height="40" fill="#fffdf0"/>'
    assert [la["shade"] for la in read(page + GLEAM)["layers"]] == [False, False]


@pytest.mark.parametrize(
    ("given", "colour"),
    [
        ('fill="#f00" fill-opacity=".5"', "#ff8080"),
        ('fill="rgba(0,0,255,.25)"', "#bfbfff"),
        ('fill="#000" opacity=".5" fill-opacity=".5"', "#bfbfbf"),
        ('fill="none" stroke="#00f" stroke-width="4" stroke-opacity=".5"', "#8080ff"),
    ],
)
def test_every_way_to_be_translucent(given: str, colour: str) -> None:
    found = read(
        f'<rect x="5" y="5" width="20" height="20" {given}/><circle cx="38" cy="38" r="1"/>'
    )
    assert found["layers"][0]["colour"] == colour


def test_a_shape_over_several_has_their_mean_by_area() -> None:
    """A red square of a quarter: one part in eight over the gleam, one over green, the rest on the page."""
    over = '<rect x="10" y="10" width="20" height="20" fill="#f00" opacity=".25"/>'
    below = (0 + 0 + 0.75 * 255, 0.125 * 127.5 + 0.125 * 255 + 0.75 * 255, 0.75 * 255)
    red = [0.75 * b + 0.25 * o for b, o in zip(below, (255, 0, 0), strict=True)]
    colour = read(GREEN + GLEAM + over)["layers"][-1]["colour"]
    assert [int(colour[i : i + 2], 16) for i in (1, 3, 5)] == pytest.approx(red, abs=1)
