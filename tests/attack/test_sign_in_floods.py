"""A flood of sign-ins: passwords are compared one at a time, what is too much is refused at once, and people who are signed in are
answered meanwhile."""

from __future__ import annotations

import threading
import time
from typing import Any

import pytest

from server.accounts import lane, routes
from server.accounts.lane import LaneFullError, PasswordLane, RateLimit
from tests.server.conftest import Api, designer, quick_passwords

__all__ = ["designer", "quick_passwords"]


def test_a_rate_is_counted_by_key_and_forgotten_after_its_time() -> None:
    """Three in ten seconds: the fourth is allowed as soon as the first is ten seconds old."""
    rate = RateLimit(3, 10.0)
    assert [rate.take("a", t) for t in (0, 1, 2, 3, 9.9)] == [True, True, True, False, False]
    assert rate.take("b", 3)
    assert rate.take("a", 10.0)
    assert not rate.take("a", 10.5)
    assert rate.take("a", 11.0)
    few = RateLimit(1, 10.0, keys=2)
    assert [few.take(key, 0) for key in ("a", "b", "c")] == [True, True, True]
    assert len(few._times) == 2


def test_one_password_is_compared_at_a_time_and_few_wait() -> None:
    own, at_once, most, refused, took = PasswordLane(1, 3), 0, 0, 0, []
    lock = threading.Lock()

    def visitor(number: int) -> None:
        nonlocal at_once, most, refused
        began = time.monotonic()
        try:
            with own.comparing(f"10.0.0.{number}"):
                with lock:
                    at_once += 1
                    most = max(most, at_once)
                time.sleep(0.1)
                with lock:
                    at_once -= 1
        except LaneFullError:
            with lock:
                refused += 1
                took.append(time.monotonic() - began)

    threads = [threading.Thread(target=visitor, args=(n,)) for n in range(40)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert most == 1
    assert refused >= 40 - 4 - 8
    assert max(took) < 0.1, "no thread waits for a place"


def test_an_address_is_refused_after_so_many_and_others_are_not() -> None:
    own = PasswordLane()
    for _ in range(lane.MOST_FROM_ADDRESS):
        with own.comparing("10.0.0.1"):
            pass
    with pytest.raises(LaneFullError), own.comparing("10.0.0.1"):
        pass
    with own.comparing("10.0.0.2"):
        pass


@pytest.mark.django_db
def test_a_full_lane_is_said_and_signed_in_people_are_answered(
    designer: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    full = PasswordLane(1, 0)
    monkeypatch.setattr(lane, "LANE", full)
    compared: list[Any] = []
    monkeypatch.setattr(routes, "authenticate", lambda *a, **k: compared.append(k))
    with full.comparing("10.0.0.9"):
        stranger = Api(None)
        status, said = stranger("POST", "/session", {"name": "somebody", "password": "x"})
        assert status == 429
        assert said["title"] == "Too many people are signing in at the moment."
        assert compared == []
        began = time.monotonic()
        assert designer("GET", "/designs")[0] == 200
        assert time.monotonic() - began < 2
    status, said = stranger("POST", "/session", {"name": "somebody", "password": "x"})
    assert (status, said["title"]) == (422, "Name and password do not go together.")
    assert len(compared) == 1


@pytest.mark.django_db
def test_a_design_named_many_times_is_taken_once(designer: Api) -> None:
    document = {"pieces": [{"steps": [{"kind": "blank"}]}]}
    number = designer("POST", "/designs", {"document": document})[1]["id"]
    many = {"designs": [number] * 200}
    status, answer = designer("POST", "/designs/several/files", many)
    assert status == 200
    assert len(designer.last.content) < 20_000
    assert designer("POST", "/designs/several/copy", many) == (200, {"count": 1})
    assert len(designer("GET", "/designs")[1]) == 2
