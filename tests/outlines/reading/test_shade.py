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


FADE = (
    '<defs><linearGradient id="g"><stop offset="0" stop-color="#f00" stop-opacity="{0}"/>'
    '<stop offset="1" stop-color="#f00" stop-opacity="{1}"/></linearGradient></defs>'
    '<rect x="20" width="20" height="20" fill="url(#g)"/>'
)


@pytest.mark.parametrize(
    ("first", "last", "shade", "mean"),
    [
        (
            0.6,
            0.2,
            True,
            0.4,
        ),  # a gleam: translucent all over, by its mean and not by its densest stop
        (1.0, 0.4, False, 0.7),  # an object that fades
        (1.0, 0.0, False, 0.525),  # where it is to be seen, from 1 to 0.05
    ],
)
def test_a_translucent_gradient_has_the_mean_of_what_is_seen(
    first: float, last: float, shade: bool, mean: float
) -> None:
    layer = read(GREEN + FADE.format(first, last))["layers"][-1]
    seen = [int(layer["colour"][i : i + 2], 16) for i in (1, 3, 5)]
    assert seen == pytest.approx([255, 255 * (1 - mean), 255 * (1 - mean)], abs=2)
    assert layer["shade"] == shade


def test_a_gradient_s_colour_counts_stops_by_what_lies_between_them() -> None:
    """Three stops in the first tenth say little of the colour; a ring's outer part says more of a radial one."""
    stops = "".join(
        f'<stop offset="{t}" stop-color="{c}"/>'
        for t, c in ((0, "#000"), (0.05, "#000"), (0.1, "#000"), (0.1, "#fff"), (1, "#fff"))
    )
    for kind, white in (("linear", 0.9), ("radial", 0.99)):
        body = (
            f'<defs><{kind}Gradient id="g">{stops}</{kind}Gradient></defs>'
            '<rect width="20" height="20" fill="url(#g)"/><circle cx="38" cy="38" r="1"/>'
        )
        colour = read(body)["layers"][0]["colour"]
        assert int(colour[1:3], 16) == pytest.approx(255 * white, abs=2)
