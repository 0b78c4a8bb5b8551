"""Every parameter of every route is bounded by its schema; what is odd is refused in words, and what is broken said."""

from __future__ import annotations

from typing import Any

import pytest

from server.config.api import api
from server.designs.models import Design
from server.jobs.models import Offcut, OwnMachine
from stileblade.machine.shipped import PLOTTER
from tests.conftest import design_of
from tests.server.conftest import Api, designer, other, quick_passwords

__all__ = ["designer", "other", "quick_passwords"]
pytestmark = pytest.mark.django_db
ROUTES = [
    (method.upper(), path.removeprefix("/api"), operation)
    for path, operations in api.get_openapi_schema()["paths"].items()
    for method, operation in operations.items()
]
ODD = ("-1", "0", "2147483648", "9223372036854775808", "1" + "0" * 40, "1e3", "NaN", "%00", "1.5")


def parameters(operation: dict[str, Any], of: str) -> list[dict[str, Any]]:
    return [p for p in operation.get("parameters", []) if p["in"] == of]


def test_every_number_of_every_route_has_bounds() -> None:
    """A route that is added with a plain number is found here."""
    bare = []
    for method, path, operation in ROUTES:
        for one in operation.get("parameters", []):
            kinds = [one["schema"], *one["schema"].get("anyOf", ())]
            bare += [
                (method, path, one["name"])
                for kind in kinds
                if kind.get("type") in ("integer", "number")
                and not {"minimum", "maximum"} <= kind.keys()
            ]
    assert bare == []


@pytest.mark.parametrize("odd", ODD)
def test_odd_numbers_are_refused_on_every_route(designer: Api, odd: str) -> None:
    body = {"document": design_of({"kind": "blank"}).model_dump(mode="json")}
    tried = 0
    for method, path, operation in ROUTES:
        names = [p["name"] for p in parameters(operation, "path")]
        asked = [p["name"] for p in parameters(operation, "query")]
        if not names and not asked:
            continue
        there = path
        for name in names:
            there = there.replace("{" + name + "}", odd)
        query = "&".join(f"{name}={odd}" for name in asked)
        status, said = designer(method, f"{there}?{query}" if query else there, body)
        assert status < 500, (method, there, query, said)
        tried += 1
    assert tried > 30


@pytest.mark.parametrize("broken", ["", "{", "[1, 2", "\x00", "nul"])
def test_a_row_of_broken_json_is_said(designer: Api, broken: str) -> None:
    document = design_of({"kind": "blank"}).model_dump(mode="json")
    number = designer("POST", "/designs", {"document": document})[1]["id"]
    Design.objects.filter(pk=number).update(document=broken)
    asked = [
        ("GET", f"/designs/{number}", None),
        ("POST", f"/designs/{number}/copy", None),
        ("PATCH", f"/designs/{number}", {"name": "Again"}),
        ("GET", f"/designs/{number}/summary", None),
        ("GET", f"/designs/{number}/versions", None),
        ("GET", "/designs", None),
    ]
    for method, path, wish in asked:
        status, said = designer(method, path, wish)
        assert status in (200, 422), (method, path, said)
    status, said = designer("GET", f"/designs/{number}")
    assert (status, said["title"]) == (422, "What is kept of this design on the server is damaged.")
    assert designer("GET", "/designs")[0] == 200


def test_what_is_not_ones_own_is_not_said_to_be_gone(designer: Api, other: Api) -> None:
    from django.contrib.auth.models import User

    owner = User.objects.get(username="designer")
    offcut = Offcut.objects.create(
        owner=owner, name="Rest", paper="sand", width=90, height=90, taken=[]
    )
    OwnMachine.objects.create(owner=owner, name="mine", data=PLOTTER.model_dump(mode="json"))
    for path in (f"/offcuts/{offcut.pk}", "/machines/mine", "/offcuts/99999", "/machines/none"):
        assert other("DELETE", path)[0] == 404, path
    assert Offcut.objects.count() == OwnMachine.objects.count() == 1
    for path in (f"/offcuts/{offcut.pk}", "/machines/mine"):
        assert designer("DELETE", path) == (200, {"gone": True})
        assert designer("DELETE", path)[0] == 404
