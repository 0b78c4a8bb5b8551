"""No design, however odd, makes the list, the bench or an export answer with a failure of the server."""

from __future__ import annotations

import dataclasses
from typing import Any

import pytest

from stileblade.formats.format import FORMATS, formats
from stileblade.steps.kinds.window import Window
from stileblade.views import summary
from tests.conftest import design_of
from tests.server.conftest import Api

BLANK = {"kind": "blank", "id": "a"}
NEAR = {"kind": "window", "id": "w", "at": "left", "by": "left", "dx": 4,
        "outline": {"kind": "circle", "diameter": 30}}  # fmt: skip
ODD: dict[str, list[dict[str, Any]]] = {
    "nothing at all": [],
    "seen through a window near the edge": [
        BLANK, NEAR, {"kind": "seen-through", "id": "s", "shown_as": "window"}],
    "as many as fit of no size": [
        BLANK, {**NEAR, "id": "s", "repeat": "fit", "gap": -30}],
    "nothing left": [
        BLANK, {"kind": "cut-away", "id": "s", "outline": {"kind": "rectangle", "width": 900,
                                                           "height": 900}}],
    "a figure that is nowhere": [{"kind": "figure", "id": "s", "outline": {"kind": "drawn"}}],
    "a mirror of nothing": [{"kind": "mirror", "id": "s", "towards": "left", "lap": 8}],
}  # fmt: skip


def document(steps: list[dict[str, Any]]) -> dict[str, Any]:
    return design_of(*steps).model_dump(mode="json")


def looked_at(api: Api, data: dict[str, Any]) -> dict[str, int]:
    """What each route answers that computes a design."""
    here = {"document": data, "piece": "base"}
    return {
        "save": api("POST", "/designs", {"document": data})[0],
        "list": api("GET", "/designs")[0],
        "evaluate": api("POST", "/evaluate", {**here, "step": "s"})[0],
        "cuts": api("POST", "/cuts", here)[0],
        "placed": api("POST", "/placed", here)[0],
        "joins": api("POST", "/joins", {**here, "loss": 50})[0],
        "figures": api("POST", "/figures", here)[0],
        "aim": api("POST", "/aim", {**here, "figure": "closed.width", "target": 50})[0],
        "aims": api("POST", "/aims", {"document": data})[0],
        "picture": api("POST", "/picture", {**here, "angles": [], "eye": [0, 0, 1]})[0],
        "refold": api("POST", "/refold", {"document": data, "cards": [{}]})[0],
        **{name: api("POST", "/export", {**here, "format": name})[0] for name in formats().names()},
    }


@pytest.mark.parametrize("name", ODD)
def test_odd_designs_are_kept_listed_shown_and_cut(designer: Api, name: str) -> None:
    answers = looked_at(designer, document(ODD[name]))
    assert {k: v for k, v in answers.items() if v not in (200, 422)} == {}
    assert answers["save"] == answers["list"] == answers["evaluate"] == 200


def test_a_step_that_breaks_is_told_of_wherever_the_design_is_shown(
    designer: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(Window, "apply", broken)
    answers = looked_at(designer, document([BLANK, {**NEAR, "id": "s"}]))
    assert set(answers.values()) <= {200, 422}
    assert answers["evaluate"] == answers["list"] == answers["svg"] == 200


def test_a_tile_that_cannot_be_drawn_does_not_take_the_list_with_it(
    designer: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    data = document([BLANK, NEAR])
    number = designer("POST", "/designs", {"document": data})[1]["id"]
    monkeypatch.setattr(summary, "folded_picture", broken)
    designer("PUT", f"/designs/{number}", {"document": {**data, "name": "Anew"}, "revision": 1})
    status, listed = designer("GET", "/designs")
    assert status == 200
    assert [(d["id"], d["name"]) for d in listed] == [(number, "Anew")]


@pytest.mark.parametrize("name", ["svg", "dxf", "pdf"])
def test_a_format_that_breaks_says_so_and_sends_no_half_file(
    designer: Api, monkeypatch: pytest.MonkeyPatch, name: str
) -> None:
    monkeypatch.setitem(FORMATS._known, name, dataclasses.replace(formats()[name], writer=broken))
    wish = {"document": document([BLANK]), "piece": "base", "format": name}
    status, problem = designer("POST", "/export", wish)
    assert status == 422
    assert problem["title"] == f"The file could not be written as {formats()[name].title}."
    assert "written down" in problem["hint"]


def broken(*_: Any, **__: Any) -> Any:
    raise ZeroDivisionError("nobody thought of this")
