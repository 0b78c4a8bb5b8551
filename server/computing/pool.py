"""The pool: bounded worker processes in two lanes, so that one person's heavy card is not waited for
by others. See docs/decisions/0011.

A job begins in the quick lane. When it has taken ``SLOW`` seconds there, its worker goes to the slow
lane, at a lower priority, and a new one takes its place; where the slow lane is full, the job is ended
and waits for a place there. The next job about the same thing begins where the last one ended, with
the worker that did it, and what that has computed.
"""

from __future__ import annotations

import multiprocessing
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from itertools import count
from multiprocessing import forkserver
from multiprocessing.connection import wait
from typing import Any

from cachetools import LRUCache

from server.computing.hands import Worker, to_slow_lane
from server.computing.jobs import Answer
from server.computing.worker import TOO_MUCH, Done, Limits, Order, Problem, work
from stileblade.outlines.reading.child import PRELOADED

PRELOAD = ["server.computing.worker", "server.computing.warm", "server.jobs.tasks", PRELOADED]
"""What is imported once, by the process that workers are parted from."""
SLOW = 0.5
"""Seconds after which a job is a slow one."""
LOOK = 0.05
MOST_EACH = 6
"""Jobs of one person that wait or run; more end the oldest."""
MOST_WAIT = 30.0
MOST_TRIES = 5
"""In the quick lane, in the slow one, in a fresh worker, and for two steps that are given up."""

SUPERSEDED = Problem(409, "superseded", "A newer request took the place of this one.")
GONE = Problem(499, "gone", "Nobody waits for this any more.")
BUSY = Problem(
    503,
    "busy",
    "Too much is being computed at the moment.",
    "Your work is kept; it is tried again before long.",
)


@dataclass(eq=False)
class Ticket:
    """A job that waits or runs: ``ended`` says why it shall not go on."""

    number: int
    person: str
    about: tuple[str, str]
    job: str
    slow: bool
    running: bool = False
    worker: Worker | None = None
    ended: Problem | None = None

    def end(self, why: Problem) -> None:
        """It shall not go on: whoever does it leaves off."""
        self.ended = why
        if self.worker is not None:
            self.worker.leave()


