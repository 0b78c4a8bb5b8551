"""Places that are worth a closer look."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice

from pydantic import BaseModel

from stileblade.card.stock import Paper
from stileblade.checks.least import SHARP, least_width
from stileblade.geometry.measures.narrow import sharp_corners, thin_places
from stileblade.piece.work import Work
from stileblade.views.said import Said
from stileblade.words import say

MOST_PLACES = 24
_ACROSS = 8.0


class LoupePlace(BaseModel):
    """A place worth a closer look: how wide the view of it is, in mm, and why it is shown."""

    x: float
    y: float
    across: float
    title: Said
    value: float | None


def loupe_of(work: Work, paper: Paper) -> list[LoupePlace]:
    """Thin places first, then the ends of each fold, then sharp corners."""
    return list(islice(_places(work, paper), MOST_PLACES))


def _places(work: Work, paper: Paper) -> Iterator[LoupePlace]:
    for thin in thin_places(work.paper, least_width(paper))[:6]:
        x, y = ((a + b) / 2 for a, b in zip(thin.start, thin.end, strict=True))
        across = max(6.0, 5 * thin.width)
        yield LoupePlace(x=x, y=y, across=across, title="narrow paper", value=thin.width)
    for fold in work.folds:
        word = "seam" if work.mirrored else fold.name
        for span in work.spans[fold.name][:4] if fold.folds else ():
            for x, y in (span.start, span.end):
                title = say("{word}, where the paper ends", word=word)
                yield LoupePlace(x=x, y=y, across=_ACROSS, title=title, value=None)
    for corner in sharp_corners(work.paper, SHARP)[:4]:
        x, y = corner.at
        yield LoupePlace(x=x, y=y, across=_ACROSS, title="sharp corner", value=None)
