"""Segments of outlines, kept as arrays: lines, quadratic and cubic Beziers, elliptical arcs.

A segment is a stretch ``[t0, t1]`` of a *parent curve* with its exact end points. Cutting
narrows the stretch and never touches the parent, so cuts do not add up errors; running a
segment backwards swaps the two. x runs to the right and y downwards, in mm.

Parents, by kind, as eight numbers (four points):

    LINE   p0, p1                     p0 + (p1 - p0) t
    QUAD   p0, c, p1                  Bernstein form, t from 0 to 1
    CUBIC  p0, c1, c2, p1             Bernstein form, t from 0 to 1
    ARC    centre, u, v               centre + u cos t + v sin t, t in radians
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import ArrayLike, NDArray

from stileblade.errors import GeometryError
from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.kinds import PLACE, SPEED, Kind, Kinds, by_kind
from stileblade.geometry.curves.vectors import norms
from stileblade.tolerance import TOLERANCE

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
TAU = 2 * np.pi
NUDGE = 1e-4
"""How far inside a stretch directions are taken where the derivative at its end vanishes."""
WEAK = 1e-5
"""A derivative smaller than this share of the chord says nothing of the direction: a control
point lies on its end point but for rounding."""


_PLACES = np.array([[1, 1, 0, 0], [1, 1, 1, 0], [1, 1, 1, 1], [1, 0, 0, 0]], float)[..., None]
"""Which of a kind's four pairs of coefficients are places, which a shift moves."""


@dataclass(frozen=True, eq=False)
class Segments:
    """``n`` segments: kind (n,), coef (n, 8), span (n, 2), start (n, 2), end (n, 2)."""

    kind: NDArray[np.int8]
    coef: Floats
    span: Floats
    start: Floats
    end: Floats

    def __len__(self) -> int:
        return len(self.kind)

    @staticmethod
    def empty() -> Segments:
        return Segments(
            np.zeros(0, np.int8),
            np.zeros((0, 8)),
            np.zeros((0, 2)),
            np.zeros((0, 2)),
            np.zeros((0, 2)),
        )

    def take(self, index: Bools | slice | Ints) -> Segments:
        """The segments at ``index``, in that order."""
        if not isinstance(index, slice):
            if index.dtype == bool:
                index = index.nonzero()[0]
            of = (self.coef, self.span, self.start, self.end)
            return Segments(self.kind[index], *(rows.take(index, axis=0) for rows in of))
        return Segments(
            self.kind[index], self.coef[index], self.span[index], self.start[index], self.end[index]
        )

    def reversed(self) -> Segments:
        """The same way run backwards: order, stretches and ends swapped."""
        return Segments(
            self.kind[::-1],
            self.coef[::-1],
            self.span[::-1, ::-1],
            self.end[::-1],
            self.start[::-1],
        )

    def points_at(self, index: Ints, t: Floats) -> Floats:
        """Points (m, 2) of the parents of segments ``index`` (m,) at parameters ``t`` (m,)."""
        return self._at((PLACE,), index, t)[0]

    def derivatives_at(self, index: Ints, t: Floats) -> Floats:
        """First derivatives by t (m, 2) of the parents, like ``points_at``."""
        return self._at((SPEED,), index, t)[0]

    def motion_at(self, index: Ints, t: Floats) -> tuple[Floats, Floats]:
        """Points (m, 2) and first derivatives (m, 2), like ``points_at``."""
        point, speed = self._at((PLACE, SPEED), index, t)
        return point, speed

    def _at(self, wanted: Sequence[Kinds], index: Ints, t: Floats) -> list[Floats]:
        return by_kind(wanted, self.kind[index], self.coef.take(index, axis=0), t)

    @cached_property
    def chords(self) -> Floats:
        """Distances (n,) from start to end."""
        return norms(self.end - self.start)

    def end_directions(self) -> tuple[Floats, Floats]:
        """Unit tangents (n, 2) at start and end, in the direction of running.

        Where the derivative vanishes (a control point on its end point) its limit is taken, and
        where there is none the chord.
        """
        n = np.arange(len(self))
        sign = np.where(self.span[:, 1] >= self.span[:, 0], 1.0, -1.0)[:, None]
        chord = self.end - self.start
        found = []
        for end in (0, 1):
            d = self.derivatives_at(n, self.span[:, end]) * sign
            weak = true_at(norms(d) < WEAK * self.chords + 1e-9)
            if len(weak):
                inner = self.span[weak, end] * (1 - NUDGE) + self.span[weak, 1 - end] * NUDGE
                d[weak] = self.derivatives_at(weak, inner) * sign[weak]
                none = weak[norms(d[weak]) < 1e-12]
                d[none] = chord[none]
            size = np.maximum(norms(d), 1e-300)
            found.append(d / size[:, None])
        return found[0], found[1]

    def transformed(self, matrix: Floats) -> Segments:
        """Mapped by the 2x3 ``matrix`` [[a, c, e], [b, d, f]]: exact for every kind."""
        linear, shift = matrix[:, :2].T, matrix[:, 2]
        coef = (self.coef.reshape(-1, 2) @ linear).reshape(-1, 4, 2)
        coef += _PLACES[self.kind] * shift
        return Segments(
            self.kind,
            coef.reshape(-1, 8),
            self.span,
            self.start @ linear + shift,
            self.end @ linear + shift,
        )

    @cached_property
    def pieces_per_parent(self) -> Ints:
        """Into how many equal steps of t the parent's whole range is cut for flattening (n,)."""
        return self.pieces_within(TOLERANCE.flatten)

    def pieces_within(self, tolerance: float) -> Ints:
        """The same for chords within ``tolerance`` mm."""
        return parent_pieces(self.kind, self.coef, tolerance)


