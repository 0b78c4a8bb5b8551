"""Evaluating, exporting, the catalogue, the shelf and the demo over the API."""

from __future__ import annotations

from typing import Any

import pytest

from server.accounts.people import demo_user
from server.config.demo import load_demo
from server.designs.models import Design
from server.shelf.models import Artwork
from stileblade.steps.step import STEPS
from tests.conftest import design_of
from tests.server.conftest import Api

Data = dict[str, Any]


@pytest.fixture
def circle() -> Data:
    return design_of(
        {"kind": "figure", "id": "a", "outline": {"kind": "circle", "diameter": 110}},
        {"kind": "mirror", "id": "m", "towards": "right", "lap": 2},
        size={"name": "big", "width": 200, "height": 200, "envelope": None},
    ).model_dump(mode="json")


def evaluate(api: Api, document: Data, **more: Any) -> Data:
    status, found = api("POST", "/evaluate", {"document": document, "piece": "base", **more})
    assert status == 200, found
    return {**(found["rest"] or {}), "flat": found["flat"]}


def test_an_evaluation_has_all_that_the_bench_shows(designer: Api, circle: Data) -> None:
    """Lap 2: open 218, fold at 109, from the centre 0; the handle stands on the axis."""
    found = evaluate(designer, circle, step="m")
    assert found["open"] == [218, 110]
    assert found["closed"] == [109, 110]
    (fold,) = found["flat"]["folds"]
    assert (fold["at"], fold["from_left"], fold["from_right"]) == (109, 109, 109)
    assert fold["from_centre"] == pytest.approx(0, abs=1e-9)
    (handle,) = found["flat"]["handles"]
    assert (handle["shape"], handle["at"], handle["origin"]) == ("line", 109, 110)
    assert handle["sets"] == {"field": "lap", "value": 2, "factor": -2, "least": 0}
    assert [p["name"] for p in found["flat"]["panels"]] == ["back", "front"]
    assert [f["parent"] for f in found["space"]["faces"]] == [1, None]
    (short,) = (f for f in found["findings"] if f["code"] == "hinge.short")
    assert short["lines"]
    (change,) = short["mends"][0]["changes"]
    assert (change["op"], change["step"]) == ("set", "m")
    readings = {r["name"]: r["values"] for r in found["readings"]}
    assert readings["Hinge"] == [pytest.approx(20.881, abs=1e-3)]
    assert readings["Pieces"] == [1]


def test_the_flat_view_shows_the_piece_as_it_was_at_the_step(designer: Api, circle: Data) -> None:
    found = evaluate(designer, circle, step="a")
    assert found["flat"]["box"] == [0, 0, 110, 110]
    assert found["flat"]["folds"] == []
    assert found["open"] == [218, 110]


@pytest.mark.parametrize("lap", [0, 0.1, 219.9, 500])
def test_what_is_hardly_there_is_shown_all_the_same(
    designer: Api, circle: Data, lap: float
) -> None:
    circle["pieces"][0]["steps"][1]["lap"] = lap
    found = evaluate(designer, circle, step="m")
    assert found["flat"]["path"]
    assert found["readings"]


def test_nothing_at_all_is_shown_as_nothing(designer: Api, circle: Data) -> None:
    circle["pieces"][0]["steps"] = []
    found = evaluate(designer, circle)
    assert (found["flat"]["path"], found["space"]["faces"], found["readings"]) == ("", [], [])


def test_the_flat_view_comes_alone_and_the_rest_without_it(designer: Api, circle: Data) -> None:
    flat = evaluate(designer, circle, part="flat")
    rest = evaluate(designer, circle, part="rest")
    assert set(flat) == {"flat"}
    assert rest.pop("flat") is None
    both = evaluate(designer, circle)
    assert both == {**rest, **flat}


def test_pictures_that_are_known_are_not_sent_again(designer: Api, circle: Data) -> None:
    first = evaluate(designer, circle)["strip"]
    assert all(s["picture"] for s in first)
    again = evaluate(designer, circle, known=[s["key"] for s in first])["strip"]
    assert not any(s["picture"] for s in again)


def test_problems_of_steps_are_said_in_the_designs_unit(designer: Api, circle: Data) -> None:
    circle["units"] = "in"
    circle["pieces"][0]["steps"][1]["lap"] = 254
    problem = evaluate(designer, circle, step="m")["strip"][1]["problem"]
    assert problem["message"].startswith("A lap of 10 in is deeper")
    assert problem["field"] == "lap"


def test_export_is_a_file_with_a_harmless_name(designer: Api, circle: Data) -> None:
    circle["name"] = 'Wal "../x'
    body = {"document": circle, "piece": "base", "format": "svg"}
    _, response = designer("POST", "/export", body)
    assert response.status_code == 200
    said = response.headers["Content-Disposition"]
    assert said == "attachment; filename=\"Wal-x-Base.svg\"; filename*=UTF-8''Wal-x-Base.svg"
    assert b"218.0000mm" in response.content
    assert designer("POST", "/export", {**body, "piece": "lid"})[0] == 422
    assert designer("POST", "/export", {**body, "format": "exe"})[0] == 422


def test_the_catalogue_brings_every_step_with_form_and_picture(designer: Api) -> None:
    found = designer("GET", "/catalogue")[1]
    assert {s["kind"] for s in found["steps"]} == set(STEPS.names())
    assert all(s["after"]["path"] and s["form"]["properties"] for s in found["steps"])
    assert len([f for f in found["figures"] if f["picture"]]) >= 12
    assert len(found["sizes"]) == 14


def test_the_shelf_keeps_papers_and_sizes(designer: Api, other: Api) -> None:
    papers = designer("GET", "/papers")[1]
    assert len(papers) >= 5
    kept = designer("POST", "/papers", {**papers[0]["paper"], "name": "Mist"})[1]
    assert kept["paper"]["id"] != papers[0]["paper"]["id"]
    size = {"name": "Narrow", "width": 80, "height": 200, "envelope": None}
    number = designer("POST", "/sizes", size)[1]["id"]
    assert designer("GET", "/sizes")[1][0]["size"]["name"] == "Narrow"
    for path in (f"/sizes/{number}", f"/papers/{kept['id']}"):
        assert other("DELETE", path)[0] == 404
        assert designer("DELETE", path)[0] == 200


def test_the_demo_is_loaded_once(db: None) -> None:
    count = load_demo()
    assert count >= 6
    assert load_demo() == 0
    assert Design.objects.filter(owner=demo_user()).count() == count
    assert Artwork.objects.count() >= 9


def test_steps_are_found_by_what_is_said(designer: Api) -> None:
    status, found = designer("GET", "/steps?said=round+window+2&unit=in")
    assert status == 200
    assert found[0]["kind"] == "window"
    assert found[0]["values"]["outline"] == {"kind": "circle", "diameter": 50.8}
    assert found[0]["told"] == ["circle 2 in"]
    assert designer("GET", f"/steps?said={'x' * 121}")[0] == 422


def test_a_card_is_begun_in_ways_to_choose_from(designer: Api) -> None:
    wish: Data = {"document": {"name": "Heart"}, "figure": {"kind": "heart"}, "margin": 2}
    status, found = designer("POST", "/beginnings", wish)
    assert status == 200
    card = next(f["card"] for f in found if f["key"] == "mirrored")
    assert card["lap"] >= 3
    assert card["hinge"] >= card["safe"]
    assert designer("POST", "/designs", {"document": card["document"]})[0] == 200
    status, refused = designer("POST", "/beginnings", {**wish, "figure": {"kind": "pear"}})
    assert status == 422
    assert "pear" in refused["title"]
