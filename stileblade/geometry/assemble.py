"""Result edges that know their source curve, put together to contours of exact segments.

Edges that run on along one curve become one run; where two runs meet, the true crossing of
their curves is found; leftovers of cuts are taken away; runs that hop between two curves
lying on each other become one.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from stileblade.geometry.crossing import Curves, crossings, feet
from stileblade.geometry.flatten import neighbours, run_starts
from stileblade.geometry.region import Region
from stileblade.geometry.segments import TAU, Bools, Floats, Ints, Kind, Segments
from stileblade.tolerance import TOLERANCE

_HOP = 4
"""How many runs ahead a curve is looked for again."""


@dataclass(frozen=True, eq=False)
class ResultEdges:
    """Edges of closed rings: start vertex (m, 2), ring (m,), source curve (m,), stretch of it,
    and whether start and end are vertices of that source."""

    points: Floats
    ring: Ints
    curve: Ints
    t0: Floats
    t1: Floats
    exact0: Bools
    exact1: Bools

    def take(self, index: Ints) -> ResultEdges:
        return ResultEdges(
            self.points[index],
            self.ring[index],
            self.curve[index],
            self.t0[index],
            self.t1[index],
            self.exact0[index],
            self.exact1[index],
        )


@dataclass(frozen=True, eq=False)
class Runs:
    """Stretches of curves in rings; ``point`` is where each starts."""

    curve: Ints
    t0: Floats
    t1: Floats
    exact0: Bools
    exact1: Bools
    point: Floats
    ring: Ints

    def take(self, index: Ints) -> Runs:
        return Runs(
            self.curve[index],
            self.t0[index],
            self.t1[index],
            self.exact0[index],
            self.exact1[index],
            self.point[index],
            self.ring[index],
        )

    def __len__(self) -> int:
        return len(self.curve)


def assemble(edges: ResultEdges, segments: Segments, shell: Ints) -> tuple[Region, Ints]:
    """The region bounded by the edges, with stretches of ``segments`` for them, and the numbers
    (r,) that its rings had."""
    runs = join_edges(edges, 1e-7)
    runs = _absorb(runs, segments)
    runs = meet(runs, segments)
    runs = _drop_leftovers(runs, segments)
    after, before = neighbours(runs.ring)
    kept = runs.exact0 & runs.exact1[before] & (np.abs(runs.curve - runs.curve[before]) <= 1)
    made = Segments(
        segments.kind[runs.curve],
        segments.coef[runs.curve],
        np.stack([runs.t0, runs.t1], axis=1),
        runs.point,
        runs.point[after],
    )
    _straighten(made)
    return rejoin(made, runs.ring, shell, fresh=~kept)


def _straighten(segments: Segments) -> None:
    """Lines whose ends were moved off their parents become lines between those ends."""
    n = np.flatnonzero(segments.kind == Kind.LINE)
    off = np.maximum(
        np.abs(segments.points_at(n, segments.span[n, 0]) - segments.start[n]).max(axis=1),
        np.abs(segments.points_at(n, segments.span[n, 1]) - segments.end[n]).max(axis=1),
    )
    n = n[off > 1e-7]
    segments.coef[n, :2], segments.coef[n, 2:4] = segments.start[n], segments.end[n]
    segments.span[n] = [0.0, 1.0]


def join_edges(edges: ResultEdges, slack: float | Floats) -> Runs:
    """Runs of edges along one curve; t may jump by ``slack``, one for all or one for each edge."""
    after, before = neighbours(edges.ring)
    rising = edges.t1 >= edges.t0
    goes_on = (
        (edges.curve == edges.curve[before])
        & (rising == rising[before])
        & (np.abs(edges.t0 - edges.t1[before]) <= slack)
    )
    # turn each ring so that it starts with a run
    ring_start = run_starts(edges.ring)
    size = np.diff(np.r_[ring_start, len(edges.ring)])
    number = np.repeat(np.arange(len(ring_start)), size)
    within = np.arange(len(edges.ring)) - ring_start[number]
    candidates = np.where(goes_on, size[number], within)
    first = np.minimum.reduceat(candidates, ring_start) % size
    order = ring_start[number] + (within + first[number]) % size[number]
    edges, goes_on = edges.take(order), goes_on[order]
    goes_on[ring_start] = False
    head = np.flatnonzero(~goes_on)
    tail = np.r_[head[1:], len(goes_on)] - 1
    return Runs(
        edges.curve[head],
        edges.t0[head],
        edges.t1[tail],
        edges.exact0[head],
        edges.exact1[tail],
        edges.points[head],
        edges.ring[head],
    )


def meet(runs: Runs, curves: Curves, reach: Floats | None = None) -> Runs:
    """Runs whose ends are the true meeting points of their curves, no farther from the kernel's
    corners than ``reach`` (n,), TOLERANCE.crossing by itself."""
    if reach is None:
        reach = np.full(len(runs), TOLERANCE.crossing)
    _, before = neighbours(runs.ring)
    p = runs.curve[before]
    t_end, t_start = runs.t1[before], runs.t0.copy()
    vertex = runs.point
    here = curves.points_at(runs.curve, t_start)
    there = curves.points_at(p, t_end)
    agree = runs.exact0 & runs.exact1[before] & (np.abs(here - there) < 1e-3).all(axis=1)
    point = _end_points(curves, runs.curve, t_start, here)
    other = _end_points(curves, p, t_end, there)
    at_end = (t_end == curves.span[p, 0]) | (t_end == curves.span[p, 1])
    point = np.where(at_end[:, None], other, point)
    todo = np.flatnonzero(~agree)
    if len(todo):
        q = runs.curve[todo]
        t, s, found = crossings(curves, p[todo], t_end[todo], q, t_start[todo])
        spot = curves.points_at(q, s)
        found &= np.hypot(*(spot - vertex[todo]).T) < reach[todo]
        # where curves turn back on themselves a search may run away: once more from the nearest places
        again = np.flatnonzero(~found)
        if len(again):
            near = todo[again]
            t[again] = _nearest_places(curves, p[near], t_end[near], vertex[near])
            s[again] = _nearest_places(curves, runs.curve[near], t_start[near], vertex[near])
            a, b, met = crossings(curves, p[near], t[again], runs.curve[near], s[again])
            place = curves.points_at(runs.curve[near], b)
            met &= np.hypot(*(place - vertex[near]).T) < reach[near]
            hit = again[met]
            t[hit], s[hit], spot[hit], found[hit] = a[met], b[met], place[met], True
        miss = todo[~found]
        if len(miss):
            spot[~found] = (
                curves.points_at(p[miss], t[~found]) + curves.points_at(runs.curve[miss], s[~found])
            ) / 2
            # in a cusp feet are nowhere near: the kernel's own corner is
            lost = ~found & (np.hypot(*(spot - vertex[todo]).T) > TOLERANCE.crossing)
            spot[lost] = vertex[todo[lost]]
        if isinstance(curves, Segments):
            spot = _on_level_lines(curves, p[todo], _on_level_lines(curves, q, spot))
        t_end[todo], t_start[todo], point[todo] = t, s, spot
    t1 = runs.t1.copy()
    t1[before] = t_end
    return replace(runs, t0=t_start, t1=t1, point=point)


_STARTS = 33
"""From how many places of a curve its nearest one is looked for."""


def _nearest_places(curves: Curves, index: Ints, t: Floats, points: Floats) -> Floats:
    """Parameters of the places on the curves nearest to ``points``: from close guesses, and on
    curves without end from these alone, else from all over the curve."""
    found = feet(curves, index, t, points)
    span = curves.span[index]
    low, high = span.min(axis=1), span.max(axis=1)
    short = np.flatnonzero(high - low <= 1 + 1e-9)
    if not len(short):
        return found
    share = np.linspace(0, 1, _STARTS)
    grid = low[short, None] + (high - low)[short, None] * share
    places = curves.points_at(np.repeat(index[short], _STARTS), grid.ravel())
    away = np.hypot(*(places.reshape(-1, _STARTS, 2) - points[short, None]).transpose(2, 0, 1))
    start = grid[np.arange(len(short)), away.argmin(axis=1)]
    other = feet(curves, index[short], start, points[short])
    here = np.hypot(*(curves.points_at(index[short], found[short]) - points[short]).T)
    there = np.hypot(*(curves.points_at(index[short], other) - points[short]).T)
    found[short] = np.where(there < here - 1e-9, other, found[short])
    return found


def _on_level_lines(segments: Segments, curve: Ints, points: Floats) -> Floats:
    """Crossings with upright and level lines lie on them to the last bit."""
    coef = segments.coef[curve]
    line = segments.kind[curve] == Kind.LINE
    out = points.copy()
    for axis in (0, 1):
        m = line & (coef[:, axis] == coef[:, axis + 2])
        out[m, axis] = coef[m, axis]
    return out


def _end_points(curves: Curves, curve: Ints, t: Floats, computed: Floats) -> Floats:
    """Points at t: the segment's own exact end where t is its end."""
    if not isinstance(curves, Segments):
        return computed
    out = computed.copy()
    for column, ends in ((0, curves.start), (1, curves.end)):
        m = np.flatnonzero(t == curves.span[curve, column])
        out[m] = ends[curve[m]]
    return out


