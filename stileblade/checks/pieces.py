"""Whether the base is one piece of paper."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Place, Severity, Subject


@CHECKS.register("pieces")
def pieces(subject: Subject) -> Iterator[Finding]:
    """An error where the paper is in more than one part; parts that only touch are two."""
    work = subject.piece.work
    if work is None or work.paper.pieces < 2:
        return
    parts = work.paper.parts()
    smallest = parts[-1].area
    yield Finding(
        "pieces.apart",
        Severity.ERROR,
        f"It is {len(parts)} separate pieces; the smallest has {smallest:.0f} mm².",
        subject.name,
        len(parts),
        hint="Weld them, or let them overlap.",
        place=Place(outlines=tuple(parts[1:])),
    )
