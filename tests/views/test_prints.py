"""Colours on the card's own paper: patterns at true size, and what of an artwork is printed."""

from __future__ import annotations

import math
from typing import Any

import pytest

from stileblade.design.evaluation import Evaluation
from stileblade.geometry.measures.cells import area_of
from stileblade.views.folded import folded_picture, layers_on
from stileblade.views.prints import painted
from stileblade.views.space import space_of
from tests.whole import layer, whole

SQUARE = {"name": "Own", "width": 60, "height": 60}
PAPER = {"outside": "#ffffff", "pattern_colour": "#000000"}
LAYERS = [
    {"name": "Hull", "colour": "#112233", "path": "M0 0H60V60H0Z"},
    {"name": "Sail", "colour": "#aa0000", "path": "M10 10H50V50H10Z"},
    {"name": "Flag", "colour": "#00aa00", "path": "M40 40H70V70H40Z"},
]


def card(
    *steps: dict[str, Any], paper: dict[str, Any] | None = None, flag: bool = False
) -> Evaluation:
    """A side fold of 60 mm square: laid open, a blank is 120 x 60."""
    laid = [layer("flag", {"kind": "layers", "layers": [2]})] if flag else []
    papers = [{"thickness": 0.3, **PAPER, **(paper or {})}]
    boat = {"boat": {"name": "Boat", "layers": LAYERS}}
    return whole(steps, *laid, size=SQUARE, papers=papers, artworks=boat)


def areas(evaluation: Evaluation) -> dict[str, float]:
    return {c: round(area_of(cell), 3) for c, cell in painted(evaluation, evaluation.pieces[0])}


@pytest.mark.parametrize(
    ("pattern", "pitch", "share"),
    [
        ("stripes", 6, 0.5),
        ("checks", 6, 0.5),
        ("lines", 6, 0.12),
        ("dots", 6, math.pi * 0.22**2),
    ],
)
def test_a_pattern_covers_its_share_of_the_paper(pattern: str, pitch: float, share: float) -> None:
    made = card({"kind": "blank"}, paper={"pattern": pattern, "pitch": pitch})
    assert areas(made)["#000000"] == pytest.approx(
        7200 * share, rel=0.05 if pattern == "dots" else 1e-9
    )


def test_a_turned_pattern_covers_as_much() -> None:
    paper = {"pattern": "stripes", "pitch": 2, "pattern_turn": 30}
    assert areas(card({"kind": "blank"}, paper=paper))["#000000"] == pytest.approx(3600, rel=0.02)


def test_what_is_finer_than_can_be_drawn_is_the_colour_it_mixes_to() -> None:
    paper = {"pattern": "checks", "pitch": 0.5}
    assert areas(card({"kind": "blank"}, paper=paper)) == {"#808080": 7200}


def test_a_plain_paper_has_nothing_on_it() -> None:
    assert areas(card({"kind": "blank"})) == {}


BOAT = {"kind": "artwork", "ref": "boat", "layers": [0]}


def test_an_artworks_other_layers_are_printed_each_without_those_upon_it() -> None:
    made = card(BOAT)
    # of the flag what lies on the paper, of the sail what the flag leaves; two fifths of their colour on white
    assert areas(made) == {"#dd9999": 1500, "#99dd99": 400}
    assert areas(card({**BOAT, "printed": False})) == {}


def test_a_layer_that_is_a_piece_of_its_own_is_not_printed() -> None:
    assert areas(card(BOAT, flag=True)) == {"#dd9999": 1600}


def test_pictures_show_prints_and_drawn_lines_on_the_outside_alone() -> None:
    made = card(BOAT, {"kind": "border-line"})
    base = made.pieces[0]
    assert base.work is not None
    front = folded_picture(base.work, base.paper, layers_on(made, base))
    assert [s.what for s in front.shapes] == ["paper", "print", "print", "line"]
    face = space_of(made, base, base.work).faces[0]
    assert [p.colour for p in face.prints] == ["#dd9999", "#99dd99"]
