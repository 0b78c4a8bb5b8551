"""Runs: looked at, stopped, their files; and offcuts."""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel

from server.accounts.people import signed_in
from server.computing.asking import named
from server.computing.wishes import Number
from server.jobs import actions
from server.jobs.models import Offcut, Run
from server.jobs.running import RUNNER, seen
from stileblade.views.said import Said

router = Router(tags=["jobs"])


class RunView(BaseModel):
    id: int
    task: str
    state: str
    share: float
    said: Said
    hint: Said
    result: dict[str, Any]
    file: str


class OffcutView(BaseModel):
    id: int
    name: str
    paper: str
    width: float
    height: float
    taken: list[str]


class OffcutWish(BaseModel):
    sheet: Number


class OffcutGone(BaseModel):
    gone: bool = True


def run_view(run: Run) -> RunView:
    # a layout is the job's when it is done, and need not be sent twice
    result = run.result if run.state == Run.State.DONE and run.task != "lay" else {}
    result = {name: value for name, value in result.items() if name != "meant"}
    return RunView(
        id=run.pk, task=run.task, state=run.state, share=run.share, said=run.said, hint=run.hint,
        result=result, file=run.content_name,
    )  # fmt: skip


@router.get("/runs/{number}", response=RunView)
def look_at_run(request: HttpRequest, number: Number) -> RunView:
    return run_view(seen(actions.own_run(signed_in(request), number)))


@router.post("/runs/{number}/stop", response=RunView)
def stop_run(request: HttpRequest, number: Number) -> RunView:
    """Ends a run: a layout with the best so far."""
    run = actions.own_run(signed_in(request), number)
    RUNNER.stop(run.pk)
    return run_view(run)


@router.get("/runs/{number}/file")
def run_file(request: HttpRequest, number: Number) -> HttpResponse:
    """What a run wrote."""
    run = actions.own_run(signed_in(request), number)
    if not run.content_name:
        raise Http404
    return named(HttpResponse(bytes(run.content), content_type=run.media_type), run.content_name)


def _offcut(row: Offcut) -> OffcutView:
    return OffcutView(
        id=row.pk, name=row.name, paper=row.paper, width=row.width, height=row.height,
        taken=row.taken,
    )  # fmt: skip


@router.get("/offcuts", response=list[OffcutView])
def list_offcuts(request: HttpRequest) -> list[OffcutView]:
    return [_offcut(row) for row in Offcut.objects.filter(owner=signed_in(request))]


@router.post("/jobs/{number}/offcuts", response=OffcutView)
def keep_offcut(request: HttpRequest, number: Number, wish: OffcutWish) -> OffcutView:
    """Keeps what a sheet leaves."""
    return _offcut(actions.keep_offcut(signed_in(request), number, wish.sheet))


@router.delete("/offcuts/{number}", response=OffcutGone)
def remove_offcut(request: HttpRequest, number: Number) -> OffcutGone:
    gone, _ = Offcut.objects.filter(owner=signed_in(request), pk=number).delete()
    if not gone:
        raise Http404
    return OffcutGone()
