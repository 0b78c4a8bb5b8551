"""Designs over the API: saving, conflicts, bin, and who may see what."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.test import Client
from django.utils import timezone

from server.designs.keeping import MOST_OF_A_DAY, MOST_REFUSED, OFTEN, thinned
from server.designs.models import Design, Revision
from tests.server.conftest import Api

Data = dict[str, Any]


def make(api: Api, document: Data) -> int:
    status, made = api("POST", "/designs", {"document": document})
    assert status == 200
    return int(made["id"])


def test_a_design_is_kept_listed_and_opened(designer: Api, blank: Data) -> None:
    number = make(designer, blank)
    status, found = designer("GET", f"/designs/{number}")
    assert (status, found["document"], found["revision"]) == (200, blank, 1)
    (entry,) = designer("GET", "/designs")[1]
    assert entry["summary"]["closed"] == [107.95, 139.7]
    assert entry["summary"]["picture"]["shapes"]
    assert (entry["summary"]["errors"], entry["summary"]["warnings"]) == (0, 0)


def test_saving_counts_revisions_and_keeps_the_earlier(designer: Api, blank: Data) -> None:
    number = make(designer, blank)
    status, saved = designer(
        "PUT", f"/designs/{number}", {"document": {**blank, "name": "Tide"}, "revision": 1}
    )
    assert (status, saved["revision"]) == (200, 2)
    assert Revision.objects.get().number == 1
    # the same again is no new revision
    status, saved = designer(
        "PUT", f"/designs/{number}", {"document": {**blank, "name": "Tide"}, "revision": 2}
    )
    assert (status, saved["revision"]) == (200, 2)


def test_a_late_save_overwrites_nothing_and_both_are_kept(designer: Api, blank: Data) -> None:
    number = make(designer, blank)
    first, second = ({**blank, "name": n} for n in ("first", "second"))
    assert designer("PUT", f"/designs/{number}", {"document": first, "revision": 1})[0] == 200
    status, problem = designer("PUT", f"/designs/{number}", {"document": second, "revision": 1})
    assert status == 409
    assert problem["title"] == (
        "This design was changed elsewhere in the meantime. Both versions are kept."
    )
    assert problem["revision"] == 2
    assert designer("GET", f"/designs/{number}")[1]["document"]["name"] == "first"
    kept = designer("GET", f"/designs/{number}/versions/{problem['kept']}")[1]
    assert kept["document"]["name"] == "second"


def test_versions_are_kept_thinly_with_time() -> None:
    """All of a day, the last of each hour for thirty days, of each day before that."""
    now = datetime(2026, 11, 28, 12, 30, tzinfo=UTC)
    ages = [
        *(timedelta(minutes=n) for n in range(60)),  # all stay
        *(timedelta(days=3, minutes=10 * n) for n in range(12)),  # two hours: three of them begun
        *(timedelta(days=90, hours=n) for n in range(30)),  # two days begun
    ]
    rows = [(n, now - age) for n, age in enumerate(ages)]
    gone = set(thinned(rows, now))
    assert gone.isdisjoint(range(60))
    assert len(set(range(60, 72)) - gone) == 3
    assert len(set(range(72, 102)) - gone) == 2
    assert 60 not in gone  # the newest of its hour
    many = [(n, now - timedelta(seconds=n)) for n in range(MOST_OF_A_DAY + 600)]
    assert MOST_OF_A_DAY <= len(many) - len(set(thinned(many, now))) <= MOST_OF_A_DAY + 11


def test_old_versions_go_but_named_and_refused_ones_stay(designer: Api, blank: Data) -> None:
    number = make(designer, blank)
    path = f"/designs/{number}"
    designer("PUT", path, {"document": {**blank, "name": "late"}, "revision": 7})
    for revision in range(1, OFTEN - 1):
        body = {"document": {**blank, "name": f"n{revision}"}, "revision": revision}
        assert designer("PUT", path, body)[0] == 200
    rows = [v for v in designer("GET", f"{path}/versions")[1] if not v["refused"]]
    assert [v["number"] for v in rows] == list(range(OFTEN - 2, 0, -1))
    named = f"{path}/versions/{rows[-1]['kept']}"
    assert designer("PATCH", named, {"name": "as it was sold"})[1]["name"] == "as it was sold"
    Revision.objects.filter(conflicting=False).update(saved=timezone.now() - timedelta(days=99))
    designer("PUT", path, {"document": {**blank, "name": "newest"}, "revision": OFTEN - 1})
    left = designer("GET", f"{path}/versions")[1]
    assert [v["name"] for v in left if v["name"]] == ["as it was sold"]
    assert sum(v["refused"] for v in left) == 1
    # of the old ones one of their day, besides the named one and the newest
    assert len([v for v in left if not v["refused"]]) == 3


def test_refused_versions_do_not_pile_up(designer: Api, blank: Data) -> None:
    path = f"/designs/{make(designer, blank)}"
    designer("PUT", path, {"document": {**blank, "name": "newer"}, "revision": 1})
    for number in range(MOST_REFUSED + 2 * OFTEN + 1):
        body = {"document": {**blank, "name": f"late {number}"}, "revision": 1}
        assert designer("PUT", path, body)[0] == 409
    refused = Revision.objects.filter(conflicting=True)
    assert MOST_REFUSED <= refused.count() < MOST_REFUSED + OFTEN
    assert f"late {MOST_REFUSED + 2 * OFTEN}" in refused.first().document  # type: ignore[union-attr]


def test_a_version_is_seen_and_made_a_design_of_its_own(designer: Api, blank: Data) -> None:
    number = make(designer, blank)
    path = f"/designs/{number}"
    wide = {**blank, "card": {**blank["card"], "size": {"name": "Own", "width": 80, "height": 90}}}
    designer("PUT", path, {"document": wide, "revision": 1})
    (row,) = designer("GET", f"{path}/versions")[1]
    version = f"{path}/versions/{row['kept']}"
    first = designer("GET", f"{version}/summary")[1]
    assert first["picture"]["shapes"]
    assert first["closed"] != [80, 90]
    assert designer("GET", f"{version}/summary")[1] == first
    made = designer("POST", f"{version}/design")[1]["id"]
    document = designer("GET", f"/designs/{made}")[1]["document"]
    assert document["card"] == designer("GET", version)[1]["document"]["card"]
    assert document["name"].endswith("(version 1)")


@pytest.mark.parametrize(
    ("document", "where"),
    [({"version": 9}, "version"), ({"nonsense": 1}, ""), ({"pieces": []}, "")],
)
def test_a_wrong_document_is_refused_and_nothing_changes(
    designer: Api, blank: Data, document: Data, where: str
) -> None:
    number = make(designer, blank)
    status, problem = designer("PUT", f"/designs/{number}", {"document": document, "revision": 1})
    assert status == 422
    assert problem["where"] == where
    assert designer.last.headers["Content-Type"] == "application/problem+json"
    assert Design.objects.get().revision == 1


def test_rename_copy_template_bin_restore_delete(designer: Api, blank: Data) -> None:
    number = make(designer, blank)
    path = f"/designs/{number}"
    assert designer("PATCH", path, {"name": "Lamp"})[1]["name"] == "Lamp"
    assert designer("GET", path)[1]["document"]["name"] == "Lamp"
    copy = designer("POST", f"{path}/copy")[1]["id"]
    assert designer("GET", f"/designs/{copy}")[1]["document"]["name"] == "Lamp copy"
    assert designer("PATCH", path, {"template": True})[1]["template"] is True
    used = designer("POST", f"{path}/copy?from_template=true")[1]["id"]
    made = designer("POST", f"/designs/{used}/copy?as_template=true")[1]["id"]
    templates = [d["id"] for d in designer("GET", "/designs?templates=true")[1]]
    assert sorted(templates) == sorted([number, made])
    assert designer("GET", f"/designs/{used}")[1]["document"]["name"] == "Lamp"
    assert designer("GET", f"/designs/{used}/summary")[1]["size"] == blank["card"]["size"]["name"]
    designer("DELETE", f"/designs/{made}")
    assert designer("GET", f"/designs/{used}")[1]["document"]["name"] == "Lamp"
    assert designer("DELETE", path)[0] == 404  # only from the bin
    designer("PATCH", path, {"binned": True})
    assert number not in [d["id"] for d in designer("GET", "/designs")[1]]
    assert [d["id"] for d in designer("GET", "/designs?binned=true")[1]] == [number]
    designer("PATCH", path, {"binned": False})
    assert number in [d["id"] for d in designer("GET", "/designs")[1]]
    designer("PATCH", path, {"binned": True})
    assert designer("DELETE", path)[0] == 200
    assert designer("GET", path)[0] == 404


def test_everyone_sees_their_own_designs_only(designer: Api, other: Api, blank: Data) -> None:
    number = make(designer, blank)
    path = f"/designs/{number}"
    assert other("GET", "/designs")[1] == []
    for method, where, body in (
        ("GET", path, None),
        ("PUT", path, {"document": blank, "revision": 1}),
        ("PATCH", path, {"name": "mine"}),
        ("POST", f"{path}/copy", None),
        ("DELETE", path, None),
        ("GET", f"{path}/summary", None),
        ("GET", f"{path}/versions/1", None),
        ("GET", f"{path}/versions/1/summary", None),
        ("PATCH", f"{path}/versions/1", {"name": "mine"}),
        ("POST", f"{path}/versions/1/design", None),
    ):
        assert other(method, where, body)[0] == 404
    assert Design.objects.get().name == blank["name"]


def test_strangers_see_nothing(stranger: Api, blank: Data) -> None:
    for method, path, body in (
        ("GET", "/designs", None),
        ("POST", "/designs", {"document": blank}),
        ("GET", "/catalogue", None),
        ("POST", "/evaluate", {"document": blank, "piece": "base"}),
        ("POST", "/export", {"document": blank, "piece": "base", "format": "svg"}),
        ("GET", "/papers", None),
        ("GET", "/artworks", None),
        ("GET", "/artworks/1", None),
    ):
        status, problem = stranger(method, path, body)
        assert (status, problem["title"]) == (401, "You are not signed in.")


def test_no_change_without_the_pages_token(designer: Api, blank: Data) -> None:
    bare: Client = designer.client
    response = bare.post("/api/designs", {"document": blank}, content_type="application/json")
    assert response.status_code == 403
    foreign = bare.post(
        "/api/designs", {"document": blank}, content_type="application/json",
        headers={"x-csrftoken": designer.token, "origin": "http://elsewhere.example"},
    )  # fmt: skip
    assert foreign.status_code == 403
    assert Design.objects.count() == 0


def test_signing_in_and_out(stranger: Api, designer: Api, settings: Any) -> None:
    wrong = {"name": "designer", "password": "no"}
    status, problem = stranger("POST", "/session", wrong)
    assert (status, problem["title"]) == (422, "Name and password do not go together.")
    right = {"name": "designer", "password": "paper-and-ink"}
    assert stranger("POST", "/session", right)[1] == {
        "name": "designer",
        "demo": False,
        "sign_up": False,
        "place": settings.PLACE,
    }
    assert stranger("GET", "/designs")[0] == 200
    assert stranger("DELETE", "/session")[1]["name"] == ""
    assert stranger("GET", "/designs")[0] == 401


def test_the_demo_signs_its_visitor_in_until_they_leave(
    stranger: Api, settings: Any, blank: Data
) -> None:
    assert stranger("POST", "/session/demo")[0] == 422
    settings.DEMO = True
    assert stranger("GET", "/session")[1] == {
        "name": "demo",
        "demo": True,
        "sign_up": False,
        "place": settings.PLACE,
    }
    make(stranger, blank)
    stranger("DELETE", "/session")
    assert stranger("GET", "/session")[1]["name"] == ""
    assert stranger("POST", "/session/demo")[1]["name"] == "demo"


def test_pages_carry_a_policy_without_inline_script(client: Client, db: None) -> None:
    policy = client.get("/api/session").headers["Content-Security-Policy"]
    assert "script-src 'self'" in policy
    assert "unsafe-inline" not in policy
    assert client.get("/designs/1").headers["Content-Security-Policy"] == policy


def test_the_schema_stands_at_its_place(client: Client, db: None) -> None:
    schema = client.get("/api/openapi.json").json()
    assert "/api/designs/{number}" in schema["paths"]
