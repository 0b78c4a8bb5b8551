"""Layouts of the parts' boxes alone, by a kept library: exact, and the best for rectangles."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import rectpack
from rectpack import MaxRectsBaf, MaxRectsBl, MaxRectsBlsf, MaxRectsBssf, PackingBin

from stileblade.sheets.layout.parts import Format, Part, Placed

_MICRO = 1000
_TRIES = 7
_SLIGHT = 1e-3
"""mm."""
_SORTS = (rectpack.SORT_AREA, rectpack.SORT_LSIDE, rectpack.SORT_SSIDE)
_WAYS = (MaxRectsBssf, MaxRectsBaf, MaxRectsBlsf, MaxRectsBl)
_MOST = 250
"""Parts: with more, one way of packing is tried."""


def by_boxes(parts: Sequence[Part], form: Format) -> list[Placed] | None:
    """The layout with the fewest sheets of several, on a roll the shortest that a few tries at shorter
    ones find; None where something on a sheet is taken already."""
    if form.holes or form.taken or not parts:
        return None
    best = _fewest(parts, form)
    if not form.roll or best is None or _count(best) > 1:
        return best
    low, high = 0.0, _foot(best) + form.edge
    for _ in range(_TRIES):
        length = (low + high) / 2
        found = _fewest(parts, replace(form, height=length))
        if (
            found is not None
            and _count(found) == 1
            and _foot(found) <= length - form.edge + _SLIGHT
        ):
            best, high = found, _foot(found) + form.edge
        else:
            low = length
    return best


def _fewest(parts: Sequence[Part], form: Format) -> list[Placed] | None:
    best: list[Placed] | None = None
    quick = len(parts) > _MOST
    for way in _WAYS[:1] if quick else _WAYS:
        for sort in _SORTS[:1] if quick else _SORTS:
            found = _packed(parts, form, way, sort)
            if found is not None and (best is None or _count(found) < _count(best)):
                best = found
    return best


def _foot(placed: Sequence[Placed]) -> float:
    return max(p.y + p.part.size(p.turn)[1] for p in placed)


def _count(placed: Sequence[Placed]) -> int:
    return 1 + max(p.sheet for p in placed)


def _packed(parts: Sequence[Part], form: Format, way: object, sort: object) -> list[Placed] | None:
    freely = all(len(part.boxed) > 1 for part in parts)
    packer = rectpack.newPacker(
        mode=rectpack.PackingMode.Offline, bin_algo=PackingBin.BFF, pack_algo=way,
        sort_algo=sort, rotation=freely,
    )  # fmt: skip
    w, h = form.inner
    gap = form.gap
    for number, part in enumerate(parts):
        a, b = part.size(part.boxed[0])
        packer.add_rect(_whole(a + gap), _whole(b + gap), rid=number)
    packer.add_bin(int((w + gap) * _MICRO + 0.5), int((h + gap) * _MICRO + 0.5), count=len(parts))
    packer.pack()
    found = []
    for sheet, x, y, width, _, number in packer.rect_list():
        part = parts[number]
        upright = abs(width - _whole(part.size(part.boxed[0])[0] + gap)) < 1
        turn = part.boxed[0] if upright else part.boxed[1]
        found.append(Placed(part, int(sheet), form.edge + x / _MICRO, form.edge + y / _MICRO, turn))
    return found if len(found) == len(parts) else None


def _whole(length: float) -> int:
    """Micrometres, rounded up but for what floats add."""
    return int(-((-length * _MICRO + 1e-3) // 1))
