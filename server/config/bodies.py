"""How large a request may be, by its route, and of how many things: told from its bytes, before
anything is made of them.

A body of JSON takes up to forty times its size when it is parsed, most of it for the things in it:
objects and lists. Path data, which most of a large design is, holds neither.
"""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.http.request import RawPostDataException, UnreadablePostError

from server.config.limits import DESIGN, FILE, MB, MOST_THINGS, PLAIN, SENT
from server.config.problems import problem
from stileblade.words import say

_BY_ROUTE = {
    "read-file": FILE,
    "cut-file": SENT,
    **dict.fromkeys(("session", "papers", "sizes", "jobs", "runs", "offcuts", "machines"), PLAIN),
}


def most_bytes(path: str) -> int:
    """Of a request's body at this path."""
    if not path.startswith("/api/"):
        return PLAIN
    return _BY_ROUTE.get(path.split("/", 3)[2], DESIGN)


def refusal(request: HttpRequest) -> HttpResponse | None:
    """The answer to a request that is too large or of too many things; None for all others."""
    try:
        length = int(request.META.get("CONTENT_LENGTH") or 0)
    except ValueError:
        return problem(400, "request", "The length of the request is no number.")
    most = most_bytes(request.path)
    if length > most:
        return problem(
            413,
            "too-large",
            say(
                "That is {length:.1f} MB; at most {most:g} MB are read.",
                length=length / MB,
                most=most // MB or most / MB,
            ),
            "Use simpler outlines, or fewer of them.",
        )
    if length <= MOST_THINGS or request.content_type != "application/json":
        return None  # too short for so many, or not JSON
    try:
        body = request.body
    except (UnreadablePostError, RawPostDataException):
        return problem(400, "request", "The request broke off.")
    if body.count(b"{") + body.count(b"[") > MOST_THINGS:
        return problem(
            413,
            "too-large",
            say("The request holds more than {most_things:,} things.", most_things=MOST_THINGS),
            "Use fewer pieces and steps.",
        )
    return None
