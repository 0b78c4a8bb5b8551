"""The API under /api/, and the one page of the front end everywhere else."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from server.config.api import api

_MISSING = (
    "<!doctype html><title>Stileblade</title><p>The front end is not built yet. "
    "Run <code>make build</code>."
)


@never_cache
@ensure_csrf_cookie
def index(request: HttpRequest) -> HttpResponse:
    page = settings.WEB_DIST / "index.html"
    if not page.is_file():
        return HttpResponse(_MISSING, status=503)
    return HttpResponse(page.read_bytes())


handler400 = "server.config.problems.bad_request"
handler500 = "server.config.problems.server_error"
urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", index),
]
