"""Offsets: exact where lines and arcs are, and inside or outside what they came from."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from stileblade.errors import GeometryError
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.places import Box
from stileblade.geometry.offset.offset import Join, largest_inset, offset
from stileblade.geometry.regions.set_operations import difference, polygon, rectangle, union
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import ScallopedCircle
from tests.geometry.regions.test_set_operations import check_whole
from tests.geometry.zoo import ZOO, blob, disc, star

SQUARE = rectangle(Box(0, 0, 60, 60))


def test_square_grown_by_three_with_round_joins() -> None:
    """60^2 + 4*60*3 + 9 pi = 4348.274, of four lines and four arcs."""
    grown = offset(SQUARE, 3)
    assert grown.area == pytest.approx(3600 + 720 + 9 * math.pi, abs=1e-3)
    assert np.bincount(grown.segments.kind, minlength=4).tolist() == [4, 0, 0, 4]


def test_square_grown_by_three_with_mitres_and_bevels() -> None:
    """Mitre: 66^2 = 4356. Bevel: four triangles of 3*3/2 less: 4338."""
    assert offset(SQUARE, 3, join=Join.MITRE).area == pytest.approx(4356, abs=1e-6)
    assert offset(SQUARE, 3, join=Join.BEVEL).area == pytest.approx(4338, abs=1e-6)
    assert offset(SQUARE, 3, join=Join.MITRE).nodes == 4


def test_long_mitres_become_bevels_at_the_limit() -> None:
    """A corner of 60 degrees has a mitre of 1/sin(30) = 2 distances: kept at the limit of 2,
    bevelled just below it."""
    triangle = polygon([(0, 0), (60, 0), (30, 30 * math.sqrt(3))])
    assert offset(triangle, 2, join=Join.MITRE, mitre_limit=2.0001).nodes == 3
    assert offset(triangle, 2, join=Join.MITRE, mitre_limit=1.9999).nodes == 6
    with pytest.raises(GeometryError, match=r"mitre_limit=0\.5: must be 1 or more"):
        offset(triangle, 2, join=Join.MITRE, mitre_limit=0.5)


@pytest.mark.parametrize("distance", [5, -5, -49.5])
def test_a_circle_stays_one_arc(distance: float) -> None:
    grown = offset(disc(0, 0, 50), distance)
    assert grown.nodes == 1
    assert grown.segments.kind[0] == Kind.ARC
    assert grown.area == pytest.approx(math.pi * (50 + distance) ** 2, abs=1e-6)


def test_inwards_until_it_vanishes() -> None:
    assert not offset(SQUARE, -30.01)
    assert offset(SQUARE, -29.9).area == pytest.approx(0.04, abs=1e-6)
    assert largest_inset(SQUARE) == pytest.approx(30, abs=0.01)
    assert not offset(ZOO["nothing"], 3)


def test_openings_shrink_as_the_outline_grows() -> None:
    grown = offset(ZOO["ring"], 3)
    assert grown.area == pytest.approx(math.pi * (35**2 - 11**2), abs=1e-6)
    assert len(offset(ZOO["ring"], 14.5).openings) == 0


def test_inset_parts_of_a_waist_come_apart() -> None:
    two = union(disc(0, 0, 30), disc(55, 0, 30))
    assert offset(two, -15).pieces == 2


@pytest.mark.parametrize("name", [n for n in ZOO if n != "nothing"])
@pytest.mark.parametrize("join", list(Join))
@pytest.mark.parametrize("distance", [2.5, -2.5])
def test_zoo(name: str, join: Join, distance: float) -> None:
    region = ZOO[name]
    grown = offset(region, distance, join=join)
    check_whole(grown)
    inner, outer = (region, grown) if distance > 0 else (grown, region)
    assert difference(inner, outer).area < 0.01 * shapely.length(shapely.boundary(region.polygons))


@given(st.integers(0, 400), st.floats(-9, 9).filter(lambda d: abs(d) > 0.3))
@settings(max_examples=40)
def test_offsets_of_curves_stay_by_the_true_distance(seed: int, distance: float) -> None:
    """Against the kernel's buffer of a polyline ten times finer."""
    figure = blob(seed, segments=5 + seed % 6, size=40)
    grown = offset(figure, distance)
    true = shapely.buffer(figure.polygons, distance, quad_segs=90)
    gap = shapely.hausdorff_distance(shapely.boundary(grown.polygons), shapely.boundary(true))
    assert gap < 0.02


def test_offset_of_a_star_is_lines_and_arcs_alone() -> None:
    grown = offset(star(9, 50, 30), 2.5)
    assert np.bincount(grown.segments.kind, minlength=4).tolist() == [18, 0, 0, 9]


@pytest.mark.parametrize("radius", [0.3, 1.0, 1.2, 5.0, 20.0])
def test_grown_and_shrunk_by_the_same_a_plate_is_itself(radius: float) -> None:
    """Its corners became arcs of the very distance: shrunk, each is a point and falls away."""
    plate = rectangle(Box(0, 0, 184.15, 100))
    back = offset(offset(plate, radius), -radius)
    assert back.nodes == 4
    assert back.area == pytest.approx(18415, abs=1e-6)


@pytest.mark.parametrize("margin", [1.9, 2.0, 2.1, 2.5, 8.0])
def test_shallow_bays_between_arcs_are_found_on_the_arcs(margin: float) -> None:
    """Scallops of r = 1.865 grown: neighbours meet on both their circles, however shallow the bay
    is against the margin."""
    grown = offset(outline_of(ScallopedCircle(diameter=20, depth=3), {}), margin)
    s = grown.segments
    n = np.arange(len(s))
    assert len(s) == 16
    for t, points in ((s.span[:, 0], s.start), (s.span[:, 1], s.end)):
        assert np.abs(s.points_at(n, t) - points).max() < 1e-9


def test_arcs_that_run_into_each_other_stay_joined() -> None:
    """Rounded in and out again, bays and tops are tangent arcs: there and back all stay on curves."""
    shape = outline_of(ScallopedCircle(diameter=20, depth=3), {})
    for distance in (1.0, -1.0, -1.0, 1.0):
        shape = offset(shape, distance)
        s = shape.segments
        n = np.arange(len(s))
        assert np.abs(s.points_at(n, s.span[:, 0]) - s.start).max() < 1e-9
    assert shape.nodes == 32


@pytest.mark.parametrize("seed", range(12))
def test_a_convex_outline_of_lines_is_made_smaller_exactly(seed: int) -> None:
    """By parallels alone: every corner is as far from the outline as it should be, and no side is missing."""
    chance = np.random.default_rng(seed)
    angles = np.sort(chance.uniform(0, 2 * np.pi, 9))
    region = polygon([(40 * np.cos(a), 25 * np.sin(a)) for a in angles.tolist()])
    for distance in (0.5, 3.0, 8.0):
        smaller = offset(region, -distance)
        exact = shapely.buffer(region.polygons, -distance, join_style="mitre", mitre_limit=1e6)
        assert smaller.area == pytest.approx(shapely.area(exact), abs=1e-3)
        for corner in smaller.segments.start:
            away = shapely.distance(shapely.boundary(region.polygons), shapely.points(corner))
            assert away == pytest.approx(distance, abs=5e-6)
    assert not offset(region, -60)
