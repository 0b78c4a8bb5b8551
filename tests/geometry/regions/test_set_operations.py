"""Union, difference, intersection, slices: areas add up, curves stay themselves."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from bench.shapes import random_pair
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import mirror_across, rotation, translation
from stileblade.geometry.regions.mirroring import weld_mirrored
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import (
    cut_off,
    difference,
    intersection,
    polygon,
    rectangle,
    union,
)
from stileblade.tolerance import TOLERANCE
from tests.geometry.zoo import ZOO, blob, check_whole, cubic_disc, disc, ellipse, star

PAIRS = list(itertools.combinations(ZOO, 2))


def perimeter(*regions: Region) -> float:
    return sum(shapely.length(shapely.boundary(r.polygons)) for r in regions)


def check_sums(a: Region, b: Region) -> None:
    """a + b = union + intersection; difference is what the intersection leaves; and nothing
    of the difference lies in b. To 0.01 mm along the outlines."""
    u, i, d = union(a, b), intersection(a, b), difference(a, b)
    allowed = 0.01 * perimeter(a, b) + 1e-9
    assert u.area + i.area == pytest.approx(a.area + b.area, abs=allowed)
    assert d.area == pytest.approx(a.area - i.area, abs=allowed)
    assert intersection(d, b).area < allowed
    for region in (u, i, d):
        check_whole(region)


@pytest.mark.parametrize("pair", PAIRS, ids=lambda p: " and ".join(p))
def test_zoo(pair: tuple[str, str]) -> None:
    check_sums(ZOO[pair[0]], ZOO[pair[1]])


@pytest.mark.parametrize("name", ZOO)
def test_with_itself(name: str) -> None:
    region = ZOO[name]
    assert union(region, region).area == pytest.approx(region.area, abs=1e-6)
    assert intersection(region, region).area == pytest.approx(region.area, abs=1e-6)
    assert not difference(region, region)
    assert union(region, region).nodes == region.nodes


def test_two_discs_make_two_arcs() -> None:
    """r = 50, centres 60 apart. They cross at 30 across, 40 up and down; the lens has
    2 r^2 acos(d / 2r) - d/2 sqrt(4 r^2 - d^2) = 5000 acos(0.6) - 2400."""
    u = union(disc(0, 0, 50), disc(60, 0, 50))
    assert u.nodes == 2
    assert set(u.segments.kind) == {Kind.ARC}
    assert sorted(u.segments.start.round(9).tolist()) == [[30.0, -40.0], [30.0, 40.0]]
    lens = 5000 * math.acos(0.6) - 2400
    assert u.area == pytest.approx(2 * math.pi * 2500 - lens, abs=1e-9)


def test_a_mirrored_figure_of_300_segments_keeps_its_segments() -> None:
    """Cut off at 20, each half has what is left of the 300 and is joined at two corners:
    at most twice 300 and the new corners."""
    figure = blob(11, segments=300, size=60)
    half = cut_off(figure, axis="x", at=20, keep="less")
    whole = union(half, half.transformed(mirror_across(axis="x", at=20)))
    assert whole.nodes <= 2 * 300 + 4
    assert set(whole.segments.kind) == {Kind.CUBIC}
    assert whole.pieces == 1
    assert whole.area == pytest.approx(2 * half.area, abs=1e-6)


def test_what_does_not_meet_is_left_to_the_last_bit() -> None:
    """Apart, or one wholly within the other; not where they touch from inside or outside."""
    outer, inner, aside = disc(0, 0, 30), blob(3, 7, 9), disc(61, 0, 30)
    assert intersection(outer, inner) is inner
    assert intersection(inner, outer) is inner
    assert difference(outer, aside) is outer
    assert not intersection(outer, aside)
    assert not difference(inner, outer)
    ring = difference(outer, disc(0, 0, 20))
    assert intersection(ring, inner).area == pytest.approx(0)  # within its opening
    assert difference(ring, disc(0, 0, 5)).area == pytest.approx(ring.area)
    inside = disc(-20, 0, 10)
    assert intersection(outer, inside).area == pytest.approx(inside.area, abs=0.01)
    assert difference(inside, outer).area == pytest.approx(0, abs=1e-6)


def test_touching_in_a_point_leaves_two_pieces_sharing_an_edge_makes_one() -> None:
    assert union(disc(0, 0, 30), disc(60, 0, 30)).pieces == 2
    joined = union(rectangle(Box(0, 0, 60, 60)), rectangle(Box(60, 0, 120, 60)))
    assert joined.pieces == 1
    assert joined.nodes == 4
    assert joined.bounds == Box(0, 0, 120, 60)


def test_a_circle_said_in_two_ways_is_one_circle() -> None:
    """16 cubics at r = 30 stay within 2e-6 mm of the circle: the result hops between both,
    and must not leave crumbs."""
    u = union(disc(0, 0, 30), cubic_disc(30, parts=16))
    assert u.nodes <= 17
    assert u.pieces == 1
    assert not difference(disc(0, 0, 30), cubic_disc(30, parts=16))


def test_chains_of_ten_operations_stay_exact() -> None:
    """A disc of 50 bitten by ten discs of 8 on its edge: each takes its own lens."""
    region = disc(0, 0, 50)
    lens = _lens(50, 8, 50)
    for k in range(10):
        a = 2 * math.pi * k / 10
        region = difference(region, disc(50 * math.cos(a), 50 * math.sin(a), 8))
    assert region.nodes == 20
    assert region.area == pytest.approx(math.pi * 2500 - 10 * lens, abs=1e-6)


def _lens(big: float, small: float, d: float) -> float:
    """Area common to two discs: the two circular segments' areas added up."""
    x = (d * d + big * big - small * small) / (2 * d)
    y = math.sqrt(big * big - x * x)
    one = big * big * math.atan2(y, x) - x * y
    two = small * small * math.atan2(y, d - x) - (d - x) * y
    return one + two


