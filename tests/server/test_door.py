"""What is turned away before it is parsed, and what every answer carries."""

from __future__ import annotations

import base64
import json
from typing import Any

import pytest
from django.test import Client

from server.config.limits import DESIGN, MOST_THINGS, PLAIN
from server.designs.models import Design
from tests.server.conftest import Api

Data = dict[str, Any]
HEADERS = (
    "Content-Security-Policy",
    "X-Frame-Options",
    "X-Content-Type-Options",
    "Referrer-Policy",
)


@pytest.mark.parametrize(
    "path",
    ["/", "/designs/1", "/api/session", "/api/none", "/static/none.js", "/static/index.html"],
)
def test_every_answer_carries_the_headers(client: Client, db: None, path: str) -> None:
    answer = client.get(path)
    assert [h for h in HEADERS if h not in answer.headers] == []
    assert answer.headers["X-Frame-Options"] == "DENY"
    assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]


@pytest.mark.parametrize("path", ["/", "/api/designs", "/api/session", "/static/index.html"])
def test_a_name_that_the_server_was_not_told_is_not_answered(
    client: Client, db: None, path: str
) -> None:
    answer = client.get(path, headers={"host": "cards.example"})
    assert answer.status_code == 400
    assert answer.json()["type"] == "stileblade:host"
    assert client.get(path, headers={"host": "localhost:8123"}).status_code != 400


def test_a_body_that_is_too_large_for_its_route_is_not_parsed(designer: Api) -> None:
    status, problem = designer("POST", "/sizes", {"name": "x" * PLAIN})
    assert (status, problem["type"]) == (413, "stileblade:too-large")
    status, problem = designer("POST", "/designs", {"document": {"name": "x" * DESIGN}})
    assert status == 413
    assert "at most 24 MB are read" in problem["title"]


