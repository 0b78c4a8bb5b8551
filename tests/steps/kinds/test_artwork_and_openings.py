"""Artwork as the start of a piece, openings picked, slices by their flat run."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from stileblade.design.document import load_design
from stileblade.design.evaluation import Outcome, evaluate
from stileblade.geometry.curves.transforms import after
from stileblade.outlines.artwork import Artwork, Layer, outlines_of

# a plate of 60 x 40 with openings of 4 and 100, a sail beside it that stands 10 out, a loose flag
PLATE = "M0 10H60V50H0ZM4 14V16H6V14ZM20 20V30H30V20Z"
LAYERS = [
    {"name": "Plate", "colour": "#2f5d7b", "path": PLATE, "rule": "nonzero"},
    {"name": "Sail", "colour": "#e6d5b0", "path": "M40 0H50V20H40Z"},
    {"name": "Flag", "colour": "#c46f4e", "path": "M70 10H80V20H70Z"},
]


def run(*steps: dict[str, Any], scale: float = 1.0, **card: Any) -> tuple[Outcome, ...]:
    artworks = {"a": {"name": "Regatta", "scale": scale, "layers": LAYERS}}
    data = {"card": card, "artworks": artworks, "pieces": [{"steps": [dict(s) for s in steps]}]}
    return evaluate(load_design(data)).pieces[0].outcomes


def start(**values: Any) -> dict[str, Any]:
    return {"kind": "artwork", "ref": "a", **values}


def told(outcome: Outcome) -> dict[str, float]:
    assert outcome.work is not None
    found = outcome.step.tells(outcome.before, outcome.work, None)  # type: ignore[arg-type]
    return {t.name: t.value for t in found}


def test_the_profile_is_the_outer_outline_of_chosen_layers() -> None:
    """2400 of plate, and 10 x 10 of the sail beyond it; with the flag, two parts."""
    both = run(start(layers=[0, 1]))[0].work
    assert both is not None
    assert both.paper.area == pytest.approx(2400 + 100)
    assert both.paper.bounds.as_list() == pytest.approx([0, 0, 60, 50])
    assert both.paper.openings == []
    assert run(start(layers=[0], filled=False))[0].work.paper.area == pytest.approx(2400 - 104)  # type: ignore[union-attr]
    (all_,) = run(start())
    assert all_.work is not None
    assert all_.work.paper.pieces == 2
    # grown by 6 all round, plate and flag 10 apart meet
    assert run(start(surround=6))[0].work.paper.pieces == 1  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("values", "size"),
    [
        ({}, (60, 50)),
        ({"to": "width", "width": 90}, (90, 75)),
        ({"to": "height", "height": 25}, (30, 25)),
        ({"to": "both", "width": 30, "height": 30}, (30, 25)),
        # ISO A6 is 105 wide: less 6 on both sides
        ({"to": "panel", "margin": 6}, (93, 93 * 5 / 6)),
        ({"to": "panel", "margin": 6, "surround": 2}, (93, (93 - 4) * 5 / 6 + 4)),
        ({"turn": 90}, (50, 60)),
        ({"turn": 90, "to": "width", "width": 100}, (100, 120)),
    ],
)
def test_one_placement_by_a_fit_and_a_turn(values: dict[str, Any], size: Any) -> None:
    work = run(start(layers=[0, 1], **values))[0].work
    assert work is not None
    box = work.paper.bounds
    assert (box.width, box.height) == pytest.approx(size)


def test_all_layers_stay_in_register_through_fits_turns_flips_and_the_mirror() -> None:
    """Each layer, mapped by the piece's one matrix, lies where the profile has it."""
    steps = [
        start(layers=[0, 1], filled=False, turn=20, flip=True, to="width", width=80),
        {"kind": "flip", "swap": "head-foot"},
        {"kind": "turn", "angle": -35},
        {"kind": "fit", "to": "height", "height": 130},
    ]
    drawn = outlines_of(Artwork(scale=2.5, layers=[Layer(**la) for la in LAYERS]))
    for number in range(1, len(steps) + 1):
        work = run(*steps[:number], scale=2.5)[-1].work
        assert work is not None
        assert work.artwork is not None
        mapped = drawn.union([0, 1]).transformed(work.artwork.matrix)
        assert mapped.bounds.as_list() == pytest.approx(work.paper.bounds.as_list(), abs=1e-9)
        assert mapped.centroid == pytest.approx(work.paper.centroid, abs=1e-9)
    for towards, reversed_ in (("left", False), ("right", True)):
        before, done = run(*steps, {"kind": "mirror", "towards": towards, "lap": 6}, scale=2.5)[-2:]
        assert before.work is not None
        assert done.work is not None
        assert before.work.artwork is not None
        assert done.work.artwork is not None
        matrix = before.work.artwork.matrix
        if reversed_:  # the front is the mirrored half: layers are reversed with it
            axis = done.work.folds[0].at
            matrix = after(np.array([[-1, 0, 2 * axis], [0, 1, 0]], float), matrix)
        assert done.work.artwork.matrix == pytest.approx(matrix)
        front = next(p.box for p in done.work.panels if p.name == "front")
        part = drawn.union([0, 1]).transformed(done.work.artwork.matrix).bounds
        assert abs(part.centre[0] - front.centre[0]) < 6


