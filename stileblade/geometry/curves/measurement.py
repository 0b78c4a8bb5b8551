"""Exact measures of closed contours, from their curves: area, centroid, bounds, length.

Area and centroid are contour integrals (Green's theorem) by Gauss-Legendre quadrature:
three nodes are exact for the area under cubics, five for its moments, and twenty are exact to rounding for arcs.
y runs downwards; a contour that runs clockwise as seen has positive area.
"""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import TAU, Bools, Floats, Ints, Segments
from stileblade.geometry.curves.vectors import crosses, extent, norms

_NODES = {n: np.polynomial.legendre.leggauss(n) for n in (3, 5, 20)}


def _quadrature(segments: Segments, nodes: int) -> tuple[Floats, Floats, Floats]:
    """Points (n, k, 2), derivatives (n, k, 2) and weights (n, k), signed by running."""
    x, w = _NODES[nodes]
    half = (segments.span[:, 1] - segments.span[:, 0]) / 2
    mid = (segments.span[:, 1] + segments.span[:, 0]) / 2
    t = (mid[:, None] + half[:, None] * x).ravel()
    index = np.arange(len(segments)).repeat(nodes)
    shape = (len(segments), nodes, 2)
    return (
        segments.points_at(index, t).reshape(shape),
        segments.derivatives_at(index, t).reshape(shape),
        half[:, None] * w,
    )


def _moments(segments: Segments) -> Floats:
    """Per segment (n, 3): shares of the area, and of the first moments in x and y."""
    out = np.zeros((len(segments), 3))
    line = segments.kind == Kind.LINE
    (x0, y0), (x1, y1) = segments.start[line].T, segments.end[line].T
    cross = x0 * y1 - x1 * y0
    out[line] = np.stack([cross / 2, (x0 + x1) * cross / 6, (y0 + y1) * cross / 6], axis=1)
    for kinds, nodes in (((Kind.QUAD, Kind.CUBIC), 5), ((Kind.ARC,), 20)):
        m = np.isin(segments.kind, kinds)
        if m.any():
            p, d, w = _quadrature(segments.take(m), nodes)
            cross = crosses(p, d)
            out[m, 0] = (cross * w).sum(axis=1) / 2
            out[m, 1] = (cross * p[..., 0] * w).sum(axis=1) / 3
            out[m, 2] = (cross * p[..., 1] * w).sum(axis=1) / 3
    return out


def signed_area(segments: Segments) -> float:
    """Enclosed area in mm^2, positive where it runs clockwise as seen."""
    return float(signed_areas(segments).sum())


def signed_areas(segments: Segments) -> Floats:
    """What each segment (n,) of closed contours adds to their area; closed forms for lines and
    arcs (q x q' is u x v all along an arc about its centre)."""
    (x0, y0), (x1, y1) = segments.start.T, segments.end.T
    total = (x0 * y1 - x1 * y0) / 2
    m = segments.kind == Kind.ARC
    if m.any():
        cx, cy, ux, uy, vx, vy = segments.coef[m, :6].T
        dx, dy = (segments.end[m] - segments.start[m]).T
        sweep = segments.span[m, 1] - segments.span[m, 0]
        total[m] = (cx * dy - cy * dx + (ux * vy - uy * vx) * sweep) / 2
    m = (segments.kind == Kind.QUAD) | (segments.kind == Kind.CUBIC)
    if m.any():
        p, d, w = _quadrature(segments.take(m), 3)
        total[m] = (crosses(p, d) * w).sum(axis=1) / 2
    return total


def centroid(segments: Segments) -> tuple[float, float]:
    a, x, y = _moments(segments).sum(axis=0)
    return float(x / a), float(y / a)


def lengths(segments: Segments) -> Floats:
    """Arc lengths (n,), to about 1e-9 relative for lines and circular arcs, 1e-6 otherwise."""
    out = norms(segments.end - segments.start)
    m = segments.kind != Kind.LINE
    if m.any():
        _, d, w = _quadrature(segments.take(m), 20)
        out[m] = (norms(d) * np.abs(w)).sum(axis=1)
    return out


def extremes(segments: Segments) -> tuple[Ints, Floats]:
    """Segment numbers and parameters where a tangent is upright or level, inside the stretch."""
    index, found = [], []
    q = segments.coef.reshape(-1, 4, 2)
    for axis in (0, 1):
        p = q[:, :, axis]
        m = true_at(segments.kind == Kind.QUAD)
        if len(m):
            a = p[m, 0] - 2 * p[m, 1] + p[m, 2]
            b = p[m, 0] - p[m, 1]
            ok = np.abs(a) > 1e-12
            index.append(m[ok])
            found.append(b[ok] / a[ok])
        m = true_at(segments.kind == Kind.CUBIC)
        if len(m):
            a = -p[m, 0] + 3 * p[m, 1] - 3 * p[m, 2] + p[m, 3]
            b = 2 * (p[m, 0] - 2 * p[m, 1] + p[m, 2])
            c = p[m, 1] - p[m, 0]
            root = b * b - 4 * a * c
            ok = root >= 0
            a, b, c, m = a[ok], b[ok], c[ok], m[ok]
            w = -(b + np.where(b >= 0, 1.0, -1.0) * np.sqrt(root[ok])) / 2
            for top, below in ((w, a), (c, w)):
                good = np.abs(below) > 1e-12
                index.append(m[good])
                found.append(top[good] / below[good])
        m = true_at(segments.kind == Kind.ARC)
        if len(m):
            t = np.arctan2(p[m, 2], p[m, 1])
            low = segments.span[m].min(axis=1)
            for turn in (0.0, np.pi):
                # the first such angle at or beyond the lower end, and those a turn further
                first = low + np.mod(t + turn - low, TAU)
                index.append(m)
                found.append(first)
    if not index:
        return np.zeros(0, np.int64), np.zeros(0)
    i, t = np.concatenate(index), np.concatenate(found)
    low, high = segments.span[i].min(axis=1), segments.span[i].max(axis=1)
    inside = (t > low) & (t < high)
    return i[inside], t[inside]


def bounds(segments: Segments) -> tuple[float, float, float, float]:
    """Left, head, right, foot of all segments, by their true extremes."""
    low, high = extent(np.concatenate([segments.start, segments.end]))
    beyond = true_at(_may_reach_beyond(segments, low, high))
    if len(beyond):
        outer = segments.take(beyond)
        i, t = extremes(outer)
        if len(i):
            least, most = extent(outer.points_at(i, t))
            low, high = np.minimum(low, least), np.maximum(high, most)
    return float(low[0]), float(low[1]), float(high[0]), float(high[1])


def _may_reach_beyond(segments: Segments, low: Floats, high: Floats) -> Bools:
    """Which segments (n,) reach out of a box about all ends, by their parents' control points."""
    q = segments.coef.reshape(-1, 4, 2)
    found = np.zeros(len(segments), bool)
    for kind, last in ((Kind.QUAD, 2), (Kind.CUBIC, 3)):
        m = true_at(segments.kind == kind)
        if len(m):
            a, b, c, d = q[m].swapaxes(0, 1)[[0, 1, 2, last]]
            least = np.minimum(np.minimum(a, b), np.minimum(c, d))
            most = np.maximum(np.maximum(a, b), np.maximum(c, d))
            out = (least < low) | (most > high)
            found[m] = out[:, 0] | out[:, 1]
    found |= segments.kind == Kind.ARC
    return found
