"""What can be done with jobs: one function for each change."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.http import Http404
from django.utils import timezone

from server.accounts.quotas import QuotaExceeded
from server.computing.asking import worked_out
from server.computing.drawings import Move
from server.designs.models import Design
from server.jobs.models import Job, Offcut, OwnMachine, Run
from server.jobs.running import RUNNER
from stileblade.cutter.turned_out import Conditions
from stileblade.errors import DocumentError
from stileblade.machine.machine import Machine
from stileblade.machine.shipped import MACHINES
from stileblade.sheets.job import JobOptions
from stileblade.sheets.kept import KeptJob
from stileblade.sheets.moving import Nearness, sheet_of
from stileblade.words import say, spoken

KEPT_RUNS = 12
MOST_WAITING = 40
"""Runs of one person that wait or go on."""
MOST_TRIES = 4
"""Times that a piece is placed on the newest layout, while others change it."""
MOST_DESIGNS = 100


def own(user: User, number: int) -> Job:
    """The user's job; Http404 for somebody else's or none."""
    try:
        return Job.objects.get(pk=number, owner=user)
    except Job.DoesNotExist:
        raise Http404 from None


def own_run(user: User, number: int) -> Run:
    try:
        return Run.objects.get(pk=number, owner=user)
    except Run.DoesNotExist:
        raise Http404 from None


def machines_of(user: User) -> list[Machine]:
    """Those that come with the application, and the user's own."""
    return [*MACHINES, *own_machines(user)]


def own_machines(user: User) -> list[Machine]:
    return [Machine.model_validate(row.data) for row in OwnMachine.objects.filter(owner=user)]


def machine_named(user: User, name: str) -> Machine:
    known = machines_of(user)
    for machine in known:
        if machine.name == name:
            return machine
    names = ", ".join(m.name for m in known)
    raise DocumentError(
        say("The machine {name!r} is none of {names}.", name=name[:40], names=names)
    )


def keep_machine(user: User, machine: Machine) -> Machine:
    """A machine of the user's own, in place of one of the same name. DocumentError for a name that one has
    which comes with the application."""
    if any(machine.name == shipped.name for shipped in MACHINES):
        raise DocumentError(
            say("A machine that comes with the application is called {name!r}.", name=machine.name),
            hint="Give yours another name.",
        )
    OwnMachine.objects.update_or_create(
        owner=user, name=machine.name, defaults={"data": machine.model_dump(mode="json")}
    )
    return machine


def remove_machine(user: User, name: str) -> None:
    """Jobs that are for it are for the first that comes with the application then."""
    with transaction.atomic():
        gone, _ = OwnMachine.objects.filter(owner=user, name=name).delete()
        if not gone:
            raise Http404
        Job.objects.filter(owner=user, machine=name).update(machine=MACHINES[0].name)


def create(user: User, name: str, designs: Sequence[Mapping[str, int]]) -> Job:
    return Job.objects.create(owner=user, name=name, designs=_known(user, designs))


def _known(user: User, designs: Sequence[Mapping[str, int]]) -> list[dict[str, int]]:
    """Each design once, and only the user's own."""
    counts: dict[int, int] = {}
    for one in designs:
        counts[one["design"]] = counts.get(one["design"], 0) + one["count"]
    there = set(Design.objects.filter(owner=user, pk__in=counts).values_list("pk", flat=True))
    if set(counts) - there:
        raise DocumentError("A design of this job is not there.", hint="Take it out of the job.")
    if len(counts) > MOST_DESIGNS:
        raise DocumentError(
            say("A job has at most {most_designs} designs.", most_designs=MOST_DESIGNS)
        )
    return [{"design": key, "count": count} for key, count in counts.items()]


def change(
    user: User,
    number: int,
    *,
    name: str | None = None,
    designs: Sequence[Mapping[str, int]] | None = None,
    options: JobOptions | None = None,
    machine: str | None = None,
    offcuts: Sequence[int] | None = None,
) -> Job:
    with transaction.atomic():
        job = own(user, number)
        if name is not None:
            job.name = name
        if designs is not None:
            job.designs = _known(user, designs)
        if options is not None:
            job.options = options.model_dump(mode="json")
        if machine is not None:
            job.machine = machine_named(user, machine).name
        if offcuts is not None:
            mine = Offcut.objects.filter(owner=user, pk__in=list(offcuts))
            job.offcuts = list(mine.values_list("pk", flat=True))
        job.save()
    return job


def duplicate(user: User, number: int) -> Job:
    job = own(user, number)
    return Job.objects.create(
        owner=user, name=say("{name} copy", name=job.name[:100]), designs=job.designs, options=job.options,
        machine=job.machine, layout=job.layout,
    )  # fmt: skip


def remove(user: User, number: int) -> None:
    own(user, number).delete()


def layout_of(job: Job) -> KeptJob:
    """The job's layout. DocumentError where it was not laid out yet."""
    if not job.layout:
        raise DocumentError("This job is not laid out yet.", hint="Lay it out first.")
    return KeptJob.model_validate(job.layout)


