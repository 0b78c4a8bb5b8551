"""The readings and the flat view's figures, against sums."""

from __future__ import annotations

import math
from typing import Any

import pytest

from tests.conftest import design_of
from tests.server.conftest import Api
from tests.server.test_work import evaluate

BLANK = {"kind": "blank", "id": "a"}


def readings(api: Api, *steps: dict[str, Any], **card: Any) -> dict[str, Any]:
    data = design_of(*steps, **card).model_dump(mode="json")
    return {r["name"]: r for r in evaluate(api, data)["readings"]}


def test_readings_of_a_plain_a2(designer: Api) -> None:
    """0.3 mm of 240 g/m²: 215.9 x 139.7 weigh 7.2386 g; room 111.125 - 107.95 - 0.6."""
    found = readings(designer, BLANK)
    assert found["Open"]["values"] == [215.9, 139.7]
    assert found["Closed"]["values"] == pytest.approx([107.95, 139.7])
    assert found["Hinge"]["values"] == pytest.approx([139.7])
    assert found["Room"]["values"] == pytest.approx([2.575, 5.75])
    assert found["Room"]["note"] == "in the A2 envelope"
    assert found["Bulk"]["values"] == [0.6]
    assert found["Foot, front"]["values"] == pytest.approx([107.95])
    assert found["Stands safe by"]["values"] == pytest.approx([17.347], abs=1e-3)
    assert found["Area"]["values"] == pytest.approx([215.9 * 139.7])
    assert found["Weight"]["values"] == pytest.approx([215.9 * 139.7 * 240e-6])
    assert (found["Pieces"]["values"], found["Openings"]["values"]) == ([1], [0])


def test_what_a_lap_costs_and_what_was_not_cut_on_purpose(designer: Api) -> None:
    """Lap 3 of r = 55 costs 25.585 mm² of each half; the ring's opening is left in twice."""
    ring = {"kind": "ring", "diameter": 110, "opening": 20}
    found = readings(
        designer,
        {"kind": "figure", "id": "a", "outline": ring},
        {"kind": "mirror", "id": "m", "towards": "left", "lap": 3},
        {"kind": "window", "id": "w", "dx": 30, "outline": {"kind": "circle", "diameter": 12}},
    )
    assert found["Lost to the lap"]["values"] == [pytest.approx(25.585, abs=1e-3)]
    assert found["Openings"]["values"] == [3]
    assert found["Openings"]["note"] == "2 not cut on purpose"


def test_a_turned_card_and_a_card_without_envelope(designer: Api) -> None:
    a6 = {"name": "ISO A6", "width": 105, "height": 148, "envelope": None}
    assert "Room" not in readings(designer, BLANK, size=a6)
    turned = readings(designer, BLANK, turned=True)
    assert turned["Closed"]["values"] == pytest.approx([139.7, 107.95])
    assert turned["Room"]["note"] == "in the A2 envelope, turned"


def test_guides_and_targets_for_placing(designer: Api) -> None:
    """Edges, centres and the fold of an A2 blank; windows add their own centre."""
    window = {"kind": "window", "id": "w", "dx": 10, "dy": 5,
              "outline": {"kind": "circle", "diameter": 10}}  # fmt: skip
    bite = {"kind": "cut-away", "id": "c", "outline": {"kind": "circle", "diameter": 30}}
    data = design_of(BLANK, window, bite).model_dump(mode="json")
    flat = evaluate(designer, data, step="c")["flat"]
    upright = {g["at"]: g["word"] for g in flat["guides"] if g["axis"] == "x"}
    assert upright[107.95] == "fold"
    assert upright[161.925] == "front centre"
    assert upright[171.925] == "window centre"
    assert flat["targets"] == ["back", "front", "card"]
    (handle,) = flat["handles"]
    assert (handle["across"]["field"], handle["down"]["field"], handle["word"]) == (
        "dx",
        "dy",
        "circle",
    )
    assert handle["box"] == pytest.approx([200.9, 54.85, 230.9, 84.85])


def test_findings_carry_their_place(designer: Api) -> None:
    """A window 4 mm from the fold: the place is the gap itself, 4 mm long."""
    window = {"kind": "window", "id": "w", "at": "left", "by": "left", "dx": 4,
              "outline": {"kind": "rectangle", "width": 30, "height": 30}}  # fmt: skip
    data = design_of(BLANK, window).model_dump(mode="json")
    (finding,) = evaluate(designer, data)["findings"]
    (x0, y0, x1, y1) = finding["lines"][0]
    assert math.hypot(x1 - x0, y1 - y0) == pytest.approx(4, abs=1e-5)
    assert finding["outlines"]
    assert finding["step"] == "w"
    (change,) = finding["mends"][0]["changes"]
    assert change["values"]["dx"] == pytest.approx(6, abs=1e-3)