def transformed_all(parts: Sequence[Segments], matrices: Sequence[Floats]) -> list[Segments]:
    """Each of ``parts`` mapped by its own 2x3 matrix, at a fraction of the cost of one by one."""
    whole, sizes = concatenate(parts), [len(part) for part in parts]
    if not len(whole):
        return list(parts)
    # a linear map takes z to p z + q times its conjugate
    (a, c, e), (b, d, f) = np.array(matrices, float).transpose(1, 2, 0)
    maps = np.stack([(a + d + 1j * (b - c)) / 2, (a - d + 1j * (b + c)) / 2, e + 1j * f])
    p, q, shift = np.repeat(maps, sizes, axis=1)[..., None]
    z = whole.coef.view(complex)
    coef = p * z + q * z.conj() + _PLACES[whole.kind, :, 0] * shift
    z = np.concatenate([whole.start, whole.end], axis=1).view(complex)
    ends = (p * z + q * z.conj() + shift).view(float)
    mapped = Segments(whole.kind, coef.view(float), whole.span, ends[:, :2], ends[:, 2:])
    heads = np.cumsum([0, *sizes]).tolist()
    return [mapped.take(slice(i, j)) for i, j in pairwise(heads)]


def parent_pieces(kind: NDArray[np.int8], coef: Floats, tolerance: float) -> Ints:
    """Steps of t over 0..1 (a whole turn for arcs) so that chords stay within ``tolerance``.

    Beziers: the bound by second differences (Wang's formula); arcs: sagitta of the larger
    half axis. It depends on the parent alone: all stretches of one parent share its grid.
    """
    n = np.ones(len(kind), np.int64)
    q = coef.reshape(-1, 4, 2)
    m = kind == Kind.QUAD
    if m.any():
        dd = q[m, 0] - 2 * q[m, 1] + q[m, 2]
        n[m] = np.ceil(np.sqrt(norms(dd) / (4 * tolerance)))
    m = kind == Kind.CUBIC
    if m.any():
        d1 = q[m, 0] - 2 * q[m, 1] + q[m, 2]
        d2 = q[m, 1] - 2 * q[m, 2] + q[m, 3]
        dd = np.maximum(norms(d1), norms(d2))
        n[m] = np.ceil(np.sqrt(dd * 0.75 / tolerance))
    m = kind == Kind.ARC
    if m.any():
        # the larger singular value of [u v] is the larger half axis
        ux, uy, vx, vy = coef[m, 2], coef[m, 3], coef[m, 4], coef[m, 5]
        s = ux * ux + uy * uy + vx * vx + vy * vy
        det = ux * vy - uy * vx
        r = np.sqrt((s + np.sqrt(np.maximum(s * s - 4 * det * det, 0))) / 2)
        step = 2 * np.arccos(np.clip(1 - tolerance / np.maximum(r, 1e-9), 0.0, 1.0))
        n[m] = np.maximum(np.ceil(TAU / step), 8)
    return np.maximum(n, 1)


def concatenate(parts: Sequence[Segments]) -> Segments:
    """All segments of ``parts`` one after the other."""
    if not parts:
        return Segments.empty()
    return Segments(
        np.concatenate([p.kind for p in parts]),
        np.concatenate([p.coef for p in parts]),
        np.concatenate([p.span for p in parts]),
        np.concatenate([p.start for p in parts]),
        np.concatenate([p.end for p in parts]),
    )


def lines(start: ArrayLike, end: ArrayLike) -> Segments:
    """Straight segments from ``start`` (n, 2) to ``end`` (n, 2)."""
    first, last = np.asarray(start, float), np.asarray(end, float)
    n = len(first)
    coef = np.zeros((n, 8))
    coef[:, :2], coef[:, 2:4] = first, last
    span = np.tile([0.0, 1.0], (n, 1))
    return Segments(np.full(n, Kind.LINE, np.int8), coef, span, first, last)


def beziers(control: ArrayLike) -> Segments:
    """Bezier segments from control points (n, 3, 2) or (n, 4, 2)."""
    points = np.asarray(control, float)
    n, degree = len(points), points.shape[1] - 1
    if degree not in (2, 3):
        raise GeometryError(f"points.shape={points.shape}: a Bezier segment has 3 or 4 points.")
    coef = np.zeros((n, 8))
    coef[:, : 2 * (degree + 1)] = points.reshape(n, 2 * (degree + 1))
    kind = Kind.QUAD if degree == 2 else Kind.CUBIC
    span = np.tile([0.0, 1.0], (n, 1))
    return Segments(np.full(n, kind, np.int8), coef, span, points[:, 0], points[:, -1])


def arc(
    centre: Sequence[float],
    u: Sequence[float],
    v: Sequence[float],
    t0: float,
    t1: float,
    *,
    start: Sequence[float] | None = None,
    end: Sequence[float] | None = None,
) -> Segments:
    """One elliptical arc, from t0 to t1 (radians, at most a whole turn apart)."""
    coef = np.array([[*centre, *u, *v, 0.0, 0.0]], float)
    kind = np.full(1, Kind.ARC, np.int8)
    span = np.array([[t0, t1]], float)
    ends = by_kind((PLACE,), kind.repeat(2), np.repeat(coef, 2, axis=0), span[0])[0]
    if abs(abs(t1 - t0) - TAU) < 1e-12:
        ends[1] = ends[0]
    if start is not None:
        ends[0] = start
    if end is not None:
        ends[1] = end
    return Segments(kind, coef, span, ends[:1], ends[1:])
