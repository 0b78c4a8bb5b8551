"""Finely drawn outlines, with fewer and longer curves.

Curves so short that flattening leaves one or two edges of each cannot be told apart by the edges of the
kernel's buffer: a smooth outline of six hundred of them would come back as the kernel's polygon. So
stretches of them that run on smoothly are replaced, before the outline is offset, by cubics that stay
within a thousandth of a millimetre of them. An offset is off by no more than the outline it is of.
"""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.arrays import offsets_of, run_sizes, run_starts, true_at
from stileblade.geometry.curves.cubics import approached, at_feet
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import circular
from stileblade.geometry.curves.segments import (
    TAU,
    Bools,
    Floats,
    Ints,
    Segments,
    beziers,
    concatenate,
)
from stileblade.geometry.curves.vectors import Places, as_complex, crosses, dots
from stileblade.geometry.regions.region import Region
from stileblade.tolerance import TOLERANCE

_EDGES = 2
"""A curve is short if it is flattened to no more edges."""
_SMOOTH = 0.02
"""Radians by which an outline may turn at a joint that is smooth but for the rounding of files."""
_TOGETHER = 32
"""How many are tried as one at first; then half as many, and half of that."""
_SPOTS = 16


def with_longer_curves(region: Region) -> Region:
    """The region with stretches of short curves replaced, where there are any; corners, lines and arcs
    of circles stay as they are."""
    segments = region.segments
    short = _short(segments)
    if np.count_nonzero(short) < 3:
        return region
    ring = np.repeat(np.arange(len(region.shell)), np.diff(region.rings))
    run = _runs(segments, ring, short)
    parts, rows = [segments.take(~short)], [true_at(~short)]
    left = true_at(short)
    together = _TOGETHER
    while together > 1 and len(left):
        made, first, taken = _fitted(segments, left, run[left], together)
        parts.append(made)
        rows.append(first)
        left = left[~taken]
        together //= 2
    parts.append(segments.take(left))
    rows.append(left)
    row = np.concatenate(rows)
    order = np.argsort(row, kind="stable")
    sizes = np.bincount(ring[row], minlength=len(region.shell))
    return Region(concatenate(parts).take(order), offsets_of(sizes), region.shell)


def _short(segments: Segments) -> Bools:
    whole = np.where(segments.kind == Kind.ARC, TAU, 1.0)
    step = np.abs(segments.span[:, 1] - segments.span[:, 0]) / whole
    short = step * segments.pieces_per_parent <= _EDGES + 1e-9
    short &= (segments.kind != Kind.LINE) & (segments.chords > TOLERANCE.point)
    rows = true_at(short)
    if len(rows):
        short[rows[circular(segments.take(rows))[0]]] = False
    return short


def _runs(segments: Segments, ring: Ints, short: Bools) -> Ints:
    """Numbers (n,) that are equal along stretches of short curves that run on smoothly."""
    first, last = segments.end_directions()
    a, b = last[np.maximum(np.arange(len(ring)) - 1, 0)], first
    on = (dots(a, b) > 0) & (np.abs(crosses(a, b)) <= _SMOOTH)
    on &= short & np.r_[False, short[:-1] & (ring[1:] == ring[:-1])]
    return np.cumsum(~on)


def _fitted(
    segments: Segments, left: Ints, run: Ints, together: int
) -> tuple[Segments, Ints, Bools]:
    """Cubics for as many curves of ``left`` (m,) ``together`` as there are of a run; the first curve of
    each, and which of ``left`` are replaced."""
    head = run_starts(run + offsets_of((np.diff(left) > 1).astype(np.int64)))
    size = run_sizes(head, len(left))
    start = np.repeat(head, size)
    group = (np.arange(len(left)) - start) // together + np.repeat(
        offsets_of(-(-size[:-1] // together)), size
    )
    head = run_starts(group)
    size = run_sizes(head, len(left))
    several = true_at(size > 1)
    head, size = head[several], size[several]
    none = np.zeros(len(left), bool)
    if not len(head):
        return Segments.empty(), left[:0], none
    first, last = left[head], left[head + size - 1]
    chords = np.concatenate([[0.0], np.cumsum(segments.chords[left])])
    length = chords[head + size] - chords[head]
    place = np.arange(1, _SPOTS) / _SPOTS
    t, target = _spots(segments, left, chords, head, length, place)
    directions = segments.end_directions()
    along = np.stack([as_complex(directions[0][first]), -as_complex(directions[1][last])], axis=1)
    ends = as_complex(segments.start[first]), as_complex(segments.end[last]), along
    handles = np.repeat(length[:, None] / 3, 2, axis=1)
    control, error = approached(ends, handles, t, target, length, TOLERANCE.longer)
    # between those, and at the joints of short curves, as well
    between = (np.arange(2 * _SPOTS) + 0.5) / (2 * _SPOTS)
    t, target = _spots(segments, left, chords, head, length, between)
    off = np.abs(at_feet(control, t, target, 3)[1]).max(axis=1)
    turned = dots(directions[0][first], directions[1][last]) > 0
    good = true_at((np.maximum(error, off) <= TOLERANCE.longer) & turned)
    taken = np.isin(group, group[head[good]])
    made = beziers(control[good].view(float).reshape(-1, 4, 2))
    return made, first[good], taken


def _spots(
    segments: Segments, left: Ints, chords: Floats, head: Ints, length: Floats, share: Floats
) -> tuple[Floats, Places]:
    """Where about along each group (k,) places at shares (s,) of its length are, and those (k, s)."""
    way = chords[head, None] + length[:, None] * share
    at = np.clip(np.searchsorted(chords, way.ravel(), "right") - 1, 0, len(left) - 1)
    row = left[at]
    inside = (way.ravel() - chords[at]) / np.maximum(segments.chords[row], 1e-300)
    t0, t1 = segments.span[row].T
    places = segments.points_at(row, t0 + np.clip(inside, 0, 1) * (t1 - t0))
    shares = np.broadcast_to(share, way.shape).copy()
    return shares, as_complex(places).reshape(way.shape)
