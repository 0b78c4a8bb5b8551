"""A sheet as one long row of bits, a cell each: all places where a part fits, in a few hundred steps.

A part is the cells that it touches, as runs by rows; what lies on the sheet takes the cells that are touched by what is
nearer to it than the gap. So no place that is found is too near, and an upright edge on the grid loses nothing. Where a
run of L cells has room is the sheet's free cells, eroded L times (by doubling); where the part has room is what all its
runs have in common, each shifted to its place.
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from stileblade.geometry.curves.segments import Ints
from stileblade.geometry.measures import rows
from stileblade.geometry.measures.rows import Shape
from stileblade.sheets.layout.parts import Format, Part


class Mask:
    """A turned part on the grid, its box at 0, 0: groups of equal runs in neighbouring rows (row, how many, column,
    length), the longest first, and the runs that it takes of a sheet."""

    def __init__(self, shape: Shape, cell: float, gap: float) -> None:
        self.width, self.height = rows.size_of(shape)
        self.runs = rows.touched(rows.coarse(shape), cell)
        self.groups = _grouped(self.runs)
        self.cells = int((self.runs[:, 2] - self.runs[:, 1]).sum())
        self.taken = rows.touched(rows.grown(shape, gap), cell)


def _grouped(runs: Ints) -> list[tuple[int, int, int, int]]:
    open_: dict[tuple[int, int], tuple[int, int]] = {}
    found = []
    for row, first, last in runs.tolist():
        key = (first, last)
        start, end = open_.get(key, (row, row))
        if end != row and key in open_:
            found.append((start, end - start, first, last - first))
            start = row
        open_[key] = (start, row + 1)
    found += [
        (start, end - start, first, last - first) for (first, last), (start, end) in open_.items()
    ]
    return sorted(found, key=lambda g: (-g[3] * g[1], g))


@lru_cache(maxsize=4000)
def mask_of(part: Part, turn: float, cell: float, gap: float) -> Mask:
    """A part's mask; made once."""
    return Mask(part.at(turn), cell, gap)


class Grid:
    """A sheet's free cells, and what fits there."""

    def __init__(self, form: Format, cell: float, blocked: tuple[Shape, ...] = ()) -> None:
        self.form, self.cell = form, cell
        self.margin = 2
        w, h = form.inner
        self.columns = int(np.floor(w / cell + 1e-9)) + 1
        self.rows = int(np.floor(h / cell + 1e-9)) + 1
        self.stride = self.columns + 2 * self.margin + 2
        self.total = self.stride * (self.rows + 2 * self.margin + 2)
        self.free = (1 << self.total) - 1
        self.room = self.total
        """Free cells, those beyond its edge among them."""
        self._eroded: dict[int, int] = {}
        for shape in blocked:
            self.burn_shape(shape)

    def burn_shape(self, shape: Shape) -> None:
        """Takes the cells of a shape that lies in the sheet's frame."""
        inner = rows.moved(shape, -self.form.edge, -self.form.edge)
        self._take(rows.touched(rows.grown(inner, self.form.gap), self.cell) + self.margin)

    def burn(self, mask: Mask, column: int, row: int) -> None:
        """Takes the cells of a part whose box is at a place of the grid."""
        at = np.array([row, column, column]) + self.margin
        self._take(mask.taken + at)

    def _take(self, runs: Ints) -> None:
        taken = 0
        most_rows = self.total // self.stride
        for row, first, last in runs.tolist():
            if 0 <= row < most_rows:
                first, last = max(first, 0), min(last, self.stride)
                if last > first:
                    taken |= ((1 << (last - first)) - 1) << (row * self.stride + first)
        self.free &= ~taken
        self.room = self.free.bit_count()
        self._eroded = {}

    def _run(self, length: int) -> int:
        """Cells from which so many in their row are free."""
        known = self._eroded
        if length in known:
            return known[length]
        if length == 1:
            found = self.free
        else:
            half = 1 << ((length - 1).bit_length() - 1)
            base = self._run(half)
            found = base & (base >> (length - half))
        known[length] = found
        return found

    def _column(self, found: int, count: int) -> int:
        """Of cells with room for a run, those with as many beneath each other."""
        done = 1
        while done < count:
            step = min(done, count - done)
            found &= found >> (step * self.stride)
            done += step
        return found

    def places(self, mask: Mask) -> int:
        """All places for a part's box as bits, by row and column of the inner sheet."""
        w, h = self.form.inner
        most_x = int(np.floor((w - mask.width) / self.cell + 1e-9))
        most_y = int(np.floor((h - mask.height) / self.cell + 1e-9))
        if most_x < 0 or most_y < 0 or mask.cells > self.room:
            return 0
        shift = self.margin
        row = ((1 << (most_x + 1)) - 1) << shift
        found = _repeated(row, self.stride, most_y + 1) << (shift * self.stride)
        for first, count, column, length in mask.groups:
            room = self._run(length)
            if count > 1:
                room = self._column(room, count)
            found &= room >> (first * self.stride + column)
            if not found:
                return 0
        return found >> (shift * self.stride + shift)

    def first(self, places: int) -> tuple[int, int]:
        """The first of some places as (column, row): nearest to the head, then to the left."""
        bit = (places & -places).bit_length() - 1
        return bit % self.stride, bit // self.stride


@lru_cache(maxsize=2000)
def _repeated(row: int, stride: int, count: int) -> int:
    """The row's bits in so many rows beneath each other."""
    found, done = row, 1
    while done < count:
        step = min(done, count - done)
        found |= (found & ((1 << (step * stride)) - 1)) << (done * stride)
        done += step
    return found