@pytest.mark.parametrize(("keep", "area"), [("less", 0.75), ("more", 0.25)])
def test_slices_lie_on_their_line_to_the_last_bit(keep: str, area: float) -> None:
    part = cut_off(rectangle(Box(0, 0, 80, 40)), axis="x", at=60, keep=keep)
    assert part.area == pytest.approx(3200 * area)
    assert 60.0 in (part.bounds.left, part.bounds.right)


def test_transforms_are_exact_and_keep_the_running_direction() -> None:
    region = ZOO["ring"]
    back = region.transformed(mirror_across(axis="x", at=7.3))
    assert back.area == pytest.approx(region.area, abs=1e-9)
    assert [c.opening for c in back.contours] == [False, True]
    again = back.transformed(mirror_across(axis="x", at=7.3))
    assert np.allclose(again.segments.start, region.segments.start, atol=1e-12)


figures = st.builds(
    lambda kind, seed, size, x, y, turn: (
        _figure(kind, seed, size).transformed(rotation(turn)).transformed(translation(x, y))
    ),
    st.sampled_from(["disc", "ellipse", "star", "blob", "square"]),
    st.integers(0, 50),
    st.floats(8, 45),
    st.floats(-30, 30),
    st.floats(-30, 30),
    st.one_of(st.just(0.0), st.just(90.0), st.floats(-180, 180)),
)


def _figure(kind: str, seed: int, size: float) -> Region:
    return {
        "disc": lambda: disc(0, 0, size),
        "ellipse": lambda: ellipse(0, 0, size, size / 2),
        "star": lambda: star(3 + seed % 7, size, size / 2),
        "blob": lambda: blob(seed, size=size),
        "square": lambda: rectangle(Box(-size, -size, size, size)),
    }[kind]()


@given(figures, figures)
@settings(max_examples=500)
def test_random_pairs_add_up(a: Region, b: Region) -> None:
    check_sums(a, b)