def _drop_leftovers(runs: Runs, curves: Segments) -> Runs:
    """Without the scraps of segments that cuts leave; their neighbours meet instead.

    A piece of a segment that is hardly longer itself is no scrap: finely drawn outlines stay.
    """
    for _ in range(6):
        span = curves.span[runs.curve]
        cut = (np.abs(runs.t0 - span[:, 0]) > 1e-9) | (np.abs(runs.t1 - span[:, 1]) > 1e-9)
        cut &= (np.abs(runs.t0 - span[:, 1]) > 1e-9) | (np.abs(runs.t1 - span[:, 0]) > 1e-9)
        if not cut.any():
            return runs
        after, before = neighbours(runs.ring)
        chord = np.hypot(*(runs.point[after] - runs.point).T)
        index = np.flatnonzero(cut & (chord < TOLERANCE.leftover))
        speed = np.hypot(
            *curves.derivatives_at(runs.curve[index], (runs.t0 + runs.t1)[index] / 2).T
        )
        dt, whole = np.abs(runs.t1 - runs.t0)[index], np.abs(span[index, 1] - span[index, 0])
        index = index[(dt * speed < TOLERANCE.leftover) & (whole * speed > 4 * TOLERANCE.leftover)]
        scrap = np.zeros(len(runs), bool)
        scrap[index] = True
        # keep rings alive, and of two scraps in a row only the first goes in this round
        scrap &= ~scrap[before]
        left = np.bincount(runs.ring, weights=~scrap, minlength=int(runs.ring.max()) + 1)
        scrap &= left[runs.ring] >= 2
        if not scrap.any():
            return runs
        runs = _close_gaps(runs, curves, np.flatnonzero(scrap), chord)
    return runs


