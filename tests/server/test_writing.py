"""Writes are made one at a time, in the order in which they were asked for, and synced together."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from pathlib import Path

import pytest
from django.contrib.auth.models import User
from django.db import connection, transaction
from django.db.utils import OperationalError

from server.designs.models import Design
from server.sqlite.base import Writing
from server.sqlite.log_sync import LogSync
from server.sqlite.write_queue import WriteQueue

WAIT = 20.0


def test_turns_come_in_the_order_in_which_they_were_asked_for() -> None:
    queue, order, threads = WriteQueue(), [], []
    assert queue.acquire(WAIT)

    def write(number: int) -> None:
        assert queue.acquire(WAIT)
        order.append(number)
        queue.release()

    for number in range(20):
        threads.append(threading.Thread(target=write, args=(number,)))
        threads[-1].start()
        while len(queue._waiting) <= number:
            time.sleep(0.001)
    queue.release()
    for thread in threads:
        thread.join()
    assert order == list(range(20))
    assert queue.acquire(0)


def test_one_that_gave_up_waiting_gets_no_turn() -> None:
    queue = WriteQueue()
    assert queue.acquire(WAIT)
    assert not queue.acquire(0.01)
    queue.release()
    assert queue.acquire(0)


class SlowSync(LogSync):
    """Each sync takes a tenth of a second; ``failing`` ones fail."""

    failing = False

    def _written_through(self) -> None:
        time.sleep(0.1)
        if self.failing:
            raise OSError(28, "No space left on device")


def test_all_that_wait_are_served_by_one_sync(tmp_path: Path) -> None:
    log = SlowSync(tmp_path / "database")
    threads = [threading.Thread(target=log.wait) for _ in range(30)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert 2 <= log.count <= 3  # that of the first, and one that began after all others had come


def test_a_sync_that_fails_is_told_to_those_it_was_for_and_to_nobody_after(tmp_path: Path) -> None:
    log = SlowSync(tmp_path / "database")
    log.failing = True
    with pytest.raises(OSError, match="No space"):
        log.wait()
    log.failing = False
    log.wait()


WRITES: dict[str, Callable[[User], object]] = {
    "create": lambda user: Design.objects.create(owner=user, name="card", document="{}"),
    "update": lambda user: Design.objects.filter(owner=user).update(name="other"),
    "save": lambda user: user.save(),
    "delete": lambda user: Design.objects.filter(owner=user).delete(),
    "bulk": lambda user: Design.objects.bulk_create([Design(owner=user, name="b", document="{}")]),
    "transaction": lambda user: _in_transaction(user),
    "statement": lambda user: _statement("DELETE FROM designs_design"),
    "with": lambda user: _statement(
        "WITH a AS (SELECT 1) DELETE FROM designs_design WHERE id IN a"
    ),
    "many": lambda user: _many(),
}


def _in_transaction(user: User) -> None:
    with transaction.atomic():
        Design.objects.filter(owner=user).update(name="other")


def _statement(text: str) -> None:
    with connection.cursor() as cursor:
        cursor.execute(text)


def _many() -> None:
    with connection.cursor() as cursor:
        cursor.executemany("DELETE FROM designs_design WHERE id = %s", [(1,), (2,)])


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("write", WRITES)
def test_every_write_waits_for_its_turn(write: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """Whatever Django has for writing: none goes past the queue, and reads do not wait in it."""
    user = User.objects.create_user("designer")
    Design.objects.create(owner=user, name="card", document="{}")
    queue = Writing.of(str(connection.settings_dict["NAME"])).queue
    monkeypatch.setitem(connection.settings_dict["OPTIONS"], "timeout", 0.05)
    assert queue.acquire(1)
    try:
        with pytest.raises(OperationalError, match="locked"):
            WRITES[write](user)
        assert Design.objects.get().name == "card"
    finally:
        queue.release()
    WRITES[write](user)
    assert queue.acquire(0)
    queue.release()


@pytest.mark.django_db(transaction=True)
def test_a_transaction_that_fails_passes_its_turn_on() -> None:
    queue = Writing.of(str(connection.settings_dict["NAME"])).queue

    def fail() -> None:
        with transaction.atomic():
            User.objects.create_user("designer")
            raise RuntimeError

    with pytest.raises(RuntimeError):
        fail()
    assert queue.acquire(0)
    queue.release()
    assert not User.objects.exists()
