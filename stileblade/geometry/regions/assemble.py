"""Result edges that know their source curve, put together to contours of exact segments.

Edges that run on along one curve become one run; where two runs meet, the true crossing of
their curves is found; leftovers of cuts are taken away; runs that hop between two curves
lying on each other become one.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from stileblade.geometry.curves.arrays import (
    both,
    equal_rows,
    neighbours,
    run_ends,
    run_sizes,
    run_starts,
    true_at,
)
from stileblade.geometry.curves.crossing import (
    Curves,
    crossings,
    feet,
    nearest_places,
    on_level_lines,
)
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import TAU, Bools, Floats, Ints, Segments
from stileblade.geometry.curves.vectors import crosses, dots, norms
from stileblade.geometry.regions.leftovers import without_leftovers
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.runs import ResultEdges, Runs, join_edges
from stileblade.tolerance import TOLERANCE

_HOP = 4
"""How many runs ahead a curve is looked for again."""
_LOOKS = 5
"""At how many places a run between is held against that curve."""


def assemble(edges: ResultEdges, segments: Segments, shell: Ints) -> tuple[Region, Ints]:
    """The region bounded by the edges, with stretches of ``segments`` for them, and the numbers
    (r,) that its rings had."""
    runs = join_edges(edges, 1e-7)
    runs = _absorb(runs, segments)
    runs = meet(runs, segments)
    runs, _ = without_leftovers(runs, segments)
    after, before = neighbours(runs.ring)
    kept = runs.exact0 & runs.exact1[before] & (np.abs(runs.curve - runs.curve[before]) <= 1)
    made = Segments(
        segments.kind[runs.curve],
        segments.coef.take(runs.curve, axis=0),
        np.stack([runs.t0, runs.t1], axis=1),
        runs.point,
        runs.point.take(after, axis=0),
    )
    _straighten(made)
    return rejoin(made, runs.ring, shell, fresh=~kept)


def _straighten(segments: Segments) -> None:
    """Lines whose ends were moved off their parents become lines between those ends."""
    first, last = segments.coef.view(complex)[:, :2].T
    start, end = (
        np.ascontiguousarray(p).view(complex)[:, 0] for p in (segments.start, segments.end)
    )
    moved = ((start != first) | (end != last)) & ((start != last) | (end != first))
    n = true_at(moved & (segments.kind == Kind.LINE))
    off = np.maximum(
        np.abs(segments.points_at(n, segments.span[n, 0]) - segments.start[n]),
        np.abs(segments.points_at(n, segments.span[n, 1]) - segments.end[n]),
    )
    n = n[np.maximum(off[:, 0], off[:, 1]) > 1e-7]
    segments.coef[n, :2], segments.coef[n, 2:4] = segments.start[n], segments.end[n]
    segments.span[n] = [0.0, 1.0]


def meet(
    runs: Runs,
    curves: Curves,
    reach: Floats | None = None,
    *,
    apart: float = 1e-3,
    own: Bools | None = None,
) -> Runs:
    """Runs whose ends are the true meeting points of their curves, no farther from the kernel's
    corners than ``reach`` (n,), TOLERANCE.crossing by itself.

    Exact ends that are no more than ``apart`` mm from each other meet at the end of the one before,
    or at the start of the run itself where that is to keep its ``own`` (n,).
    """
    if reach is None:
        reach = np.full(len(runs), TOLERANCE.crossing)
    _, before = neighbours(runs.ring)
    p = runs.curve[before]
    t_end, t_start = runs.t1[before], runs.t0.copy()
    vertex = runs.point
    here, _ = _places(curves, runs.curve, t_start)
    there, at_end = _places(curves, p, t_end)
    agree = runs.exact0 & runs.exact1[before] & both(np.abs(here - there) < apart)
    at_end &= True if own is None else ~own
    point = np.where(at_end[:, None], there, here)
    todo = true_at(~agree)
    if len(todo):
        pairs = p[todo], runs.curve[todo]
        t, s, spot = _searched(
            curves, pairs, (t_end[todo], t_start[todo]), vertex[todo], reach[todo]
        )
        if isinstance(curves, Segments):
            spot = on_level_lines(curves, pairs[0], on_level_lines(curves, pairs[1], spot))
        t_end[todo], t_start[todo], point[todo] = t, s, spot
    t1 = runs.t1.copy()
    t1[before] = t_end
    return replace(runs, t0=t_start, t1=t1, point=point)


def _searched(
    curves: Curves,
    pairs: tuple[Ints, Ints],
    at: tuple[Floats, Floats],
    vertex: Floats,
    reach: Floats,
) -> tuple[Floats, Floats, Floats]:
    """Where pairs of curves cross within ``reach`` of the kernel's corners, from parameters close by:
    those on both, and the places; where they do not, between the places nearest to the corner."""
    p, q = pairs
    t, s, found = crossings(curves, p, at[0], q, at[1])
    spot = curves.points_at(q, s)
    found &= norms(spot - vertex) < reach
    # where curves turn back on themselves a search may run away: once more from the nearest places
    again = true_at(~found)
    if len(again):
        t[again] = nearest_places(curves, p[again], at[0][again], vertex[again])
        s[again] = nearest_places(curves, q[again], at[1][again], vertex[again])
        a, b, met = crossings(curves, p[again], t[again], q[again], s[again])
        place = curves.points_at(q[again], b)
        met &= norms(place - vertex[again]) < reach[again]
        hit = again[met]
        t[hit], s[hit], spot[hit], found[hit] = a[met], b[met], place[met], True
    miss = true_at(~found)
    if len(miss):
        spot[miss] = (curves.points_at(p[miss], t[miss]) + curves.points_at(q[miss], s[miss])) / 2
        # in a cusp feet are nowhere near: the kernel's own corner is
        lost = ~found & (norms(spot - vertex) > TOLERANCE.crossing)
        spot[lost] = vertex[lost]
    return t, s, spot


def _places(curves: Curves, curve: Ints, t: Floats) -> tuple[Floats, Bools]:
    """Points (m, 2) of curves at t (m,), a segment's own exact end where t is its end; and where it is."""
    span = curves.span.take(curve, axis=0)
    last = t == span[:, 1]
    at_end = last | (t == span[:, 0])
    if not isinstance(curves, Segments):
        return curves.points_at(curve, t), at_end
    # starts and ends one below the other: one place of them for each
    found = np.concatenate([curves.start, curves.end]).take(
        curve + last * len(curves.start), axis=0
    )
    inner = true_at(~at_end)
    found[inner] = curves.points_at(curve[inner], t[inner])
    return found, at_end


