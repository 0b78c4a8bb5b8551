"""Every error of the API as application/problem+json, in one place."""

from __future__ import annotations

import logging
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from stileblade.errors import StilebladeError

logger = logging.getLogger(__name__)


class Conflict(StilebladeError):
    """Somebody saved a newer revision; ``revision`` is that one."""

    code = "conflict"

    def __init__(self, message: str, *, revision: int, kept: int, hint: str = "") -> None:
        super().__init__(message, hint=hint)
        self.revision, self.kept = revision, kept


def problem(status: int, code: str, title: str, hint: str = "", **more: Any) -> HttpResponse:
    data = {"type": f"stileblade:{code}", "status": status, "title": title, "hint": hint, **more}
    return JsonResponse(data, status=status, content_type="application/problem+json")


def install(api: NinjaAPI) -> None:
    @api.exception_handler(Conflict)
    def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return problem(
            409, error.code, error.message, error.hint, revision=error.revision, kept=error.kept
        )

    @api.exception_handler(StilebladeError)
    def ours(request: HttpRequest, error: StilebladeError) -> HttpResponse:
        fields = {name: getattr(error, name, "") for name in ("field", "where")}
        return problem(422, error.code, error.message, error.hint, **fields)

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        first = error.errors[0] if error.errors else {}
        where = ".".join(str(p) for p in first.get("loc", [])[2:])
        return problem(422, "request", f"{where}: {first.get('msg', 'is wrong')}", where=where)

    @api.exception_handler(AuthenticationError)
    def unknown_visitor(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "sign-in", "You are not signed in.", "Sign in and try again.")

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "missing", "There is no such thing here, or it is not yours.")

    @api.exception_handler(HttpError)
    def http(request: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, "request", str(error))

    @api.exception_handler(Exception)
    def unexpected(request: HttpRequest, error: Exception) -> HttpResponse:
        logger.exception("unexpected error at %s", request.path)
        return problem(
            500, "unexpected", "Something went wrong here.", "Nothing was lost; try again."
        )
