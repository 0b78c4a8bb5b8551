"""The build strip: each step with its caption and a small picture of the piece after it."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.design.evaluation import Outcome
from stileblade.errors import StepError
from stileblade.folding.hinge import perforation
from stileblade.geometry.measures.distances import rings_of, thin
from stileblade.geometry.regions.remembered import with_figures
from stileblade.piece.folds import Made
from stileblade.piece.work import Work
from stileblade.unexpected import Attempts
from stileblade.units import Unit, format_length
from stileblade.views.places import Bounds, Stroke, box_of, ring_path, ways_path
from stileblade.views.said import Said


class CaptionView(BaseModel):
    text: Said
    value: float | None
    unit: str


class PictureView(BaseModel):
    """folds are scored ones; perforated are the cuts of the others."""

    path: str
    box: Bounds
    folds: list[Stroke]
    perforated: list[Stroke]
    drawn: str


class ProblemView(BaseModel):
    message: Said
    hint: Said
    field: str


class StripView(BaseModel):
    """A step in the build strip; its picture only where the browser does not have it yet."""

    step: str
    key: str
    caption: CaptionView
    problem: ProblemView | None
    picture: PictureView | None


def strip_of(outcome: Outcome, unit: Unit, known: set[str], attempt: Attempts) -> StripView:
    caption = outcome.step.caption()
    work = outcome.work if outcome.key not in known else None
    title = f"picture of {outcome.step.title}"
    return StripView(
        step=outcome.step.id,
        key=outcome.key,
        caption=CaptionView(text=caption.text, value=caption.value, unit=caption.unit),
        problem=_problem(outcome.problem, unit) if outcome.problem else None,
        picture=attempt(title, lambda: small_picture(work), None) if work else None,
    )


def _problem(problem: StepError, unit: Unit) -> ProblemView:
    message, hint = problem.said(lambda mm: format_length(mm, unit))
    return ProblemView(message=message, hint=hint, field=problem.field)


@with_figures
def small_picture(work: Work) -> PictureView:
    """A thinned-out picture of the work, at about a 300th of its size."""
    box = work.paper.bounds
    rings = rings_of(thin(work.paper, max(box.width, box.height) / 300))
    folds: list[Stroke] = []
    cuts: list[Stroke] = []
    for fold in work.folds:
        for span in work.spans[fold.name]:
            if fold.made is Made.PERFORATE:
                cuts += [(*a, *b) for a, b in perforation(span, fold)]
            elif fold.folds:
                folds.append((*span.start, *span.end))
    return PictureView(
        path=ring_path(rings, 1),
        box=box_of(box),
        folds=folds,
        perforated=cuts,
        drawn="".join(ways_path(line, 1) for line in work.lines_on_paper),
    )
