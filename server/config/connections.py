"""How long a connection may take, and how many an address may have: half-open requests leave room for others.

Behind a proxy all connections come from its address; there the proxy bounds them (docs/deploying.md).
"""

from __future__ import annotations

import time
from collections.abc import Mapping
from typing import Any

from waitress.channel import HTTPChannel
from waitress.server import TcpWSGIServer

HEAD_SECONDS = 20.0
"""From the first byte of a request to the end of its head."""
BODY_SECONDS = 30.0
SLOWEST = 16_000.0
"""Bytes of a body in a second, beyond ``BODY_SECONDS``."""
UNREAD_SECONDS = 60.0
"""For which an answer may lie without any of it being taken."""
MOST_OF_AN_ADDRESS = 120


class LimitedChannel(HTTPChannel):  # type: ignore[misc]
    """A connection that is closed where a request takes too long to come, or its answer to be taken."""

    most_of_an_address: int | None = MOST_OF_AN_ADDRESS
    will_close: bool

    def __init__(self, server: Any, sock: Any, addr: Any, adj: Any, map: Any = None) -> None:
        super().__init__(server, sock, addr, adj, map=map)
        self.request_began: float | None = None
        if self.most_of_an_address is not None:
            self._give_way(self.most_of_an_address)

    def _give_way(self, most: int) -> None:
        """Of an address that has more, the connections that have waited longest without a request give way."""
        same = [c for c in self.server.active_channels.values() if c.addr[0] == self.addr[0]]
        idle = sorted(
            (c for c in same if not c.requests and not c.will_close and c is not self),
            key=lambda c: float(c.last_activity),
        )
        for channel in idle[: max(0, len(same) - most)]:
            channel.will_close = True

    def received(self, data: bytes) -> Any:
        if self.request_began is None and data:
            self.request_began = time.monotonic()
        result = super().received(data)
        if self.request is None:
            self.request_began = None  # all of it is there
        return result

    def is_late(self) -> bool:
        if self.request_began is not None and self.request is not None:
            return time.monotonic() - self.request_began > self._seconds_allowed()
        return bool(self.total_outbufs_len) and time.time() - self.last_activity > UNREAD_SECONDS

    def _seconds_allowed(self) -> float:
        if not self.request.headers_finished:
            return HEAD_SECONDS
        length = float(getattr(self.request, "content_length", 0) or 0)
        return HEAD_SECONDS + BODY_SECONDS + length / SLOWEST

    def readable(self) -> bool:
        """Asked about every connection about once a second."""
        if not self.will_close and self.is_late():
            self.will_close = True
        return bool(super().readable())


def limit(servers: Mapping[int, Any], *, by_address: bool) -> None:
    """Have all servers in waitress's map accept connections with limits."""
    most = MOST_OF_AN_ADDRESS if by_address else None
    channel = type("Channel", (LimitedChannel,), {"most_of_an_address": most})
    for server in list(servers.values()):
        if isinstance(server, TcpWSGIServer):
            server.channel_class = channel
