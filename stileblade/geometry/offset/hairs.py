"""Hairs: steps of an outline that are shorter than anything that is cut, between stretches that are not.

What a corner is, the outline as a whole says. A hair of a ten-thousandth of a millimetre across a smooth
joint is no corner of ninety degrees and then another, and one at the end of a stretch that comes back
on itself is no flat end: taken for itself, it would put out a mitre as long as its limit allows. So
outlines are offset, and strokes drawn, without them; the stretches beside a hair keep their directions and
meet in its middle, by no more than half its length off.
"""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.arrays import neighbours, offsets_of, true_at
from stileblade.geometry.curves.segments import Bools, Ints, Segments
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.regions.region import Region

HAIR = 2e-3
"""mm."""
_LONG = 0.05
"""mm: finely drawn outlines, of steps that are all short, stay as they are."""


def hairs_of(segments: Segments, ring: Ints, closing: Bools) -> Bools:
    """Which segments (n,) are hairs; ``ring`` (n,) is each one's contour, of which ``closing`` (r,) says
    whether it closes: the two ends of an open one are none."""
    n = np.arange(len(segments))
    chord = norms(segments.end - segments.start)
    hair = chord <= HAIR
    for share in (0.25, 0.5, 0.75):
        t = segments.span[:, 0] + share * (segments.span[:, 1] - segments.span[:, 0])
        hair &= norms(segments.points_at(n, t) - segments.start) <= HAIR
    after, before = neighbours(ring)
    hair &= (chord[before] >= _LONG) & (chord[after] >= _LONG) & (before != after)
    first, last = before >= n, after <= n
    return hair & (closing[ring] | ~(first | last))


def without_hairs(segments: Segments, ring: Ints, closing: Bools) -> tuple[Segments, Ints]:
    """The segments that are no hairs, brought together in the middle of those, and their contours."""
    hair = hairs_of(segments, ring, closing)
    if not hair.any():
        return segments, ring
    after, before = neighbours(ring)
    gone = true_at(hair)
    middle = (segments.start[gone] + segments.end[gone]) / 2
    start, end = segments.start.copy(), segments.end.copy()
    start[after[gone]], end[before[gone]] = middle, middle
    kept = true_at(~hair)
    moved = Segments(segments.kind, segments.coef, segments.span, start, end)
    return moved.take(kept), ring[kept]


def region_without_hairs(region: Region) -> Region:
    """The region for offsetting, as ``without_hairs``."""
    ring = np.repeat(np.arange(len(region.shell)), np.diff(region.rings))
    segments, kept = without_hairs(region.segments, ring, np.ones(len(region.shell), bool))
    if len(segments) == len(region.segments):
        return region
    sizes = np.bincount(kept, minlength=len(region.shell))
    return Region(segments, offsets_of(sizes), region.shell)
