"""Where a plan comes to lie on pages: on one, or on several that overlap."""

from __future__ import annotations

import math
from dataclasses import dataclass

from stileblade.formats.options import FileOptions, Page
from stileblade.formats.plan import Plan

MARGIN = 10.0
"""White round the piece, in mm; the foot has room for the check rule as well."""
FOOT = 18.0
WORDS = 12.0
"""mm more at the foot for the words."""
RULE = 50.0
OVERLAP = 10.0
"""mm that two neighbouring pages both show."""
MOST_PAGES = 64
PAGES = {Page.A4: (210.0, 297.0), Page.LETTER: (215.9, 279.4), Page.A3: (297.0, 420.0)}


@dataclass(frozen=True)
class Sheet:
    """A page in mm: its size, the window through which the piece is seen (left, foot, width, height,
    from the page's foot left), and where the piece's left and head come to lie on it."""

    size: tuple[float, float]
    window: tuple[float, float, float, float]
    left: float
    head: float
    label: str = ""


def own_page(plan: Plan, *, words: bool = False) -> tuple[float, float]:
    """Width and height in mm of a page as large as the piece with its margins."""
    foot = FOOT + (WORDS if words else 0.0)
    return max(plan.width, RULE) + 2 * MARGIN, plan.height + MARGIN + foot


def pages_of(plan: Plan, options: FileOptions) -> list[Sheet]:
    """The pages on which a plan is laid, in reading order. ``ValueError`` never: a plan that is too
    large for so many pages is laid on one of its own size."""
    foot = FOOT + (WORDS if options.words else 0.0)
    if options.page is Page.OWN:
        return [_whole(plan, own_page(plan, words=options.words), foot)]
    upright = PAGES[options.page]
    ways = [upright, upright[::-1]]
    for size in ways:
        if (
            plan.width <= size[0] - 2 * MARGIN + 1e-9
            and plan.height <= size[1] - MARGIN - foot + 1e-9
        ):
            return [_whole(plan, size, foot)]
    counts = [_tiles(plan, size, foot) for size in ways]
    size, (across, down) = min(zip(ways, counts, strict=True), key=lambda w: w[1][0] * w[1][1])
    if across * down > MOST_PAGES:
        return [_whole(plan, own_page(plan, words=options.words), foot)]
    return _tiled(plan, size, foot, across, down)


def _room(size: tuple[float, float], foot: float) -> tuple[float, float]:
    return size[0] - 2 * MARGIN, size[1] - MARGIN - foot


def _whole(plan: Plan, size: tuple[float, float], foot: float) -> Sheet:
    """In the middle of what the words leave."""
    width, height = _room(size, foot)
    return Sheet(
        size,
        (MARGIN, foot, width, height),
        (size[0] - plan.width) / 2,
        foot + (height + plan.height) / 2,
    )


def _tiles(plan: Plan, size: tuple[float, float], foot: float) -> tuple[int, int]:
    """How many pages across and down."""
    room = _room(size, foot)
    across, down = (
        1 + max(0, math.ceil((own - r) / (r - OVERLAP) - 1e-9))
        for own, r in zip((plan.width, plan.height), room, strict=True)
    )
    return across, down


def _tiled(
    plan: Plan, size: tuple[float, float], foot: float, across: int, down: int
) -> list[Sheet]:
    width, height = _room(size, foot)
    # all that the pages show together, the piece in its middle
    left = (across * width - (across - 1) * OVERLAP - plan.width) / 2
    head = (down * height - (down - 1) * OVERLAP - plan.height) / 2
    found: list[Sheet] = []
    for row in range(down):
        for column in range(across):
            x = MARGIN + left - column * (width - OVERLAP)
            y = foot + height - head + row * (height - OVERLAP)
            label = f"page {len(found) + 1} of {across * down}: column {column + 1}, row {row + 1}"
            found.append(Sheet(size, (MARGIN, foot, width, height), x, y, label))
    return found