def test_nor_is_one_of_too_many_things(designer: Api) -> None:
    status, problem = designer("POST", "/designs", {"document": {"pieces": [[]] * MOST_THINGS}})
    assert status == 413
    assert "things" in problem["title"]
    status, _ = designer("POST", "/designs", {"document": {"pieces": [[]] * (MOST_THINGS // 2)}})
    assert status == 422


@pytest.mark.parametrize("revision", [-1, 2**31, 2**63, 1.5, "one", None])
def test_a_revision_that_is_none_is_refused(designer: Api, blank: Data, revision: Any) -> None:
    number = designer("POST", "/designs", {"document": blank})[1]["id"]
    body = {"document": blank, "revision": revision}
    assert designer("PUT", f"/designs/{number}", body)[0] == 422


@pytest.mark.parametrize("number", [-1, 0, 2**63, 2**200])
def test_a_number_that_is_none_is_missing(designer: Api, blank: Data, number: int) -> None:
    for method, path in (("GET", ""), ("DELETE", ""), ("POST", "/copy"), ("GET", "/versions/1")):
        assert designer(method, f"/designs/{number}{path}")[0] in (404, 405, 422)


ODD_FORMS = {
    "without a boundary": ("multipart/form-data", b"nothing"),
    "that breaks off": (
        "multipart/form-data; boundary=x",
        b"--x\r\nContent-Disposition: form-data",
    ),
    "of too many fields": (
        "multipart/form-data; boundary=x",
        b"".join(
            b'--x\r\nContent-Disposition: form-data; name="f%d"\r\n\r\n1\r\n' % n
            for n in range(3000)
        )
        + b"--x--\r\n",
    ),
    "of no known sort": ("text/odd", b"{}"),
    "empty": ("application/json", b""),
    "not JSON": ("application/json", b"{"),
    "no text": ("application/json", b"\xff\xfe\x00"),
    "too deep": ("application/json", b"[" * 100_000),
    "a number without end": ("application/json", b'{"document":' + b"9" * 90_000 + b"}"),
    "half a letter": ("application/json", b'{"document":{"name":"\\ud800"},"revision":1}'),
}


@pytest.mark.parametrize("name", ODD_FORMS)
@pytest.mark.parametrize("path", ["read-file", "designs", "evaluate", "session", "artworks"])
def test_a_request_that_cannot_be_read_is_refused_in_words(
    designer: Api, name: str, path: str
) -> None:
    kind, body = ODD_FORMS[name]
    answer = designer.client.generic(
        "POST", f"/api/{path}", body, content_type=kind, headers={"x-csrftoken": designer.token}
    )
    if name == "half a letter" and path == "designs":
        assert answer.status_code == 200
        return
    assert 400 <= answer.status_code < 500, answer.content
    assert answer.headers["Content-Type"] in (
        "application/problem+json",
        "text/html; charset=utf-8",
    )


CONTROL = "a\nb\x00c\x1b[31m\u202ed\ud800e"


def test_names_are_of_letters_alone(designer: Api, blank: Data) -> None:
    odd = json.loads(json.dumps({**blank, "name": CONTROL}))
    odd["pieces"][0]["name"] = CONTROL
    odd["papers"][0]["name"] = CONTROL
    number = designer("POST", "/designs", {"document": odd})[1]["id"]
    kept = designer("GET", f"/designs/{number}")[1]["document"]
    shown = "a b\ufffdc\ufffd[31m\ufffdd\ufffde"
    assert (kept["name"], kept["pieces"][0]["name"], kept["papers"][0]["name"]) == (shown,) * 3
    assert designer("PATCH", f"/designs/{number}", {"name": "b\r\nc"})[1]["name"] == "b  c"
    for form in ("svg", "dxf", "pdf"):
        wish = {"document": odd, "piece": "base", "format": form}
        assert designer("POST", "/export", wish)[0] == 200


def test_a_kept_document_with_such_a_name_is_read(designer: Api, blank: Data) -> None:
    number = designer("POST", "/designs", {"document": blank})[1]["id"]
    text = json.dumps({**blank, "name": "a\x07b"})
    Design.objects.filter(pk=number).update(document=text, summary_revision=0)
    assert designer("GET", "/designs")[0] == 200
    document = designer("GET", f"/designs/{number}")[1]["document"]
    wish = {"document": document, "piece": "base", "format": "svg"}
    assert designer("POST", "/export", wish)[0] == 200


def test_visitors_of_the_demo_leave_no_sessions(client: Client, db: None, settings: Any) -> None:
    from django.contrib.sessions.models import Session

    settings.DEMO = True
    for _ in range(5):
        assert Client().get("/api/designs").status_code == 200
    assert Session.objects.count() == 0


def test_too_many_wrong_passwords_have_to_wait(stranger: Api, designer: Api) -> None:
    wrong = {"name": "designer", "password": "no"}
    answers = [stranger("POST", "/session", wrong)[0] for _ in range(12)]
    assert answers[:7] == [422] * 7
    assert answers[8:] == [429] * 4
    right = {"name": "designer", "password": "paper-and-ink"}
    assert stranger("POST", "/session", right)[0] == 429
    assert designer("GET", "/designs")[0] == 200  # people who are signed in stay so


def test_the_session_is_renewed_at_sign_in(stranger: Api, designer: Api) -> None:
    stranger("DELETE", "/session")
    before = stranger.client.cookies["sessionid"].value
    stranger("POST", "/session", {"name": "designer", "password": "paper-and-ink"})
    assert stranger.client.cookies["sessionid"].value != before


def test_accounts_are_made_by_visitors_only_where_that_is_allowed(
    stranger: Api, settings: Any
) -> None:
    wish = {"name": "newcomer", "password": "paper-and-ink"}
    assert stranger("POST", "/accounts", wish)[0] == 422
    settings.SIGN_UP = True
    assert stranger("POST", "/accounts", {**wish, "password": "short"})[0] == 422
    assert stranger("POST", "/accounts", wish)[1]["name"] == "newcomer"
    assert stranger("GET", "/designs")[0] == 200
    assert stranger("POST", "/accounts", wish)[0] == 422


def test_drafts_are_sealed_with_a_key_of_the_persons_own(
    designer: Api, other: Api, stranger: Api
) -> None:
    keys = [api("GET", "/account/draft-key")[1]["key"] for api in (designer, designer, other)]
    assert keys[0] == keys[1] != keys[2]
    assert len(base64.b64decode(keys[0])) == 32
    assert stranger("GET", "/account/draft-key")[0] == 401
