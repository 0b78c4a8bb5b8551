"""What of a region lies on one side of an upright or level line, cut on the curves themselves.

Where the outline crosses the line, its curve is cut at the crossing; the crossings, in their order
along the line, are joined two by two by the new edges. What is not that simple (a corner on the
line, a scrap beside it, slivers) is left to the general intersection.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np

from stileblade.geometry.curves.arrays import neighbours, run_starts, true_at
from stileblade.geometry.curves.segments import Bools, Floats, Ints, Segments, lines
from stileblade.geometry.curves.vectors import crosses, norms
from stileblade.geometry.regions.assemble import rejoin
from stileblade.geometry.regions.region import Region
from stileblade.tolerance import TOLERANCE

_ROUNDS = 12
_EXACT = 1e-10
"""mm: how near to the line a crossing is found."""
_LARGE = 1.0
"""mm: with corners so far apart both ways a contour is no sliver."""
_CLEAR = 1e-5
"""mm: how far from it places of the flattened outline are, so that rounding moves none across."""


def halved(region: Region, *, axis: str, at: float, keep: str) -> Region | None:
    """What of the region lies where x or y (``axis``) is "less" or "more" (``keep``) than ``at``;
    None where that has to be told in another way."""
    across, sign = (0 if axis == "x" else 1), (1.0 if keep == "less" else -1.0)
    flat = region.flat
    off = sign * (flat.points[:, across] - at)
    corners = np.abs(region.segments.start[:, across] - at)
    if corners.min() < TOLERANCE.conode or np.abs(off).min() < _CLEAR:
        return None
    gone = off > 0
    edge = true_at(gone != gone[flat.after])
    back = gone[edge]
    ends = flat.t0[edge], flat.t1[edge]
    kept, beyond = (np.where(back, *pair) for pair in (ends[::-1], ends))
    own = flat.segment[edge]
    t, place = _crossings(region.segments, own, (kept, beyond), across, sign, at)
    if (np.abs(place[:, across] - at) > _EXACT).any():
        return None
    place[:, across] = at
    cuts = _Cuts(region, own, t, place, back, flat.ring[edge], across)
    if cuts.leave_scraps or cuts.partner is None:
        return None
    starts = region.rings[:-1]
    made = cuts.put_together(sign * (region.segments.start[starts, across] - at) < 0)
    return None if made is None or _has_slivers(made) else made


def _crossings(
    segments: Segments,
    own: Ints,
    between: tuple[Floats, Floats],
    across: int,
    sign: float,
    at: float,
) -> tuple[Floats, Floats]:
    """Parameters (k,) at which segments cross the line, and the places (k, 2): by Newton from
    between two that are on this side of it and beyond, halving where a step leads out."""
    kept, beyond = between
    t = (kept + beyond) / 2
    for _ in range(_ROUNDS):
        place, speed = segments.motion_at(own, t)
        off = sign * (place[:, across] - at)
        away = np.abs(off) > _EXACT / 10
        if not away.any():
            return t, place
        outside = off > 0
        kept, beyond = np.where(outside, kept, t), np.where(outside, t, beyond)
        rate = sign * speed[:, across]
        step = t - off / np.where(rate == 0, 1e-300, rate)
        inside = (step - kept) * (step - beyond) < 0
        t = np.where(away, np.where(inside, step, (kept + beyond) / 2), t)
    return t, segments.points_at(own, t)


@dataclass(frozen=True, eq=False)
class _Cuts:
    """Where a region's segments are cut, in the order of its outline. Of each cut: the segment (k,)
    and the parameter (k,), the place (k, 2), whether the outline comes back there from beyond the
    line (k,), and its ring (k,). ``across`` is the coordinate that is the same for all places."""

    region: Region
    own: Ints
    t: Floats
    place: Floats
    back: Bools
    ring: Ints
    across: int

    @cached_property
    def first(self) -> Ints:
        """The number of the piece that begins at each cut (k,); the one before it ends there."""
        return self.own + np.arange(len(self.own)) + 1

    @cached_property
    def pieces(self) -> tuple[Ints, Floats, Floats, Floats]:
        """The n segments as n + k pieces: the segment that each is of, span, start and end."""
        whole = self.region.segments
        count = np.bincount(self.own, minlength=len(whole)) + 1
        of = np.arange(len(whole)).repeat(count)
        span, start, end = (rows.take(of, axis=0) for rows in (whole.span, whole.start, whole.end))
        span[self.first, 0] = span[self.first - 1, 1] = self.t
        start[self.first] = end[self.first - 1] = self.place
        return of, span, start, end

    @cached_property
    def leave_scraps(self) -> bool:
        """Whether a kept piece is too short to stay, of a segment which is not short itself."""
        of, _, start, end = self.pieces
        beside = self.first - ~self.back
        short = beside[norms(end[beside] - start[beside]) < TOLERANCE.leftover]
        return bool((self.region.segments.chords[of[short]] > 3 * TOLERANCE.leftover).any())

    @cached_property
    def partner(self) -> Ints | None:
        """The cut (k,) with which a new edge joins each; None where that is not clear."""
        along = self.place[:, 1 - self.across]
        order = np.argsort(along)
        if len(order) % 2 or (np.diff(along[order]) < TOLERANCE.leftover).any():
            return None
        one, other = order[::2], order[1::2]
        if (self.back[one] == self.back[other]).any() or len(np.unique(self.back[one])) > 1:
            return None
        found = np.empty(len(order), np.int64)
        found[one], found[other] = other, one
        return found

    @cached_property
    def heads(self) -> list[int]:
        """The number of the first piece of each ring, and of all pieces."""
        rings = self.region.rings
        return (rings + np.searchsorted(self.ring, np.arange(len(rings)))).tolist()

    def loops(self) -> dict[int, list[Ints]]:
        """Contours of kept pieces and new edges, which count from the number of pieces on, for each
        shell of the region that is cut or has an opening that is."""
        assert self.partner is not None
        ahead = neighbours(self.ring)[0].tolist()
        edge = (np.cumsum(~self.back) - 1 + len(self.pieces[0])).tolist()
        first, partner, ring = self.first.tolist(), self.partner.tolist(), self.ring.tolist()
        found: dict[int, list[Ints]] = {}
        seen: set[int] = set()
        for cut in true_at(self.back).tolist():
            way: list[Ints] = []
            while cut not in seen:
                seen.add(cut)
                out = ahead[cut]
                head, foot = self.heads[ring[cut]], self.heads[ring[cut] + 1]
                a, b = first[cut], first[out]
                way += [np.arange(a, b)] if a < b else [np.arange(a, foot), np.arange(head, b)]
                way.append(np.array([edge[out]]))
                cut = partner[out]
            if way:
                of_shell = int(self.region.shell[ring[cut]])
                found.setdefault(of_shell, []).append(np.concatenate(way))
        return found

    def put_together(self, here: Bools) -> Region | None:
        """What is kept; ``here`` (r,) are the rings that begin on its side. None where an opening
        may belong to one of several pieces of paper."""
        whole = here.copy()
        whole[self.ring] = False
        loops = self.loops()
        rings: list[Ints] = []
        shell: list[int] = []
        for ring, (head, foot) in enumerate(pairwise(self.heads)):
            of_shell = int(self.region.shell[ring])
            if of_shell == ring:
                at = len(rings)
                rings += loops.get(ring, [])
                shell += range(at, len(rings))
            if not whole[ring]:
                continue
            if of_shell != ring and len(loops.get(of_shell, ())) > 1:
                return None
            rings.append(np.arange(head, foot))
            shell.append(at)
        if not rings:  # a bulge alone, lower than the flattened outline has
            return None
        made = self._segments(np.concatenate(rings))
        of_ring = np.arange(len(rings)).repeat([len(ring) for ring in rings])
        # a contour of one turn goes on where it began
        return rejoin(made, of_ring, np.array(shell), fresh=np.zeros(len(made), bool))[0]

    def _segments(self, number: Ints) -> Segments:
        """Pieces, and new edges after them, by their numbers."""
        assert self.partner is not None
        whole, (of, *rows) = self.region.segments, self.pieces
        edge = true_at(number >= len(of))
        out = true_at(~self.back)[number[edge] - len(of)]
        number[edge] = 0
        source = of.take(number)
        kind, coef = whole.kind.take(source), whole.coef.take(source, axis=0)
        span, start, end = (values.take(number, axis=0) for values in rows)
        new = lines(self.place[out], self.place[self.partner[out]])
        kind[edge], coef[edge], span[edge] = new.kind, new.coef, new.span
        start[edge], end[edge] = new.start, new.end
        return Segments(kind, coef, span, start, end)


def _has_slivers(region: Region) -> bool:
    """Whether it has a contour that would be no paper, or no opening."""
    corners, heads = region.segments.start, region.rings[:-1]
    sizes = np.maximum.reduceat(corners, heads) - np.minimum.reduceat(corners, heads)
    if sizes.min() > _LARGE:
        return False
    flat = region.flat
    starts = run_starts(flat.ring)
    area = np.abs(np.add.reduceat(crosses(flat.points, flat.ends), starts)) / 2
    width = 2 * area / np.add.reduceat(norms(flat.ends - flat.points), starts)
    shaving = (width < TOLERANCE.shaving) & (area <= TOLERANCE.shaving_area)
    return bool((shaving | (width < TOLERANCE.sliver)).any())
