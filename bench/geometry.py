"""Each geometry operation against the raw kernel on the same, already flattened input."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import shapely

from bench.shapes import figure_300, outline_20000
from bench.timing import best, fresh
from stileblade.geometry.offset import offset
from stileblade.geometry.region import Region
from stileblade.geometry.segments import TAU, arc
from stileblade.geometry.set_operations import cut_off, half_plane, union
from stileblade.geometry.transforms import mirror_across


@dataclass(frozen=True)
class Row:
    name: str
    ours: Callable[[], Region]
    kernel: Callable[[], object]
    nodes_in: int


def disc(x: float, r: float) -> Region:
    return Region(arc((x, 0), (r, 0), (0, r), 0, TAU), np.array([0, 1]), np.zeros(1, np.int64))


def rows() -> list[Row]:
    a, b = disc(0, 50), disc(60, 50)
    found = [
        Row("two circles united", lambda: union(fresh(a), fresh(b)),
            lambda: shapely.union(a.polygons, b.polygons), 2)
    ]  # fmt: skip
    for name, shape in (
        ("figure of 300 cubics", figure_300()),
        ("20,000-vertex outline", outline_20000()),
    ):
        at = shape.bounds.right - 8
        half = cut_off(shape, axis="x", at=at, keep="less")
        image = half.transformed(mirror_across(axis="x", at=at))
        plane = half_plane(shape.bounds, axis="x", at=at, keep="less")
        for warm in (shape, half, image, plane):
            _ = warm.polygons
        found += _of(name, shape, half, image, plane, at)
    return found


def _of(
    name: str, shape: Region, half: Region, image: Region, plane: Region, at: float
) -> list[Row]:
    return [
        Row(f"{name}: sliced", lambda: cut_off(fresh(shape), axis="x", at=at, keep="less"),
            lambda: shapely.intersection(shape.polygons, plane.polygons), shape.nodes),
        Row(f"{name}: half and image welded", lambda: union(fresh(half), fresh(image)),
            lambda: shapely.union(half.polygons, image.polygons), half.nodes + image.nodes),
        Row(f"{name}: grown by 2.5", lambda: offset(fresh(shape), 2.5),
            lambda: shapely.buffer(shape.polygons, 2.5, quad_segs=28), shape.nodes),
    ]  # fmt: skip


def report() -> None:
    print(f"{'geometry':44}{'ms':>8}{'kernel':>8}{'ratio':>7}{'nodes in':>10}{'out':>8}")
    for row in rows():
        ours, kernel = best(row.ours), best(row.kernel)
        out = row.ours().nodes
        print(
            f"{row.name:44}{ours * 1e3:8.1f}{kernel * 1e3:8.2f}{ours / kernel:7.1f}"
            f"{row.nodes_in:10,}{out:8,}"
        )
