"""Laying out: boxes alone, true outlines, and boxes with small parts in the holes; the best of several
orders. Which orders are tried depends on the parts alone, so the same parts give the same layout.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from stileblade.geometry.measures import rows
from stileblade.sheets.layout.boxes import by_boxes
from stileblade.sheets.layout.parts import Format, Part, Placed
from stileblade.sheets.layout.raster import Grid, mask_of

CELL = 1.0
_EXACT = 1e-6
_EFFORT = 480
"""Parts laid in all tries together, about."""
_SQUARE = 0.93
"""A part that fills as much of its box is laid as a box in the mixed way."""
Progress = Callable[[float, int], bool]
"""Told the share done and the sheets so far; False ends it with the best so far."""


@dataclass(frozen=True, eq=False)
class Layout:
    """All parts on sheets; ``bound`` is the number of sheets that their area alone needs."""

    placed: tuple[Placed, ...]
    form: Format
    bound: int

    @property
    def sheets(self) -> int:
        return 1 + max((p.sheet for p in self.placed), default=-1)


def lower_bound(parts: Sequence[Part], form: Format) -> int:
    """Sheets by area alone."""
    w, h = form.inner
    return int(np.ceil(sum(p.area for p in parts) / max(w * h, 1e-9) - 1e-9))


def lay_out(
    parts: Sequence[Part],
    form: Format,
    *,
    locked: Sequence[Placed] = (),
    progress: Progress = lambda share, sheets: True,
) -> Layout:
    """Parts laid on as few sheets as was found, each with ``form.gap`` to others and within the edge;
    what is locked stays. All parts must fit on an empty sheet (``Format.fits``)."""
    bound = lower_bound([*parts, *(p.part for p in locked)], form)
    # only sheets with something locked on them are there from the first
    best: list[Placed] | None = None if parts else []
    if parts and not locked:
        found = by_boxes(parts, form)
        if found is not None and not apart(found, form):
            best = found
    going = progress(0.1, _count(best))
    ways = list(_ways(parts, form, bool(locked), best))
    for number, way in enumerate(ways):
        fewest = not form.roll and _count([*(best or ()), *locked]) <= bound
        if best is not None and (not going or fewest):
            break
        most = None if best is None else _rank(best, form)
        found = _laid(way.parts, form, [*locked, *way.first], most, lowest=way.lowest)
        if found is not None:
            found = [*way.first, *found]
            better = best is None or _rank(found, form) < _rank(best, form)
            if better and not apart([*locked, *found], form):
                best = found
        going = progress(0.1 + 0.9 * (number + 1) / len(ways), _count(best))
    if best is None:
        raise RuntimeError("no way of laying out found a place for all parts")
    if form.roll and going and not locked and _count(best) > 1:
        best = _shortened(best, form)
    return Layout((*locked, *best), form, bound)


def quickly(parts: Sequence[Part], form: Format) -> int:
    """How many sheets two quick ways need at most; very many where something fits on none."""
    if not all(form.fits(part) for part in parts):
        return len(parts) + 1
    boxed = by_boxes(parts, form)
    best = _count(boxed) if boxed is not None and not apart(boxed, form) else len(parts) + 1
    box = sorted(parts, key=lambda p: (-p.size(0.0)[0] * p.size(0.0)[1], p.key))
    found = _laid(box, form, (), (best, 0.0), lowest=True)
    return best if found is None or apart(found, form) else min(best, _count(found))


def _count(placed: Sequence[Placed] | None) -> int:
    return 1 + max((p.sheet for p in placed), default=-1) if placed else 0


def _rank(placed: Sequence[Placed], form: Format) -> tuple[int, float]:
    """Fewest sheets, then as little as possible on the last; of a roll, as short as possible."""
    last = _count(placed) - 1
    on = [p for p in placed if p.sheet == last]
    if form.roll:
        return last + 1, sum(_foot(placed, sheet) for sheet in range(last + 1))
    return last + 1, sum(p.part.area for p in on)


def _foot(placed: Sequence[Placed], sheet: int) -> float:
    """mm from a sheet's head to the end of what lies on it."""
    return max((p.y + p.part.size(p.turn)[1] for p in placed if p.sheet == sheet), default=0.0)


def _shortened(placed: Sequence[Placed], form: Format) -> list[Placed]:
    """Each of several lengths of a roll with its pieces laid by themselves, where that is shorter."""
    found: list[Placed] = []
    for sheet in range(_count(placed)):
        on = [p for p in placed if p.sheet == sheet]
        own = replace(form, taken=form.taken[sheet : sheet + 1])
        alone = lay_out([p.part for p in on], own)
        if alone.sheets == 1 and _foot(alone.placed, 0) < _foot(on, sheet):
            on = [replace(p, sheet=sheet) for p in alone.placed]
        found += on
    return found


@dataclass(frozen=True, eq=False)
class _Way:
    parts: Sequence[Part]
    first: Sequence[Placed]
    lowest: bool


def _ways(
    parts: Sequence[Part], form: Format, locked: bool, boxed: Sequence[Placed] | None
) -> Iterator[_Way]:
    area = sorted(parts, key=lambda p: (-p.area, p.key))
    side = sorted(parts, key=lambda p: (-max(p.size(0.0)), -p.area, p.key))
    box = sorted(parts, key=lambda p: (-p.size(0.0)[0] * p.size(0.0)[1], p.key))
    yield _Way(box, (), True)
    square = [p for p in parts if p.area > _SQUARE * p.size(0.0)[0] * p.size(0.0)[1]]
    rest = [p for p in box if p not in square]
    if not locked and square and rest:
        first = by_boxes(square, form)
        if first is not None and not apart(first, form):
            yield _Way(rest, first, True)
    yield _Way(side, (), True)
    yield _Way(area, (), True)
    yield _Way(box, (), False)
    chance = random.Random(len(parts))
    for _ in range(max(0, min(24, _EFFORT // max(len(parts), 1)) - 5)):
        mixed = sorted(
            box, key=lambda p: -(p.size(0.0)[0] * p.size(0.0)[1]) * chance.uniform(0.6, 1.4)
        )
        yield _Way(mixed, (), chance.random() < 0.5)


def _laid(
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
    for turn in part.angles:
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


def apart(placed: Sequence[Placed], form: Format, *, within: float = _EXACT) -> list[str]:
    """What is wrong with a layout, measured exactly: pieces nearer than the gap, or over the edge, by more
    than ``within`` mm. What is locked is not held against itself: a person put it there."""
    wrong = []
    by_sheet: dict[int, list[Placed]] = {}
    for p in placed:
        by_sheet.setdefault(p.sheet, []).append(p)
    for number, some in sorted(by_sheet.items()):
        locked = [p.shape for p in some if p.locked]
        others: list[rows.Shape] = [*form.blocked(number), *locked]
        for p in (p for p in some if not p.locked):
            left, head, right, foot = rows.box_of(p.shape)
            over = max(
                form.edge - left, form.edge - head, right - form.width + form.edge,
                foot - form.height + form.edge,
            )  # fmt: skip
            if over > within:
                wrong.append(f"{p.part.key} is {over:.3f} mm over the edge of sheet {number + 1}")
            away, _ = rows.nearest(p.shape, others, form.gap)
            if away < form.gap - within:
                wrong.append(
                    f"{p.part.key} is {max(away, 0):.3f} mm from another on sheet {number + 1}"
                )
            others.append(p.shape)
    return wrong
