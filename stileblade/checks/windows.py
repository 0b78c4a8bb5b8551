"""Windows too near a fold or an edge."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.folding.scoring import score_lines
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.measures import distances
from stileblade.geometry.regions.region import Region
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.tolerance import TOLERANCE
from stileblade.words import say

SAFE = 6.0
LEAST = 3.0
ROUNDING = 4 * TOLERANCE.grid
"""Distances are measured on rounded vertices."""


@dataclass(frozen=True)
class Gap:
    """The distance of a window from a fold or the edge, and the two places measured."""

    distance: float
    window: Point
    other: Point
    to: str


@CHECKS.register("windows")
def windows(subject: Subject) -> Iterator[Finding]:
    """Nearer than 6 mm: warning; nearer than 3 mm: error. Windows meant to cross are left out."""
    if subject.is_layer:
        return
    work = subject.piece.work
    if work is None:
        return
    for window in work.windows:
        if window.crosses:
            continue
        gap = nearest_gap(work, window.outline)
        if gap is None or gap.distance >= SAFE - ROUNDING:
            continue
        severity = Severity.ERROR if gap.distance < LEAST - ROUNDING else Severity.WARNING
        yield Finding(
            "window.near",
            severity,
            say(
                "The window of step {step} is {distance} from the {to}; {safe} is safe.",
                step=subject.number(window.step),
                distance=subject.say(gap.distance),
                to=gap.to,
                safe=subject.say(SAFE),
            ),
            subject.name,
            gap.distance,
            step=window.step,
            place=Place(lines=((gap.window, gap.other),), outlines=(window.outline,)),
            mends=_moved(subject, work, window, gap),
        )


def nearest_gap(work: Work, outline: Region) -> Gap | None:
    """The smallest gap between a window and the base's outer edge or its folds."""
    gaps = [g for g in (gap_to(work, outline, to) for to in ("edge", "fold")) if g is not None]
    return min(gaps, key=lambda g: g.distance) if gaps else None


def gap_to(work: Work, outline: Region, to: str) -> Gap | None:
    """The smallest gap between a window and the base's outer "edge", or its folds for "fold"."""
    ring = distances.outline_of(outline)
    if to == "edge":
        if not work.paper:
            return None
        edge = distances.shell_beside(
            work.paper, outline
        )  # an island in its own figure does not count as an edge
        return None if edge.is_empty else Gap(*distances.nearest(ring, edge), "edge")
    gaps = []
    for fold in work.folds:
        if fold.folds:
            for line in score_lines(fold):
                ends = line.ends_beyond(work.paper.bounds)
                gaps.append(Gap(*distances.nearest(ring, distances.line_of(*ends)), "fold"))
    return min(gaps, key=lambda g: g.distance, default=None)


def _moved(subject: Subject, work: Work, window: Opened, gap: Gap) -> tuple[Mend, ...]:
    """Away from what is near, if that leaves the window safe on all sides."""
    outcome = subject.piece.outcome_of(window.step)
    away = np.subtract(gap.window, gap.other)
    size = float(np.hypot(*away))
    if outcome is None or size < 1e-9:
        return ()
    dx, dy = away / size * (SAFE - gap.distance)
    after = nearest_gap(work, window.outline.transformed(translation(dx, dy)))
    if after is None or after.distance < SAFE - 0.01:
        return ()
    values = outcome.step.moved_by(outcome.before, float(dx), float(dy)) if outcome.before else {}
    if not values:
        return ()
    return (
        Mend(say("move {safe} away", safe=subject.say(SAFE - gap.distance)), window.step, values),
    )
