"""Each geometry operation against the raw kernel on the same, already flattened input."""

from __future__ import annotations

import json
import os
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import numpy as np
import shapely

from bench.shapes import artwork_200, figure_300, glyphs, outline_20000, random_pair
from bench.timing import best, fresh
from stileblade.geometry.curves.measurement import lengths
from stileblade.geometry.curves.segments import TAU, arc
from stileblade.geometry.curves.transforms import mirror_across, translation
from stileblade.geometry.offset.offset import offset
from stileblade.geometry.regions.fill import Painted, fill_all
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import (
    cut_off,
    difference,
    half_plane,
    intersection,
    union,
    union_all,
)
from stileblade.outlines.artwork import Artwork, outlines_of
from tests.geometry.zoo import fine, outlines

PAIRS = 5000


@dataclass(frozen=True)
class Row:
    name: str
    ours: Callable[[], Region]
    kernel: Callable[[], object]
    nodes_in: int
    sources: tuple[Region, ...]
    """On whose outlines the outcome lies, or ``distance`` from them."""
    distance: float = 0.0


def disc(x: float, r: float) -> Region:
    return Region(arc((x, 0), (r, 0), (0, r), 0, TAU), np.array([0, 1]), np.zeros(1, np.int64))


def rows() -> list[Row]:
    a, b = disc(0, 50), disc(60, 50)
    glyph = glyphs()
    art = artwork_200()
    parts = [Painted([c.segments for r in art for c in r.contours])]
    moved = glyph.transformed(translation(3, 2))
    for warm in (glyph, moved, *art):
        _ = warm.polygons
    shapes = np.array([r.polygons for r in art])
    found = [
        Row("two circles united", lambda: union(fresh(a), fresh(b)),
            lambda: shapely.union(a.polygons, b.polygons), 2, (a, b)),
        Row("glyph and its copy united", lambda: union(fresh(glyph), fresh(moved)),
            lambda: shapely.union(glyph.polygons, moved.polygons), 2 * glyph.nodes, (glyph, moved)),
        Row("glyph shrunk by 0.5", lambda: offset(fresh(glyph), -0.5),
            lambda: shapely.buffer(glyph.polygons, -0.5, quad_segs=20), glyph.nodes, (glyph,), 0.5),
        Row("artwork of 200 contours united", lambda: fill_all(parts)[0],
            lambda: shapely.union_all(shapes), sum(r.nodes for r in art), tuple(art)),
        Row("its figures united in one go", lambda: union_all([fresh(r) for r in art]),
            lambda: shapely.union_all(shapes), sum(r.nodes for r in art), tuple(art)),
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
            lambda: shapely.intersection(shape.polygons, plane.polygons), shape.nodes, (shape, plane)),
        Row(f"{name}: half and image welded", lambda: union(fresh(half), fresh(image)),
            lambda: shapely.union(half.polygons, image.polygons), half.nodes + image.nodes,
            (half, image)),
        Row(f"{name}: grown by 2.5", lambda: offset(fresh(shape), 2.5),
            lambda: shapely.buffer(shape.polygons, 2.5, quad_segs=28), shape.nodes, (shape,), 2.5),
    ]  # fmt: skip


def report() -> None:
    head = ("ms", 8), ("kernel", 8), ("ratio", 7), ("nodes in", 10), ("out", 8), ("off by mm", 11)
    print(f"{'geometry':44}" + "".join(f"{name:>{width}}" for name, width in head))
    for row in rows():
        ours, kernel = best(row.ours), best(row.kernel)
        out = row.ours()
        off = f"{deviation(out, row.sources, row.distance):11.4f}"
        print(
            f"{row.name:44}{ours * 1e3:8.1f}{kernel * 1e3:8.2f}{ours / kernel:7.1f}"
            f"{row.nodes_in:10,}{out.nodes:8,}{off}"
        )
    pairs(PAIRS)
    insets()


def deviation(out: Region, sources: tuple[Region, ...], distance: float) -> float:
    """How far from where it should be any point of the outcome's outline lies, in mm."""
    steps = int(np.clip(40_000 // max(out.nodes, 1), 2, 64))
    edges = []
    for source in sources:
        for line in outlines(source, int(np.clip(200_000 // source.nodes, 8, 256))):
            p = shapely.get_coordinates(line)
            edges.append(np.stack([p[:-1], p[1:]], axis=1))
    tree = shapely.STRtree(shapely.linestrings(np.concatenate(edges)))
    spots = shapely.points(fine(out, steps))
    _, far = tree.query_nearest(spots, return_distance=True, all_matches=False)
    return float(np.abs(far - distance).max())


def pairs(count: int) -> None:
    """Areas of random pairs add up: union and intersection, difference; the worst by outline."""
    worst, failed, started = 0.0, 0, time.perf_counter()
    # others each time; SEED repeats those of an earlier run
    first = int(os.environ.get("SEED") or time.time_ns() % 10**9)
    for seed in range(first, first + count):
        a, b = random_pair(seed)
        both, common, rest = union(a, b), intersection(a, b), difference(a, b)
        edge = sum(float(lengths(r.segments).sum()) for r in (a, b))
        off = max(
            abs(a.area + b.area - both.area - common.area), abs(a.area - common.area - rest.area)
        )
        worst = max(worst, off / edge)
        failed += off > 0.01 * edge
    seconds = time.perf_counter() - started
    print(
        f"{count:,} random pairs from SEED={first} on: {failed} with areas that do not add up to 0.01 mm along their"
    )
    print(f"outlines, the worst {worst:.5f} mm; {seconds / count * 1e3:.1f} ms a pair")


def insets() -> None:
    """Offsets of the demo drawings' profiles: nodes out to nodes in, largest ratio first."""
    found = []
    for path in sorted((Path(__file__).parents[1] / "demo" / "shelf").glob("*.json")):
        data = json.loads(path.read_text())["artwork"]
        shape = outlines_of(Artwork.model_validate(data)).union()
        for distance in (2.5, -1.0):
            grown = offset(shape, distance)
            if grown:
                found.append((grown.nodes / shape.nodes, path.stem, distance))
    found.sort(reverse=True)
    print("offsets of the demo drawings, nodes out to in: largest "
          + ", ".join(f"{name} {by:+} {ratio:.2f}" for ratio, name, by in found[:4])
          + f"; median {found[len(found) // 2][0]:.2f}")  # fmt: skip
