"""Whether each piece goes on the sheet that its paper comes in."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np

from stileblade.card.stock import SHEETS, Paper, Sheet
from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.design.changes import Change, with_changes
from stileblade.design.evaluation import evaluate
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.hull import hull_of
from stileblade.geometry.regions.remembered import with_figures
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.steps.kinds.split import Split
from stileblade.steps.measured import Edge, Runs
from stileblade.steps.step import PartTaken, Step, taking_part
from stileblade.words import say

TAB = 12.0
"""mm: how deep a glue tab is that joins two sheets."""


@CHECKS.register("sheet")
def sheet(subject: Subject) -> Iterator[Finding]:
    """An error where it does not, upright, turned by a quarter or by any degree."""
    work, paper = subject.piece.work, subject.piece.paper
    if work is None or not work.paper:
        return
    box, room = work.paper.bounds, paper.usable
    if fits(box.width, box.height, room):
        return
    turn = turn_to_fit(work, room)
    size = f"{subject.say(box.width)} x {subject.say(box.height)}"
    sheet_size = f"{subject.say(paper.sheet_width)} x {subject.say(paper.sheet_height)}"
    edge = (
        say(" with {edge} of edge that the machine cannot reach", edge=subject.say(paper.edge))
        if paper.edge
        else ""
    )
    if turn is not None:
        yield Finding(
            "sheet.turned",
            Severity.NOTE,
            say(
                "{size} goes on a sheet of {sheet_size}{edge} only when turned by {turn}°.",
                size=size,
                sheet_size=sheet_size,
                edge=edge,
                turn=turn,
            ),
            subject.name,
            turn,
            hint="Lay it so, or take a larger sheet.",
            mends=_formats(subject, box),
        )
        return
    over = _over(box, room)
    yield Finding(
        "sheet.over",
        Severity.ERROR,
        say(
            "{size} does not go on a sheet of {sheet_size}{edge}: {over} too large.",
            size=size,
            sheet_size=sheet_size,
            edge=edge,
            over=subject.say(over),
        ),
        subject.name,
        over,
        hint="Take a larger sheet, or join it of two.",
        place=Place(outlines=(work.paper,)),
        mends=(*_formats(subject, box), *_joined(subject, work, room)),
    )


def fits(width: float, height: float, room: tuple[float, float]) -> bool:
    """Whether a measure goes into another, upright or turned by a quarter."""
    low, high = sorted((width, height))
    least, most = sorted(room)
    return low <= least + 1e-6 and high <= most + 1e-6


def _over(box: Box, room: tuple[float, float]) -> float:
    """By how much it is too large, in the better of the two orientations, in mm."""
    ways = ((box.width, box.height), (box.height, box.width))
    return min(max(w - room[0], h - room[1]) for w, h in ways)


def turn_to_fit(work: Work, room: tuple[float, float]) -> int | None:
    """The least turn in whole degrees at which the piece goes on the sheet; None where none does."""
    points = _hull(work)
    angles = np.arange(1, 180)
    c, s = np.cos(np.radians(angles)), np.sin(np.radians(angles))
    wide = np.ptp(points[:, :1] * c - points[:, 1:] * s, axis=0)
    high = np.ptp(points[:, :1] * s + points[:, 1:] * c, axis=0)
    hit = np.flatnonzero((wide <= room[0] + 1e-6) & (high <= room[1] + 1e-6))
    return (
        int(angles[hit[np.argmin(np.minimum(angles[hit], 180 - angles[hit]))]])
        if len(hit)
        else None
    )


@with_figures
def _hull(work: Work) -> Floats:
    return hull_of(work.paper.flat.points)


def _formats(subject: Subject, box: Box) -> tuple[Mend, ...]:
    """The smallest sheet formats that take it."""
    paper = subject.piece.paper
    takes = [s for s in SHEETS if fits(box.width, box.height, _room(paper, s))]
    takes.sort(key=lambda s: s.width * s.height)
    return tuple(
        Mend(
            say("sheet {name}", name=s.name),
            paper=(paper.id, {"sheet_width": s.width, "sheet_height": s.height}),
        )
        for s in takes[:2]
    )


def _room(paper: Paper, sheet: Sheet) -> tuple[float, float]:
    return sheet.width - 2 * paper.edge, sheet.height - 2 * paper.edge


def _joined(subject: Subject, work: Work, room: tuple[float, float]) -> tuple[Mend, ...]:
    """Parted at a fold, the one part with a tab to glue the other to: both go on a sheet."""
    box, best = work.paper.bounds, None
    for fold in work.folds:
        if not fold.folds or fold.crease.inner or fold.axis is None or not work.spans[fold.name]:
            continue
        low, high = _apart(box, fold)
        ends = math.inf if not (fits(*low, room) and fits(*high, room)) else max(*low, *high)
        if ends < math.inf and (best is None or ends < best[0]):
            best = ends, fold
    if best is None:
        return ()
    fold, piece = best[1], subject.piece.piece
    card = work.box_of("card") if work.panels else work.reference
    assert fold.axis is not None
    near = card.left if fold.axis == "x" else card.head
    split = Split(
        id=_fresh(subject),
        runs=Runs.UPRIGHT if fold.axis == "x" else Runs.LEVEL,
        target="card",
        edge=Edge.NEAR,
        distance=fold.at - near,
        tab=TAB,
    )
    # the part with the front stays what the piece was
    front = work.box_of(work.front).centre if work.front else box.centre
    first = front[0 if fold.axis == "x" else 1] < fold.at
    start = taking_part(PartTaken(piece.id, split.id, 2 if first else 1))
    title = say(
        "join of two sheets at {name}, with a glue tab of {tab}",
        name=fold.name,
        tab=subject.say(TAB),
    )
    name = say("{name}, to be glued on", name=piece.name)[:60]
    if not _keeps_others(subject, split, name, start):
        return ()
    return (Mend(title, add=split, pieces=((name, (start,)),)),)


def _keeps_others(subject: Subject, split: Step, name: str, start: Step) -> bool:
    """Whether all other pieces stay as they are when the piece is parted: what lies on the half that is parted
    off would be lost, and what goes round a card would be made for half of it."""
    piece, design = subject.piece.piece, subject.evaluation.design
    if len(design.pieces) < 2:
        return True
    new = {"name": name, "steps": [start.model_dump(mode="json", exclude={"id"})]}
    parted = with_changes(
        design,
        [
            Change(op="add", piece=piece.id, step="", values=split.model_dump(mode="json")),
            Change(op="piece", piece=piece.id, step="", values=new),
        ],
    )
    after = {p.piece.id: p.work for p in evaluate(parted).pieces}
    return all(
        _same(p.work, after[p.piece.id])
        for p in subject.evaluation.pieces
        if p.piece.id != piece.id
    )


def _same(first: Work | None, second: Work | None) -> bool:
    if first is None or second is None:
        return first is second
    return first.paper.content_digest == second.paper.content_digest or (
        abs(first.paper.area - second.paper.area) < 1e-6
        and first.paper.bounds == second.paper.bounds
    )


def _apart(box: Box, fold: Fold) -> tuple[tuple[float, float], tuple[float, float]]:
    """The measures of both parts, the second with its tab."""
    if fold.axis == "x":
        return (fold.at - box.left, box.height), (box.right - fold.at + TAB, box.height)
    return (box.width, fold.at - box.head), (box.width, box.foot - fold.at + TAB)


def _fresh(subject: Subject) -> str:
    taken = {s.id for s in subject.piece.piece.steps}
    n = len(taken) + 1
    while f"s{n}" in taken:
        n += 1
    return f"s{n}"