def _absorb(runs: Runs, curves: Segments) -> Runs:
    """Runs that leave a curve and come back to it without ever going away from it, merged.

    Happens where two outlines follow the same line in different words (an arc, and cubics
    for the same arc): the kernel's result hops between them.
    """
    n = len(runs)
    to = np.arange(n)  # the farthest run with which each goes on
    for hop in range(2, min(_HOP, n - 1) + 1):
        first = _returning(runs, curves, hop)
        to[first] = first + hop
    hops = true_at(to > np.arange(n))
    if not len(hops):
        return runs
    keep = np.ones(n, bool)
    t1, exact1 = runs.t1.copy(), runs.exact1.copy()
    for i in hops.tolist():
        if keep[i]:
            last = i
            while to[last] > last:
                last = to[last]
            keep[i + 1 : last + 1] = False
            t1[i], exact1[i] = runs.t1[last], runs.exact1[last]
    return replace(runs, t1=t1, exact1=exact1).take(true_at(keep))


def _returning(runs: Runs, curves: Segments, hop: int) -> Ints:
    """Runs (k,) whose curve goes on ``hop`` runs later, those between never going away from it."""
    direction = np.sign(runs.t1 - runs.t0)
    curve, gone, back = runs.curve[:-hop], runs.t1[:-hop], runs.t0[hop:]
    goes_on = (runs.ring[hop:] == runs.ring[:-hop]) & (runs.curve[hop:] == curve)
    goes_on &= direction[hop:] == direction[:-hop]
    goes_on &= (back - gone) * direction[:-hop] >= -1e-6
    first = true_at(goes_on)
    if not len(first):
        return first
    between = (first[:, None] + np.arange(1, hop)).ravel()
    share = np.linspace(0, 1, _LOOKS)
    t = runs.t0[between, None] * (1 - share) + runs.t1[between, None] * share
    p = curves.points_at(runs.curve[between].repeat(_LOOKS), t.ravel())
    looks = (hop - 1) * _LOOKS
    same = curve[first].repeat(looks)
    along = gone[first, None] + (back - gone)[first, None] * np.linspace(0, 1, looks)
    foot = curves.points_at(same, feet(curves, same, along.ravel(), p))
    off = norms(foot - p).reshape(-1, looks).max(axis=1)
    # a tip hardly longer than what cuts leave, and no higher, goes with it
    ends = p.reshape(-1, _LOOKS, 2)
    size = norms(ends[:, -1] - ends[:, 0]).reshape(-1, hop - 1).max(axis=1)
    tip = size < 2 * TOLERANCE.leftover
    return first[off < np.where(tip, TOLERANCE.leftover, TOLERANCE.coincident)]


