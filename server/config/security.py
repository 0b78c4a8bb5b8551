"""The door: every answer carries the headers, and what is asked is looked at before it is parsed.

Outermost of all middleware, so that files of the page pass through it as well.
"""

from __future__ import annotations

from collections.abc import Callable

from django.core.exceptions import DisallowedHost
from django.http import HttpRequest, HttpResponse

from server.config.bodies import refusal
from server.config.problems import problem

POLICY = "; ".join(
    (
        "default-src 'self'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' data: blob:",
        "font-src 'self' data:",
        "connect-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
    )
)
HEADERS = {
    "Content-Security-Policy": POLICY,
    "X-Frame-Options": "DENY",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


class Door:
    """Answers only to the names that the server was told (STILEBLADE_HOSTS), and reads no body that is
    too large for its route."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = _turned_away(request) or self.get_response(request)
        for name, value in HEADERS.items():
            response.headers.setdefault(name, value)
        return response


def _turned_away(request: HttpRequest) -> HttpResponse | None:
    try:
        request.get_host()
    except DisallowedHost:
        return problem(
            400,
            "host",
            "This server does not answer to that name.",
            "Use one of the names that it was started with (STILEBLADE_HOSTS).",
        )
    return refusal(request)
