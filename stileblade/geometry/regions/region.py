"""A region: what is inside a set of closed contours, its curves kept.

Invariants: rings do not cross; each shell is followed by its openings; shells run with
positive signed area (clockwise as seen, y downwards), openings against it.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely

from stileblade.geometry.curves import measurement
from stileblade.geometry.curves.arrays import begins, ranks, run_sizes, run_starts, true_at
from stileblade.geometry.curves.flatten import Flat, flatten
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats, Ints, Segments, concatenate


@dataclass(frozen=True, eq=False)
class Contour:
    """One closed ring of a region, by itself."""

    segments: Segments
    opening: bool

    @cached_property
    def area(self) -> float:
        """Enclosed area in mm^2, positive."""
        return abs(measurement.signed_area(self.segments))

    @cached_property
    def bounds(self) -> Box:
        return Box(*measurement.bounds(self.segments))

    def as_region(self) -> Region:
        """What the contour encloses, as if nothing were cut out of it."""
        return self._region

    @cached_property
    def _region(self) -> Region:
        segments = self.segments.reversed() if self.opening else self.segments
        return Region(segments, np.array([0, len(segments)]), np.zeros(1, np.int64))


@dataclass(frozen=True, eq=False)
class Region:
    """segments (n); rings (r + 1,) offsets into them; shell (r,) the ring each belongs to."""

    segments: Segments
    rings: Ints
    shell: Ints

    @staticmethod
    def empty() -> Region:
        return Region(Segments.empty(), np.zeros(1, np.int64), np.zeros(0, np.int64))

    def __bool__(self) -> bool:
        return len(self.shell) > 0

    @property
    def nodes(self) -> int:
        """How many segments (and so corners) all contours have together."""
        return len(self.segments)

    @property
    def contours(self) -> Iterator[Contour]:
        for r in range(len(self.shell)):
            yield self.contour(r)

    def contour(self, ring: int) -> Contour:
        part = slice(int(self.rings[ring]), int(self.rings[ring + 1]))
        return Contour(self.segments.take(part), bool(self.shell[ring] != ring))

    @cached_property
    def openings(self) -> list[Contour]:
        """Contours of the inner openings, in order."""
        inner = true_at(self.shell != np.arange(len(self.shell)))
        return [self.contour(int(r)) for r in inner]

    @property
    def pieces(self) -> int:
        """How many separate pieces of paper the region is."""
        return int((self.shell == np.arange(len(self.shell))).sum())

    def parts(self) -> list[Region]:
        """Each separate piece as a region, in the order of ``by_size``."""
        return list(self._parts)

    @cached_property
    def _parts(self) -> tuple[Region, ...]:
        if self.pieces == 1:
            return (self,)
        found = []
        for s in true_at(self.shell == np.arange(len(self.shell))):
            last = int(true_at(self.shell == s)[-1])
            rings = self.rings[s : last + 2]
            found.append(
                Region(
                    self.segments.take(slice(int(rings[0]), int(rings[-1]))),
                    rings - rings[0],
                    np.zeros(last - int(s) + 1, np.int64),
                )
            )
        return tuple(found[i] for i in by_size(found))

    def transformed(self, matrix: Floats) -> Region:
        """Mapped by a 2x3 matrix; exact. Contours are reversed where it mirrors."""
        segments = self.segments.transformed(matrix)
        a, c, b, d = matrix[0, 0], matrix[0, 1], matrix[1, 0], matrix[1, 1]
        if a * d - b * c < 0:
            # reversing everything reverses the order of rings, too: put it back
            n, r = len(segments), len(self.shell)
            sizes = np.diff(self.rings)
            ring = np.arange(r).repeat(sizes)
            within = np.arange(n) - self.rings[ring]
            source = self.rings[ring] + sizes[ring] - 1 - within
            back = segments.reversed()
            segments = back.take(n - 1 - source)
        return Region(segments, self.rings, self.shell)

    @cached_property
    def content_digest(self) -> bytes:
        """16 bytes that tell the region from every other one, to the last bit."""
        found, s = hashlib.blake2b(digest_size=16), self.segments
        for array in (s.kind, s.coef, s.span, s.start, s.end, self.rings, self.shell):
            found.update(np.ascontiguousarray(array).tobytes())
        return found.digest()

    @cached_property
    def flat(self) -> Flat:
        return flatten(self.segments, self.rings)

    @cached_property
    def polygons(self) -> shapely.MultiPolygon:
        """The flattened region for the kernel."""
        return build_polygons(self.flat.points, self.flat.ring, self.shell)

    @cached_property
    def bounds(self) -> Box:
        """The exact box, by the extremes of the curves. An empty region: all 0."""
        return Box(*measurement.bounds(self.segments)) if self else Box(0.0, 0.0, 0.0, 0.0)

    @cached_property
    def area(self) -> float:
        """Exact area in mm^2, openings taken off."""
        return measurement.signed_area(self.segments)

    @cached_property
    def centroid(self) -> tuple[float, float]:
        """Centre of mass of the even sheet. An empty region: (0, 0)."""
        return measurement.centroid(self.segments) if self else (0.0, 0.0)


def from_left(outlines: Sequence[Region | Contour]) -> list[int]:
    """Their numbers from left to right, of those that begin at one place from head to foot."""
    return np.lexsort(_places(outlines)).tolist()


def by_size(outlines: Sequence[Region | Contour]) -> list[int]:
    """Their numbers, the largest first; of those that are as large as each other as ``from_left``."""
    size = ranks(np.array([-outline.area for outline in outlines]), _AS_LARGE)
    return np.lexsort((*_places(outlines), size)).tolist()


def _places(outlines: Sequence[Region | Contour]) -> tuple[Ints, Ints]:
    """Ranks (n,) by heads and by left sides."""
    boxes = np.array([outline.bounds.as_list() for outline in outlines]).reshape(-1, 4)
    return ranks(boxes[:, 1], _AT_ONE), ranks(boxes[:, 0], _AT_ONE)


_AS_LARGE = 1e-6
"""mm^2: areas that differ by no more are the same but for rounding."""
_AT_ONE = 0.01
"""mm: places that differ by no more are the same but for rounding."""


def build_polygons(points: Floats, ring: Ints, shell: Ints) -> shapely.MultiPolygon:
    """Polygons of the kernel from ring vertices, not closed, and each ring's shell."""
    return shapely.multipolygons(shell_polygons(points, ring, shell)[0])


