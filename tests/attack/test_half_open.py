"""Requests that are begun and never ended: they take no thread and, after a while, no place."""

from __future__ import annotations

import socket
import time
import urllib.request
from contextlib import ExitStack
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import pytest
from waitress.adjustments import Adjustments

from demo.running import Running
from server.config import connections
from server.config.connections import MOST_OF_AN_ADDRESS, LimitedChannel

HALF_OPEN = 400


def half_open(stack: ExitStack, address: str, number: int, source: str) -> socket.socket:
    """A head that ends in the middle, or a body that never comes."""
    host, port = address.removeprefix("http://").split(":")
    one = stack.enter_context(
        socket.create_connection((host, int(port)), timeout=10, source_address=(source, 0))
    )
    head = b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n"
    if number % 2:
        head = head.replace(b"GET", b"POST") + b"Content-Length: 1000\r\n\r\n{"
    one.sendall(head)
    return one


@pytest.mark.parametrize("source", ["127.0.0.1", "127.0.0.9"], ids=["of one's own", "another"])
def test_new_visitors_are_answered_beside_half_open_requests(tmp_path: Path, source: str) -> None:
    """150 of them were enough to keep new visitors out, from whatever address they came."""
    with Running(tmp_path) as running, ExitStack() as stack:
        opened = [half_open(stack, running.address, n, source) for n in range(HALF_OPEN)]
        began = time.monotonic()
        for path in ("/api/session", "/api/designs", "/api/artworks"):
            with urllib.request.urlopen(running.address + path, timeout=20) as answer:
                assert answer.status == 200
        assert time.monotonic() - began < 15
        # the oldest of them gave way
        opened[0].settimeout(10)
        assert opened[0].recv(100) == b""
        opened[-1].settimeout(0.2)
        with pytest.raises(TimeoutError):
            opened[-1].recv(100)


class FakeSocket:
    def getsockopt(self, *_: Any) -> int:
        return 65536

    def setblocking(self, _: Any) -> None: ...
    def fileno(self) -> int:
        return id(self) % 100_000

    def getpeername(self) -> None: ...
    def close(self) -> None: ...


@pytest.fixture
def clock(monkeypatch: pytest.MonkeyPatch) -> Any:
    now = SimpleNamespace(value=1000.0)
    fake = SimpleNamespace(monotonic=lambda: now.value, time=lambda: now.value)
    monkeypatch.setattr(connections, "time", fake)
    return now


@pytest.fixture
def server() -> Any:
    return SimpleNamespace(active_channels={}, add_task=lambda channel: None)


def channel(server: Any, address: str = "10.0.0.1") -> LimitedChannel:
    made = LimitedChannel(server, FakeSocket(), (address, 1), Adjustments(), map={})
    server.active_channels[id(made)] = made
    return made


@pytest.mark.parametrize(
    ("sent", "allowed"),
    [
        (b"GET / HTTP/1.1\r\nHost: here\r\n", 20),
        (b"POST / HTTP/1.1\r\nContent-Length: 100\r\n\r\n{", 50),
        (b"PUT / HTTP/1.1\r\nContent-Length: 16000000\r\n\r\n{", 1050),
    ],
    ids=["a head", "a small body", "a large body on a slow line"],
)
def test_a_request_has_so_long_to_come(
    server: Any, clock: Any, sent: bytes, allowed: float
) -> None:
    """However often a byte of it comes."""
    slow = channel(server)
    slow.received(sent)
    for _ in range(9):
        clock.value += allowed / 10
        slow.received(b"x" if b"\r\n\r\n" in sent else b"X")
        slow.last_activity = clock.value
        slow.readable()
        assert not slow.will_close
    clock.value += allowed / 10 + 2
    slow.readable()
    assert slow.will_close


def test_a_request_that_has_come_has_all_time(server: Any, clock: Any) -> None:
    """What is computed for it takes as long as it takes; between two requests the server's own time limit holds."""
    done = channel(server)
    done.received(b"GET / HTTP/1.1\r\nHost: here\r\n\r\n")
    clock.value += 3600
    done.last_activity = clock.value
    done.readable()
    assert not done.will_close
    assert len(done.requests) == 1


def test_an_answer_that_nobody_takes_is_given_up(server: Any, clock: Any) -> None:
    stalled = channel(server)
    stalled.received(b"GET / HTTP/1.1\r\nHost: here\r\n\r\n")
    stalled.total_outbufs_len, stalled.last_activity = 5_000_000, clock.value
    clock.value += 59
    stalled.readable()
    assert not stalled.will_close
    clock.value += 2
    stalled.readable()
    assert stalled.will_close


def test_an_address_with_too_many_connections_loses_its_idle_ones(server: Any, clock: Any) -> None:
    others = [channel(server, "10.0.0.2") for _ in range(5)]
    mine = []
    for number in range(MOST_OF_AN_ADDRESS + 10):
        mine.append(channel(server))
        mine[-1].last_activity = float(number)
        if number == 0:
            mine[0].received(b"GET / HTTP/1.1\r\nHost: here\r\n\r\n")  # is being answered
    closed = [n for n, c in enumerate(mine) if c.will_close]
    assert closed
    assert 0 not in closed
    assert closed == list(range(1, len(closed) + 1))
    assert not any(c.will_close for c in others)
