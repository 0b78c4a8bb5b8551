"""Sheets of a layout taken apart, a few at a time, and laid anew in another order: kept where that fills some of them
more and leaves others emptier, until one of them is empty."""

from __future__ import annotations

import random
from collections.abc import Callable, Sequence
from dataclasses import replace

from stileblade.sheets.layout.distances import apart
from stileblade.sheets.layout.parts import Format, Part, Placed
from stileblade.sheets.layout.placing import laid

_EFFORT = 1500
"""Parts laid in all tries together; how many tries there are depends on the parts alone."""
_SHEET = 210 * 297
"""mm²: on larger sheets fewer parts are laid, as each takes longer."""
_FEW = 8
"""Different parts: with fewer there is little to put in another order."""
_AT_ONCE = (2, 2, 3, 3, 4)
"""Sheets."""
_MIXED = (0.1, 0.3, 0.5)
"""By what share of its size a part may come sooner or later."""

Sheets = list[list[Placed]]


def regrouped(
    placed: Sequence[Placed],
    form: Format,
    locked: Sequence[Placed],
    bound: int,
    progress: Callable[[float, int], bool],
) -> list[Placed]:
    """The same parts on as many sheets or fewer. Sheets on which something is locked, or was taken before, stay as
    they are. ``progress`` is told the share done and the sheets so far; False ends it with the best so far."""
    fixed = {p.sheet for p in locked} | set(range(len(form.taken)))
    count = 1 + max((p.sheet for p in [*placed, *locked]), default=-1)
    sheets = [[p for p in placed if p.sheet == n] for n in range(count) if n not in fixed]
    free = replace(form, taken=())
    chance, spent = random.Random(len(placed)), 0
    effort = _EFFORT * min(1.0, _SHEET / (form.width * form.height))
    effort *= min(1.0, len({p.part for p in placed}) / _FEW) ** 2
    while spent < effort and len(sheets) > 1 and len(sheets) + len(fixed) > bound:
        if not progress(spent / effort, len(sheets) + len(fixed)):
            break
        chosen = _chosen(sheets, chance)
        parts = _in_order([p.part for n in chosen for p in sheets[n]], chance)
        spent += len(parts)
        found = laid(parts, free, (), (len(chosen), 0.0), lowest=chance.random() < 0.5)
        if found is None:
            continue
        anew = _by_sheet(found)
        if _filled(anew) >= _filled([sheets[n] for n in chosen]) and not apart(found, free):
            sheets = [s for n, s in enumerate(sheets) if n not in chosen] + anew
    sheets.sort(key=lambda s: -sum(p.part.area for p in s))
    numbers = [n for n in range(count) if n not in fixed]
    kept = [p for p in placed if p.sheet in fixed]
    return kept + [
        replace(p, sheet=n) for n, sheet in zip(numbers, sheets, strict=False) for p in sheet
    ]


def _by_sheet(placed: Sequence[Placed]) -> Sheets:
    count = 1 + max(p.sheet for p in placed)
    return [[p for p in placed if p.sheet == n] for n in range(count)]


def _filled(sheets: Sheets) -> float:
    """The larger, the more unequal sheets are filled: an emptier one is emptied more easily."""
    return float(sum(sum(p.part.area for p in sheet) ** 2 for sheet in sheets))


def _chosen(sheets: Sheets, chance: random.Random) -> list[int]:
    """One of the emptier sheets, and others."""
    fill = [sum(p.part.area for p in sheet) for sheet in sheets]
    first = min(range(len(sheets)), key=lambda n: fill[n] * chance.uniform(0.5, 1.5))
    others = [n for n in range(len(sheets)) if n != first]
    return [first, *chance.sample(others, min(chance.choice(_AT_ONCE) - 1, len(others)))]


def _in_order(parts: Sequence[Part], chance: random.Random) -> list[Part]:
    """The larger first, by one measure or another, and not quite."""
    mixed, kind = chance.choice(_MIXED), chance.random()

    def size(part: Part) -> float:
        width, height = part.size(0.0)
        if kind < 0.7:
            return width * height
        return float(max(width, height) ** 2 if kind < 0.85 else part.area)

    return sorted(parts, key=lambda p: -size(p) * chance.uniform(1 - mixed, 1 + mixed))
