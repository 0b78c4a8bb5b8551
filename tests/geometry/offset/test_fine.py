"""Finely drawn smooth outlines keep their curves when they are offset."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stileblade.geometry.curves.flatten import flatten
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import TAU, beziers
from stileblade.geometry.offset.fine import with_longer_curves
from stileblade.geometry.offset.offset import Join, offset
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, polygon
from tests.geometry.zoo import disc, ellipse, star


def smooth(count: int, seed: int, size: float = 50.0) -> Region:
    """A smooth closed outline of so many cubics, about twice ``size`` mm across."""
    chance = np.random.default_rng(seed)
    angles = np.arange(count) * TAU / count
    r = np.full(count, size)
    for k in range(2, 8):
        r += size * chance.uniform(-0.12, 0.12) * np.cos(k * angles + chance.uniform(0, TAU))
    p = np.stack([r * np.cos(angles), r * np.sin(angles)], axis=1)
    tangent = (np.roll(p, -1, 0) - np.roll(p, 1, 0)) / 6
    q, after = np.roll(p, -1, 0), np.roll(tangent, -1, 0)
    return fill([beziers(np.stack([p, p + tangent, q - after, q], axis=1))])


def dense(region: Region) -> shapely.Geometry:
    flat = flatten(region.segments, region.rings, region.segments.pieces_within(2e-4))
    rings = [flat.points[flat.ring == r] for r in range(len(region.shell))]
    return shapely.multilinestrings([shapely.linearrings(points) for points in rings])


def off(region: Region, grown: Region, distance: float) -> float:
    """How far the farthest place of an offset is off its distance, in mm."""
    spots = shapely.points(shapely.get_coordinates(dense(grown)))
    return float(np.abs(shapely.distance(spots, dense(region)) - abs(distance)).max())


@pytest.mark.parametrize("count", [300, 600, 1200])
@pytest.mark.parametrize("seed", range(4))
def test_a_finely_drawn_outline_keeps_its_curves(count: int, seed: int) -> None:
    region = smooth(count, seed)
    for distance in (0.5, 2.0, 5.0, -0.5, -2.0, -5.0):
        grown = offset(region, distance)
        assert (grown.segments.kind == Kind.LINE).mean() < 0.2
        assert len(grown.segments) < count / 2
        assert off(region, grown, distance) < 0.01


@pytest.mark.parametrize("seed", range(8))
def test_longer_curves_lie_on_the_short_ones(seed: int) -> None:
    region = smooth(500, seed)
    fewer = with_longer_curves(region)
    assert len(fewer.segments) < 100
    assert shapely.hausdorff_distance(dense(fewer), dense(region)) < 2e-3
    assert abs(fewer.area - region.area) < 1e-3 * 0.1 * shapely.length(dense(region))


def test_corners_and_openings_stay() -> None:
    fine = smooth(400, 1)
    cut = difference(fine, polygon([(0, -100), (100, -100), (100, 100), (0, 100)]))
    holed = difference(cut, smooth(400, 2, 6.0).transformed(np.array([[1, 0, -25], [0, 1, 0.0]])))
    fewer = with_longer_curves(holed)
    assert (len(fewer.parts()), len(fewer.shell)) == (1, 2)
    corners = shapely.multipoints(fewer.segments.start)
    straight = holed.segments.take(holed.segments.kind == Kind.LINE)
    for end in (*straight.start, *straight.end):
        assert shapely.distance(corners, shapely.points(end)) == 0
    for join in Join:
        grown = offset(holed, 2.0, join=join)
        assert (grown.segments.kind != Kind.LINE).sum() > 10


@pytest.mark.parametrize("region", [disc(0, 0, 30), ellipse(0, 0, 30, 12), star(7, 30, 12)])
def test_outlines_that_are_not_finely_drawn_stay_as_they_are(region: Region) -> None:
    assert with_longer_curves(region) is region
