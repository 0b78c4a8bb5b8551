"""What the axis of a trailing tool has to run along, so that its tip runs along the way.

A drag knife's tip lies ``trail`` behind its axis. On a line the axis is that much ahead; at a corner it
swivels about the tip on an arc of that radius. The blade points the way that it last ran, at the start
along x.
"""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms

AHEAD = np.array([1.0, 0.0])
"""How the blade points before it has run."""
_STEP = np.radians(1.0)
_SMOOTH = np.radians(0.05)


def axis_of(tip: Floats, trail: float, heading: Floats) -> tuple[Floats, Floats]:
    """The axis' places (m, 2) for those of the tip (n, 2), and how the blade points in the end."""
    way = np.diff(tip, axis=0)
    size = norms(way)
    keep = size > 1e-9
    if not keep.any():
        return tip + trail * heading, heading
    start = tip[:-1][keep]
    end, unit = tip[1:][keep], (way[keep] / size[keep][:, None])
    places: list[Floats] = []
    for a, b, u in zip(start, end, unit, strict=True):
        places.append(_swivel(a, trail, heading, u))
        places.append((b + trail * u)[None])
        heading = u
    return np.concatenate(places), heading


def _swivel(tip: Floats, trail: float, before: Floats, after: Floats) -> Floats:
    """The axis' places on the arc about the tip from one direction to another, both included."""
    turn = np.arctan2(before[0] * after[1] - before[1] * after[0], float(before @ after))
    first = np.arctan2(before[1], before[0])
    count = 1 if abs(turn) < _SMOOTH else max(2, int(np.ceil(abs(turn) / _STEP)))
    angles = first + turn * np.linspace(0, 1, count + 1)
    return np.asarray(tip + trail * np.stack([np.cos(angles), np.sin(angles)], axis=1))
