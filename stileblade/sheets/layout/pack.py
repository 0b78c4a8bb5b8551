"""Laying out: boxes alone, true outlines, and boxes with small parts in the holes; the best of several
orders. Which orders are tried depends on the parts alone, so the same parts give the same layout.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from stileblade.sheets.layout.boxes import by_boxes
from stileblade.sheets.layout.distances import apart
from stileblade.sheets.layout.parts import Format, Part, Placed
from stileblade.sheets.layout.placing import laid
from stileblade.sheets.layout.regrouping import regrouped
from stileblade.sheets.layout.settling import settled

_EFFORT = 300
"""Parts laid in all tries together, about."""
_SETTLED = 400
"""Pieces: more of them lie as they were found."""
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
        found = laid(way.parts, form, [*locked, *way.first], most, lowest=way.lowest)
        if found is not None:
            found = [*way.first, *found]
            better = best is None or _rank(found, form) < _rank(best, form)
            if better and not apart([*locked, *found], form):
                best = found
        going = progress(0.1 + 0.5 * (number + 1) / len(ways), _count(best))
    if best is None:
        raise RuntimeError("no way of laying out found a place for all parts")
    if form.roll and going and not locked and _count(best) > 1:
        best = _shortened(best, form)
    if not form.roll and going:
        best = regrouped(best, form, locked, bound, lambda share, n: progress(0.6 + 0.3 * share, n))
    return Layout((*locked, *_closer(best, form, locked)), form, bound)


def _closer(placed: Sequence[Placed], form: Format, locked: Sequence[Placed]) -> Sequence[Placed]:
    """Moved together by exact distances; what is on the last sheet goes where that has made room for all of it."""
    if len(placed) > _SETTLED:
        return placed
    together = settled([*locked, *placed], form)
    found = [p for p in together if not p.locked]
    last = _count(together) - 1
    on = [p.part for p in found if p.sheet == last]
    rest = [p for p in together if p.sheet != last]
    if last > 0 and on and len(on) + len(rest) == len(together) and last >= len(form.taken):
        moved = laid(on, form, rest, (last, 0.0), lowest=True)
        if moved is not None:
            found = [*(p for p in rest if not p.locked), *moved]
    return found if not apart([*locked, *found], form) else placed


def quickly(parts: Sequence[Part], form: Format) -> int:
    """How many sheets two quick ways need at most; very many where something fits on none."""
    if not all(form.fits(part) for part in parts):
        return len(parts) + 1
    boxed = by_boxes(parts, form)
    best = _count(boxed) if boxed is not None and not apart(boxed, form) else len(parts) + 1
    box = sorted(parts, key=lambda p: (-p.size(0.0)[0] * p.size(0.0)[1], p.key))
    found = laid(box, form, (), (best, 0.0), lowest=True)
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
