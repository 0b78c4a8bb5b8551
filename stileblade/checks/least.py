"""Least sizes: what tears, what the blade cannot cut, what snags."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.card.stock import Paper
from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.geometry.measures.narrow import Thin, sharp_corners, thin_places
from stileblade.piece.work import Work
from stileblade.steps.kinds.soften import Soften
from stileblade.words import say

CRUMB = 4.0
"""mm^2: a smaller opening leaves a crumb that the blade can hardly free."""
SHARP = 20.0
"""Degrees: sharper corners of the outline lift and snag."""
CLOSE = 1.0
"""mm: nearer cut lines tear what is between them."""


def least_width(paper: Paper) -> float:
    """The narrowest paper that may be left standing: 1.5 mm, or four thicknesses."""
    return paper.least_width


@CHECKS.register("least")
def least(subject: Subject) -> Iterator[Finding]:
    """Narrow paper and close cuts are warnings, crumbs and sharp corners notes."""
    work = subject.piece.work
    if work is None or not work.paper:
        return
    wanted = least_width(subject.piece.paper)
    narrow = thin_places(work.paper, wanted)
    if narrow:
        yield _thin(
            subject, "narrow.paper", narrow,
            say(
                "The paper is only {width} wide; this stock needs {wanted}."
                " | The paper is only {width} wide at the narrowest of {n} places; this stock needs {wanted}.",
                n=len(narrow), width=subject.say(narrow[0].width), wanted=subject.say(wanted),
            ),
        )  # fmt: skip
    close = thin_places(work.paper, CLOSE, of_paper=False)
    if close:
        yield _thin(
            subject, "cuts.close", close,
            say(
                "Two cuts run {width} apart; {least} is the least."
                " | Two cuts run {width} apart at the narrowest of {n} places; {least} is the least.",
                n=len(close), width=subject.say(close[0].width), least=subject.say(CLOSE),
            ),
        )  # fmt: skip
    crumbs = [c for c in work.paper.openings if c.area < CRUMB]
    if crumbs:
        yield Finding(
            "crumbs",
            Severity.NOTE,
            say(
                "One opening leaves a crumb of less than {crumb}: {area}."
                " | {n} openings leave crumbs of less than {crumb}, the smallest {area}.",
                n=len(crumbs),
                crumb=subject.area(CRUMB),
                area=subject.area(min(c.area for c in crumbs)),
            ),
            subject.name,
            len(crumbs),
            hint="Fill them, or free them with a needle.",
            place=Place(outlines=tuple(c.as_region() for c in crumbs)),
        )
    yield from _sharp(subject, work, wanted)


def _thin(subject: Subject, code: str, found: tuple[Thin, ...], message: str) -> Finding:
    return Finding(
        code,
        Severity.WARNING,
        message,
        subject.name,
        found[0].width,
        place=Place(lines=tuple((t.start, t.end) for t in found)),
    )


def _sharp(subject: Subject, work: Work, wanted: float) -> Iterator[Finding]:
    corners = sharp_corners(work.paper, SHARP)
    if not corners:
        return
    radius = round(wanted / 2, 2)
    step = Soften(radius=radius)
    yield Finding(
        "corner.sharp",
        Severity.NOTE,
        say(
            "One corner is sharper than {sharp:g}°, {angle:.1f}°: it lifts and snags."
            " | {n} corners are sharper than {sharp:g}°, the sharpest {angle:.1f}°: it lifts and snags.",
            n=len(corners),
            sharp=SHARP,
            angle=corners[0].angle_deg,
        ),
        subject.name,
        corners[0].angle_deg,
        place=Place(lines=tuple(((c.at[0] - 2, c.at[1]), (c.at[0] + 2, c.at[1])) for c in corners)),
        mends=(
            Mend(say("soften with a radius of {radius}", radius=subject.say(radius)), add=step),
        ),
    )
