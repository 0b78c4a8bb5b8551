"""One figure many times: in rows and columns, in a ring, as many as fit, mirrored to other sides."""

from __future__ import annotations

import math
from enum import StrEnum

from stileblade.errors import StepError
from stileblade.geometry.curves.places import Box, any_meet
from stileblade.geometry.curves.transforms import mirror_across, rotation, translation
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import union_all
from stileblade.piece.windows import Copy
from stileblade.words import say

MOST_COPIES = 400
LEAST_STEP = 0.1
"""mm: copies that lie nearer to each other are not told apart."""


class Repeat(StrEnum):
    ONCE = "once"
    GRID = "grid"
    RING = "ring"
    FIT = "fit"


class Also(StrEnum):
    NO = "no"
    SIDES = "sides"
    ENDS = "ends"
    CORNERS = "corners"


def together(copies: list[Region]) -> Region:
    """Copies as one region; those whose boxes do not meet are only put side by side."""
    if all_apart(copies):
        return gather(copies)
    return union_all(copies)


def all_apart(regions: list[Region]) -> bool:
    """Whether no two boxes meet."""
    return not any_meet([r.bounds for r in regions])


def in_grid(region: Region, columns: int, rows: int, across: float, down: float) -> list[Region]:
    """In columns and rows, ``across`` and ``down`` mm between two. StepError for too many."""
    if columns * rows > MOST_COPIES:
        raise StepError(
            say(
                "{columns} columns of {rows} are more than {most_copies} copies.",
                columns=columns,
                rows=rows,
                most_copies=MOST_COPIES,
            ),
            hint="Take fewer.",
            field="rows",
            would_do=max(1, MOST_COPIES // columns),
        )
    box = region.bounds
    return [
        region.transformed(translation(i * (box.width + across), j * (box.height + down)))
        for j in range(rows)
        for i in range(columns)
    ]


def in_ring(region: Region, count: int, radius: float) -> list[Region]:
    """Round a circle, each turned outwards as the first one, which is at the head."""
    x, y = region.bounds.centre
    first = region.transformed(translation(-x, -y - radius))
    return [first.transformed(rotation(360 * n / count)) for n in range(count)]


def as_many_as_fit(region: Region, within: Box, gap: float) -> list[Region]:
    """As many as fit in a box with at least ``gap`` mm between them and to its edges, evenly
    spread. StepError where not even one does."""
    box = region.bounds
    found = []
    for size, room in ((box.width, within.width), (box.height, within.height)):
        if size + gap < LEAST_STEP:
            raise StepError(
                "From one to the next there are only {}: they would lie on each other.",
                max(size + gap, 0.0),
                hint="Make the gap or the figure larger.",
                field="gap",
                would_do=round(max(LEAST_STEP - size, 0.0) + 0.5, 1),
            )
        count = math.floor((room - gap) / (size + gap) + 1e-9)
        if count < 1:
            raise StepError(
                "Not even one fits: it is {} in {}, with {} to either edge.",
                size,
                room,
                gap,
                hint="Make the figure or the gap smaller.",
                field="gap",
                would_do=max(0.0, math.floor((room - size) * 5) / 10),
            )
        found.append((count, (room - count * size) / (count + 1)))
    (columns, across), (rows, down) = found
    grid = in_grid(region, columns, rows, across, down)
    left, head = within.left + across, within.head + down
    move = translation(left - box.left, head - box.head)
    return [copy.transformed(move) for copy in grid]


def mirrored_too(regions: list[Region], about: Box, also: Also) -> list[Copy]:
    """With their mirror images at the other side, the other end, or at all four corners of a box."""
    x, y = about.centre
    over = mirror_across(axis="x", at=x), mirror_across(axis="y", at=y)
    copies = [Copy(region) for region in regions]
    if also in (Also.SIDES, Also.CORNERS):
        copies += [Copy(c.outline.transformed(over[0]), not c.mirrored) for c in copies]
    if also in (Also.ENDS, Also.CORNERS):
        copies += [Copy(c.outline.transformed(over[1]), not c.mirrored) for c in copies]
    return copies
