"""Folds and the paper's grain."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from stileblade.card.stock import Grain, Paper
from stileblade.checks.check import CHECKS, Finding, Place, Severity, Subject
from stileblade.piece.work import Work
from stileblade.words import named, say

HEAVY = 200.0
"""g/m^2: lighter stock folds well across its grain, too."""


@dataclass(frozen=True)
class Lay:
    """How a piece is best laid on its sheet: turned by a quarter or not, whether it fits so, and
    the names of the folds that then run across the grain."""

    turned: bool
    fits: bool
    across: tuple[str, ...]


def best_lay(work: Work, paper: Paper) -> Lay | None:
    """The lay with the fewest folds across the grain, of those that fit on the sheet; of all where
    none fits. None where the grain is not known."""
    if paper.grain is Grain.UNKNOWN:
        return None
    box = work.paper.bounds
    long_is_up = paper.sheet_height >= paper.sheet_width
    fibres_up = long_is_up == (paper.grain is Grain.LONG)
    lays = []
    for turned in (False, True):
        width, height = (box.height, box.width) if turned else (box.width, box.height)
        fits = width <= paper.sheet_width + 1e-6 and height <= paper.sheet_height + 1e-6
        # an upright fold ("x") runs up and down the sheet unless the piece is turned
        across = tuple(
            f.name
            for f in work.folds
            if f.folds
            and not f.crease.inner
            and f.axis is not None
            and ((f.axis == "x") != turned) != fibres_up
        )
        lays.append(Lay(turned, fits, across))
    return min(lays, key=lambda lay: (not lay.fits, len(lay.across), lay.turned))


@CHECKS.register("grain")
def grain(subject: Subject) -> Iterator[Finding]:
    """A fold across the grain of stock over 200 g/m^2: note."""
    work, paper = subject.piece.work, subject.piece.paper
    if work is None or not work.paper or paper.weight <= HEAVY:
        return
    lay = best_lay(work, paper)
    if lay is None or not lay.across:
        return
    names = ", ".join(map(named, lay.across))
    other = Lay(not lay.turned, True, ())
    hint = "Score deeper there, or take a lighter stock."
    if not lay.fits:
        hint = "The sheet is too small to tell how it will lie on it."
    elif len(lay.across) == sum(f.folds for f in work.folds):
        hint = "A sheet large enough to lay it upright would let it fold along the grain."
        if other.turned:
            hint = "A sheet large enough to lay it across would let it fold along the grain."
    yield Finding(
        "grain.across",
        Severity.NOTE,
        say(
            "Laid on its sheet, {names} runs across the grain of {weight:.0f} g/m² stock: it may crack."
            " | Laid on its sheet, {names} run across the grain of {weight:.0f} g/m² stock: it may crack.",
            n=len(lay.across),
            names=names,
            weight=paper.weight,
        ),
        subject.name,
        len(lay.across),
        hint=hint,
        place=Place(lines=tuple((s.start, s.end) for n in lay.across for s in work.spans[n])),
    )