_OFF = 0.005


def _close_gaps(runs: Runs, curves: Segments, scraps: Ints, chord: Floats) -> Runs:
    """The runs before and after each scrap brought together: where their curves cross, or else
    at the end of the longer one, which keeps its place."""
    after, before = neighbours(runs.ring)
    p, q = before[scraps], after[scraps]
    t, s, found = crossings(curves, runs.curve[p], runs.t1[p], runs.curve[q], runs.t0[q])
    spot = curves.points_at(runs.curve[q], s)
    found &= np.hypot(*(spot - runs.point[q]).T) < TOLERANCE.crossing
    first = ~found & (chord[p] >= chord[q])
    second = ~found & ~first
    spot = _on_level_lines(curves, runs.curve[p], _on_level_lines(curves, runs.curve[q], spot))
    spot[first], spot[second] = runs.point[scraps[first]], runs.point[q[second]]
    t[first], s[second] = runs.t1[p[first]], runs.t0[q[second]]
    s[first] = feet(curves, runs.curve[q[first]], runs.t0[q[first]], spot[first])
    t[second] = feet(curves, runs.curve[p[second]], runs.t1[p[second]], spot[second])
    # a scrap stays where both sides cannot be brought together without going off their curves
    here, there = curves.points_at(runs.curve[p], t), curves.points_at(runs.curve[q], s)
    near = np.maximum(np.hypot(*(here - spot).T), np.hypot(*(there - spot).T)) < _OFF
    p, q, scraps, spot, t, s = p[near], q[near], scraps[near], spot[near], t[near], s[near]
    point, t0, t1 = runs.point.copy(), runs.t0.copy(), runs.t1.copy()
    exact0, exact1 = runs.exact0.copy(), runs.exact1.copy()
    point[q], t0[q], t1[p] = spot, s, t
    exact0[q] = exact1[p] = False
    keep = np.ones(len(runs), bool)
    keep[scraps] = False
    runs = replace(runs, point=point, t0=t0, t1=t1, exact0=exact0, exact1=exact1)
    return runs.take(np.flatnonzero(keep))


def _absorb(runs: Runs, curves: Segments) -> Runs:
    """Runs that leave a curve and come back to it without ever going away from it, merged.

    Happens where two outlines follow the same line in different words (an arc, and cubics
    for the same arc): the kernel's result hops between them.
    """
    n = len(runs)
    comes_back = np.zeros(n, bool)
    for ahead in range(2, min(_HOP, n - 1) + 1):
        later = np.arange(ahead, n)
        comes_back[: n - ahead] |= (runs.curve[later] == runs.curve[: n - ahead]) & (
            runs.ring[later] == runs.ring[: n - ahead]
        )
    if not comes_back.any():
        return runs
    keep = np.ones(n, bool)
    t1, exact1 = runs.t1.copy(), runs.exact1.copy()
    merged = replace(runs, t1=t1, exact1=exact1)  # sees the ends change as runs grow
    for i in np.flatnonzero(comes_back):
        last = int(i)
        while keep[i]:
            rest = np.arange(last + 1, min(last + 1 + _HOP, n))
            rest = rest[keep[rest] & (runs.ring[rest] == runs.ring[i])]
            for ahead in range(len(rest) - 1, 0, -1):
                if _same_line(merged, curves, int(i), rest[:ahead], int(rest[ahead])):
                    keep[rest[: ahead + 1]] = False
                    t1[i], exact1[i] = t1[rest[ahead]], exact1[rest[ahead]]
                    last = int(rest[ahead])
                    break
            else:
                break
    return merged.take(np.flatnonzero(keep))


