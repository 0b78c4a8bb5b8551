"""What lies in what: simple rings sorted into shells and openings by a fill rule."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import both, offsets_of, true_at
from stileblade.geometry.curves.segments import Bools, Ints
from stileblade.tolerance import TOLERANCE

MOST_RINGS = 3000
"""Larger sets are left to the kernel's noding, which does not compare them two by two."""
_AT_FIRST = 50
"""So many pairs of a set tell as a rule that its rings cross."""


@dataclass(frozen=True, eq=False)
class Nesting:
    """rings (k,) that bound what is painted, each shell followed by its openings; shell (k,)
    the position of each one's shell; backwards (k,) those that run the wrong way round."""

    rings: Ints
    shell: Ints
    backwards: Bools


def nested(
    rings: np.ndarray, shapes: np.ndarray, sets: Sequence[Ints], rules: Sequence[str]
) -> list[Nesting | None]:
    """How the rings of each set nest; None for a set whose rings cross or touch.

    rings and shapes are the kernel's, each ring simple by itself; slivers are left out.
    """
    box = shapely.bounds(shapes)
    # y runs downwards: a ring of positive area is clockwise as seen, counter-clockwise to the kernel
    positive = shapely.is_ccw(rings)
    area = shapely.area(shapes)
    wide = 2 * area / np.maximum(shapely.length(rings), 1e-300) >= TOLERANCE.sliver
    pairs = [_close_pairs(members, box, area) for members in sets]
    outer = np.concatenate([p[0] for p in pairs]) if pairs else np.zeros(0, np.int64)
    inner = np.concatenate([p[1] for p in pairs]) if pairs else np.zeros(0, np.int64)
    meet = _meeting(rings[outer], rings[inner], np.array([len(p[0]) for p in pairs], np.int64))
    spot = shapely.get_coordinates(shapely.get_point(rings[inner], 0))
    within = shapely.contains_xy(shapes[outer], spot[:, 0], spot[:, 1]) if len(outer) else meet
    found: list[Nesting | None] = []
    at = 0
    for members, rule, pair in zip(sets, rules, pairs, strict=True):
        own = slice(at, at + len(pair[0]))
        at += len(pair[0])
        if len(members) == 1:
            one = members if wide[members[0]] else members[:0]
            found.append(Nesting(one, np.zeros(len(one), np.int64), ~positive[one]))
        elif len(members) > MOST_RINGS or meet[own].any():
            found.append(None)
        else:
            first = members[0]
            contains = np.zeros((len(members), len(members)), bool)
            contains[outer[own][within[own]] - first, inner[own][within[own]] - first] = True
            found.append(_sorted_out(members, contains, positive, wide, area, rule))
    return found


def _meeting(one: np.ndarray, other: np.ndarray, sizes: Ints) -> Bools:
    """Which pairs of rings (p,) cross or touch, of sets of so many pairs (k,): all of a set in which
    none do, else at least one."""
    of_set = np.arange(len(sizes)).repeat(sizes)
    each = np.maximum(sizes // _AT_FIRST, 1)[of_set]
    few = (np.arange(len(one)) - offsets_of(sizes)[of_set]) % each == 0
    meet = np.zeros(len(one), bool)
    meet[few] = shapely.intersects(one[few], other[few])
    known = np.bincount(of_set[meet], minlength=len(sizes)) > 0
    rest = ~few & ~known[of_set]
    meet[rest] = shapely.intersects(one[rest], other[rest])
    return meet


def _close_pairs(members: Ints, box: np.ndarray, area: np.ndarray) -> tuple[Ints, Ints]:
    """Pairs of rings whose boxes meet, the one with more area first."""
    n = len(members)
    if n < 2 or n > MOST_RINGS:
        return members[:0], members[:0]
    b = box[members]
    meet = both(b[:, None, :2] <= b[None, :, 2:])
    i, j = (meet & meet.T).nonzero()
    i, j = i[i < j], j[i < j]
    i, j = members[i], members[j]
    swap = area[j] > area[i]
    return np.where(swap, j, i), np.where(swap, i, j)


def _sorted_out(
    members: Ints, contains: Bools, positive: Bools, wide: Bools, area: np.ndarray, rule: str
) -> Nesting:
    turn = np.where(positive[members], 1, -1)
    outside = turn @ contains  # winding number just outside each ring
    inside = outside + turn
    painted_out, painted_in = (
        (w % 2 != 0 if rule == "evenodd" else w != 0) for w in (outside, inside)
    )
    bounds = true_at(painted_out != painted_in)
    size = area[members]
    shells = [int(r) for r in bounds if painted_in[r] and wide[members[r]]]
    openings: dict[int, list[int]] = {s: [] for s in shells}
    for r in bounds:
        if painted_in[r] or not wide[members[r]]:
            continue
        round_it = [int(s) for s in bounds[contains[bounds, r]] if painted_in[s]]
        parent = min(round_it, key=lambda s: size[s])
        if parent in openings:
            openings[parent].append(int(r))
    order = [r for s in shells for r in (s, *openings[s])]
    place = {r: i for i, r in enumerate(order)}
    shell = [place[s] for s in shells for _ in (s, *openings[s])]
    is_shell = np.isin(order, shells) if order else np.zeros(0, bool)
    rows = np.array(order, np.int64)
    return Nesting(
        members[rows],
        np.array(shell, np.int64),
        positive[members[rows]] != is_shell,
    )
