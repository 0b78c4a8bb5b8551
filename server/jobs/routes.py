"""Jobs, their sheets, runs, offcuts, and the cutter."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja import File, Form, Router
from ninja.files import UploadedFile
from pydantic import BaseModel, Field

from server.accounts.people import signed_in
from server.computing.drawings import Move
from server.computing.wishes import Number
from server.jobs import actions
from server.jobs.actions import JobDesign
from server.jobs.models import Job, Run
from server.jobs.run_routes import RunView, run_view
from stileblade.cutter.turned_out import Conditions
from stileblade.errors import DocumentError
from stileblade.fields import PlainText, plain
from stileblade.machine.machine import Machine
from stileblade.sheets.job import JobOptions
from stileblade.sheets.kept import KeptJob
from stileblade.sheets.moving import Nearness
from stileblade.views.said import Said
from stileblade.words import say

router = Router(tags=["jobs"])
Name = Annotated[PlainText, Field(min_length=1, max_length=120)]
FormatName = Literal["svg", "dxf", "pdf", "hpgl", "gcode"]
CutFormat = Literal["svg", "dxf", "hpgl", "gcode"]


class MachineEntry(BaseModel):
    name: str
    title: Said
    own: bool


class JobEntry(BaseModel):
    id: int
    name: str
    designs: list[JobDesign]
    sheets: int
    turned_over: list[int]
    """Numbers, from 0, of the sheets that have a second set-up."""
    modified: datetime
    changed: list[str]


class OpenJob(BaseModel):
    """``changed`` names the designs that changed since the job was laid out; ``running`` is the layout
    that is going on."""

    id: int
    name: str
    designs: list[JobDesign]
    options: JobOptions
    machine: str
    offcuts: list[int]
    layout: KeptJob | None
    revision: int
    changed: list[str]
    running: int | None
    sheets_before: int | None
    """Of the layout before, for which this one can be given up."""


class NewJob(BaseModel):
    name: Name
    designs: list[JobDesign] = Field([], max_length=200)


class JobChange(BaseModel):
    name: Name | None = None
    designs: list[JobDesign] | None = Field(None, max_length=200)
    options: JobOptions | None = None
    machine: str | None = Field(None, max_length=40)
    offcuts: list[Number] | None = Field(None, max_length=50)


class FilesWish(BaseModel):
    format: FormatName
    each_pass: bool = False
    page: Literal["own", "a4", "letter", "a3"] = "own"
    sheet: Number | None = None


class CutWish(BaseModel):
    sheet: Number
    inside: bool = False
    format: CutFormat = "hpgl"
    conditions: Conditions = Conditions()
    of_run: Number | None = None
    """A run that cut the same file before: only the conditions are others."""


class FileWish(BaseModel):
    """What goes with a file for the cutter: the machine and, where it is to be compared, a job's sheet, from 0, as it
    lies inside up or outside up."""

    machine: str = "plotter"
    job: Number | None = None
    sheet: Number = 0
    inside: bool = False


class SheetWish(BaseModel):
    sheet: Number


class SpoiledPiece(BaseModel):
    """A piece of a sheet, by its number there; ``card`` for all pieces of its card."""

    sheet: Number
    index: Number
    card: bool = False


class Gone(BaseModel):
    gone: bool = True


def _entry(job: Job) -> JobEntry:
    return JobEntry(
        id=job.pk,
        name=job.name,
        designs=actions.designs_of(job),
        sheets=len(job.layout.get("sheets", [])),
        turned_over=[i for i, s in enumerate(job.layout.get("sheets", [])) if s.get("holes")],
        modified=job.modified,
        changed=actions.changed_since(job),
    )


def _open(job: Job) -> OpenJob:
    running = Run.objects.filter(job=job, task="lay", state__in=("waiting", "running")).first()
    return OpenJob(
        id=job.pk,
        name=job.name,
        designs=actions.designs_of(job),
        options=JobOptions.model_validate(job.options),
        machine=job.machine,
        offcuts=job.offcuts,
        layout=KeptJob.model_validate(job.layout) if job.layout else None,
        revision=job.revision,
        changed=actions.changed_since(job),
        running=running.pk if running else None,
        sheets_before=len(job.before["layout"]["sheets"]) if job.before else None,
    )


@router.get("/machines", response=list[MachineEntry])
def machines(request: HttpRequest) -> list[MachineEntry]:
    """Those that come with the application, and one's own."""
    user = signed_in(request)
    own = {machine.name for machine in actions.own_machines(user)}
    found = actions.machines_of(user)
    return [MachineEntry(name=m.name, title=m.title, own=m.name in own) for m in found]


@router.post("/machines", response=Machine)
def keep_machine(request: HttpRequest, machine: Machine) -> Machine:
    return actions.keep_machine(signed_in(request), machine)


@router.delete("/machines/{name}", response=Gone)
def remove_machine(request: HttpRequest, name: str) -> Gone:
    actions.remove_machine(signed_in(request), name)
    return Gone()


@router.get("/jobs", response=list[JobEntry])
def list_jobs(request: HttpRequest) -> list[JobEntry]:
    return [_entry(job) for job in Job.objects.filter(owner=signed_in(request))]


@router.post("/jobs", response=OpenJob)
def create_job(request: HttpRequest, new: NewJob) -> OpenJob:
    return _open(actions.create(signed_in(request), new.name, new.designs))


