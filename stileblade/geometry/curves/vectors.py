"""Lengths and products of many vectors (..., 2) at once.

As complex numbers, or one coordinate after the other, they take a tenth of the time that
reductions along a last axis of two take.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Places = NDArray[np.complex128]
"""Points and directions as complex numbers x + iy: half as many operations as on pairs."""


def as_complex(vectors: Floats) -> Places:
    """Vectors (..., 2) as complex numbers (...)."""
    return np.ascontiguousarray(vectors).view(complex)[..., 0]


def norms(vectors: Floats) -> Floats:
    """Euclidean lengths (...)."""
    return np.abs(as_complex(vectors))


def extent(points: Floats) -> tuple[Floats, Floats]:
    """The least and the largest x and y (2,) of points (m, 2)."""
    columns = np.ascontiguousarray(points.T)
    return columns.min(axis=1), columns.max(axis=1)


def dots(a: Floats, b: Floats) -> Floats:
    """Scalar products (...)."""
    return a[..., 0] * b[..., 0] + a[..., 1] * b[..., 1]


def crosses(a: Floats, b: Floats) -> Floats:
    """The z of vector products (...): positive where b is turned clockwise from a, as seen."""
    return a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0]
