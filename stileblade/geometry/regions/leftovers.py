"""Scraps that cuts leave of segments, and neighbours that meet in their place."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from stileblade.geometry.curves.arrays import neighbours, true_at
from stileblade.geometry.curves.crossing import Curves, crossings, feet, on_level_lines
from stileblade.geometry.curves.segments import Floats, Ints, Segments
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.regions.runs import Runs
from stileblade.tolerance import TOLERANCE

_OFF = 0.005
"""mm: how far off its curve a neighbour may come to end."""


def without_leftovers(
    runs: Runs, curves: Curves, *, whole: Floats | None = None
) -> tuple[Runs, Ints]:
    """Without the scraps of segments that cuts leave, their neighbours meeting instead; and the
    numbers of the runs that stay.

    A piece of a segment that is hardly longer itself is no scrap: finely drawn outlines stay.
    ``whole`` are the lengths (n,) of curves that are fitted to their ends, as parallels are.
    """
    kept, tried = np.arange(len(runs)), np.zeros(len(runs), bool)
    for _ in range(6):
        span = curves.span.take(runs.curve, axis=0)
        cut = (np.abs(runs.t0 - span[:, 0]) > 1e-9) | (np.abs(runs.t1 - span[:, 1]) > 1e-9)
        cut &= (np.abs(runs.t0 - span[:, 1]) > 1e-9) | (np.abs(runs.t1 - span[:, 0]) > 1e-9)
        cut |= whole is not None  # what is left of a bend as tight as the distance is short, too
        after, before = neighbours(runs.ring)
        chord = norms(runs.point.take(after, axis=0) - runs.point)
        index = true_at(cut & (chord < TOLERANCE.leftover))
        if not len(index):
            break
        curve, t0, dt = runs.curve[index], runs.t0[index], (runs.t1 - runs.t0)[index]
        if whole is None:
            _, moving = curves.motion_at(curve, t0 + dt / 2)
            speed = norms(moving)
            short = np.abs(dt) * speed < TOLERANCE.leftover
            short &= np.abs(span[index, 1] - span[index, 0]) * speed > 4 * TOLERANCE.leftover
        else:  # there and back, too, as a parallel runs inside a bend
            short = whole[curve] > 4 * TOLERANCE.leftover
            for share in (0.25, 0.5, 0.75):
                away = curves.points_at(curve, t0 + share * dt) - runs.point[index]
                short &= norms(away) < TOLERANCE.leftover
        scrap = np.zeros(len(runs), bool)
        scrap[index[short & ~tried[kept[index]]]] = True
        # keep rings alive, and of two scraps in a row only the first goes in this round
        scrap &= ~scrap[before]
        left = np.bincount(runs.ring, weights=~scrap, minlength=int(runs.ring.max()) + 1)
        scrap &= left[runs.ring] >= 2
        if not scrap.any():
            break
        tried[kept[scrap]] = True
        runs, stay = _close_gaps(runs, curves, true_at(scrap), chord, whole is not None)
        kept = kept[stay]
    return runs, kept


def _close_gaps(
    runs: Runs, curves: Curves, scraps: Ints, chord: Floats, fitted: bool
) -> tuple[Runs, Ints]:
    """The runs before and after each scrap brought together: where their curves cross, or else
    at the end of the longer one, which keeps its place; ``fitted`` ones in the scrap's middle."""
    after, before = neighbours(runs.ring)
    p, q = before[scraps], after[scraps]
    t, s, found = crossings(curves, runs.curve[p], runs.t1[p], runs.curve[q], runs.t0[q])
    spot = curves.points_at(runs.curve[q], s)
    middle = curves.points_at(runs.curve[scraps], (runs.t0 + runs.t1)[scraps] / 2)
    aside = [norms(spot - place) for place in (runs.point[scraps], middle, runs.point[q])]
    found &= np.min(aside, axis=0) < TOLERANCE.leftover / 2
    first = ~found & (chord[p] >= chord[q])
    second = ~found & ~first
    if isinstance(curves, Segments):
        spot = on_level_lines(curves, runs.curve[p], on_level_lines(curves, runs.curve[q], spot))
    spot[first], spot[second] = runs.point[scraps[first]], runs.point[q[second]]
    lost = true_at(~found)
    if fitted and len(lost):
        first, second = ~found, ~found
        spot[lost] = middle[lost]
        # better on the longer of the two, a straight one above all, where the other comes that far
        swap = chord[p[lost]] < chord[q[lost]]
        sides = (runs.curve[p[lost]], runs.t1[p[lost]]), (runs.curve[q[lost]], runs.t0[q[lost]])
        longer, at = (np.where(swap, v, u) for u, v in zip(*sides, strict=True))
        other, there = (np.where(swap, u, v) for u, v in zip(*sides, strict=True))
        place = curves.points_at(longer, feet(curves, longer, at, middle[lost]))
        across = place - curves.points_at(other, feet(curves, other, there, place))
        reached = norms(across) < TOLERANCE.leftover / 2
        spot[lost[reached]] = place[reached]
    t[first], s[second] = runs.t1[p[first]], runs.t0[q[second]]
    curve = np.concatenate([runs.curve[q[first]], runs.curve[p[second]]])
    guess = np.concatenate([runs.t0[q[first]], runs.t1[p[second]]])
    found_at = feet(curves, curve, guess, np.concatenate([spot[first], spot[second]]))
    s[first], t[second] = np.split(found_at, [int(first.sum())])
    # a scrap stays where both sides cannot be brought together without going off their curves
    here, there = curves.points_at(runs.curve[p], t), curves.points_at(runs.curve[q], s)
    near = np.maximum(norms(here - spot), norms(there - spot)) < (
        TOLERANCE.leftover / 2 if fitted else _OFF
    )
    p, q, scraps, spot, t, s = p[near], q[near], scraps[near], spot[near], t[near], s[near]
    point, t0, t1 = runs.point.copy(), runs.t0.copy(), runs.t1.copy()
    exact0, exact1 = runs.exact0.copy(), runs.exact1.copy()
    point[q], t0[q], t1[p] = spot, s, t
    exact0[q] = exact1[p] = False
    keep = np.ones(len(runs), bool)
    keep[scraps] = False
    runs = replace(runs, point=point, t0=t0, t1=t1, exact0=exact0, exact1=exact1)
    stay = true_at(keep)
    return runs.take(stay), stay
