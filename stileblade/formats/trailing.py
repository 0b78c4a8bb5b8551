"""What the axis of a trailing tool has to run along, so that its tip runs along the way.

A drag knife's tip lies ``trail`` behind its axis. On a line the axis is that much ahead; at a corner it
swivels about the tip on an arc of that radius. The blade points the way that it last ran, at the start
along x.
"""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.paths.ways import Way

AHEAD = np.array([1.0, 0.0])
"""How the blade points before it has run."""
_SMOOTH = np.radians(5.0)
"""A smaller turn is run straight: on an arc of 2 mm that is 0.002 mm off."""


def axis_of(tip: Floats, trail: float, heading: Floats) -> tuple[Way, Floats]:
    """What the axis runs along for a tip's places (n, 2), and how the blade points in the end."""
    way = np.diff(tip, axis=0)
    size = norms(way)
    keep = size > 1e-9
    if not keep.any():
        return Way(tip + trail * heading, np.zeros(len(tip) - 1)), heading
    start, end, unit = tip[:-1][keep], tip[1:][keep], way[keep] / size[keep][:, None]
    before = np.concatenate([heading[None], unit[:-1]])
    cross = before[:, 0] * unit[:, 1] - before[:, 1] * unit[:, 0]
    turn = np.arctan2(cross, (before * unit).sum(axis=1))
    # by turns: the arc about the tip to the new direction, and the line along it
    points = np.stack([start + trail * unit, end + trail * unit], axis=1).reshape(-1, 2)
    arcs = np.where(np.abs(turn) < _SMOOTH, 0.0, np.tan(turn / 4))
    bulges = np.stack([arcs, np.zeros(len(arcs))], axis=1).ravel()
    points = np.concatenate([(start[0] + trail * heading)[None], points])
    moved = np.concatenate([[True], norms(np.diff(points, axis=0)) > 1e-9])
    return Way(points[moved], bulges[moved[1:]]), unit[-1]
