"""What the flat view needs while it is worked on: grips, guides, effects, parts, bare lines."""

from __future__ import annotations

from typing import Any

import pytest

from tests.conftest import design_of
from tests.server.conftest import Api
from tests.server.test_work import evaluate

Data = dict[str, Any]
BLANK = {"kind": "blank", "id": "b"}
CIRCLE = {"kind": "circle", "diameter": 20}


def document(*steps: Data, **card: Any) -> Data:
    return design_of(BLANK, *steps, **card).model_dump(mode="json")


def window(**more: Any) -> Data:
    return {"kind": "window", "id": "w", "outline": CIRCLE, **more}


def handle_of(api: Api, step: Data, **card: Any) -> Data:
    found = evaluate(api, document(step, **card), step=step["id"])
    return next(h for h in found["flat"]["handles"] if h["shape"] == "box")


def test_a_circle_is_sized_in_proportion_a_rectangle_both_ways(designer: Api) -> None:
    sizing = handle_of(designer, window())["sizing"]
    assert sizing["both"] == [["outline.diameter", 20]]
    # about the middle of A2's front: 161.925, 69.85
    assert sizing["fixed"] == pytest.approx([161.925, 69.85])
    rectangle = {"kind": "rectangle", "width": 30, "height": 18}
    upright = handle_of(designer, window(outline=rectangle, by="head-left"))["sizing"]
    assert (upright["across"], upright["down"], upright["both"]) == (
        [["outline.width", 30]], [["outline.height", 18]], [],
    )  # fmt: skip
    assert upright["fixed"] == pytest.approx([161.925, 69.85])
    lying = handle_of(designer, window(outline=rectangle, turn=90))["sizing"]
    assert (lying["across"], lying["down"]) == ([["outline.height", 18]], [["outline.width", 30]])
    slanting = handle_of(designer, window(outline=rectangle, turn=30))["sizing"]
    assert slanting["both"] == [["outline.width", 30], ["outline.height", 18]]


def test_what_has_its_size_from_elsewhere_has_no_grips(designer: Api) -> None:
    assert handle_of(designer, window(sized="fit", margin=20))["sizing"] is None
    grid = handle_of(designer, window(repeat="grid"))
    assert (grid["sizing"], grid["turn"]) == (None, None)
    assert handle_of(designer, window(turn=15))["turn"] == 15


@pytest.mark.parametrize(
    ("side", "fields"),
    [
        ("right", ("out", 1, "along", 1)),
        ("foot", ("along", 1, "out", 1)),
        ("head", ("along", 1, "out", -1)),
    ],
)
def test_an_overhang_follows_the_pointer_outwards(
    designer: Api, side: str, fields: tuple[str, int, str, int]
) -> None:
    step = {"kind": "overhang", "id": "o", "outline": CIRCLE, "side": side, "out": 6, "along": 3}
    handle = handle_of(designer, step)
    across, down = handle["across"], handle["down"]
    assert (across["field"], across["factor"], down["field"], down["factor"]) == fields


def test_the_envelope_is_watched_while_the_card_may_grow(designer: Api) -> None:
    """A2: 111.125 less 107.95, less 0.6 of paper, less what stands out."""
    step = {"kind": "overhang", "id": "o", "outline": CIRCLE, "out": 6}
    effect = evaluate(designer, document(step), step="o")["flat"]["effect"]
    assert effect["closed"] == pytest.approx([113.95, 139.7])
    assert effect["room"] == pytest.approx(111.125 - 113.95 - 0.6)
    assert (effect["envelope"], effect["slack"]) == ("A2", 2)
    assert evaluate(designer, document(window()), step="w")["flat"]["effect"] is None
    failing = evaluate(designer, document({**step, "out": 19.999}), step="o")["flat"]["effect"]
    assert failing is not None
    broken = evaluate(designer, document({**step, "out": 25}), step="o")["flat"]["effect"]
    assert broken is None


def guides(found: Data, axis: str, word: str) -> list[float]:
    return sorted(
        g["at"] for g in found["flat"]["guides"] if g["axis"] == axis and g["word"] == word
    )


