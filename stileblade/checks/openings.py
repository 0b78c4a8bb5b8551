"""Openings that nobody cut on purpose."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.geometry.curves.places import Box
from stileblade.geometry.measures.distances import inner_point, is_inside
from stileblade.geometry.regions.region import Contour, Region
from stileblade.geometry.regions.remembered import with_figures
from stileblade.piece.work import Work
from stileblade.steps.kinds.fill import Fill, Which
from stileblade.words import listed, say

SMALL = 30.0
"""mm^2: an opening smaller than this is hardly meant; larger ones are only noted."""


@with_figures
def left_in(work: Work) -> list[Contour]:
    """Openings that lie in no window and no figure cut away, largest first."""
    outlines = [window.outline for window in work.windows]
    found = [
        c for c in work.paper.openings if not any(_made_by(outline, c) for outline in outlines)
    ]
    return sorted(found, key=lambda c: -c.area)


def _made_by(outline: Region, opening: Contour) -> bool:
    """Whether a cut along an outline makes the opening, by itself or together with others."""
    inner, outer = opening.bounds, outline.bounds.shrunk(-0.01)
    if inner.left < outer.left or inner.right > outer.right:
        return False
    if inner.head < outer.head or inner.foot > outer.foot:
        return False
    same = abs(outline.area - opening.area) < 1e-3 and close(outline.bounds, inner)
    return same or is_inside(opening, outline)


def close(a: Box, b: Box) -> bool:
    """Whether two boxes are the same to a thousandth of a mm."""
    return all(abs(p - q) < 1e-3 for p, q in zip(a.as_list(), b.as_list(), strict=True))


def _of_the_figure(subject: Subject) -> list[Region]:
    """Openings that a layer's own figure has: the counters of letters, an eye, a notch in an insert. They were not
    left in, they are drawn so."""
    if not subject.is_layer:
        return []
    start = next((o.work for o in subject.piece.outcomes if o.step.on), None)
    return [c.as_region() for c in start.paper.openings] if start else []


@CHECKS.register("openings")
def openings(subject: Subject) -> Iterator[Finding]:
    """A warning for small openings left in, a note for large ones."""
    work = subject.piece.work
    if work is None:
        return
    bays: list[Contour] = []
    left: list[Contour] = []
    own = _of_the_figure(subject)
    for opening in left_in(work):
        if any(_made_by(outline, opening) for outline in own):
            continue
        (bays if closed_by_mirror(work, opening) else left).append(opening)
    if bays:
        areas = listed([subject.area(c.area) for c in bays[:3]]) + (" …" if len(bays) > 3 else "")
        yield Finding(
            "openings.mirrored",
            Severity.WARNING if bays[-1].area < SMALL else Severity.NOTE,
            say(
                "A bay at the fold becomes an opening where the mirror closes it: {areas}."
                " | {n} bays at the fold become openings where the mirror closes them: {areas}.",
                n=len(bays),
                areas=areas,
            ),
            subject.name,
            len(bays),
            step=work.mirrored.step if work.mirrored else "",
            place=Place(outlines=tuple(c.as_region() for c in bays)),
            mends=(_picked(work, bays),),
        )
    for small, severity in ((True, Severity.WARNING), (False, Severity.NOTE)):
        group = [c for c in left if (c.area < SMALL) == small]
        if not group:
            continue
        areas = listed([subject.area(c.area) for c in group[:3]]) + (" …" if len(group) > 3 else "")
        yield Finding(
            "openings.small" if small else "openings.large",
            severity,
            say(
                "One opening is left in: {areas}. | {n} openings are left in: {areas}.",
                n=len(group),
                areas=areas,
            ),
            subject.name,
            len(group),
            place=Place(outlines=tuple(c.as_region() for c in group)),
            mends=(_fill(subject, group, group[0].area if small else None),),
        )


def _fill(subject: Subject, group: list[Contour], largest: float | None) -> Mend:
    """A fill put in before the first step that cuts openings on purpose, so that those stay open; of
    openings that came later just these, at the end."""
    step = Fill() if largest is None else Fill(which=Which.BELOW, below=round(largest + 0.05, 1))
    opener = next((o for o in subject.piece.outcomes if o.step.on and o.step.opens), None)
    if opener is None:
        return Mend("fill them", add=step)
    if opener.before is not None and all(_is_in(c, opener.before) for c in group):
        return Mend("fill them", add=step, before=opener.step.id)
    assert subject.piece.work is not None
    return _picked(subject.piece.work, group)


def _picked(work: Work, group: list[Contour]) -> Mend:
    """A fill of just these, at the end."""
    picks = tuple(work.reference.share_of(*inner_point(c.as_region())) for c in group)
    return Mend("fill them", add=Fill(which=Which.PICKED, picks=picks))


def closed_by_mirror(work: Work, opening: Contour) -> bool:
    """Whether an opening lies across the fold of the mirror: its halves were bays in the outline."""
    if work.mirrored is None:
        return False
    at, box = work.folds[0].at, opening.bounds
    low, high = (box.left, box.right) if work.mirrored.axis == "x" else (box.head, box.foot)
    return low < at - 0.01 and high > at + 0.01


def _is_in(opening: Contour, work: Work) -> bool:
    """Whether an opening is there already in the work."""
    return any(
        abs(c.area - opening.area) < 1e-3 and close(c.bounds, opening.bounds)
        for c in work.paper.openings
    )
