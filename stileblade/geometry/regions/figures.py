"""Figures that closed lines enclose: each with its openings."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely

from stileblade.geometry.curves.measurement import signed_area
from stileblade.geometry.curves.segments import Segments, concatenate
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region


def figures_of(contours: Sequence[Segments]) -> list[Region]:
    """Closed contours sorted into figures: one that lies in no other, or in an even number of
    them, is a figure, and those next inside it are its openings. Contours that cross others make
    figures of their own, each, and those that cross themselves what they go round; those without
    area none."""
    regions: list[Region] = []
    crossing: list[Region] = []
    for contour in contours:
        region = _as_region(contour)
        if region is not None:
            regions.append(region)
        else:
            crossing += fill([contour]).parts()
    return [*_nested(regions), *crossing]


def _nested(regions: list[Region]) -> list[Region]:
    if not regions:
        return []
    shapes = np.array([r.polygons for r in regions])
    shapely.prepare(shapes)
    tree = shapely.STRtree(shapes)
    outer, inner = tree.query(shapes, predicate="contains_properly")
    depth = np.bincount(inner, minlength=len(regions))
    found = []
    for i, region in enumerate(regions):
        if depth[i] % 2:
            continue
        own = inner[(outer == i) & (depth[inner] == depth[i] + 1)]
        holes = [regions[j].segments.reversed() for j in own]
        sizes = np.cumsum([len(region.segments), *map(len, holes)])
        segments = concatenate([region.segments, *holes])
        shell = np.zeros(len(sizes), np.int64)
        found.append(Region(segments, np.r_[0, sizes], shell))
    return found


def _as_region(contour: Segments) -> Region | None:
    if signed_area(contour) < 0:
        contour = contour.reversed()
    region = Region(contour, np.array([0, len(contour)]), np.zeros(1, np.int64))
    shape = region.polygons
    if shapely.is_empty(shape) or not shapely.is_valid(shape):
        return None
    return region
