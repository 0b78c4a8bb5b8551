"""A worker: a process that does one job after the other, within an allowance of processor time and
memory, until the server lets go of it."""

from __future__ import annotations

import gc
import os
import resource
import signal
from contextlib import nullcontext
from dataclasses import dataclass, field
from importlib import import_module
from multiprocessing.connection import Connection
from types import FrameType
from typing import Any

from server.computing.jobs import CACHE, JOBS, Answer
from stileblade.errors import StilebladeError
from stileblade.process_limits import address_space
from stileblade.spending import Allowance, Left, OverSpent
from stileblade.unexpected import NOTHING_LOST, logger
from stileblade.words import speaking, spoken

LEAVE = signal.SIGUSR1
"""What tells a worker that nobody waits for what it does."""


@dataclass(frozen=True)
class Limits:
    """Of each job: seconds of processor time, bytes beyond what the libraries take. ``grace``: how
    much longer than its allowance a job may take that does not listen, inside a library."""

    seconds: float = 10.0
    memory: int = 1_000_000_000
    grace: float = 1.5


@dataclass(frozen=True)
class Order:
    """``refused``: keys of steps that took too much before, with what they took. ``language``: that of
    whoever asks."""

    job: str
    arguments: tuple[Any, ...]
    refused: dict[str, str] = field(default_factory=dict)
    language: str = field(default_factory=spoken)


@dataclass(frozen=True)
class Problem:
    """Why there is no answer; ``status`` as in HTTP."""

    status: int
    code: str
    message: str
    hint: str = ""
    field: str = ""
    where: str = ""


@dataclass(frozen=True)
class Done:
    """``over``: keys of steps that took too much, and of what. ``spent``: the worker is not to be used
    again; ``memory``: something in it had no room; ``left``: it was left off, since nobody waited."""

    result: Answer | Problem
    over: dict[str, str]
    spent: bool
    memory: bool
    left: bool = False


TOO_MUCH = Problem(
    422,
    "too-much",
    "That takes more time or memory than is given to one request.",
    "Switch off the step that was changed last, or take fewer copies and simpler outlines.",
)
_LEFT = Problem(409, "superseded", "Nobody waits for this any more.")
_SORRY = Problem(500, "unexpected", "Something went wrong here.", NOTHING_LOST)


def perform(order: Order, allowance: Allowance | None) -> tuple[Answer | Problem, str]:
    """The order's answer, and what it had not enough of: "time", "memory", or nothing."""
    try:
        with speaking(order.language), allowance.job() if allowance else nullcontext():
            return JOBS[order.job](*order.arguments), ""
    except (OverSpent, MemoryError) as much:
        logger.warning("the job %s took too much", order.job, exc_info=True)
        return TOO_MUCH, "memory" if isinstance(much, MemoryError) else "time"
    except Left:
        return _LEFT, ""
    except StilebladeError as error:
        return refused(error), ""
    except Exception:
        logger.exception("the job %s failed", order.job)
        return _SORRY, ""


def refused(error: StilebladeError) -> Problem:
    """An error of the core as a problem."""
    of = {name: str(getattr(error, name, "")) for name in ("field", "where")}
    return Problem(422, error.code, error.message, error.hint, **of)


def work(connection: Connection, limits: Limits, more: tuple[str, ...] = ()) -> None:
    """Takes orders until the connection ends; ``more`` are modules that add jobs of their own."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    doing: list[Allowance] = []

    def leave(number: int, frame: FrameType | None) -> None:
        for allowance in doing:
            allowance.wanted = False

    signal.signal(LEAVE, leave)
    for module in more:
        import_module(module)
    gc.freeze()
    _bound(limits.memory)
    while True:
        try:
            order: Order = connection.recv()
        except (EOFError, OSError):
            os._exit(0)
        over: dict[str, str] = {}
        for key, what in order.refused.items():
            CACHE.refuse(key, what)
        allowance = Allowance(
            limits.seconds,
            at=lambda key: connection.send(key),
            over=over.__setitem__,
        )
        doing.append(allowance)
        result, lacking = perform(order, allowance)
        doing.clear()
        memory = allowance.no_room or "memory" in (lacking, *over.values())
        try:
            spent = bool(lacking or over or memory)
            connection.send(Done(result, over, spent, memory, result is _LEFT))
        except (OSError, MemoryError):
            os._exit(1)


def _bound(memory: int) -> None:
    most = address_space() + memory
    resource.setrlimit(resource.RLIMIT_AS, (most, most))
