"""The language in which a request is answered: the one that was chosen in the browser (a cookie), or else
what the browser asks for. Django's own middleware finds it; the core is told."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.utils.translation import get_language

from stileblade.words import speaking


class Speaking:
    """Below Django's LocaleMiddleware."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        with speaking(get_language() or ""):
            return self.get_response(request)
