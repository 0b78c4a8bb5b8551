"""What one person may keep here: how much of it is used, what is said when it is nearly and quite full."""

from __future__ import annotations

import dataclasses
from typing import Any

import pytest
from django.apps import apps
from django.contrib.auth.models import User
from django.db.models import Model

from server.accounts.quotas import LEDGER, Quota, quotas, stored_bytes
from server.designs.models import Design, Revision
from server.jobs import actions as jobs
from server.jobs.models import Run
from tests.conftest import design_of
from tests.server.conftest import Api

Data = dict[str, Any]


@pytest.fixture(autouse=True)
def fresh() -> None:
    """People of one test have the numbers of another's."""
    LEDGER.forget()


@pytest.fixture
def blank() -> Data:
    return dict(design_of({"kind": "blank", "id": "a"}).model_dump(mode="json"))


def made(api: Api, data: Data) -> int:
    status, answer = api("POST", "/designs", {"document": data})
    assert status == 200, answer
    return int(answer["id"])


def reaches_a_person(model: type[Model], seen: frozenset[type[Model]] = frozenset()) -> bool:
    """Whether rows belong to a person, or to what belongs to one."""
    found = []
    for field in model._meta.get_fields():
        other = field.related_model if field.many_to_one or field.one_to_one else None
        if isinstance(other, type) and field.concrete and other not in seen:
            found.append(other is User or reaches_a_person(other, seen | {model}))
    return any(found)


OWN = [m for m in apps.get_models() if m.__module__.startswith("server.")]


@pytest.mark.parametrize("model", OWN, ids=lambda m: m.__name__)
def test_everything_that_belongs_to_somebody_has_a_quota(model: type[Model]) -> None:
    """And every field in it that can grow counts: texts without a bound, JSON, files."""
    assert reaches_a_person(model)
    quota = getattr(model, "quota", None)
    assert isinstance(quota, Quota)
    assert quota.content
    assert quota.most is None or quota.full
    if quota.most is None:  # bounded otherwise: see test_what_has_no_quota_of_its_own_is_bounded
        assert model.__name__ in {"Revision", "Run", "Kin"}


def set_most(monkeypatch: pytest.MonkeyPatch, model: type[Model], most: int) -> None:
    monkeypatch.setattr(model, "quota", dataclasses.replace(model.quota, most=most))  # type: ignore[attr-defined]


def test_a_full_quota_is_said_and_making_room_helps(
    designer: Api, blank: Data, monkeypatch: pytest.MonkeyPatch
) -> None:
    set_most(monkeypatch, Design, 2)
    first, _ = made(designer, blank), made(designer, blank)
    for way in (
        lambda: designer("POST", "/designs", {"document": blank}),
        lambda: designer("POST", f"/designs/{first}/copy"),
        lambda: designer("POST", "/designs/several/copy", {"designs": [first]}),
    ):
        status, problem = way()
        assert (status, problem["type"]) == (422, "stileblade:quota")
        assert problem["title"] == "You have 2 designs, the most that one person can keep here."
        assert "bin" in problem["hint"]
    # what is there can still be worked on
    assert designer("PATCH", f"/designs/{first}", {"name": "Other"})[0] == 200
    designer("PATCH", f"/designs/{first}", {"binned": True})
    assert designer("DELETE", f"/designs/{first}")[0] == 200
    made(designer, blank)


def test_another_person_has_a_quota_of_their_own(
    designer: Api, other: Api, blank: Data, monkeypatch: pytest.MonkeyPatch
) -> None:
    set_most(monkeypatch, Design, 1)
    made(designer, blank)
    made(other, blank)


def test_bytes_are_counted_with_versions_and_a_full_store_refuses(
    designer: Api, blank: Data, settings: Any
) -> None:
    number = made(designer, blank)
    size = len(Design.objects.get().document)
    settings.QUOTA_BYTES = 4 * size + size // 2
    path, revision = f"/designs/{number}", 1
    answers = []
    for count in range(6):
        body = {"document": {**blank, "name": f"n{count}"}, "revision": revision}
        status, answer = designer("PUT", path, body)
        answers.append(status)
        revision = answer.get("revision", revision)
    assert answers == [200] * 3 + [422] * 3
    assert answer["type"] == "stileblade:quota"
    assert Design.objects.get().revision == revision  # nothing half done
    assert stored_bytes(User.objects.get().pk) <= settings.QUOTA_BYTES
    designer("PATCH", path, {"binned": True})
    designer("DELETE", path)
    LEDGER.forget()  # as after two seconds
    made(designer, blank)


def test_room_that_was_made_counts_before_anything_is_refused(
    designer: Api, blank: Data, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("server.accounts.quotas._AGAIN", 0.0)
    number = made(designer, blank)
    settings.QUOTA_BYTES = len(Design.objects.get().document) + 10
    assert designer("POST", "/designs", {"document": blank})[0] == 422
    designer("PATCH", f"/designs/{number}", {"binned": True})
    designer("DELETE", f"/designs/{number}")
    made(designer, blank)


def test_the_account_says_what_is_used_and_what_is_nearly_full(
    designer: Api, stranger: Api, blank: Data, monkeypatch: pytest.MonkeyPatch
) -> None:
    set_most(monkeypatch, Design, 10)
    for _ in range(8):
        made(designer, blank)
    account = designer("GET", "/account")[1]
    use = {u["name"]: (u["used"], u["most"]) for u in account["use"]}
    assert (account["name"], use["designs"], account["nearly"]) == ("designer", (8, 10), [])
    assert use.keys() == {"bytes"} | {q.name for _, q in quotas() if q.most is not None}
    assert abs(use["bytes"][0] - 8 * len(Design.objects.first().document)) < 200  # type: ignore[union-attr]
    made(designer, blank)
    assert designer("GET", "/account")[1]["nearly"] == ["designs"]
    assert stranger("GET", "/account")[0] == 401


def test_what_has_no_quota_of_its_own_is_bounded(
    designer: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Versions are thinned (test_designs), families are small (test_kin), and so many runs wait."""
    monkeypatch.setattr(jobs.RUNNER, "begin", lambda run: None)
    monkeypatch.setattr(jobs, "MOST_WAITING", 3)
    user = User.objects.get()
    for _ in range(3):
        jobs.begin(user, "cut", {})
    with pytest.raises(jobs.QuotaExceeded, match="3 of your layouts and cuts are waiting"):
        jobs.begin(user, "cut", {})
    Run.objects.update(state=Run.State.DONE)
    jobs.begin(user, "cut", {})


def test_what_is_marked_needs_no_room(designer: Api, blank: Data, settings: Any) -> None:
    """Who is over the quota can rename nothing, but put into the bin and take out again."""
    number = made(designer, blank)
    settings.QUOTA_BYTES = 1
    assert designer("PATCH", f"/designs/{number}", {"binned": True})[0] == 200
    assert designer("GET", f"/designs/{number}")[0] == 200
    assert not Revision.objects.exists()