@pytest.mark.parametrize(
    ("step", "message"),
    [
        ({"kind": "artwork"}, "No outline is chosen yet."),
        ({"kind": "artwork", "ref": "b"}, "The outline 'b' is not in this design."),
        (start(layers=[5]), "The artwork 'Regatta' has 3 layers, no layer 6."),
        (start(to="panel", margin=70), "A margin of 70 mm on both sides leaves nothing of 105 mm."),
    ],
)
def test_what_an_artwork_cannot_do_is_said(step: dict[str, Any], message: str) -> None:
    problem = run(step)[0].problem
    assert problem is not None
    assert problem.message == message


def test_openings_are_filled_below_an_area_or_as_picked() -> None:
    open_ = start(layers=[0], filled=False)
    below = run(open_, {"kind": "fill", "which": "below", "below": 4.5})[-1]
    assert told(below) == pytest.approx({"Filled": 1, "Area filled": 4, "Left open": 1})
    handle = below.step.handles(below.before, None)[0]  # type: ignore[arg-type]
    assert [round(c.outline.area, 6) for c in handle.candidates] == [100, 4]
    assert [c.taken for c in handle.candidates] == [False, True]
    # a pick is a share of the figure's box: it stays in its opening at any size
    share = handle.candidates[0].share
    for width in (60, 30, 180):
        fit = {"kind": "fit", "to": "width", "width": width}
        picked = run(open_, fit, {"kind": "fill", "which": "picked", "picks": [share]})[-1]
        assert picked.work is not None
        (left,) = picked.work.paper.openings
        assert left.area == pytest.approx(4 * (width / 60) ** 2)
    missed = run(open_, {"kind": "fill", "which": "picked", "picks": [[0.9, 0.9]]})[-1]
    assert told(missed)["Picks without opening"] == 1


def test_what_lies_in_a_filled_opening_is_swallowed() -> None:
    """A ring with a disc in its opening: closed, it is one disc of 20."""
    rings = "M20 0A20 20 0 1 1 -20 0A20 20 0 1 1 20 0ZM15 0A15 15 0 1 0 -15 0A15 15 0 1 0 15 0Z"
    disc = "M5 0A5 5 0 1 1 -5 0A5 5 0 1 1 5 0Z"
    data = {
        "artworks": {"a": {"layers": [{"path": rings + disc}]}},
        "pieces": [{"steps": [start(filled=False), {"kind": "fill"}]}],
    }
    first, done = evaluate(load_design(data)).pieces[0].outcomes
    assert first.work is not None
    assert done.work is not None
    assert first.work.paper.pieces == 2
    assert done.work.paper.pieces == 1
    assert done.work.paper.area == pytest.approx(400 * math.pi)


@pytest.mark.parametrize("keep", ["above", "below", "left", "right"])
def test_a_slice_where_the_foot_is_flat_for_40_mm(keep: str) -> None:
    """rules.md: r = 50 is cut r - sqrt(r^2 - 20^2) = 4.174 mm from its end."""
    circle = {"kind": "figure", "outline": {"kind": "circle", "diameter": 100}}
    done = run(circle, {"kind": "slice", "keep": keep, "by": "run", "run": 40})[-1]
    lost = told(done)["Height lost" if keep in ("above", "below") else "Width lost"]
    assert lost == pytest.approx(4.174, abs=1e-3)
    assert lost == pytest.approx(50 - math.sqrt(50**2 - 20**2), abs=1e-7)
    assert told(done)["Flat run"] == pytest.approx(40, abs=1e-7)
    assert done.step.handles(done.before, None) == []  # type: ignore[arg-type]


def test_a_run_that_is_there_already_takes_nothing_and_one_too_long_is_said() -> None:
    square = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 40}}
    flat = run(square, {"kind": "slice", "by": "run", "run": 50})[-1]
    assert told(flat)["Height lost"] == pytest.approx(0, abs=1e-6)
    problem = run(square, {"kind": "slice", "by": "run", "run": 61})[-1].problem
    assert problem is not None
    assert problem.message == "No straight cut is 61 mm long without a break; the longest is 60 mm."
    assert problem.would_do == pytest.approx(60)


def test_a_run_counts_without_a_break() -> None:
    """Two feet of 10 with 20 between: 30 in a row only where the plate begins, 15 up."""
    feet = "M0 0H40V30H30V15H10V30H0Z"
    data = {
        "artworks": {"a": {"layers": [{"path": feet}]}},
        "pieces": [{"steps": [start(), {"kind": "slice", "by": "run", "run": 30}]}],
    }
    done = evaluate(load_design(data)).pieces[0].outcomes[-1]
    assert told(done)["Height lost"] == pytest.approx(15, abs=1e-5)
