"""Other cards and best joins over the API."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from stileblade.folding.hinge import hinge_length
from tests.conftest import A2, design_of
from tests.server.conftest import Api

BLANK = {"kind": "blank", "id": "a"}
LEANING = [
    {"kind": "figure", "id": "f", "outline": {"kind": "rectangle", "width": 80, "height": 60}},
    {"kind": "turn", "id": "t", "angle": 7},
    {"kind": "mirror", "id": "m", "towards": "left", "lap": 2},
]


def document(*steps: dict[str, Any], **card: Any) -> dict[str, Any]:
    return design_of(*steps, **card).model_dump(mode="json")


def test_a_design_on_several_cards(designer: Api) -> None:
    card = {"size": A2, "folding": {"kind": "accordion"}}
    turned = {"size": A2, "turned": True}
    code, found = designer(
        "POST", "/refold", {"document": document(BLANK), "cards": [card, turned]}
    )
    assert code == 200
    first, second = found
    assert first["open"] == pytest.approx([431.8, 139.7])
    assert first["closed"] == pytest.approx([107.95, 139.7])
    assert (first["warnings"], first["kept"], first["changes"]) == (1, 1, [])
    assert "room in the A2 envelope" in first["findings"][0]
    assert len(first["flat"]["folds"]) == 3
    assert len(first["folded"]["shapes"]) == 4
    assert second["closed"] == pytest.approx([139.7, 107.95])
    load_design(second["document"])


@pytest.mark.parametrize(
    "cards", [[], [{"folding": {"kind": "crumpled"}}], [{"size": {"width": -5}}], [{}] * 25]
)
def test_wrong_cards_are_refused(designer: Api, cards: list[dict[str, Any]]) -> None:
    code, found = designer("POST", "/refold", {"document": document(BLANK), "cards": cards})
    assert code == 422


def test_the_best_join_makes_the_hinge_that_it_promises(designer: Api) -> None:
    """The leaned rectangle turned back: the turn that is there is set, none is added."""
    data = document(*LEANING)
    wish = {"document": data, "piece": "base", "loss": 100, "most_turn": 10}
    _, found = designer("POST", "/joins", wish)
    best = found[0]
    assert (best["turn_deg"], best["spans"]) == (-7, 1)
    assert best["hinge"] == pytest.approx(60, abs=0.01)
    assert best["picture"]["folds"]
    assert [(c["op"], c["step"], c["values"]) for c in best["changes"]] == [
        ("set", "t", {"angle": 0}), ("set", "m", {"lap": best["lap"]}),
    ]  # fmt: skip
    for change in best["changes"]:
        next(s for s in data["pieces"][0]["steps"] if s["id"] == change["step"]).update(
            change["values"]
        )
    work = evaluate(load_design(data)).pieces[0].work
    assert work is not None
    assert hinge_length(work.spans["fold"], work.folds[0]) == pytest.approx(best["hinge"], abs=0.01)


def test_without_a_turn_one_is_put_before_the_mirror(designer: Api) -> None:
    ellipse = {
        "kind": "figure",
        "id": "f",
        "outline": {"kind": "ellipse", "width": 90, "height": 50},
    }
    mirror = {"kind": "mirror", "id": "m", "towards": "above", "lap": 2}
    data = document(ellipse, {"kind": "flip", "id": "p"}, mirror)
    code, found = designer("POST", "/joins", {"document": data, "piece": "base", "loss": 30})
    turned = next(j for j in found if j["turn_deg"])
    (add, lap) = turned["changes"]
    assert (add["op"], add["step"], add["values"]["kind"]) == ("add", "m", "turn")
    assert add["values"]["angle"] == turned["turn_deg"]
    assert lap["step"] == "m"


@pytest.mark.parametrize(("steps", "status"), [([BLANK], 422), ([], 422)])
def test_without_a_mirror_there_is_nothing_to_join(
    designer: Api, steps: list[dict[str, Any]], status: int
) -> None:
    code, found = designer(
        "POST", "/joins", {"document": document(*steps), "piece": "base", "loss": 50}
    )
    assert code == status
    assert found["title"].startswith("There is no mirrored figure in the piece")


def test_strangers_get_neither(stranger: Api) -> None:
    for path, body in (("/refold", {"cards": [{}]}), ("/joins", {"piece": "b", "loss": 5})):
        assert stranger("POST", path, {"document": {}, **body})[0] == 401
