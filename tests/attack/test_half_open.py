"""Requests that are begun and never ended: they take no thread and, after a while, no place."""

from __future__ import annotations

import socket
import time
import urllib.request
from contextlib import ExitStack
from pathlib import Path

from demo.running import Running

HALF_OPEN = 400


def test_new_visitors_are_answered_beside_half_open_requests(tmp_path: Path) -> None:
    """Heads that end in the middle, and bodies that never come; 150 of them were enough to keep new visitors out."""
    with Running(tmp_path) as running, ExitStack() as stack:
        host, port = running.address.removeprefix("http://").split(":")
        for number in range(HALF_OPEN):
            one = stack.enter_context(socket.create_connection((host, int(port)), timeout=10))
            head = b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n"
            if number % 2:
                head = head.replace(b"GET", b"POST") + b"Content-Length: 1000\r\n\r\n{"
            one.sendall(head)
        began = time.monotonic()
        for path in ("/api/session", "/api/designs", "/api/artworks"):
            with urllib.request.urlopen(running.address + path, timeout=20) as answer:
                assert answer.status == 200
        assert time.monotonic() - began < 6
