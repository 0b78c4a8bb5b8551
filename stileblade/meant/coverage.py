"""Which stretches of some lines are not covered by others: what is missing of a design, and what was added to it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stileblade.geometry.curves.arrays import nth_of, true_at
from stileblade.geometry.curves.segments import Bools, Floats, Ints
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.nearness import Near

WITHIN = 0.1
"""mm: a line is covered where another line is this near."""
LEAST = 0.5
"""mm: a shorter stretch that is not covered is not reported."""
_ROUNDING = 0.03
"""mm by which a stretch may be measured too short: files round places to a fortieth of a mm."""
_EVERY = 0.2
_HALVINGS = 5
_PASS = 1.0
"""mm: a line that comes back to a place after more than this passes it a second time."""


@dataclass(frozen=True, eq=False)
class Stretch:
    """A part of a line that no other line covers: the number of the line, places along the part (n, 2), how far each
    is from the other lines (n,) in mm, infinite where there are none, and the length of the part in mm."""

    line: int
    places: Floats
    away: Floats
    length: float

    @property
    def middle(self) -> tuple[float, float]:
        x, y = self.places[len(self.places) // 2]
        return float(x), float(y)


@dataclass(frozen=True, eq=False)
class Sampled:
    """Places (n, 2) along lines, all their corners among them; for each place the number of its line (n,) and its
    distance in mm along that line (n,)."""

    places: Floats
    line: Ints
    along: Floats

    def at(self, line: Ints, along: Floats) -> Floats:
        """Places (m, 2) at distances along lines, between those that were sampled."""
        # the distances of all lines one after the other, so that one search serves all of them
        stride = float(self.along.max()) + 1.0
        known, wanted = self.line * stride + self.along, line * stride + along
        return np.stack([np.interp(wanted, known, self.places[:, i]) for i in (0, 1)], axis=1)


def sampled(lines: Sequence[Floats], every: float = _EVERY) -> Sampled:
    """Places along polylines (n, 2), at most ``every`` mm apart."""
    start = np.concatenate([line[:-1] for line in lines])
    way = np.concatenate([np.diff(line, axis=0) for line in lines])
    edges = np.array([len(line) - 1 for line in lines])
    owner = np.repeat(np.arange(len(lines)), edges)
    size = norms(way)
    total = np.concatenate([[0.0], np.cumsum(size)])
    first = np.concatenate([[0], np.cumsum(edges)])[:-1]
    before = total[:-1] - total[first][owner]
    count = np.maximum(np.ceil(size / every), 1).astype(np.int64)
    edge = np.repeat(np.arange(len(size)), count)
    share = nth_of(count) / count[edge]
    places = start[edge] + share[:, None] * way[edge]
    along = before[edge] + share * size[edge]
    # the last place of each line belongs to no edge
    ends = np.array([line[-1] for line in lines])
    length = total[first + edges] - total[first]
    line = np.concatenate([owner[edge], np.arange(len(lines))])
    along = np.concatenate([along, length])
    order = np.lexsort((along, line))
    return Sampled(np.concatenate([places, ends])[order], line[order], along[order])


def uncovered(lines: Sequence[Floats], others: Sequence[Floats]) -> list[Stretch]:
    """The parts of polylines, longer than ``LEAST``, that lie further than ``WITHIN`` from all others."""
    if not lines:
        return []
    near, samples = Near(others), sampled(lines)
    away = near.away(samples.places)
    return [
        stretch
        for stretch in _stretches(samples, away, away > WITHIN, near)
        if stretch.length >= LEAST - _ROUNDING
    ]


def _stretches(samples: Sampled, away: Floats, bad: Bools, near: Near) -> list[Stretch]:
    if not bad.any():
        return []
    same = samples.line[1:] == samples.line[:-1]
    begins = bad & np.concatenate([[True], ~(bad[:-1] & same)])
    ends = bad & np.concatenate([~(bad[1:] & same), [True]])
    first, last = true_at(begins), true_at(ends)
    low = _border(samples, near, first, -1)
    high = _border(samples, near, last, 1)
    return [
        Stretch(int(samples.line[a]), samples.places[a : b + 1], away[a : b + 1], float(h - g))
        for a, b, g, h in zip(first, last, low, high, strict=True)
    ]


def _border(samples: Sampled, near: Near, rows: Ints, step: int) -> Floats:
    """How far along their lines stretches begin or end (n,): found by halving between the outermost place that is not
    covered and its neighbour that is. What covers a line's end reaches beyond its own end by ``WITHIN``."""
    found = samples.along[rows].copy()
    beside = rows + step
    inside = (beside >= 0) & (beside < len(samples.line))
    inside[inside] = samples.line[beside[inside]] == samples.line[rows[inside]]
    if not inside.any():
        return found
    line = samples.line[rows[inside]]
    bad, good = samples.along[rows[inside]], samples.along[beside[inside]]
    for _ in range(_HALVINGS):
        middle = (bad + good) / 2
        out = near.away(samples.at(line, middle)) > WITHIN
        bad, good = np.where(out, middle, bad), np.where(out, good, middle)
    found[inside] = (bad + good) / 2 + step * WITHIN
    return found


def times_passed(places: Floats, lines: Sequence[Floats]) -> Ints:
    """How many times lines pass each place (n,) within ``WITHIN`` mm; a line that comes back counts again."""
    if not lines or not len(places):
        return np.zeros(len(places), np.int64)
    near = Near(lines)
    spot, edge = near.within(places, WITHIN)
    line, along = near.owner[edge], near.along(places[spot], edge)
    order = np.lexsort((along, line, spot))
    spot, line, along = spot[order], line[order], along[order]
    new = np.ones(len(spot), bool)
    new[1:] = (spot[1:] != spot[:-1]) | (line[1:] != line[:-1]) | (np.diff(along) > _PASS)
    return np.bincount(spot[new], minlength=len(places))