@router.get("/jobs/{number}", response=OpenJob)
def open_job(request: HttpRequest, number: Number) -> OpenJob:
    return _open(actions.own(signed_in(request), number))


@router.patch("/jobs/{number}", response=OpenJob)
def change_job(request: HttpRequest, number: Number, wish: JobChange) -> OpenJob:
    job = actions.change(
        signed_in(request), number, name=wish.name, designs=wish.designs, options=wish.options,
        machine=wish.machine, offcuts=wish.offcuts,
    )  # fmt: skip
    return _open(job)


@router.post("/jobs/{number}/copy", response=OpenJob)
def copy_job(request: HttpRequest, number: Number) -> OpenJob:
    return _open(actions.duplicate(signed_in(request), number))


@router.delete("/jobs/{number}", response=Gone)
def remove_job(request: HttpRequest, number: Number) -> Gone:
    actions.remove(signed_in(request), number)
    return Gone()


@router.post("/jobs/{number}/lay", response=RunView)
def lay_out(request: HttpRequest, number: Number) -> RunView:
    """Begins to lay the job out; what is locked stays where it is."""
    user = signed_in(request)
    job = actions.own(user, number)
    asked = actions.asked_of(job, offcuts=actions.offcuts_of(job))
    return run_view(actions.begin(user, "lay", asked, job=job))


@router.post("/jobs/{number}/back", response=OpenJob)
def back(request: HttpRequest, number: Number) -> OpenJob:
    """Gives the newest layout up for the one before."""
    return _open(actions.back(signed_in(request), number))


@router.post("/jobs/{number}/once-more", response=OpenJob)
def once_more(request: HttpRequest, number: Number, wish: SpoiledPiece) -> OpenJob:
    """Makes a job of its own for a piece or a card that was spoiled."""
    user = signed_in(request)
    return _open(actions.once_more(user, number, wish.sheet, wish.index, card=wish.card))


@router.post("/jobs/{number}/near", response=Nearness)
def near(request: HttpRequest, number: Number, move: Move) -> Nearness:
    """How a piece would lie elsewhere; nothing is changed."""
    return actions.near(signed_in(request), number, move)


@router.post("/jobs/{number}/place", response=OpenJob)
def place(request: HttpRequest, number: Number, move: Move) -> OpenJob:
    """A piece put elsewhere, or locked."""
    user = signed_in(request)
    return _open(actions.place(user, number, move))


@router.post("/jobs/{number}/files", response=RunView)
def make_files(request: HttpRequest, number: Number, wish: FilesWish) -> RunView:
    """Begins to write the files of all sheets, or of one."""
    return _begun(request, number, "files", wish, sheet=wish.sheet)


@router.post("/jobs/{number}/passes", response=RunView)
def passes(request: HttpRequest, number: Number, wish: SheetWish) -> RunView:
    """Begins to find the passes of a sheet."""
    return _begun(request, number, "passes", wish, sheet=wish.sheet)


@router.post("/jobs/{number}/cut", response=RunView)
def cut(request: HttpRequest, number: Number, wish: CutWish) -> RunView:
    """Sends a sheet's file to the cutter."""
    if wish.of_run is not None:
        user = signed_in(request)
        before = actions.own_run(user, wish.of_run)
        return run_view(actions.cut_again(user, before, wish.conditions))
    return _begun(request, number, "cut", wish, sheet=wish.sheet)


def _begun(
    request: HttpRequest, number: Number, task: str, wish: BaseModel, *, sheet: int | None
) -> RunView:
    user = signed_in(request)
    job = actions.own(user, number)
    asked = _asked_of_sheet(job, sheet, wish.model_dump(mode="json"))
    return run_view(actions.begin(user, task, asked, job=job))


@router.post("/cut-file", response=RunView)
def cut_file(
    request: HttpRequest,
    file: File[UploadedFile],
    wish: Form[FileWish],
    sheet_file: File[UploadedFile | None] = None,
) -> RunView:
    """Sends any file to the cutter; to be compared with a job's sheet, or with the ``sheet_file`` that was saved with
    the sheets."""
    user = signed_in(request)
    device = actions.machine_named(user, wish.machine).model_dump(mode="json")
    asked: dict[str, Any] = {"machine": device, "file_name": plain(file.name or "file")[:120]}
    if sheet_file is not None:
        asked["sheet_file"] = sheet_file.read().decode("utf-8", "replace")
        asked["sheet_file_name"] = plain(sheet_file.name or "sheet")[:120]
    elif wish.job is not None:
        against = {"against": {"sheet": wish.sheet, "inside": wish.inside}}
        asked = {**_asked_of_sheet(actions.own(user, wish.job), wish.sheet, against), **asked}
    return run_view(actions.begin(user, "cut", asked, sent=file.read()))


def _asked_of_sheet(job: Job, sheet: int | None, more: dict[str, Any]) -> dict[str, Any]:
    """What a process needs to know of a job, of which it works on a sheet."""
    layout = actions.layout_of(job)
    if sheet is not None and sheet >= len(layout.sheets):
        raise DocumentError(
            say("There is no sheet {sheet}.", sheet=sheet + 1), hint="Lay the job out again."
        )
    return actions.asked_of(job, **more)
