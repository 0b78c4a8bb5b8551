"""Regions from contours that may cross themselves and each other, by a fill rule.

All edges are noded and polygonised by the kernel; a face is inside by its winding number
("nonzero") or the parity of it ("evenodd"). The curves are traced back.
"""

from __future__ import annotations

from typing import Literal

import numpy as np
import shapely

from stileblade.errors import GeometryError
from stileblade.geometry.flatten import Flat
from stileblade.geometry.region import Region, build_polygons
from stileblade.geometry.segments import Floats, Ints, Segments, concatenate
from stileblade.geometry.set_operations import run_kernel
from stileblade.geometry.trace import Sources, trace

FillRule = Literal["nonzero", "evenodd"]


def fill(contours: list[Segments], rule: FillRule = "nonzero") -> Region:
    """The region that closed contours paint. Contours without area paint nothing."""
    if rule not in ("nonzero", "evenodd"):
        raise GeometryError(f"rule={rule!r}: choose 'nonzero' or 'evenodd'.")
    contours = [c for c in contours if len(c)]
    if not contours:
        return Region.empty()
    segments = concatenate(contours)
    offsets = np.r_[0, np.cumsum([len(c) for c in contours])]
    loose = Region(segments, offsets, np.arange(len(contours)))
    flat = loose.flat
    sources = Sources(segments, flat)
    if len(contours) == 1:
        simple = build_polygons(flat.points, flat.ring, loose.shell)
        if shapely.is_valid(simple) and not shapely.is_empty(simple):
            return trace(simple, sources)
    return trace(_faces_inside(flat, rule), sources)


def _faces_inside(flat: Flat, rule: FillRule) -> shapely.Geometry:
    edges = np.stack([flat.points, flat.ends], axis=1)
    edges = edges[flat.keys != flat.keys[flat.after]]
    noded = run_kernel(shapely.union_all, shapely.linestrings(edges))
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(noded)))
    if not len(faces):
        return shapely.MultiPolygon()
    spots = shapely.get_coordinates(shapely.point_on_surface(faces))
    number = winding_numbers(edges, spots)
    inside = number % 2 != 0 if rule == "evenodd" else number != 0
    return run_kernel(shapely.union_all, faces[inside])


def winding_numbers(edges: Floats, spots: Floats) -> Ints:
    """How often directed edges (m, 2, 2) go round each of the points (k, 2)."""
    (x0, y0), (x1, y1) = edges[:, 0].T, edges[:, 1].T
    out = np.zeros(len(spots), np.int64)
    for i, (x, y) in enumerate(spots):
        up, down = (y0 <= y) & (y1 > y), (y1 <= y) & (y0 > y)
        side = (x1 - x0) * (y - y0) - (x - x0) * (y1 - y0)
        out[i] = (up & (side > 0)).sum() - (down & (side < 0)).sum()
    return out


def filled(region: Region, *, below: float | None = None) -> Region:
    """The region with its openings closed: all, or those smaller than ``below`` mm^2."""
    keep = [
        r
        for r in range(len(region.shell))
        if region.shell[r] == r or (below is not None and region.contour(r).area >= below)
    ]
    if len(keep) == len(region.shell):
        return region
    sizes = np.diff(region.rings)[keep]
    index = np.concatenate([np.arange(region.rings[r], region.rings[r + 1]) for r in keep])
    shell = np.searchsorted(keep, region.shell[keep])
    return Region(region.segments.take(index), np.r_[0, np.cumsum(sizes)], shell)
