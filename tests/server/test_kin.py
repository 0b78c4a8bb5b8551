"""Families over the API: a change in one design is offered to the others, and taken over in words and revisions."""

from __future__ import annotations

from typing import Any

from tests.conftest import design_of
from tests.server.conftest import Api

A5 = {"name": "ISO A5", "width": 148, "height": 210}


def made(api: Api, name: str, **card: Any) -> int:
    window = {"kind": "window", "id": "w", "outline": {"kind": "circle", "diameter": 30}}
    document = design_of({"kind": "blank", "id": "b"}, window, **card).model_dump(mode="json")
    return int(api("POST", "/designs", {"document": {**document, "name": name}})[1]["id"])


def family(api: Api) -> tuple[int, int]:
    one, other = made(api, "Small"), made(api, "Large", size=A5)
    assert api("POST", f"/designs/{one}/kin", {"others": [other]})[0] == 200
    return one, other


def changed(api: Api, number: int, **values: Any) -> int:
    there = api("GET", f"/designs/{number}")[1]
    there["document"]["pieces"][0]["steps"][1].update(values)
    answer = api("PUT", f"/designs/{number}", {k: there[k] for k in ("document", "revision")})
    assert answer[0] == 200
    return int(answer[1]["revision"])


def window(api: Api, number: int) -> dict[str, Any]:
    return dict(api("GET", f"/designs/{number}")[1]["document"]["pieces"][0]["steps"][1])


def test_a_change_is_offered_and_taken_over(designer: Api) -> None:
    one, other = family(designer)
    assert [
        (k["id"], k["size"], k["changes"]) for k in designer("GET", f"/designs/{one}/kin")[1]
    ] == [(other, "ISO A5", 0)]
    revision = changed(designer, one, dy=8)
    assert designer("GET", f"/designs/{one}/kin")[1][0]["changes"] == 1
    offer = designer("POST", f"/designs/{one}/kin/{other}/offer", {})[1]
    (change,) = offer["changes"]
    assert (change["of"], change["title"], change["after"], change["how"]) == (
        "step 2, Window", "Down", "8 mm", "kept",
    )  # fmt: skip
    assert offer["look"]["closed"] == [148, 210]
    wish = {"how": {change["key"]: "scaled"}, "revisions": [revision, 1]}
    status, saved = designer("POST", f"/designs/{one}/kin/{other}", wish)
    assert (status, saved["revision"]) == (200, 2)
    assert window(designer, other)["dy"] == 10.97  # 148 / 107.95 times 8
    # in step now, both ways
    assert designer("GET", f"/designs/{one}/kin")[1][0]["changes"] == 0
    assert designer("GET", f"/designs/{other}/kin")[1][0]["changes"] == 0
    # the next one is scaled by itself, as this one was
    changed(designer, one, dy=9)
    (change,) = designer("POST", f"/designs/{one}/kin/{other}/offer", {})[1]["changes"]
    assert (change["how"], change["scaled"]) == ("scaled", "12.34 mm")
    # the other one's history has what it was before
    assert [v["number"] for v in designer("GET", f"/designs/{other}/versions")[1]] == [1]


def test_what_is_left_out_is_not_offered_again(designer: Api) -> None:
    one, other = family(designer)
    revision = changed(designer, one, dy=8)
    (change,) = designer("POST", f"/designs/{one}/kin/{other}/offer", {})[1]["changes"]
    wish = {"how": {change["key"]: "left"}, "revisions": [revision, 1]}
    assert designer("POST", f"/designs/{one}/kin/{other}", wish)[1]["revision"] == 1
    assert window(designer, other)["dy"] == 0
    assert designer("GET", f"/designs/{one}/kin")[1][0]["changes"] == 0


def test_nothing_is_taken_over_by_what_was_changed_meanwhile(designer: Api) -> None:
    one, other = family(designer)
    revision = changed(designer, one, dy=8)
    changed(designer, other, dx=1)
    wish = {"how": {}, "revisions": [revision, 1]}
    status, problem = designer("POST", f"/designs/{one}/kin/{other}", wish)
    assert (status, problem["type"]) == (409, "stileblade:conflict")
    assert window(designer, other)["dy"] == 0
    # its own change is offered to the first one, and nothing else
    assert designer("GET", f"/designs/{other}/kin")[1][0]["changes"] == 1


def test_a_family_grows_is_left_and_has_its_limit(designer: Api) -> None:
    one, other = family(designer)
    third = made(designer, "Third")
    designer("POST", f"/designs/{third}/kin", {"others": [other]})
    for number in (one, other, third):
        assert len(designer("GET", f"/designs/{number}/kin")[1]) == 2
    designer("PATCH", f"/designs/{third}", {"binned": True})
    assert len(designer("GET", f"/designs/{one}/kin")[1]) == 1
    assert designer("DELETE", f"/designs/{other}/kin")[0] == 200
    assert designer("GET", f"/designs/{one}/kin")[1] == []
    status, problem = designer("POST", f"/designs/{one}/kin/{other}/offer", {})
    assert (status, problem["type"]) == (422, "stileblade:kin")
    many = [made(designer, f"{n}") for n in range(12)]
    status, problem = designer("POST", f"/designs/{one}/kin", {"others": many})
    assert (status, problem["type"]) == (422, "stileblade:family")


def test_nobody_elses_design_is_linked_or_looked_at(designer: Api, other: Api) -> None:
    one, large = family(designer)
    foreign = made(other, "Theirs")
    assert designer("POST", f"/designs/{one}/kin", {"others": [foreign]})[0] == 404
    assert other("GET", f"/designs/{one}/kin")[0] == 404
    assert other("POST", f"/designs/{one}/kin/{large}/offer", {})[0] == 404
    assert other("POST", f"/designs/{one}/kin/{large}", {"revisions": [1, 1]})[0] == 404
    assert other("DELETE", f"/designs/{one}/kin")[0] == 404
