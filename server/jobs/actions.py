"""What can be done with jobs: one function for each change."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.http import Http404
from django.utils import timezone
from pydantic import ConfigDict

from server.accounts.quotas import QuotaExceeded
from server.computing.asking import worked_out
from server.computing.drawings import Move
from server.computing.wishes import Number
from server.designs.models import Design
from server.jobs.models import Job, Offcut, OwnMachine, Run
from server.jobs.running import RUNNER
from stileblade.cutter.turned_out import Conditions
from stileblade.errors import DocumentError
from stileblade.machine.machine import Machine
from stileblade.machine.shipped import MACHINES
from stileblade.sheets.job import CardsWanted, JobOptions
from stileblade.sheets.kept import KeptJob
from stileblade.sheets.moving import Nearness, sheet_of
from stileblade.words import say, spoken

KEPT_RUNS = 12
MOST_WAITING = 40
"""Runs of one person that wait or go on."""
MOST_TRIES = 4
"""Times that a piece is placed on the newest layout, while others change it."""
MOST_DESIGNS = 100
MOST_CARDS = 2000
MOST_OFFCUTS = 50


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


class JobDesign(CardsWanted):
    """A design of a job by its number, how many cards of it, and which of its pieces."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=False)
    design: Number

    @property
    def mark(self) -> str:
        """What has to be the same for a layout to be of it still."""
        return f"{self.design}×{self.total}" + "".join(f" {piece}" for piece in self.pieces)


def designs_of(job: Job) -> list[JobDesign]:
    return [JobDesign.model_validate(one) for one in job.designs]


def create(user: User, name: str, designs: Sequence[JobDesign]) -> Job:
    return Job.objects.create(owner=user, name=name, designs=_known(user, designs))


def _known(user: User, designs: Sequence[JobDesign]) -> list[dict[str, Any]]:
    """Each design once, and only the user's own. DocumentError where one is wanted twice in two ways."""
    found: dict[int, JobDesign] = {}
    for one in designs:
        same = found.setdefault(one.design, one)
        if same is not one:
            count = same.count + one.count
            if same != one.model_copy(update={"count": same.count}) or count > MOST_CARDS:
                raise DocumentError(
                    "A design is in this job twice.",
                    hint="Take one of the two out, or make two jobs.",
                )
            found[one.design] = one.model_copy(update={"count": count})
    there = set(Design.objects.filter(owner=user, pk__in=found).values_list("pk", flat=True))
    if set(found) - there:
        raise DocumentError("A design of this job is not there.", hint="Take it out of the job.")
    if len(found) > MOST_DESIGNS:
        raise DocumentError(
            say("A job has at most {most_designs} designs.", most_designs=MOST_DESIGNS)
        )
    return [one.model_dump(mode="json") for one in found.values()]


def change(
    user: User,
    number: int,
    *,
    name: str | None = None,
    designs: Sequence[JobDesign] | None = None,
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
        machine=job.machine, layout=job.layout, laid_from=job.laid_from,
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
    now = {d.mark: d.design for d in designs_of(job)}
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
    wanted = designs_of(job)
    designs = {d.pk: d for d in Design.objects.filter(pk__in=[d.design for d in wanted])}
    listed, revisions = [], {}
    for one in wanted:
        design = designs.get(one.design)
        if design is None:
            raise DocumentError("A design of this job is gone.", hint="Take it out of the job.")
        listed.append(
            {"key": design.pk, "text": design.document, "count": one.total, "pieces": one.pieces}
        )
        revisions[one.mark] = design.revision
    if not listed:
        raise DocumentError("There is no design in this job.", hint="Add one, and how many cards.")
    return {
        "name": job.name,
        "designs": listed,
        "revisions": revisions,
        "options": job.options,
        "machine": machine_named(job.owner, job.machine).model_dump(mode="json"),
        "kept": job.layout or None,
        "laid_from": {"designs": job.designs, "options": job.options, "machine": job.machine},
        **more,
    }


def begin(
    user: User, task: str, asked: dict[str, Any], *, job: Job | None = None, sent: bytes = b""
) -> Run:
    """A new run; a layout of the same job that is going on ends with the best so far and is not taken."""
    if task == "lay" and job is not None:
        _replace_layouts(job)
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


def _replace_layouts(job: Job) -> None:
    """Layouts of the job that are going on end, and are not taken."""
    for old in Run.objects.filter(job=job, task="lay", state__in=("waiting", "running")):
        RUNNER.stop(old.pk)
        Run.objects.filter(pk=old.pk).update(state=Run.State.REPLACED, said="Begun anew.")


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


def back(user: User, number: int) -> Job:
    """The job as it was laid out before, with the cards, options and machine of then; once more brings the newer
    layout back. What is being laid out is not taken. DocumentError where it was laid out once only."""
    with transaction.atomic():
        job = own(user, number)
        if not job.before:
            raise DocumentError("There is no layout before this one.")
        _replace_layouts(job)
        then = job.before
        job.remember()
        job.layout, job.laid_from = then["layout"], then["laid_from"]
        there = set(Design.objects.filter(owner=user).values_list("pk", flat=True))
        job.designs = [d for d in job.laid_from["designs"] if d["design"] in there]
        job.options = job.laid_from["options"]
        known = {machine.name for machine in machines_of(user)}
        if job.laid_from["machine"] in known:
            job.machine = job.laid_from["machine"]
        job.revision += 1
        job.save()
    return job


def once_more(user: User, number: int, sheet: int, index: int, *, card: bool) -> Job:
    """A job of its own for a piece of a sheet, or for the whole card that it is of, which was spoiled; on an offcut
    of its paper, where there is one."""
    job = own(user, number)
    layout = layout_of(job)
    pieces = sheet_of(layout, sheet).pieces
    if index >= len(pieces):
        raise DocumentError("That piece is not in this job.", hint="Lay the job out again.")
    part = layout.parts[pieces[index].part]
    design = part.key.partition(".")[0]
    what = part.design if card else f"{part.design}, {part.name}"
    needed = layout.sheets if card else [layout.sheets[sheet]]
    papers = {s.paper for s in needed if any(p.part.startswith(f"{design}.") for p in s.pieces)}
    mine = Offcut.objects.filter(owner=user, paper__in=papers).values_list("pk", flat=True)
    wanted = JobDesign(design=int(design), pieces=() if card else (part.piece,))
    return Job.objects.create(
        owner=user, name=say("{name}: {what} once more", name=job.name[:50], what=what[:50]),
        designs=_known(user, [wanted]), options=job.options, machine=job.machine, offcuts=list(mine[:MOST_OFFCUTS]),
    )  # fmt: skip


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
