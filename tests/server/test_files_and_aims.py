"""Files of a card, pictures of it, the design as a file, and aims over the API."""

from __future__ import annotations

import io
import zipfile
from typing import Any

import pytest
from lxml import etree

from stileblade.design.document import load_design
from tests.conftest import design_of
from tests.server.conftest import Api

pytestmark = pytest.mark.usefixtures("no_hurry")
Data = dict[str, Any]
SVG = "{http://www.w3.org/2000/svg}"


@pytest.fixture
def heart() -> Data:
    figure = {"kind": "figure", "id": "f", "outline": {"kind": "circle", "diameter": 110}}
    return design_of(figure, {"kind": "mirror", "id": "m", "lap": 6}).model_dump(mode="json")


def test_all_pieces_come_in_one_archive(designer: Api) -> None:
    data = design_of({"kind": "blank"}, {"id": "c", "kind": "split", "strip": 3}).model_dump(
        mode="json"
    )
    part = {"kind": "part", "piece": "base", "step": "c", "number": 1}
    data["pieces"].append({"id": "p2", "name": "Möwe", "paper": "paper", "steps": [part]})
    body = {"document": data, "piece": "base", "format": "svg", "options": {"which": "each"}}
    status, response = designer("POST", "/export", body)
    assert status == 200
    assert response.headers["Content-Type"] == "application/zip"
    with zipfile.ZipFile(io.BytesIO(response.content)) as archive:
        assert archive.namelist() == ["New-card-Base.svg", "New-card-Möwe.svg"]
    one = designer("POST", "/export", {**body, "piece": "p2", "options": {}})[1]
    assert "filename*=UTF-8''New-card-M%C3%B6we.svg" in one.headers["Content-Disposition"]
    assert designer("POST", "/export", {**body, "options": {"page": "a9"}})[0] == 422


def test_a_file_says_what_stood(designer: Api, heart: Data) -> None:
    heart["card"]["size"]["envelope"] = {"name": "Small", "width": 100, "height": 100}
    body = {"document": heart, "piece": "base", "format": "svg"}
    text = designer("POST", "/export", body)[1].content.decode()
    assert "too large for the Small envelope" in text


def test_a_picture_of_the_folded_card_in_any_pose(designer: Api, heart: Data) -> None:
    body = {
        "document": heart,
        "piece": "base",
        "angles": [60],
        "eye": [0.3, 0.2, 1],
        "up": [0, 1, 0],
    }
    status, response = designer("POST", "/picture", body)
    assert status == 200
    assert 'filename="New-card-folded.svg"' in response.headers["Content-Disposition"]
    root = etree.fromstring(response.content)
    assert len(root.findall(f".//{SVG}path")) == 2
    assert root.find(f"{SVG}rect") is None  # the ground is transparent
    flat = designer("POST", "/picture", {**body, "angles": [0], "eye": [0, 0, 1]})[1].content
    left, head, wide, high = map(float, etree.fromstring(flat).get("viewBox", "").split())
    assert wide / high == pytest.approx((214 + 2 * 4.28) / (110 + 2 * 4.28), abs=0.002)
    for more in ({"angles": [1, 2]}, {"eye": [0, 2, 0]}, {"eye": [0, 0, 0]}, {"angles": [1e9]}):
        assert designer("POST", "/picture", {**body, **more})[0] == 422
    assert designer("POST", "/picture", {**body, "document": {"pieces": []}})[0] == 422


def test_the_design_as_a_file_is_opened_again(designer: Api, heart: Data) -> None:
    """Of an older version, too; its schema is at an address of the application."""
    made = designer("POST", "/designs", {"document": heart})[1]
    opened = designer("GET", f"/designs/{made['id']}")[1]
    assert load_design(opened["document"]) == load_design(heart)
    old = {"version": 1, "card": {"way": "top-fold"}, "pieces": [{"steps": [{"kind": "blank"}]}]}
    status, saved = designer("POST", "/designs", {"document": old})
    assert status == 200
    upgraded = designer("GET", f"/designs/{saved['id']}")[1]["document"]
    assert (upgraded["version"], upgraded["card"]["folding"]["kind"]) == (4, "top-fold")
    status, refused = designer("POST", "/designs", {"document": {"format": "other"}})
    assert status == 422
    assert "no Stileblade design" in refused["title"]
    status, response = designer("GET", "/design-schema")
    schema = response if isinstance(response, dict) else {}
    assert status == 200
    assert schema["$schema"].endswith("2020-12/schema")
    assert {"card", "papers", "pieces", "aims"} <= set(schema["properties"])


def test_aims_are_solved_and_kept(designer: Api, heart: Data) -> None:
    figures = designer("POST", "/figures", {"document": heart, "piece": "base"})[1]
    hinge = next(f for f in figures if f["key"] == "hinge:fold")
    assert hinge["value"] == pytest.approx(2 * (55**2 - 52**2) ** 0.5, abs=1e-3)
    wish = {"document": heart, "piece": "base", "figure": "hinge:fold", "target": 45}
    status, found = designer("POST", "/aim", wish)
    assert status == 200
    lap = next(p for p in found["proposals"] if p["aim"]["field"] == "lap")
    # 2 sqrt(55^2 - (55 - p / 2)^2) = 45: p = 9.62
    assert lap["value"] == pytest.approx(9.7, abs=0.05)
    assert lap["met"]
    assert found["evaluations"] <= 60
    missed = {**heart, "aims": [lap["aim"]]}
    again = designer("POST", "/aims", {"document": missed})[1]
    assert [c["values"] for c in again["changes"]] == [{"lap": lap["value"]}]
    assert designer("POST", "/aim", {**wish, "figure": "none"})[1]["proposals"] == []
    assert designer("POST", "/aim", {**wish, "relation": "about"})[0] == 422


def test_joins_are_as_wished(designer: Api, heart: Data) -> None:
    wish = {"document": heart, "piece": "base", "loss": 200, "most_lap": 10, "spans": 1}
    status, joins = designer("POST", "/joins", wish)
    assert status == 200
    assert joins[0]["lap"] == pytest.approx(10)
    assert joins[0]["closed"][1] == pytest.approx(110, abs=1e-3)
    assert joins[0]["room"] is not None
    assert designer("POST", "/joins", {**wish, "spans": 2})[1] == []


@pytest.mark.parametrize("path", ["/picture", "/figures", "/aim", "/aims", "/design-schema"])
def test_strangers_get_nothing(stranger: Api, path: str, heart: Data) -> None:
    method = "GET" if path == "/design-schema" else "POST"
    status = stranger(method, path, {"document": heart, "piece": "base", "figure": "room",
                                     "target": 1, "angles": [1], "eye": [0, 0, 1]})[0]  # fmt: skip
    assert status == (200 if path == "/design-schema" else 401)