def test_windows_are_guides_on_their_panel_and_on_the_one_behind(designer: Api) -> None:
    """Two windows whose gap is 20: a third has its place 20 from either, and half-way. Their middle
    on the back is as far from the fold as it is on the front."""
    steps = [
        {**window(dx=-20), "id": "one"},
        {**window(dx=20), "id": "two"},
        {**window(dy=40), "id": "three"},
    ]
    found = evaluate(designer, document(*steps), step="three")
    centre = 161.925
    assert guides(found, "x", "window centre") == pytest.approx([centre - 20, centre + 20])
    assert guides(found, "x", "window left") == pytest.approx([centre - 30, centre + 10])
    assert guides(found, "x", "half-way between") == pytest.approx([centre])
    equal = {g["edge"]: g["at"] for g in found["flat"]["guides"] if g["word"] == "equal distances"}
    assert equal == {
        "low": pytest.approx(centre + 30 + 20),
        "high": pytest.approx(centre - 30 - 20),
    }
    behind = guides(found, "x", "window of front centre")
    assert behind == pytest.approx([215.9 - centre - 20, 215.9 - centre + 20])


def test_parts_of_a_split_are_told_with_the_pieces_made_of_them(designer: Api) -> None:
    split = {"kind": "split", "id": "s", "edge": "near", "distance": 40, "strip": 4}
    data = document(split)
    data["pieces"].append(
        {"id": "p2", "name": "Narrow", "paper": "paper",
         "steps": [{"kind": "part", "id": "x", "step": "s", "number": 1}]}
    )  # fmt: skip
    parts = evaluate(designer, data, step="s")["flat"]["parts"]
    assert [(p["number"], p["kept"], p["piece"]) for p in parts] == [
        (1, False, "Narrow"), (2, True, ""),
    ]  # fmt: skip
    assert parts[0]["box"] == pytest.approx([0, 0, 38, 139.7])
    # the first piece seen at an earlier step leaves the second as it is
    status, found = designer(
        "POST", "/evaluate", {"document": data, "piece": "p2", "step": "x", "part": "flat"}
    )
    assert status == 200
    assert found["flat"]["box"] == pytest.approx([0, 0, 38, 139.7])


def test_bare_lines_have_their_length_and_their_step(designer: Api) -> None:
    """The fold 139.7; a circle of 20; the outline's last maker is the step that reshaped it."""
    steps = [
        window(),
        {"kind": "shaped-edge", "id": "e", "motif": "battlement", "keep": "added", "depth": 4,
         "pitch": 40},
        {"kind": "lettering", "id": "l", "text": "H", "height": 10, "dy": -40},
    ]  # fmt: skip
    status, lines = designer("POST", "/cuts", {"document": document(*steps), "piece": "base"})
    assert status == 200
    by = {}
    for line in lines:
        by.setdefault(line["operation"], []).append(line)
    (fold,) = by["score"]
    assert (fold["length"], fold["step"]) == (pytest.approx(139.7), "")
    assert fold["made_by"] == "the card's way of folding"
    (circle,) = by["cut-inner"]
    assert circle["length"] == pytest.approx(62.8319, abs=1e-3)
    assert (circle["step"], circle["made_by"]) == ("w", "2. Window")
    (outer,) = by["cut-outer"]
    assert (outer["step"], outer["closed"]) == ("e", True)
    # battlements add their sides to the outline: three of them, 4 deep
    assert outer["length"] == pytest.approx(2 * (215.9 + 139.7) + 3 * 2 * 4, abs=1e-6)
    assert {line["step"] for line in by["draw"]} == {"l"}
    assert sum(line["length"] for line in by["draw"]) == pytest.approx(20 + 14 * 10 / 21, abs=1e-6)


def test_placed_things_are_those_that_apply(designer: Api) -> None:
    steps = [
        window(),
        {**window(), "id": "off", "on": False},
        {**window(dx=500), "id": "gone"},
        {"kind": "overhang", "id": "o", "outline": CIRCLE, "out": 6},
        {"kind": "fold-line", "id": "f"},
    ]
    status, things = designer("POST", "/placed", {"document": document(*steps), "piece": "base"})
    assert status == 200
    assert [(t["step"], t["title"]) for t in things] == [
        ("w", "2. Window: circle"), ("o", "5. Overhang: overhang"),
    ]  # fmt: skip
    assert things[0]["box"] == pytest.approx([151.925, 59.85, 171.925, 79.85])
    assert (things[1]["across"]["field"], things[1]["across"]["value"]) == ("out", 6)


@pytest.mark.parametrize("path", ["/cuts", "/placed"])
def test_a_piece_that_is_not_there_says_so(designer: Api, path: str) -> None:
    status, problem = designer("POST", path, {"document": document(), "piece": "lid"})
    assert status == 422
    assert "'lid' is not in the design" in problem["title"]


@pytest.mark.parametrize("path", ["/cuts", "/placed"])
def test_strangers_are_shown_nothing(path: str) -> None:
    status, _ = Api(None)("POST", path, {"document": document(), "piece": "base"})
    assert status == 401
