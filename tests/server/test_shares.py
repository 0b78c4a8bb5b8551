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
from server.jobs.tasks import TASKS, estimated_s

FIRST, SECOND, THIRD = 1, 2, 3


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
        (11, FIRST),
        (12, FIRST),
        (13, FIRST),
        (21, SECOND),
        (22, SECOND),
        (31, THIRD),
        (14, FIRST),
    ):
        shares.wait(number, owner)
    assert order(shares) == [11, 21, 31, 12, 22, 13, 14]
    assert shares.next() is None


def test_one_person_has_all_places_but_one() -> None:
    shares = Shares(2)
    for number in range(8):
        shares.wait(number, FIRST)
    assert order(shares, ended=False) == [0]
    shares.wait(20, SECOND)
    assert shares.next() == 20
    assert shares.next() is None
    shares.done(20)
    assert shares.next() is None, "the place is left for somebody else"
    shares.done(0)
    assert shares.next() == 1


def test_a_server_with_a_single_place_goes_on() -> None:
    shares = Shares(1)
    shares.wait(1, FIRST)
    shares.wait(2, FIRST)
    assert order(shares) == [1, 2]


def test_a_small_run_beside_eight_heavy_ones_of_somebody_else(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """The small one is done while the first of the heavy ones still runs, and each of these gets its place in the end."""
    runner, ended = Runner(), {}
    heavy = {pk: threading.Event() for pk in range(8)}

    def carry_out(self: Runner, number: int) -> None:
        if number in heavy:
            heavy[number].wait(10)
        ended[number] = time.monotonic()

    monkeypatch.setattr(running.Runner, "_carry_out", carry_out)

    def run(pk: int, owner: int) -> Any:
        return SimpleNamespace(pk=pk, owner_id=owner, task="cut", asked={}, sent=b"")

    for pk in heavy:
        runner.begin(run(pk, FIRST))
    began = time.monotonic()
    runner.begin(run(100, SECOND))
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


def test_of_ones_own_runs_the_cheapest_begins() -> None:
    shares = Shares(2)
    for number, cost in ((1, 1.0), (2, 60.0), (3, 5.0), (4, 0.5)):
        shares.wait(number, 7, cost)
    order = []
    for _ in range(4):
        number = shares.next()
        assert number is not None
        order.append(number)
        shares.done(number)
    assert order == [4, 1, 3, 2]


def test_a_dear_run_is_overtaken_three_times_at_most() -> None:
    shares = Shares(2)
    shares.wait(1, 7, 60.0)
    order = []
    for number in range(2, 9):
        shares.wait(number, 7, 1.0)
        begun = shares.next()
        assert begun is not None
        order.append(begun)
        shares.done(begun)
    assert order[:4] == [2, 3, 4, 1]


def test_what_a_run_is_thought_to_take() -> None:
    """A large file more than a small one, a worn blade more than a new one, many cards more than one."""
    assert all(estimated_s(task, {}, 0) > 0 for task in TASKS)
    small = estimated_s("cut", {}, 1000)
    assert (
        small
        < estimated_s("cut", {}, 1_000_000)
        < estimated_s("cut", {"conditions": {"worn": 1}}, 1_000_000)
    )
    one, many = ({"designs": [{"count": n}]} for n in (1, 200))
    assert estimated_s("lay", one, 0) < estimated_s("lay", many, 0)