class Pool:
    """``run`` does one job and returns its answer. Safe between threads; ``end`` ends all workers."""

    def __init__(
        self, *, quick: int, slow: int, limits: Limits | None = None, more: tuple[str, ...] = ()
    ) -> None:
        """Workers of the quick lane and of the slow one; ``more`` are modules with further jobs."""
        self.more = more
        self.most = {False: quick, True: slow}
        self.limits = limits or Limits()
        self._context = multiprocessing.get_context("forkserver")
        self._context.set_forkserver_preload(PRELOAD)
        self._free = threading.Condition()
        self._workers: list[Worker] = []
        self._tickets: list[Ticket] = []
        self._numbers = count()
        self._lanes: LRUCache[tuple[str, str], bool] = LRUCache(2000)
        self._refused: LRUCache[str, str] = LRUCache(200)
        self._over = False

    def prepare(self) -> None:
        """Starts what workers are parted from. OSError where there is no room for its socket."""
        forkserver.ensure_running()

    def start(self) -> None:
        """Workers of the quick lane, before the first request."""
        with self._free:
            self._fill()

    def end(self) -> None:
        with self._free:
            self._over = True
            workers, self._workers = self._workers, []
            self._free.notify_all()
        for worker in workers:
            worker.end()

    def run(
        self,
        job: str,
        *arguments: Any,
        person: str,
        about: str = "",
        gone: Callable[[], bool] = lambda: False,
    ) -> Answer | Problem:
        """The job's answer. ``about``: what it is about; a newer request of the person for the same job
        about the same ends an older one. ``gone`` says when nobody waits for it any more."""
        ticket = self._enter(job, person, about)
        try:
            for _ in range(MOST_TRIES):
                worker = self._worker_for(ticket, gone)
                if worker is None:
                    return ticket.ended or BUSY
                result = self._on(worker, ticket, Order(job, arguments, self._known()), gone)
                if result is not None:
                    return result
            return TOO_MUCH
        finally:
            with self._free:
                self._tickets.remove(ticket)
                self._free.notify_all()

    def _known(self) -> dict[str, str]:
        with self._free:
            return dict(self._refused.items())

    def _enter(self, job: str, person: str, about: str) -> Ticket:
        with self._free:
            key = (person, about)
            ticket = Ticket(next(self._numbers), person, key, job, self._begins_slow(key))
            mine = [t for t in self._tickets if t.person == person and t.ended is None]
            older = [t for t in mine if about and t.about == key and t.job == job]
            for old in older or mine[: max(0, len(mine) - MOST_EACH + 1)]:
                old.end(SUPERSEDED)
            self._tickets.append(ticket)
            self._free.notify_all()
            return ticket

    def _begins_slow(self, key: tuple[str, str]) -> bool:
        """Where the last job about it took long, or where a worker that knows it is idle there."""
        known = any(w.slow and not w.busy and w.about == key for w in self._workers)
        return known or self._lanes.get(key, False)

    def _worker_for(self, ticket: Ticket, gone: Callable[[], bool]) -> Worker | None:
        """An idle worker of the ticket's lane, when it is the ticket's turn; None when it is ended."""
        until = time.monotonic() + MOST_WAIT
        with self._free:
            ticket.running = False
            while True:
                if ticket.ended or self._over:
                    return None
                worker = self._idle(ticket)
                if worker is not None:
                    worker.busy, worker.about, ticket.running = True, ticket.about, True
                    worker.jobs += 1
                    ticket.worker = worker
                    return worker
                if time.monotonic() > until:
                    return None
                self._free.wait(LOOK * 2)
                if gone():
                    ticket.ended = GONE

    def _idle(self, ticket: Ticket) -> Worker | None:
        if ticket.slow and not self._begins_slow(ticket.about):
            ticket.slow = False  # it is not slow itself, and its worker has been taken meanwhile
        lane = ticket.slow
        waiting = [t for t in self._tickets if not t.running and t.ended is None and t.slow is lane]
        running = [t.person for t in self._tickets if t.running]
        # whoever has the fewest running comes first, then who came first
        first = min(waiting, key=lambda t: (running.count(t.person), t.number), default=None)
        if first is not ticket:
            return None
        self._fill()
        of = [w for w in self._workers if w.slow is lane]
        idle = [w for w in of if not w.busy]
        if not idle and len(of) < self.most[lane]:
            idle = [self._new(slow=lane)]
        known = [w for w in idle if w.about == ticket.about]
        return min(known or idle, key=lambda w: w.since, default=None)

    def _fill(self) -> None:
        """Dead workers go; the quick lane has as many as it may have."""
        for worker in [w for w in self._workers if not w.busy and not w.process.is_alive()]:
            self._workers.remove(worker)
        while not self._over and sum(not w.slow for w in self._workers) < self.most[False]:
            self._new(slow=False)

    def _new(self, *, slow: bool) -> Worker:
        here, there = self._context.Pipe()
        process = self._context.Process(
            target=work, args=(there, self.limits, self.more), daemon=True
        )
        process.start()
        there.close()
        worker = Worker(process, here)
        if slow:
            to_slow_lane(worker)
        self._workers.append(worker)
        return worker

    def _on(
        self, worker: Worker, ticket: Ticket, order: Order, gone: Callable[[], bool]
    ) -> Answer | Problem | None:
        """The job done on the worker; None where it has to begin once more."""
        spent, began, step = worker.seconds(), time.monotonic(), ""
        try:
            worker.connection.send(order)
            while True:
                if wait([worker.connection], LOOK):
                    said = worker.connection.recv()
                    if isinstance(said, Done):
                        return self._done(worker, ticket, said, time.monotonic() - began)
                    step = said
                    continue
                took = worker.seconds() - spent
                if ticket.ended is None and gone():
                    ticket.end(GONE)
                if ticket.ended and time.monotonic() - began > SLOW:
                    return self._let_go(worker, ticket.ended)
                if took > self.limits.seconds + self.limits.grace:
                    return self._too_much(worker, step, "time")
                if took > SLOW and not worker.slow and not self._moved(worker, ticket):
                    return self._let_go(worker, None)
        except (EOFError, OSError):  # it was ended, or ended itself: memory, a fault in a library
            return self._too_much(worker, step, "memory")

    def _done(
        self, worker: Worker, ticket: Ticket, done: Done, took: float
    ) -> Answer | Problem | None:
        if worker.jobs > 1 and done.memory:  # a fresh one has more room
            return self._let_go(worker, ticket.ended)
        with self._free:
            ticket.worker = None
            self._refused.update(done.over)
            self._lanes[ticket.about] = worker.slow and took > SLOW
            worker.busy, worker.since = False, time.monotonic()
            self._free.notify_all()
        if done.spent:
            self._let_go(worker, None)
        return ticket.ended or (None if done.left else done.result)

    def _moved(self, worker: Worker, ticket: Ticket) -> bool:
        """Whether there is a place for it in the slow lane."""
        with self._free:
            ticket.slow = self._lanes[ticket.about] = True
            of = [w for w in self._workers if w.slow]
            idle = min((w for w in of if not w.busy), key=lambda w: w.since, default=None)
            if len(of) >= self.most[True]:
                if idle is None:
                    return False
                self._workers.remove(idle)
                idle.end()
            to_slow_lane(worker)
            self._fill()
            self._free.notify_all()
            return True

    def _let_go(self, worker: Worker, why: Problem | None) -> Problem | None:
        worker.end()
        with self._free:
            for ticket in self._tickets:
                if ticket.worker is worker:
                    ticket.worker = None
            if worker in self._workers:
                self._workers.remove(worker)
            self._fill()
            self._free.notify_all()
        return why

    def _too_much(self, worker: Worker, step: str, what: str) -> Problem | None:
        """Ended from outside: the step that it was at is not tried again; without one, nothing is."""
        if self._over:
            return BUSY
        self._let_go(worker, None)
        if what == "memory" and worker.jobs > 1:
            return None
        if not step:
            return TOO_MUCH
        with self._free:
            self._refused[step] = what
        return None
