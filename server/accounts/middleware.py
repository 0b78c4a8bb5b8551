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
        static = request.path.startswith("/static/")
        if is_demo() and not static and not request.user.is_authenticated:
            if not request.session.get(SIGNED_OUT):
                user = demo_user()
                login(request, user, "django.contrib.auth.backends.ModelBackend")
        return self.get_response(request)
