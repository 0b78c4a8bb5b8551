"""Shapes of all kinds, to be led through every operation."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
import shapely

from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import TAU, arc, beziers
from stileblade.geometry.curves.transforms import rotation, translation
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import polygon, rectangle


def disc(x: float, y: float, r: float) -> Region:
    return ellipse(x, y, r, r)


def ellipse(x: float, y: float, rx: float, ry: float) -> Region:
    return Region(arc((x, y), (rx, 0), (0, ry), 0, TAU), np.array([0, 1]), np.zeros(1, np.int64))


def cubic_disc(r: float, parts: int = 4) -> Region:
    """A circle said in cubics: ``parts`` of them."""
    step = TAU / parts
    h = 4 / 3 * math.tan(step / 4) * r
    control = []
    for k in range(parts):
        a, b = k * step, (k + 1) * step
        p, q = np.array([math.cos(a), math.sin(a)]) * r, np.array([math.cos(b), math.sin(b)]) * r
        d = np.array([-math.sin(a), math.cos(a)]) * h
        e = np.array([-math.sin(b), math.cos(b)]) * h
        control.append([p, p + d, q - e, q])
    points = np.array(control)
    points[-1, 3] = points[0, 0]
    return Region(beziers(points), np.array([0, parts]), np.zeros(1, np.int64))


def star(points: int, outer: float, inner: float) -> Region:
    return polygon(
        [
            (
                (inner if k % 2 else outer) * math.sin(math.pi * k / points),
                -(inner if k % 2 else outer) * math.cos(math.pi * k / points),
            )
            for k in range(2 * points)
        ]
    )


def blob(seed: int, segments: int = 8, size: float = 40.0) -> Region:
    """A closed smooth figure of cubics, reproducible by its seed."""
    random = np.random.default_rng(seed)
    angles = np.arange(segments) * TAU / segments
    r = size * (0.7 + 0.3 * random.random(segments))
    p = np.stack([r * np.cos(angles), r * np.sin(angles)], 1)
    tangent = (np.roll(p, -1, 0) - np.roll(p, 1, 0)) * 0.17
    q, t = np.roll(p, -1, 0), np.roll(tangent, -1, 0)
    return fill([beziers(np.stack([p, p + tangent, q - t, q], axis=1))])


def ring(outer: float, inner: float) -> Region:
    return fill([disc(0, 0, outer).segments, disc(0, 0, inner).segments], "evenodd")


ZOO: dict[str, Region] = {
    "nothing": Region.empty(),
    "square": rectangle(Box(-30, -30, 30, 30)),
    "disc": disc(0, 0, 30),
    "disc in cubics": cubic_disc(30),
    "ellipse": ellipse(5, 5, 40, 18),
    "turned ellipse": ellipse(0, 0, 40, 18).transformed(rotation(30)),
    "ring": ring(32, 14),
    "star": star(7, 38, 20),
    "blob": blob(3),
    "sliver": rectangle(Box(-40, 0, 40, 0.05)),
    "far away": disc(400, 0, 10),
    "moved square": rectangle(Box(-30, -30, 30, 30)).transformed(translation(30, 0)),
}


def fine(region: Region, steps: int = 64) -> np.ndarray:
    """Points (n, 2) close together along all contours."""
    n = len(region.segments)
    share = np.linspace(0, 1, steps, endpoint=False)
    span = region.segments.span
    t = (span[:, :1] + (span[:, 1:] - span[:, :1]) * share).ravel()
    return region.segments.points_at(np.repeat(np.arange(n), steps), t)


def outlines(region: Region, steps: int) -> list[shapely.LineString]:
    """Each contour as a closed polyline of ``steps`` lines to a segment."""
    points = fine(region, steps).reshape(-1, steps, 2)
    found = []
    for first, last in pairwise(region.rings.tolist()):
        ring = points[first:last].reshape(-1, 2)
        found.append(shapely.linestrings(np.concatenate([ring, ring[:1]])))
    return found


def away(a: Region, b: Region) -> float:
    """The largest distance in mm of a's contours from b's, to a thousandth of its radii of bend."""
    outline = shapely.multilinestrings(outlines(b, 1024))
    shapely.prepare(outline)
    return float(shapely.distance(shapely.points(fine(a)), outline).max(initial=0.0))


def check_whole(region: Region) -> None:
    """Contours are closed, run the right way round, and have no leftovers."""
    for contour in region.contours:
        s = contour.segments
        assert (s.end == np.roll(s.start, -1, axis=0)).all()
        n = np.arange(len(s))
        assert np.abs(s.points_at(n, s.span[:, 0]) - s.start).max() < 0.01
        assert np.abs(s.points_at(n, s.span[:, 1]) - s.end).max() < 0.01
    assert region.area >= 0