def shell_polygons(points: Floats, ring: Ints, shell: Ints) -> tuple[np.ndarray, Ints]:
    """One polygon of the kernel for each shell, and these: as far as a shell has three vertices."""
    starts = run_starts(ring)
    sizes = run_sizes(starts, len(ring))
    kept = true_at(sizes >= 3)
    if not len(kept):
        return np.zeros(0, object), kept
    if len(sizes) == 1:
        return np.array([shapely.polygons(shapely.linearrings(points))], object), shell
    big = np.repeat(sizes >= 3, sizes)
    rings = shapely.linearrings(points[big], indices=_renumbered(ring[big]))
    shells = shell[kept]
    polygons = shapely.polygons(rings, indices=_renumbered(shells))
    return polygons, shells[begins(shells)]


def _renumbered(numbers: Ints) -> Ints:
    """Non-decreasing numbers as 0, 1, 2, ... without gaps."""
    return np.cumsum(begins(numbers)) - 1


def gather(regions: list[Region]) -> Region:
    """Regions that do not overlap, as one."""
    regions = [r for r in regions if r]
    if not regions:
        return Region.empty()
    rings, shells, segments, offset, count = [np.zeros(1, np.int64)], [], [], 0, 0
    for r in regions:
        segments.append(r.segments)
        rings.append(r.rings[1:] + offset)
        shells.append(r.shell + count)
        offset += len(r.segments)
        count += len(r.shell)
    return Region(concatenate(segments), np.concatenate(rings), np.concatenate(shells))
