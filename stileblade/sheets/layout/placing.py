"""Parts placed one after the other on sheets of cells, each where there is room first."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from stileblade.sheets.layout.parts import Format, Part, Placed
from stileblade.sheets.layout.raster import Grid, mask_of

CELL = 1.0
"""mm."""


def laid(
    parts: Sequence[Part],
    form: Format,
    before: Sequence[Placed],
    most: tuple[int, float] | None,
    *,
    lowest: bool,
) -> list[Placed] | None:
    """Each part on the first sheet that has room for it, in the turn that ends nearest to the head (or
    to the head and left together); None where it comes to need more than ``most``."""
    grids: list[Grid] = []
    full: set[tuple[str, int]] = set()
    found: list[Placed] = []

    def sheet(number: int) -> Grid:
        while len(grids) <= number:
            grids.append(Grid(form, CELL, form.blocked(len(grids))))
        return grids[number]

    for placed in before:
        sheet(placed.sheet).burn_shape(placed.shape)
    last = len(parts) + len(before) + len(form.taken)
    for part in parts:
        for number in range(last if most is None else most[0]):
            # a sheet only becomes fuller
            if (part.key, number) in full:
                continue
            place = _best(sheet(number), part, number, lowest=lowest)
            if place is not None:
                found.append(place)
                break
            full.add((part.key, number))
        else:
            return None
    return found


def _best(grid: Grid, part: Part, sheet: int, *, lowest: bool) -> Placed | None:
    form, best = grid.form, None
    for turn in _unlike(part, form.gap):
        mask = mask_of(part, turn, CELL, form.gap)
        places = grid.places(mask)
        if not places:
            continue
        column, row = grid.first(places)
        end = row * CELL + mask.height, column * CELL + mask.width
        rank = end if lowest else (end[0] + 0.4 * end[1], end[1])
        if best is None or rank < best[0]:
            best = rank, turn, column, row, mask
    if best is None:
        return None
    _, turn, column, row, mask = best
    grid.burn(mask, column, row)
    return Placed(part, sheet, form.edge + column * CELL, form.edge + row * CELL, turn)


@lru_cache(maxsize=1000)
def _unlike(part: Part, gap: float) -> tuple[float, ...]:
    """The turns in which it takes other cells each: a rectangle looks the same by halves."""
    found: dict[bytes, float] = {}
    for turn in part.angles:
        found.setdefault(mask_of(part, turn, CELL, gap).runs.tobytes(), turn)
    return tuple(found.values())
