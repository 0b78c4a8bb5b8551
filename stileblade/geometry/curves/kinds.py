"""The kinds of parent curves, and what each makes of its coefficients."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Final

import numpy as np
from numpy.typing import NDArray

from stileblade.geometry.curves.vectors import Floats, Places


class Kind:
    """What ``Segments.kind`` holds: numbers of numpy's own, compared in a quarter of an enumeration's time."""

    LINE: Final = np.int8(0)
    QUAD: Final = np.int8(1)
    CUBIC: Final = np.int8(2)
    ARC: Final = np.int8(3)


Kinds = Sequence[Callable[[Places, Floats], Places]]
"""One function of coefficients as complex numbers (m, 4) and t (m,) for each kind."""


def by_kind(
    wanted: Sequence[Kinds], kind: NDArray[np.int8], coef: Floats, t: Floats
) -> list[Floats]:
    """What each kind's own functions in ``wanted`` make of coefficients (m, 8) and t (m,)."""
    places = coef.view(complex)
    if not len(kind):
        return [np.empty((0, 2))] * len(wanted)
    present = np.bincount(kind).nonzero()[0].tolist()
    if len(present) == 1:  # the masks would cost more than the rest
        return [_pairs(of[present[0]](places, t)) for of in wanted]
    found = [np.empty(len(kind), complex) for _ in wanted]
    for k in present:
        m = (kind == k).nonzero()[0]
        some, at = places.take(m, axis=0), t[m]
        for out, of in zip(found, wanted, strict=True):
            out[m] = of[k](some, at)
    return [_pairs(out) for out in found]


def _pairs(places: Places) -> Floats:
    return places.view(float).reshape(-1, 2)


def _line_at(c: Places, s: Floats) -> Places:
    return c[:, 0] + (c[:, 1] - c[:, 0]) * s


def _quad_at(c: Places, s: Floats) -> Places:
    r = 1 - s
    return r * r * c[:, 0] + 2 * r * s * c[:, 1] + s * s * c[:, 2]


def _cubic_at(c: Places, s: Floats) -> Places:
    r = 1 - s
    a, b, d, e = r * r * r, 3 * r * r * s, 3 * r * s * s, s * s * s
    return a * c[:, 0] + b * c[:, 1] + d * c[:, 2] + e * c[:, 3]


def _arc_at(c: Places, s: Floats) -> Places:
    return c[:, 0] + c[:, 1] * np.cos(s) + c[:, 2] * np.sin(s)


def _line_speed(c: Places, s: Floats) -> Places:
    return c[:, 1] - c[:, 0]


def _quad_speed(c: Places, s: Floats) -> Places:
    return 2 * ((1 - s) * (c[:, 1] - c[:, 0]) + s * (c[:, 2] - c[:, 1]))


def _cubic_speed(c: Places, s: Floats) -> Places:
    r = 1 - s
    d = c[:, 1:] - c[:, :-1]
    return 3 * (r * r * d[:, 0] + 2 * r * s * d[:, 1] + s * s * d[:, 2])


def _arc_speed(c: Places, s: Floats) -> Places:
    return c[:, 2] * np.cos(s) - c[:, 1] * np.sin(s)


PLACE = (_line_at, _quad_at, _cubic_at, _arc_at)
SPEED = (_line_speed, _quad_speed, _cubic_speed, _arc_speed)
