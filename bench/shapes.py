"""The outlines that are measured: reproducible, and as heavy as real ones."""

from __future__ import annotations

import numpy as np

from stileblade.geometry.fill import fill
from stileblade.geometry.region import Region
from stileblade.geometry.segments import TAU, beziers
from stileblade.geometry.set_operations import polygon


def figure_300(size: float = 60.0) -> Region:
    """A closed figure of 300 cubics, about 120 mm across."""
    n = 300
    angles = np.arange(n) * TAU / n
    r = size * (0.86 + 0.1 * np.sin(5 * angles) + 0.04 * np.sin(31 * angles))
    p = np.stack([r * np.cos(angles), r * np.sin(angles)], 1)
    tangent = (np.roll(p, -1, 0) - np.roll(p, 1, 0)) / 6
    q, t = np.roll(p, -1, 0), np.roll(tangent, -1, 0)
    return fill([beziers(np.stack([p, p + tangent, q - t, q], axis=1))])


def outline_20000(size: float = 80.0) -> Region:
    """A scanned shape: 20,000 lines with a finely waved edge, about 160 mm across."""
    angles = np.linspace(0, TAU, 20_001)[:-1]
    r = size * (0.9 + 0.06 * np.sin(7 * angles)) + 0.05 * np.sin(300 * angles)
    x, y = (r * np.cos(angles)).tolist(), (r * np.sin(angles)).tolist()
    return polygon(list(zip(x, y, strict=True)))
