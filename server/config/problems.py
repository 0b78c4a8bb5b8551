"""Every error of the API as application/problem+json, in one place."""

from __future__ import annotations

import logging
import sys
from typing import Any

from django.core.exceptions import SuspiciousOperation
from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.http.multipartparser import MultiPartParserError
from django.http.request import RawPostDataException, UnreadablePostError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from server.computing.worker import Problem
from stileblade.errors import StilebladeError
from stileblade.words import say

logger = logging.getLogger(__name__)


class Conflict(StilebladeError):
    """Somebody saved a newer revision; ``revision`` is that one."""

    code = "conflict"

    def __init__(self, message: str, *, revision: int, kept: int, hint: str = "") -> None:
        super().__init__(message, hint=hint)
        self.revision, self.kept = revision, kept


class NotWorkedOut(Exception):
    """Raised where a job of the pool has no answer; ``problem`` says why."""

    def __init__(self, problem: Problem) -> None:
        super().__init__(problem.message)
        self.problem = problem


def of_job(found: Problem) -> HttpResponse:
    """A problem of a job as an answer."""
    fields = {"field": found.field, "where": found.where}
    return problem(found.status, found.code, found.message, found.hint, **fields)


def problem(status: int, code: str, title: str, hint: str = "", **more: Any) -> HttpResponse:
    said = {"title": say(title), "hint": say(hint)}
    data = {"type": f"stileblade:{code}", "status": status, **said, **more}
    return JsonResponse(data, status=status, content_type="application/problem+json")


def not_kept(error: Exception) -> HttpResponse:
    """The database cannot be read or written: a full disk, one that became read only, a lost file."""
    logger.error("the database cannot be used: %s", error)
    why = next(
        (said for mark, said in _FAULTS if mark in str(error)), "its database does not answer"
    )
    return problem(
        503,
        "not-kept",
        say("Nothing can be kept on the server now: {why}.", why=why),
        "What you do stays in this browser, and is saved as soon as that is mended.",
    )


_FAULTS = (
    ("full", "its disk is full"),
    ("readonly", "its disk is read only"),
    ("disk I/O", "its disk cannot be written"),
    ("locked", "too much is being saved at once"),
    ("malformed", "its database is broken"),
    ("not a database", "its database is broken"),
)


def server_error(request: HttpRequest) -> HttpResponse:
    """What is left over of all faults, outside the API's own routes as well."""
    error = sys.exc_info()[1]
    if isinstance(error, DatabaseError):
        return not_kept(error)
    return problem(500, "unexpected", "Something went wrong here.", "Nothing was lost; try again.")


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """A form, a header or a body that is none."""
    return problem(
        400, "request", say("The request cannot be read: {exception}", exception=exception)
    )


def install(api: NinjaAPI) -> None:
    @api.exception_handler(Conflict)
    def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return problem(
            409, error.code, error.message, error.hint, revision=error.revision, kept=error.kept
        )

    @api.exception_handler(NotWorkedOut)
    def not_worked_out(request: HttpRequest, error: NotWorkedOut) -> HttpResponse:
        return of_job(error.problem)

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

    @api.exception_handler(DatabaseError)
    def database(request: HttpRequest, error: DatabaseError) -> HttpResponse:
        return not_kept(error)

    @api.exception_handler(SuspiciousOperation)
    @api.exception_handler(MultiPartParserError)
    @api.exception_handler(UnreadablePostError)
    @api.exception_handler(RawPostDataException)
    def odd(request: HttpRequest, error: Exception) -> HttpResponse:
        return bad_request(request, error)

    @api.exception_handler(Exception)
    def unexpected(request: HttpRequest, error: Exception) -> HttpResponse:
        logger.exception("unexpected error at %s", request.path)
        return server_error(request)
