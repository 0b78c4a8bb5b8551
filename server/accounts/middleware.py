"""In the demo, visitors are the demo designer until they sign out, without a session for each."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.contrib.auth.models import AnonymousUser
from django.http import HttpRequest, HttpResponse
from django.utils.functional import SimpleLazyObject

from server.accounts.people import demo_user, is_demo

SIGNED_OUT = "signed_out"


class DemoVisitor:
    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if is_demo():
            user = request.user
            # looked up by who asks for it: the page itself needs no database
            request.user = SimpleLazyObject(lambda: _visitor(request, user))  # type: ignore[assignment]
        return self.get_response(request)


def _visitor(request: HttpRequest, user: Any) -> Any:
    """Who is neither signed in nor signed out by choice is the demo designer."""
    stranger = not user.is_authenticated and not request.session.get(SIGNED_OUT)
    return demo_user() if stranger else user if user.is_authenticated else AnonymousUser()