def _same_line(runs: Runs, curves: Segments, i: int, between: Ints, k: int) -> bool:
    if runs.curve[i] != runs.curve[k]:
        return False
    direction = np.sign(runs.t1[i] - runs.t0[i])
    # t where the first run was left and where the curve was met again
    if direction != np.sign(runs.t1[k] - runs.t0[k]) or not len(between):
        return False
    gone, back = runs.t1[i], runs.t0[k]
    if (back - gone) * direction < -1e-6:
        return False
    share = np.linspace(0, 1, 5)
    t = (runs.t0[between, None] * (1 - share) + runs.t1[between, None] * share).ravel()
    p = curves.points_at(np.repeat(between * 0 + runs.curve[between], 5), t)
    same = np.full(len(p), runs.curve[i])
    guess = np.interp(np.linspace(0, 1, len(p)), [0, 1], [gone, back])
    foot = curves.points_at(same, feet(curves, same, guess, p))
    return bool(np.hypot(*(foot - p).T).max() < TOLERANCE.coincident)


def rejoin(segments: Segments, ring: Ints, shell: Ints, *, fresh: Bools) -> tuple[Region, Ints]:
    """Rings of segments as a region, and the numbers (r,) that its rings had.

    Stretches that go on along one parent become one segment, and so do lines that go straight on
    at a ``fresh`` joint (n,): a source's own corners stay, however flat, or a finely drawn curve
    would be worn away."""
    n = len(segments)
    after, before = neighbours(ring)
    same = (
        (segments.kind == segments.kind[before])
        & (segments.coef == segments.coef[before]).all(axis=1)
        & (before != np.arange(n))
    )
    jump = segments.span[:, 0] - segments.span[before, 1]
    turns = np.where(segments.kind == Kind.ARC, np.rint(jump / TAU), 0.0) * TAU
    direction = np.sign(segments.span[:, 1] - segments.span[:, 0])
    same &= (np.abs(jump - turns) < 1e-7) & (direction == direction[before])
    a, b, c = segments.start[before], segments.start, segments.end
    chord = c - a
    length = np.maximum(np.hypot(*chord.T), 1e-300)
    off = np.abs(chord[:, 0] * (b - a)[:, 1] - chord[:, 1] * (b - a)[:, 0]) / length
    on = ((b - a) * (c - b)).sum(axis=1) > 0
    straight = (
        (segments.kind == Kind.LINE)
        & (segments.kind[before] == Kind.LINE)
        & (off < TOLERANCE.straight)
        & on
        & fresh
        & ~same
    )
    joined = same | straight
    if joined.any():
        segments, ring = _merge(segments, ring, joined, straight, turns)
    # rings of which nothing is left are gone, and with a shell its openings
    starts = run_starts(ring)
    kept = np.isin(shell[ring[starts]], ring[starts]) if len(ring) else np.zeros(0, bool)
    if not kept.all():
        whole = np.repeat(kept, np.diff(np.r_[starts, len(ring)]))
        segments, ring = segments.take(np.flatnonzero(whole)), ring[whole]
        starts = run_starts(ring)
    present = ring[starts] if len(ring) else ring
    made = Region(
        segments,
        np.r_[starts, len(ring)] if len(ring) else np.zeros(1, np.int64),
        np.searchsorted(present, shell[present]),
    )
    return made, present


def _merge(
    segments: Segments, ring: Ints, joined: Bools, straight: Bools, turns: Floats
) -> tuple[Segments, Ints]:
    """Each segment marked ``joined`` put on to the one before it in its ring."""
    ring_start = run_starts(ring)
    size = np.diff(np.r_[ring_start, len(ring)])
    number = np.repeat(np.arange(len(ring_start)), size)
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
    head = np.flatnonzero(~joined)
    tail = np.r_[head[1:], len(joined)] - 1
    # turns gone through add up along a run of arcs
    gone = np.cumsum(np.where(joined, turns, 0.0))
    t1 = segments.span[tail, 1] - (gone[tail] - gone[head])
    coef = segments.coef[head].copy()
    span = np.stack([segments.span[head, 0], t1], axis=1)
    bent = np.add.reduceat(straight & joined, head) > 0
    start, end = segments.start[head], segments.end[tail]
    coef[bent, :2], coef[bent, 2:4] = start[bent], end[bent]
    span[bent] = [0.0, 1.0]
    return Segments(segments.kind[head], coef, span, start, end), ring[head]