@given(figures, st.floats(-180, 180), st.floats(-50, 50), st.floats(-50, 50))
@settings(max_examples=60)
def test_rigid_motion_keeps_area(region: Region, turn: float, x: float, y: float) -> None:
    moved = region.transformed(rotation(turn)).transformed(translation(x, y))
    assert moved.area == pytest.approx(region.area, rel=1e-9)
    before = np.array([*region.centroid, 1.0])
    after = translation(x, y) @ np.append(rotation(turn) @ before, 1.0)
    assert moved.centroid == pytest.approx(tuple(after), abs=1e-9)


@pytest.mark.parametrize("name", ZOO)
@pytest.mark.parametrize(("axis", "at"), [("x", 11.0), ("x", 30.0), ("y", -3.5), ("x", -33.0)])
def test_a_half_and_its_image_are_what_the_general_union_makes(
    name: str, axis: str, at: float
) -> None:
    half = cut_off(ZOO[name], axis=axis, at=at, keep="less")
    direct = weld_mirrored(half, axis=axis, at=at)
    general = union(half, half.transformed(mirror_across(axis=axis, at=at)))
    check_whole(direct)
    assert (direct.pieces, len(direct.openings), direct.nodes) == (
        general.pieces, len(general.openings), general.nodes,
    )  # fmt: skip
    assert direct.area == pytest.approx(general.area, abs=1e-9)
    assert difference(direct, general).area < 1e-6


def test_a_finely_drawn_outline_is_cut_exactly_and_keeps_its_corners() -> None:
    """20,000 lines of 0.024 mm: a cut leaves pieces of them on the line to the last bit."""
    angle = np.linspace(0, 2 * math.pi, 20_001)[:-1]
    r = 76 + 4 * np.sin(7 * angle)
    fine = polygon(
        list(zip((r * np.cos(angle)).tolist(), (r * np.sin(angle)).tolist(), strict=True))
    )
    for at in (-68.9, -60.123, 0.0, 41.7):
        half = cut_off(fine, axis="x", at=at, keep="more")
        on_line = half.segments.start[:, 0] == half.bounds.left
        assert half.bounds.left == at
        assert on_line.sum() == 2
        whole = weld_mirrored(half, axis="x", at=at)
        assert whole.area == pytest.approx(2 * half.area, abs=1e-9)
        assert (whole.pieces, whole.nodes) == (1, 2 * (half.nodes - 1))


def test_a_tip_of_hundredths_beyond_an_edge_goes_with_what_cuts_leave() -> None:
    """The point of a triangle stands 0.0186 mm out of a square's side: hardly to be cut, and seen by nobody."""
    square = polygon([(0, 0), (50, 0), (50, 40), (0, 40)])
    pointed = polygon([(40, 18), (50.0186, 20), (40, 22)])
    assert union(square, pointed).nodes == 4
    further = polygon([(40, 18), (50.05, 20), (40, 22)])
    assert union(square, further).nodes == 7


def test_shavings_are_no_paper_and_no_openings() -> None:
    """Two edges that cross at a hair's angle: 0.04 mm wide and 2 mm long; 20 mm long it is a strip."""
    for length, pieces in ((2.0, 0), (20.0, 1)):
        lower = polygon([(0, 0), (length, 0), (length, 30), (0, 30)])
        upper = polygon([(0, -10), (length, -10), (length, 0.04), (0, 0.04)])
        assert intersection(lower, upper).pieces == pieces


@pytest.mark.parametrize("operation", [union, intersection, difference])
def test_no_random_pair_leaves_scraps(
    operation: Callable[[Region, Region], Region],
) -> None:
    """Of 300 pairs none has a piece of a segment shorter than a cut may leave, or a shaving."""
    for seed in range(300):
        made = operation(*random_pair(seed))
        assert not (made.segments.chords < TOLERANCE.leftover)[made.segments.kind != Kind.ARC].any()
        for contour in made.contours:
            edge = float(shapely.length(contour.as_region().polygons))
            assert 2 * contour.area / edge > TOLERANCE.sliver
