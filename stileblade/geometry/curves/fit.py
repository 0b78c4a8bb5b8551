"""Cubics that fit parallels of curves."""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.cubics import approached, at_feet, off_cubic, unit
from stileblade.geometry.curves.segments import Floats, Ints, Segments, beziers, concatenate
from stileblade.geometry.curves.stretches import Stretches
from stileblade.geometry.curves.vectors import Places, as_complex
from stileblade.tolerance import TOLERANCE


def as_segments(stretches: Stretches) -> tuple[Segments, Ints]:
    """Stretches of offset curves as segments, and which stretch each came from: lines stay lines and
    circular arcs arcs; parallels of other curves are fitted by cubics."""
    is_line, is_arc = stretches.straight_and_round()
    rows = [true_at(m) for m in (is_line, is_arc & ~is_line, ~is_arc & ~is_line)]
    straight, round_, other = (stretches.take(m) for m in rows)
    parts = [straight.as_lines()]
    if len(round_):
        parts.append(round_.as_arcs())
    if len(other):
        fitted, row = fit_parallels(other)
        parts.append(fitted)
        rows[2] = rows[2][row]
    row = np.concatenate(rows)
    order = np.argsort(row, kind="stable")
    return concatenate(parts).take(order), row[order]


_MOST_PARTS, _MOST_ROUNDS = 4, 8


def fit_parallels(stretches: Stretches) -> tuple[Segments, Ints]:
    """Cubics along parallels, parted until they stay within ``TOLERANCE.fit`` in between, too; and
    which stretch each came from.

    Ends and end tangents are exact; the two handle lengths are the ones that fit best.
    """
    done: list[tuple[Ints, Floats, Floats]] = []
    row, rounds, left = np.arange(len(stretches)), 0, stretches
    while len(row):
        control, error = _fit_once(left)
        error[left.smaller_than(1e-4)] = 0.0
        bad = (error >= TOLERANCE.fit) & (rounds < _MOST_ROUNDS)
        # a stretch is no closer to its curve than its ends are
        rows = true_at(bad & (error < TOLERANCE.leftover / 2))
        bad[rows] = error[rows] >= 1.1 * left.take(rows).off_at_ends
        done.append((row[~bad], left.t0[~bad], control[~bad]))
        # the error of a cubic that fits at both ends falls with the sixth power of its length
        parts = np.clip(np.ceil((error[bad] / TOLERANCE.fit) ** (1 / 6)), 2, _MOST_PARTS)
        parts = parts.astype(np.int64)
        row, left = row[bad].repeat(parts), left.take(true_at(bad)).in_parts(parts)
        rounds += 1
    rows = np.concatenate([d[0] for d in done])
    begin = np.concatenate([d[1] for d in done])
    control = np.concatenate([d[2] for d in done])
    rising = (stretches.t1 >= stretches.t0)[rows]
    order = np.lexsort((np.where(rising, begin, -begin), rows))
    return beziers(control[order]), rows[order]


_SAMPLES = np.linspace(0, 1, 17)[1:-1]
_BETWEEN = (np.r_[0.0, _SAMPLES] + np.r_[_SAMPLES, 1.0]) / 2
_LONG, _LONGEST = 0.1, 0.4
"""Shares of a stretch's length between two samples: where more lies there its middle is looked at,
and it is no stretch for one cubic."""


def _fit_once(left: Stretches) -> tuple[Floats, Floats]:
    """The cubic (m, 4, 2) along each stretch with its ends and end tangents, and how far it is off
    (m,), without end where it cannot be told."""
    m, k = len(left), len(_SAMPLES)
    t = left.t0[:, None] + left.way[:, None] * _SAMPLES
    spots = left.curves.points_at(left.curve.repeat(k), t.ravel())
    target, first, last = (
        as_complex(spots).reshape(m, k),
        as_complex(left.start),
        as_complex(left.end),
    )
    points = np.concatenate([first[:, None], target, last[:, None]], axis=1)
    steps = np.abs(np.diff(points, axis=1))
    length = np.maximum(steps.sum(axis=1), 1e-300)
    control, error = _approached(left, target, length)
    error[_with_loops(control, length)] = np.inf
    # so fast in between that what is there is not seen, or has to be looked at
    longest = np.where(length > TOLERANCE.leftover, steps.max(axis=1) / length, 0.0)
    error[longest > _LONGEST] = np.inf
    rows = true_at((longest > _LONG) & (error < TOLERANCE.fit))
    if len(rows):
        between = left.t0[rows, None] + left.way[rows, None] * _BETWEEN
        spots = left.curves.points_at(np.repeat(left.curve[rows], len(_BETWEEN)), between.ravel())
        way = np.cumsum(steps[rows], axis=1)
        s = (way - steps[rows] / 2) / length[rows, None]
        off = at_feet(control[rows], s, as_complex(spots).reshape(len(rows), -1), 4)[1]
        error[rows] = np.maximum(error[rows], np.abs(off).max(axis=1))
    return control.view(float).reshape(m, 4, 2), error


def _approached(left: Stretches, target: Places, length: Floats) -> tuple[Places, Floats]:
    """Cubics (m, 4) along stretches and how far they are off at the targets (m, k)."""
    way = left.way
    turn = np.sign(way)
    inside = [left.t0 + way * 1e-6, left.t1 - way * 1e-6]
    speed = [as_complex(left.curves.motion_at(left.curve, t)[1]) for t in inside]
    along = np.stack([unit(speed[0] * turn), -unit(speed[1] * turn)], axis=1)
    # the cubic that runs off and in as fast as the parallel itself is close already
    handles = np.abs(np.stack(speed, axis=1)) * (np.abs(way) / 3)[:, None]
    handles = np.clip(handles, 1e-3 * length[:, None], length[:, None])
    ends = as_complex(left.start), as_complex(left.end), along
    s = np.tile(_SAMPLES, (len(left), 1))
    return approached(ends, handles, s, target, length, TOLERANCE.fit)


def _with_loops(control: Places, length: Floats) -> Ints:
    """Rows of cubics that loop beyond the samples, which is seen by their lengths alone."""
    around = np.abs(np.diff(control, axis=1)).sum(axis=1)
    rows = true_at(around > 1.2 * length + 4 * TOLERANCE.fit)
    if not len(rows):
        return rows
    ahead = np.tile(np.linspace(0, 1, 33), (len(rows), 1))
    places = -off_cubic(control[rows], ahead, np.zeros_like(ahead, complex))[0]
    run = np.abs(np.diff(places, axis=1)).sum(axis=1)
    return rows[run > 1.1 * length[rows] + 2 * TOLERANCE.fit]
