"""The pool of workers: limits, lanes, whoever is gone, whoever comes later."""

from __future__ import annotations

import os
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from server.computing.jobs import Answer
from server.computing.pool import Pool
from server.computing.worker import Limits, Problem

LIMITS = Limits(seconds=2.0, memory=300_000_000, grace=0.5)


@pytest.fixture(scope="module")
def pool() -> Iterator[Pool]:
    made = Pool(quick=1, slow=1, limits=LIMITS, more=("tests.attack.odd_jobs",))
    made.start()
    yield made
    made.end()


def who(pool: Pool, person: str = "b", about: str = "") -> int:
    answer = pool.run("who", person=person, about=about)
    assert isinstance(answer, Answer)
    return int(answer.content)


class Later(threading.Thread):
    """A job that runs beside the test."""

    def __init__(
        self, pool: Pool, *job: Any, person: str = "a", about: str = "", **more: Any
    ) -> None:
        super().__init__(daemon=True)
        self.result: Any = None
        self.work = lambda: pool.run(*job, person=person, about=about, **more)
        self.start()
        time.sleep(0.1)

    def run(self) -> None:
        self.result = self.work()

    def answer(self) -> Any:
        self.join(30)
        assert not self.is_alive()
        return self.result


def test_a_job_is_done_by_a_process_of_its_own_that_stays(pool: Pool) -> None:
    first = who(pool)
    assert first != os.getpid()
    assert who(pool) == first


def test_what_takes_too_long_is_refused_in_words_and_the_pool_goes_on(pool: Pool) -> None:
    answer = pool.run("spin", 60.0, person="a")
    assert isinstance(answer, Problem)
    assert (answer.status, answer.code) == (422, "too-much")
    assert who(pool)


def test_what_takes_too_much_memory_is_refused_in_words(pool: Pool) -> None:
    answer = pool.run("eat", 2000, person="a")
    assert isinstance(answer, Problem)
    assert answer.code == "too-much"
    assert isinstance(pool.run("eat", 20, person="a"), Answer)


def test_a_worker_that_is_full_of_what_it_remembers_is_not_the_jobs_fault(pool: Pool) -> None:
    before = pool.run("hoard", 200, person="a")
    after = pool.run("hoard", 200, person="a")
    assert isinstance(before, Answer)
    assert isinstance(after, Answer)
    assert before.content != after.content


def test_a_worker_that_hears_nothing_is_ended_and_its_step_not_tried_again(pool: Pool) -> None:
    before = time.monotonic()
    answer = pool.run("deaf", "the step's key", person="a")
    assert isinstance(answer, Problem)
    # 20 on a quiet machine: what is bounded is processor time
    assert time.monotonic() - before < 240
    assert pool._known()["the step's key"] == "time"


def test_a_worker_that_dies_is_replaced(pool: Pool) -> None:
    answer = pool.run("die", person="a")
    assert isinstance(answer, Problem)
    assert answer.code == "too-much"
    assert who(pool)


def test_others_do_not_wait_for_a_heavy_job(pool: Pool) -> None:
    heavy = [Later(pool, "spin", 1.6, person=f"a{n}", about=f"{n}") for n in range(3)]
    waits = []
    while any(h.is_alive() for h in heavy):
        before = time.monotonic()
        who(pool)
        waits.append(time.monotonic() - before)
        time.sleep(0.02)
    assert all(isinstance(h.answer(), Answer) for h in heavy)
    # each of the three may hold the quick lane until it is known to be slow, and no longer
    assert sorted(waits)[len(waits) // 2] < 1.0


def test_the_next_job_about_the_same_begins_with_the_worker_that_has_it(pool: Pool) -> None:
    slow = pool.run("spin", 1.0, person="a", about="lighthouse")
    assert isinstance(slow, Answer)
    mine = who(pool, "a", "lighthouse")
    assert mine != who(pool, "b", "whale")
    nice = Path(f"/proc/{mine}/stat").read_text().rsplit(")", 1)[1].split()[16]
    assert int(nice) == 10


def test_a_newer_request_about_the_same_ends_the_older(pool: Pool) -> None:
    older = Later(pool, "spin", 1.8, about="whale")
    newer = pool.run("spin", 0.01, person="a", about="whale")
    assert isinstance(newer, Answer)
    assert older.answer().code == "superseded"


def test_what_is_left_off_leaves_its_worker_to_the_newer_request_at_once(pool: Pool) -> None:
    """Between two checks: nobody waits for the rest of them, and what the worker remembers stays."""
    worker = who(pool, "a", "boat")
    older = Later(pool, "looks", 0.45, person="a", about="boat")
    before = time.monotonic()
    assert who(pool, "a", "boat") == worker  # it is no newer one of the same job
    assert time.monotonic() - before > 0.2
    assert isinstance(older.answer(), Answer)
    older = Later(pool, "looks", 0.45, person="a", about="boat")
    before = time.monotonic()
    assert isinstance(pool.run("looks", 0.01, person="a", about="boat"), Answer)
    assert time.monotonic() - before < 0.2
    assert older.answer().code == "superseded"
    assert who(pool, "a", "boat") == worker


def test_another_persons_request_ends_nothing(pool: Pool) -> None:
    mine = Later(pool, "spin", 0.3, about="whale")
    assert isinstance(pool.run("spin", 0.01, person="b", about="whale"), Answer)
    assert isinstance(mine.answer(), Answer)


def test_the_work_of_whoever_is_gone_is_ended(pool: Pool) -> None:
    gone = threading.Event()
    job = Later(pool, "spin", 1.9, about="shell", gone=gone.is_set)
    gone.set()
    before = time.monotonic()
    assert job.answer().code == "gone"
    assert time.monotonic() - before < 1.5


def test_ending_leaves_no_process() -> None:
    made = Pool(quick=1, slow=1, limits=LIMITS, more=("tests.attack.odd_jobs",))
    made.start()
    number = who(made)
    made.end()
    assert not Path(f"/proc/{number}").exists() or "Z" in Path(f"/proc/{number}/stat").read_text()