def changed_since(job: Job) -> list[str]:
    """Names of the designs that were changed, added or removed since the job was laid out."""
    if not job.layout:
        return []
    then: dict[str, int] = job.layout.get("designs", {})
    now = {f"{d['design']}×{d['count']}": d["design"] for d in job.designs}
    designs = {d.pk: d for d in Design.objects.filter(pk__in=now.values())}
    found = []
    for key, number in now.items():
        design = designs.get(number)
        if design is None:
            found.append("a design that is gone")
        elif then.get(key) != design.revision:
            found.append(design.name)
    return found + (["a design that was taken out"] if set(then) - set(now) and not found else [])


def asked_of(job: Job, **more: Any) -> dict[str, Any]:
    """All that a process needs to know of a job."""
    designs = {d.pk: d for d in Design.objects.filter(pk__in=[d["design"] for d in job.designs])}
    listed, revisions = [], {}
    for one in job.designs:
        design = designs.get(one["design"])
        if design is None:
            raise DocumentError("A design of this job is gone.", hint="Take it out of the job.")
        listed.append({"key": design.pk, "text": design.document, "count": one["count"]})
        revisions[f"{design.pk}×{one['count']}"] = design.revision
    if not listed:
        raise DocumentError("There is no design in this job.", hint="Add one, and how many cards.")
    return {
        "name": job.name,
        "designs": listed,
        "revisions": revisions,
        "options": job.options,
        "machine": machine_named(job.owner, job.machine).model_dump(mode="json"),
        "kept": job.layout or None,
        **more,
    }


def begin(
    user: User, task: str, asked: dict[str, Any], *, job: Job | None = None, sent: bytes = b""
) -> Run:
    """A new run; a layout of the same job that is going on ends with the best so far and is not taken."""
    if task == "lay" and job is not None:
        for old in Run.objects.filter(job=job, task="lay", state__in=("waiting", "running")):
            RUNNER.stop(old.pk)
            Run.objects.filter(pk=old.pk).update(state=Run.State.REPLACED, said="Begun anew.")
    waiting = Run.objects.filter(owner=user, state__in=("waiting", "running"))
    if waiting.count() >= MOST_WAITING:
        raise QuotaExceeded(
            say("{most} of your layouts and cuts are waiting already.", most=MOST_WAITING),
            hint="Wait for some of them, or stop them.",
        )
    asked = {**asked, "language": spoken()}
    run = Run.objects.create(owner=user, job=job, task=task, asked=asked, sent=sent)
    earlier = list(Run.objects.filter(owner=user).values_list("pk", flat=True)[KEPT_RUNS:])
    Run.objects.filter(pk__in=earlier, state__in=("done", "failed", "replaced")).delete()
    RUNNER.begin(run)
    return run


def cut_again(user: User, before: Run, conditions: Conditions) -> Run:
    """The file that a run cut, under other conditions. DocumentError where that run has none."""
    if before.task != "cut" or not before.content:
        raise DocumentError("That run has no file.", hint="Send the sheet to the cutter again.")
    asked = {
        "machine": before.asked["machine"],
        "meant": before.result.get("meant"),
        "file_name": before.content_name,
        "conditions": conditions.model_dump(mode="json"),
    }
    return begin(user, "cut", asked, job=before.job, sent=bytes(before.content))


def near(user: User, number: int, move: Move) -> Nearness:
    """How a piece would lie elsewhere."""
    layout = layout_of(own(user, number))
    return Nearness.model_validate(worked_out("near", layout, move, person=str(user.pk)))


def place(user: User, number: int, move: Move) -> Job:
    """A piece put elsewhere, or locked; ``NotWorkedOut`` where it may not lie there."""
    for _ in range(MOST_TRIES):
        job = own(user, number)
        layout = worked_out("moved", layout_of(job), move, person=str(user.pk))
        # not within the worker's time: nobody else could save meanwhile
        row = Job.objects.filter(pk=job.pk, revision=job.revision)
        if row.update(layout=layout, revision=job.revision + 1, modified=timezone.now()):
            return own(user, number)
    raise DocumentError("The sheet was changed meanwhile.", hint="Move the piece once more.")


def keep_offcut(user: User, number: int, sheet: int) -> Offcut:
    """What a sheet of a job leaves, for another job."""
    job = own(user, number)
    layout = layout_of(job)
    on = sheet_of(layout, sheet)
    return Offcut.objects.create(
        owner=user, name=say("{name}, sheet {sheet}", name=job.name, sheet=sheet + 1)[:120], paper=on.paper[:60], width=on.width,
        height=on.height, taken=worked_out("used", layout, sheet, person=str(user.pk)),
    )  # fmt: skip


def offcuts_of(job: Job) -> list[dict[str, Any]]:
    """The offcuts that a job uses up first."""
    rows = {o.pk: o for o in Offcut.objects.filter(owner=job.owner, pk__in=job.offcuts)}
    return [
        {
            "paper": rows[k].paper,
            "width": rows[k].width,
            "height": rows[k].height,
            "taken": rows[k].taken,
        }
        for k in job.offcuts
        if k in rows
    ]
