"""In the demo, visitors are signed in as the demo designer until they sign out."""

from __future__ import annotations

from collections.abc import Callable

from django.contrib.auth import login
from django.http import HttpRequest, HttpResponse

from server.accounts.people import demo_user, is_demo

SIGNED_OUT = "signed_out"


class DemoVisitor:
    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if is_demo() and self.is_stranger(request):
            login(request, demo_user(), "django.contrib.auth.backends.ModelBackend")
        return self.get_response(request)

    def is_stranger(self, request: HttpRequest) -> bool:
        """Neither signed in nor signed out by choice; files of the page do not count."""
        return not (
            request.path.startswith("/static/")
            or request.user.is_authenticated
            or request.session.get(SIGNED_OUT)
        )
