"""How routes have something computed: in the pool where the server runs one, and otherwise at once,
in this process."""

from __future__ import annotations

import json
import os
import threading
from collections.abc import Callable
from typing import Any, TypeVar
from urllib.parse import quote

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase

from server.accounts.people import signed_in
from server.computing.jobs import Answer
from server.computing.pool import Pool
from server.computing.worker import Order, Problem, perform
from server.config.problems import NotWorkedOut, of_job
from stileblade.words import speaking

R = TypeVar("R", bound=HttpResponseBase)
_pool: Pool | None = None


def start_pool() -> Pool:
    """The server's pool: a worker less than there are cores, and as many for what is slow."""
    global _pool
    workers = max(1, (os.cpu_count() or 2) - 1)
    _pool = Pool(quick=workers, slow=workers)
    _pool.prepare()
    # the first worker is there when what it is parted from has imported everything: others go on
    threading.Thread(target=_pool.start, daemon=True).start()
    return _pool


def end_pool() -> None:
    global _pool
    if _pool is not None:
        _pool.end()
    _pool = None


def computed(
    job: str, *arguments: Any, person: str, about: str = "", gone: Callable[[], bool] | None = None
) -> Answer | Problem:
    if _pool is None:
        return perform(Order(job, arguments), None)[0]
    return _pool.run(job, *arguments, person=person, about=about, gone=gone or (lambda: False))


def worked_out(job: str, *arguments: Any, person: str) -> Any:
    """What a job finds, from its JSON. ``NotWorkedOut`` where it has no answer."""
    return json.loads(_content_of(job, *arguments, person=person))


_CATALOGUES: dict[str, bytes] = {}
"""By language: the catalogue, which stays the same as long as the server runs."""


def catalogue_in(language: str, person: str) -> bytes:
    """All that can be built, as JSON in a language. ``NotWorkedOut`` where the job has no answer."""
    if language not in _CATALOGUES:
        with speaking(language):
            _CATALOGUES[language] = _content_of("catalogue", person=person)
    return _CATALOGUES[language]


def _content_of(job: str, *arguments: Any, person: str) -> bytes:
    done = computed(job, *arguments, person=person)
    if isinstance(done, Problem):
        raise NotWorkedOut(done)
    return done.content


def answered(request: HttpRequest, job: str, wish: Any, *more: Any) -> HttpResponse:
    """A job for whoever is signed in, as the answer to a request. What it is about is said by the page
    (X-About: a design in a window), or for an evaluation is the design's name."""
    person = signed_in(request)
    about = request.headers.get("X-About", "")[:80]
    if not about and job == "evaluate":
        about = str(wish.document.get("name", ""))[:80]
    gone = request.META.get("waitress.client_disconnected")
    done = computed(job, wish, *more, person=str(person.pk), about=about, gone=gone)
    if isinstance(done, Problem):
        return of_job(done)
    response = HttpResponse(done.content, content_type=done.media_type)
    return named(response, done.name) if done.name else response


def named(response: R, name: str) -> R:
    """An answer that is saved as a file of that name."""
    plain = name.encode("ascii", "replace").decode().replace("?", "_")
    response["Content-Disposition"] = (
        f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(name)}"
    )
    return response
