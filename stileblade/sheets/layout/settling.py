"""Pieces of a layout moved together by exact distances: towards the head, then to the left, until nothing moves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from stileblade.geometry.measures import rows
from stileblade.sheets.layout.parts import Format, Placed

_ROUNDS = 3
_SLIGHT = 0.01
"""mm: by less nothing is moved."""
_LESS = 3 * rows.COARSE
"""mm: pieces are grown by so much less than the gap, so that what lies at the gap beside one is passed."""
_BACK = (0.0, 0.004, 0.02, _LESS + 1e-4, 0.1, 0.4)
"""mm that a piece goes back from where it seems to meet another, until its distance is right."""
_EXACT = 1e-7


def settled(placed: Sequence[Placed], form: Format) -> list[Placed]:
    """The same pieces on the same sheets, none of which can be moved straight towards the head or to the left by
    much. What is locked, or taken of a sheet, stays. As they lie they must be apart already."""
    found: list[Placed] = []
    for sheet in sorted({p.sheet for p in placed}):
        here = [p for p in placed if p.sheet == sheet]
        found += _Settling(here, form, sheet).settled()
    return found


class _Settling:
    """One sheet."""

    def __init__(self, placed: Sequence[Placed], form: Format, sheet: int) -> None:
        self._form = form
        self._placed = list(placed)
        fixed = form.blocked(sheet)
        self._shapes = [*(p.shape for p in placed), *fixed]
        self._grown = [rows.grown(shape, form.gap - _LESS) for shape in self._shapes]

    def settled(self) -> list[Placed]:
        for _ in range(_ROUNDS):
            moved = 0.0
            for axis in (1, 0):
                order = sorted(range(len(self._placed)), key=lambda i: self._at(i)[axis])
                moved += sum(self._move(i, axis) for i in order if not self._placed[i].locked)
            if moved < _SLIGHT:
                break
        return self._placed

    def _at(self, number: int) -> tuple[float, float]:
        return self._placed[number].x, self._placed[number].y

    def _move(self, number: int, axis: int) -> float:
        """Moves a piece as far as it goes to the left (0) or towards the head (1); by how much."""
        room = self._at(number)[axis] - self._form.edge
        if room < _SLIGHT:
            return 0.0
        around = [g for i, g in enumerate(self._grown) if i != number]
        way = rows.free_way(rows.coarse(self._shapes[number]), around, axis, room)
        others = [s for i, s in enumerate(self._shapes) if i != number]
        for back in _BACK:
            step = way - back
            if step < _SLIGHT:
                break
            x, y = (-step, 0.0) if axis == 0 else (0.0, -step)
            shape = rows.moved(self._shapes[number], x, y)
            away, _ = rows.nearest(shape, others, self._form.gap)
            if away >= self._form.gap - _EXACT:
                piece = self._placed[number]
                self._placed[number] = replace(piece, x=piece.x + x, y=piece.y + y)
                self._shapes[number] = shape
                self._grown[number] = rows.moved(self._grown[number], x, y)
                return step
        return 0.0
