"""Ways that a tool runs along: places and the bulges between them.

A bulge is the tangent of a quarter of an arc's angle, 0 for a line, positive where it runs clockwise
as seen with y downwards (see ``biarcs``).
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from stileblade.geometry.curves.arrays import nth_of
from stileblade.geometry.curves.segments import Floats, Segments, arc, concatenate, lines
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.paths.biarcs import bulged

_STRAIGHT = 1e-9


@dataclass(frozen=True, eq=False)
class Way:
    """Places (n, 2) and bulges (n - 1,), run from the first to the last; closed where these are one."""

    points: Floats
    bulges: Floats

    @property
    def closed(self) -> bool:
        return len(self.points) > 2 and bool((self.points[0] == self.points[-1]).all())

    @property
    def start(self) -> Floats:
        return np.asarray(self.points[0])

    @property
    def end(self) -> Floats:
        return np.asarray(self.points[-1])

    @cached_property
    def lengths(self) -> Floats:
        """Of each stretch (n - 1,), along its arc."""
        chord = norms(np.diff(self.points, axis=0))
        turn = 4 * np.arctan(np.abs(self.bulges))
        half = np.where(turn > _STRAIGHT, turn / 2, 1.0)
        return np.asarray(np.where(turn > _STRAIGHT, chord * half / np.sin(half), chord))

    @property
    def length(self) -> float:
        return float(self.lengths.sum())

    def reversed(self) -> Way:
        return Way(self.points[::-1], -self.bulges[::-1])

    def from_place(self, number: int) -> Way:
        """A closed way begun at another of its places."""
        points = np.concatenate([self.points[number:-1], self.points[: number + 1]])
        return Way(points, np.roll(self.bulges, -number))

    def stretch(self, low: float, high: float) -> Way:
        """From ``low`` to ``high`` mm along it, both within its length."""
        ends = np.concatenate([[0.0], np.cumsum(self.lengths)])
        low, high = max(low, 0.0), min(high, float(ends[-1]))
        first = int(np.clip(np.searchsorted(ends, low, side="right") - 1, 0, len(self.bulges) - 1))
        last = int(
            np.clip(np.searchsorted(ends, high, side="left") - 1, first, len(self.bulges) - 1)
        )
        points, bulges = [], []
        for i in range(first, last + 1):
            size = ends[i + 1] - ends[i]
            a = max(0.0, (low - ends[i]) / size) if size else 0.0
            b = min(1.0, (high - ends[i]) / size) if size else 1.0
            points.append(self._at(i, a))
            bulges.append(np.tan(np.arctan(self.bulges[i]) * (b - a)))
        points.append(self._at(last, b))
        return Way(np.array(points), np.array(bulges))

    def _at(self, number: int, share: float) -> Floats:
        a, b = self.points[number], self.points[number + 1]
        if share <= 0:
            return np.asarray(a)
        if share >= 1:
            return np.asarray(b)
        bulge = self.bulges[number]
        if abs(bulge) < _STRAIGHT:
            return np.asarray(a + (b - a) * share)
        centre, turn = self.centres[number], 4 * np.arctan(bulge) * share
        return np.asarray(centre + _turned(a - centre, turn))

    @cached_property
    def centres(self) -> Floats:
        """Of the arcs (n - 1, 2); of lines the middle."""
        a, b = self.points[:-1], self.points[1:]
        chord = b - a
        normal = np.stack([-chord[:, 1], chord[:, 0]], axis=1)
        safe = np.where(np.abs(self.bulges) < _STRAIGHT, 1.0, self.bulges)
        return np.asarray((a + b) / 2 + normal * ((1 - safe**2) / (4 * safe))[:, None])

    def turned_over(self, height: float) -> Way:
        """With y upwards from ``height``."""
        points = np.stack([self.points[:, 0], height - self.points[:, 1]], axis=1)
        return Way(points, -self.bulges)

    def flat(self, within: float) -> Floats:
        """Places (m, 2) of chords within ``within`` mm of it."""
        turn = 4 * np.arctan(self.bulges)
        radius = norms(self.points[:-1] - self.centres)
        ratio = np.clip(1 - within / np.maximum(radius, within), -1, 1)
        step = np.maximum(2 * np.arccos(ratio), 0.02)
        count = np.where(np.abs(self.bulges) < _STRAIGHT, 1, np.ceil(np.abs(turn) / step - 1e-9))
        count = np.maximum(count, 1).astype(np.int64)
        which = np.repeat(np.arange(len(count)), count)
        share = nth_of(count) / count[which]
        angle = turn[which] * share
        centre = self.centres[which]
        arm = self.points[which] - centre
        c, s = np.cos(angle), np.sin(angle)
        spun = centre + np.stack(
            [arm[:, 0] * c - arm[:, 1] * s, arm[:, 0] * s + arm[:, 1] * c], axis=1
        )
        inner = (share > 0)[:, None]
        return np.concatenate([np.where(inner, spun, self.points[which]), self.points[-1:]])


def _turned(arm: Floats, angle: float) -> Floats:
    c, s = np.cos(angle), np.sin(angle)
    return np.array([arm[0] * c - arm[1] * s, arm[0] * s + arm[1] * c])


def joined(first: Way, *more: Way) -> Way:
    """Ways of which each begins where the one before ends, as one."""
    return Way(
        np.concatenate([first.points, *(way.points[1:] for way in more)]),
        np.concatenate([first.bulges, *(way.bulges for way in more)]),
    )


def way_of(segments: Segments, *, closed: bool, within: float = 0.003) -> Way:
    """A contour or an open line as lines and arcs within ``within`` mm of it."""
    chain = bulged(segments, closed=closed, within=within)
    if not closed:
        return Way(chain.points, chain.bulges[:-1])
    return Way(np.concatenate([chain.points, chain.points[:1]]), chain.bulges)


def segments_of(way: Way) -> Segments:
    """A way as segments: lines and circular arcs."""
    parts = []
    for a, b, bulge, centre in zip(
        way.points[:-1], way.points[1:], way.bulges, way.centres, strict=True
    ):
        if abs(bulge) < _STRAIGHT:
            parts.append(lines([a], [b]))
            continue
        arm = a - centre
        first, turn = float(np.arctan2(arm[1], arm[0])), float(4 * np.arctan(bulge))
        r = float(np.hypot(*arm))
        parts.append(arc(centre, (r, 0.0), (0.0, r), first, first + turn, start=a, end=b))
    return concatenate(parts)