def rejoin(segments: Segments, ring: Ints, shell: Ints, *, fresh: Bools) -> tuple[Region, Ints]:
    """Rings of segments as a region, and the numbers (r,) that its rings had.

    Stretches that go on along one parent become one segment, and so do lines that go straight on
    at a ``fresh`` joint (n,): a source's own corners stay, however flat, or a finely drawn curve
    would be worn away."""
    before = neighbours(ring)[1]
    line = segments.kind == Kind.LINE
    jump = segments.span[:, 0] - segments.span[before, 1]
    turns = np.where(segments.kind == Kind.ARC, np.rint(jump / TAU), 0.0) * TAU
    same = np.zeros(len(segments), bool)
    goes_on = true_at((np.abs(jump - turns) < 1e-7) & (before != np.arange(len(segments))))
    if len(goes_on):
        other = before[goes_on]
        found = segments.kind[goes_on] == segments.kind[other]
        found &= equal_rows(segments.coef.take(goes_on, axis=0), segments.coef.take(other, axis=0))
        direction = np.sign(segments.span[:, 1] - segments.span[:, 0])
        same[goes_on] = found & (direction[goes_on] == direction[other])
    straight = np.zeros(len(segments), bool)
    at = true_at(line & line[before] & fresh & ~same)
    if len(at):
        a, b, c = segments.start[before[at]], segments.start[at], segments.end[at]
        chord = c - a
        off = np.abs(crosses(chord, b - a)) / np.maximum(norms(chord), 1e-300)
        straight[at] = (off < TOLERANCE.straight) & (dots(b - a, c - b) > 0)
    joined = same | straight
    if joined.any():
        segments, ring = _merge(segments, ring, joined, straight, turns)
    # rings of which nothing is left are gone, and with a shell its openings
    starts = run_starts(ring)
    if len(starts) < len(shell):
        kept = np.isin(shell[ring[starts]], ring[starts])
        whole = np.repeat(kept, run_sizes(starts, len(ring)))
        segments, ring = segments.take(true_at(whole)), ring[whole]
        starts = run_starts(ring)
    present = ring[starts] if len(ring) else ring
    made = Region(
        segments,
        np.append(starts, len(ring)),
        np.searchsorted(present, shell[present]),
    )
    return made, present


def _merge(
    segments: Segments, ring: Ints, joined: Bools, straight: Bools, turns: Floats
) -> tuple[Segments, Ints]:
    """Each segment marked ``joined`` put on to the one before it in its ring."""
    ring_start = run_starts(ring)
    size = run_sizes(ring_start, len(ring))
    number = np.arange(len(ring_start)).repeat(size)
    within = np.arange(len(ring)) - ring_start[number]
    first = np.minimum.reduceat(np.where(joined, size[number], within), ring_start)
    first = first % size
    order = ring_start[number] + (within + first[number]) % size[number]
    segments, ring, joined, straight, turns = (
        segments.take(order),
        ring[order],
        joined[order].copy(),
        straight[order],
        turns[order],
    )
    joined[ring_start] = False
    head = true_at(~joined)
    tail = run_ends(head, len(joined)) - 1
    # turns gone through add up along a run of arcs
    gone = np.cumsum(np.where(joined, turns, 0.0))
    t1 = segments.span[tail, 1] - (gone[tail] - gone[head])
    coef = segments.coef.take(head, axis=0)
    span = np.stack([segments.span[head, 0], t1], axis=1)
    bent = np.add.reduceat(straight & joined, head) > 0
    start, end = segments.start.take(head, axis=0), segments.end.take(tail, axis=0)
    coef[bent, :2], coef[bent, 2:4] = start[bent], end[bent]
    span[bent] = [0.0, 1.0]
    return Segments(segments.kind[head], coef, span, start, end), ring[head]
