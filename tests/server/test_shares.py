"""Places for runs: each person has a share, and those who wait take turns."""

from __future__ import annotations

import threading
import time
from types import SimpleNamespace
from typing import Any

import pytest

from server.jobs import running
from server.jobs.running import Runner
from server.jobs.shares import Shares

ANNA, BEN, CARL = 1, 2, 3


def order(shares: Shares, *, ended: bool = True) -> list[int]:
    """The runs as they get places, each done before the next one is looked for."""
    found = []
    while (number := shares.next()) is not None:
        found.append(number)
        if ended:
            shares.done(number)
    return found


def test_those_who_wait_take_turns() -> None:
    """Of three people with five, two and one runs waiting, none waits for all five of the first."""
    shares = Shares(2)
    for number, owner in (
        (11, ANNA),
        (12, ANNA),
        (13, ANNA),
        (21, BEN),
        (22, BEN),
        (31, CARL),
        (14, ANNA),
    ):
        shares.wait(number, owner)
    assert order(shares) == [11, 21, 31, 12, 22, 13, 14]
    assert shares.next() is None


def test_one_person_has_all_places_but_one() -> None:
    shares = Shares(2)
    for number in range(8):
        shares.wait(number, ANNA)
    assert order(shares, ended=False) == [0]
    shares.wait(20, BEN)
    assert shares.next() == 20
    assert shares.next() is None
    shares.done(20)
    assert shares.next() is None, "the place is left for somebody else"
    shares.done(0)
    assert shares.next() == 1


def test_a_server_with_a_single_place_goes_on() -> None:
    shares = Shares(1)
    shares.wait(1, ANNA)
    shares.wait(2, ANNA)
    assert order(shares) == [1, 2]


def test_a_small_run_beside_eight_heavy_ones_of_somebody_else(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """Heavy ones of half a second each: the small one of another person is done while the first of them runs."""
    runner, ended = Runner(), {}
    heavy = {pk: threading.Event() for pk in range(8)}

    def do(self: Runner, number: int) -> None:
        if number in heavy:
            heavy[number].wait(10)
        ended[number] = time.monotonic()
        with self._lock:
            self._here.pop(number, None)
            self._shares.done(number)
            self._give_places()

    monkeypatch.setattr(running.Runner, "_do", do)
    run: Any = lambda pk, owner: SimpleNamespace(pk=pk, owner_id=owner)  # noqa: E731
    for pk in heavy:
        runner.begin(run(pk, ANNA))
    began = time.monotonic()
    runner.begin(run(100, BEN))
    while 100 not in ended and time.monotonic() - began < 3:
        time.sleep(0.01)
    assert 100 in ended
    assert ended.keys() == {100}
    for event in heavy.values():
        event.set()
    while len(ended) < 9 and time.monotonic() - began < 10:
        time.sleep(0.01)
    assert len(ended) == 9
    runner.end()
