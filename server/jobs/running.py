"""Runs: a few at a time, each in a process of its own, waited for by threads of the standard library's
executor. What is asked and what is found lie in the database; see docs/decisions/0014.

Where there are many machines, ``Runner.begin`` is the place at which another executor takes over: all that
a task needs is in the run's row.
"""

from __future__ import annotations

import multiprocessing
import threading
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from multiprocessing.connection import Connection
from typing import Any

from django.db import close_old_connections, connection

from server.jobs.keeping import taken_over
from server.jobs.models import Run
from server.jobs.shares import Shares
from server.jobs.tasks import Found, estimated_s, work
from stileblade.errors import StilebladeError
from stileblade.unexpected import logger

AT_ONCE = 2
LOOK = 0.2
MOST_BEGUN = 3
"""Times that a run is begun: one that ends the server each time is not begun for ever."""


class Runner:
    """Begins and ends runs; safe between threads."""

    def __init__(self) -> None:
        self._threads: ThreadPoolExecutor | None = None
        self._shares = Shares(AT_ONCE)
        self._here: dict[int, threading.Event] = {}
        self._lock = threading.Lock()
        self._over = threading.Event()

    def begin(self, run: Run) -> None:
        """Has a run done, if it is not being done here."""
        with self._lock:
            if run.pk in self._here or self._over.is_set():
                return
            self._here[run.pk] = threading.Event()
            if self._threads is None:
                self._threads = ThreadPoolExecutor(AT_ONCE, thread_name_prefix="run")
            self._shares.wait(run.pk, run.owner_id, estimated_s(run.task, run.asked, len(run.sent)))
            self._give_places()

    def _give_places(self) -> None:
        """Lets those begin whose turn it is; with the lock held."""
        while self._threads is not None and not self._over.is_set():
            number = self._shares.next()
            if number is None:
                return
            self._threads.submit(self._do, number)

    def stop(self, number: int) -> None:
        """Has a run end with the best so far, if it is going on here."""
        event = self._here.get(number)
        if event is not None:
            event.set()

    def is_here(self, number: int) -> bool:
        return number in self._here

    def end(self) -> None:
        """Ends all; runs that were going on are begun again when they are looked at."""
        self._over.set()
        for event in list(self._here.values()):
            event.set()
        if self._threads is not None:
            self._threads.shutdown(wait=True, cancel_futures=True)
        self._threads, self._here, self._shares = None, {}, Shares(AT_ONCE)
        self._over.clear()

    def _do(self, number: int) -> None:
        try:
            self._carry_out(number)
        except Exception:
            logger.exception("run %d was broken off", number)
        finally:
            connection.close()
            with self._lock:
                self._here.pop(number, None)
                self._shares.done(number)
                self._give_places()

    def _carry_out(self, number: int) -> None:
        close_old_connections()
        run = Run.objects.filter(pk=number).first()
        if run is not None and not self._over.is_set():
            self._run(run)

    def _run(self, run: Run) -> None:
        # by its number alone: its job, and it with that, may be gone before it ends
        row = Run.objects.filter(pk=run.pk).exclude(state=Run.State.REPLACED)
        if not row.update(state=Run.State.RUNNING, begun=run.begun + 1):
            return  # begun anew before it had its turn
        found = self._found(run)
        if found is None or not row.exists():
            return  # the server ends, and it stays as it is; or another has taken its place
        if "said" in found:
            row.update(
                state=Run.State.FAILED, said=found["said"][:300], hint=found["hint"][:300]
            )  # fmt: skip
            return
        # before it is done: whoever waits for that looks at the job next
        try:
            taken_over(run, found.get("result", {}))
        except StilebladeError as error:  # no room for it
            row.update(state=Run.State.FAILED, said=error.message[:300], hint=error.hint[:300])
            return
        row.update(
            state=Run.State.DONE,
            share=1.0,
            said="",
            result=found.get("result", {}),
            content=found.get("content", b""),
            content_name=found.get("name", "")[:200],
            media_type=found.get("media_type", ""),
        )

    def _found(self, run: Run) -> Found | None:
        context = multiprocessing.get_context("forkserver")
        here, there = context.Pipe()
        child = context.Process(
            target=work, args=(there, run.task, run.asked, bytes(run.sent)), daemon=True
        )
        child.start()
        there.close()
        stopped = self._here[run.pk]
        try:
            return self._waited(run, here, child, stopped)
        finally:
            here.close()
            child.kill()
            child.join(5)

    def _waited(
        self, run: Run, here: Connection, child: Any, stopped: threading.Event
    ) -> Found | None:
        asked = False
        while True:
            if self._over.is_set():
                return None
            if stopped.is_set() and not asked:
                asked = True
                if run.task != "lay":
                    return {"said": "It was stopped.", "hint": ""}
                with suppress(OSError):
                    here.send("stop")
            if not here.poll(LOOK):
                continue
            try:
                got = here.recv()
            except EOFError:
                return {
                    "said": "That takes more time than is given to one run.",
                    "hint": "Make it in several parts.",
                }
            if isinstance(got, dict):
                return got
            share, said = got
            Run.objects.filter(pk=run.pk).update(share=share, said=said[:300])


RUNNER = Runner()
"""The server's own."""


def seen(run: Run) -> Run:
    """A run as somebody looks at it: one that an end of the server broke off is begun again."""
    if run.state in (Run.State.WAITING, Run.State.RUNNING) and not RUNNER.is_here(run.pk):
        run.refresh_from_db()
        if run.state not in (Run.State.WAITING, Run.State.RUNNING):
            return run
        if run.begun >= MOST_BEGUN:
            run.state, run.said = Run.State.FAILED, "It was broken off each time."
            run.hint = "Make the job smaller, and lay it out again."
            run.save()
        else:
            RUNNER.begin(run)
    return run
