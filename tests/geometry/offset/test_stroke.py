"""Outlines of strokes: exact where lines and arcs are, and as the kernel's buffer everywhere."""

from __future__ import annotations

import math
from itertools import product

import numpy as np
import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from stileblade.errors import GeometryError
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.segments import Segments, arc, beziers, concatenate, lines
from stileblade.geometry.curves.transforms import rotation
from stileblade.geometry.offset.offset import Join
from stileblade.geometry.offset.stroke import Cap, Pen, Stroked, stroke, stroke_all
from stileblade.geometry.paths.pathdata import read_path_to_error
from stileblade.geometry.regions.along import dashed
from stileblade.geometry.regions.region import Region
from tests.geometry.zoo import fine

KERNEL = {Join.ROUND: "round", Join.MITRE: "mitre", Join.BEVEL: "bevel"}
CAPS = {Cap.ROUND: "round", Cap.BUTT: "flat", Cap.SQUARE: "square"}


def way(path: str) -> Segments:
    drawing, error = read_path_to_error(path)
    assert error is None
    return (drawing.contours or drawing.open)[0]


def polyline(points: np.ndarray, *, closed: bool) -> Segments:
    ends = np.roll(points, -1, axis=0) if closed else points[1:]
    return lines(points if closed else points[:-1], ends)


def test_a_line_with_each_cap() -> None:
    """40 x 4; round caps add a disc of 2, square ones 2 at each end."""
    line = lines([[0.0, 0.0]], [[40.0, 0.0]])
    for cap, area, nodes in (
        (Cap.BUTT, 160, 4), (Cap.ROUND, 160 + 4 * math.pi, 4), (Cap.SQUARE, 176, 4)
    ):  # fmt: skip
        region = stroke(line, Pen(4, cap=cap), closed=False)
        assert region.area == pytest.approx(area, abs=1e-9)
        assert region.nodes == nodes


def test_many_ways_under_one_pen_keep_their_own_caps() -> None:
    """Bars side by side, some of several pieces, each 4 wide and 2 longer at either end."""
    bars = [
        concatenate(
            [lines([(10 * i, 0.0)], [(10 * i, 15.0)]), lines([(10 * i, 15.0)], [(10 * i, 40.0)])]
        )
        if i % 2
        else lines([(10 * i, 40.0)], [(10 * i, 0.0)])
        for i in range(9)
    ]
    pen = Pen(4, cap=Cap.SQUARE)
    alone = [stroke(bar, pen, closed=False) for bar in bars]
    together = stroke_all(
        [Stroked(pen, open=bars[:5]), Stroked(Pen(4)), Stroked(pen, open=bars[5:])]
    )
    assert [region.pieces for region in together] == [5, 0, 4]
    assert [r.area for r in alone] == pytest.approx([176] * 9)
    assert [region.nodes for region in together] == [20, 0, 16]
    assert [region.area for region in together] == pytest.approx([880, 0, 704])


def test_sides_of_arcs_are_arcs_and_rings_have_openings() -> None:
    circle = way("M10 0A10 10 0 1 1 -10 0A10 10 0 1 1 10 0Z")
    region = stroke(circle, Pen(2), closed=True)
    assert region.area == pytest.approx(math.pi * (11**2 - 9**2), abs=1e-9)
    assert set(region.segments.kind) == {Kind.ARC}
    assert (region.pieces, len(region.openings)) == (1, 1)
    half = stroke(way("M10 0A10 10 0 0 1 -10 0"), Pen(2, cap=Cap.ROUND), closed=False)
    assert half.area == pytest.approx(20 * math.pi + math.pi, abs=1e-9)
    assert set(half.segments.kind) == {Kind.ARC}


@pytest.mark.parametrize(
    ("angle", "limit", "mitred"),
    [(90, 4, True), (30, 4, True), (28, 4, False), (28, 5, True), (12, 9, False)],
)
def test_mitres_up_to_their_limit(angle: float, limit: float, mitred: bool) -> None:
    """A mitre is 1 / sin(angle / 2) times the width long: 3.86 at 30 degrees, 4.13 at 28."""
    t = math.radians(angle)
    corner = lines([[60.0, 0.0], [0.0, 0.0]], [[0.0, 0.0], [60 * math.cos(t), 60 * math.sin(t)]])
    region = stroke(corner, Pen(2, mitre_limit=limit), closed=False)
    tip = -1 / math.sin(t / 2)
    nearest = min(np.hypot(*(p - np.array([tip * math.cos(t / 2), tip * math.sin(t / 2)])))
                  for p in region.segments.start)  # fmt: skip
    assert (nearest < 1e-9) == mitred


def test_mitres_beside_curves_run_along_their_tangents() -> None:
    """A line that meets an arc at a flat angle: the stroke's edge stays level to its tip."""
    corner = way("M162 95.8258L122 95.8258A50 50 0 0 1 96 69.5959L130 20Z")
    region = stroke(corner, Pen(0.2), closed=True)
    assert region.bounds.foot == pytest.approx(95.9258, abs=1e-9)
    level = np.isclose(region.segments.start[:, 1], 95.9258) & np.isclose(
        region.segments.end[:, 1], 95.9258
    )
    assert level.sum() == 1


def test_arcs_that_meet_almost_smoothly_keep_both_sides() -> None:
    """Two half circles of radii that differ by rounding, then a line to the middle and back."""
    path = way(
        "M676.6 393.04A296.550781 296.550781 0 1 0 83.494873 393.0406A296.551 296.551 0 1 0 "
        "676.596 393.041L380.0457 393.0406Z"
    )
    for join in Join:
        box = stroke(path, Pen(62, join=join), closed=True).bounds
        assert box.left == pytest.approx(83.49 - 31, abs=0.05)


@pytest.mark.parametrize("turn", [2e-4, -2e-4, 5e-4])
def test_a_way_that_is_smooth_but_for_rounding_keeps_its_arcs(turn: float) -> None:
    """An arc and a cubic that differ by ``turn`` radians where they meet, as files have them: their
    parallels all but meet, beside the kernel's corner, and nothing is put between."""
    c, s = math.cos(math.pi / 2 + turn), math.sin(math.pi / 2 + turn)
    cubic = beziers([[[7, 0], [7 + 9 * c, 9 * s], [20, 20], [26, 8]]])
    line = concatenate([arc((0, 0), (-7, 0), (0, -7), 0, math.pi), cubic])
    painted = stroke(line, Pen(8.3, Join.ROUND, Cap.ROUND), closed=False).segments
    assert not (painted.kind == Kind.LINE).any()
    assert (painted.kind == Kind.ARC).sum() == 4  # two caps and two sides
    assert painted.chords.min() > 1


def test_control_points_on_their_ends_but_for_rounding_say_no_direction() -> None:
    clean = way("M0 0C0 0 -6 -6 -10 -15L-10 0Z")
    noisy = way("M0 0C0.000001 0 -6 -6 -10 -15L-10 0Z")
    areas = [stroke(w, Pen(2, join=Join.ROUND), closed=True).area for w in (clean, noisy)]
    assert areas[1] == pytest.approx(areas[0], abs=0.02)


def test_dashes_by_length_and_phase() -> None:
    line = lines([[0.0, 0.0]], [[20.0, 0.0]])
    ends = [(p.start[0, 0], p.end[-1, 0]) for p in dashed(line, (3, 2), 1)]
    assert ends == [(0, 2), (4, 7), (9, 12), (14, 17), (19, 20)]
    odd = [(p.start[0, 0], p.end[-1, 0]) for p in dashed(line, (4,))]
    assert odd == [(0, 4), (8, 12), (16, 20)]
    assert dashed(line, (0, 0)) == [line]
    quarter = way("M10 0A10 10 0 0 1 0 10")
    (first, _) = dashed(quarter, (10, 2))[:2]
    assert math.atan2(*first.end[-1][::-1]) == pytest.approx(1.0, abs=1e-4)
    with pytest.raises(GeometryError, match="not negative"):
        dashed(line, (1, -1))
    with pytest.raises(GeometryError, match="more than 5000 dashes"):
        dashed(line, (1e-4,))


def test_dots_and_ways_without_length() -> None:
    still = lines([[3.0, 3.0]], [[3.0, 3.0]])
    assert not stroke(still, Pen(2), closed=False)
    dots = [Stroked(Pen(2, cap=cap), dots=[(3, 3)]) for cap in Cap]
    butt, round_, square = (r.area for r in stroke_all(dots))
    assert (butt, round_, square) == pytest.approx((0, math.pi, 4))
    with pytest.raises(GeometryError, match="wider than 0"):
        Pen(0)


def test_many_at_once_are_the_same_as_one_by_one() -> None:
    rng = np.random.default_rng(3)
    jobs = []
    for join, cap in product(Join, Cap):
        points = rng.uniform(0, 60, (5, 2))
        curve = beziers(rng.uniform(0, 60, (1, 4, 2)))
        jobs.append(Stroked(Pen(3, join, cap), [polyline(points, closed=True)], [curve]))
    together = stroke_all(jobs)
    for job, region in zip(jobs, together, strict=True):
        alone = stroke_all([job])[0]
        assert region.nodes == alone.nodes
        # the last rounds of a fit go by its largest error, which rounding may move along the curve
        assert region.area == pytest.approx(alone.area, abs=0.05)


@given(
    st.integers(0, 10_000),
    st.integers(3, 9),
    st.booleans(),
    st.sampled_from(list(Join)),
    st.sampled_from(list(Cap)),
    st.floats(0.5, 12),
)
def test_random_polylines_cover_what_the_kernels_buffer_covers(
    seed: int, count: int, closed: bool, join: Join, cap: Cap, width: float
) -> None:
    """The kernel, with mitres of any length, as the judge; round parts by fine polygons."""
    points = np.random.default_rng(seed).uniform(0, 100, (count, 2))
    ways = np.diff(np.concatenate([points, points[:2]]) if closed else points, axis=0)
    ways /= np.hypot(*ways.T)[:, None]
    # all but straight back, where a mitre is longer than all the rest
    assume(join is not Join.MITRE or (ways[1:] * ways[:-1]).sum(axis=1).min() > -0.97)
    pen = Pen(width, join, cap, mitre_limit=1e6)
    region = stroke(polyline(points, closed=closed), pen, closed=closed)
    line = shapely.linearrings(points) if closed else shapely.linestrings(points)
    judge = shapely.buffer(
        line, width / 2, quad_segs=90, cap_style=CAPS[cap], join_style=KERNEL[join], mitre_limit=1e6
    )
    length = shapely.length(judge)
    assert region.area == pytest.approx(shapely.area(judge), abs=2e-3 * length)
    apart = shapely.area(shapely.symmetric_difference(_polygons(region), judge))
    assert apart < 4e-3 * length


def test_wild_curves_cover_what_the_kernels_buffer_covers() -> None:
    """Two cubics that turn, double back and cross themselves: of 150 strokes one may be off, where
    the pen is much wider than a bend."""
    off = []
    for seed, width in product(range(75), (1.0, 4.0)):
        points = np.random.default_rng(seed).uniform(0, 80, (2, 4, 2))
        points[1, 0] = points[0, 3]
        curve = beziers(points)
        region = stroke(curve, Pen(width, Join.ROUND, Cap.ROUND), closed=False)
        fine = curve.points_at(np.repeat([0, 1], 400), np.tile(np.linspace(0, 1, 400), 2))
        judge = shapely.buffer(shapely.linestrings(fine), width / 2, quad_segs=60)
        apart = shapely.area(shapely.symmetric_difference(_polygons(region), judge))
        if apart > 0.02 * shapely.length(judge):
            off.append((seed, width, apart))
    assert len(off) <= 1, off


def test_random_ways_have_their_outlines_half_the_pen_away() -> None:
    """Lines and cubics in any order, with bends tighter than the pen, with round caps and joins:
    of 120 outlines 115 are where they should be within 0.01 mm, the others within 0.03."""
    off = []
    for seed in range(120):
        random = np.random.default_rng([5, seed])
        place, parts = random.uniform(0, 60, 2), []
        size, width = random.choice([3.0, 10.0, 40.0]), float(np.exp(random.uniform(-1.6, 2.2)))
        for _ in range(int(random.integers(1, 5))):
            points = np.concatenate([place[None], place + random.normal(0, size, (3, 2))])
            straight = random.random() < 0.3
            parts.append(lines(points[:1], points[3:]) if straight else beziers(points[None]))
            place = points[3]
        ways = concatenate(parts)
        painted = stroke(ways, Pen(width, Join.ROUND, Cap.ROUND), closed=False)
        t = np.tile(np.linspace(0, 1, 1500), len(ways))
        places = ways.points_at(np.repeat(np.arange(len(ways)), 1500), t)
        away = shapely.distance(shapely.points(fine(painted, 16)), shapely.linestrings(places))
        off.append(float(np.abs(away - width / 2).max()))
    assert max(off) < 0.03
    assert sum(o > 0.01 for o in off) <= 5, sorted(off)[-6:]


def _polygons(region: Region) -> shapely.Geometry:
    return shapely.make_valid(region.polygons)


@pytest.mark.parametrize(
    ("path", "width"),
    [
        # a line into a bend that is tighter than the pen, and out of one
        ("M27.36 7.82L11.56 10.04C11.87 13.55 8.24 -3.9 20.61 .86", 5.18),
        ("M59.08 38.97C62.29 36.48 75.74 25.18 70.39 28.98L64.44 23.69"
         "C60.52 26.46 34.78 46.27 36.04 37.59L46.59 41.43", 8.98),
        # a start whose cap lies in its own bend
        ("M40.21 56.07C39.85 56.78 45.59 47.95 44.9 47.29L37.82 52.59", 1.36),
        # there and back: one leg lies on the other
        ("M48.82 80.35C52.54 83.39 22.36 85.62 35.31 87.67C40.05 88.42 10.03 83.84 19.9 85.25", .405),
        ("M53.08 -.42C54.26 .66 51.58 -8.54 50.52 -3.32C51.44 .23 59.66 .99 58.59 .83"
         "C57 .61 56.86 -2.19 58.29 -2.1", .85),
    ],
)  # fmt: skip
def test_bends_tighter_than_the_pen_is_wide(path: str, width: float) -> None:
    """With round caps and joins every place of the outline is half the width from the way."""
    line = way(path)
    painted = stroke(line, Pen(width, Join.ROUND, Cap.ROUND), closed=False)
    t = np.tile(np.linspace(0, 1, 400), len(line))
    places = line.points_at(np.repeat(np.arange(len(line)), 400), t)
    away = shapely.distance(shapely.points(fine(painted, 16)), shapely.linestrings(places))
    assert np.abs(away - width / 2).max() < 0.025


@pytest.mark.parametrize(("radius", "width"), [(1.99409, 4.166666695057567), (1.99409, 8.0)])
def test_a_pen_wider_than_the_corners_it_turns_about(radius: float, width: float) -> None:
    """A slanting rectangle of 13.51974 x 65.48361 and its rounding of 1.99409 round it; inside the
    pen its corners are sharp. What is left of their arcs is all that some contours have."""
    x, y, r, k = 13.51974, 65.48361, radius, width / 2
    w, h = x + 2 * r, y + 2 * r
    path = (
        f"M{r} 0h{x}a{r} {r} 0 0 1 {r} {r}v{y}a{r} {r} 0 0 1 {-r} {r}h{-x}a{r} {r} 0 0 1 {-r} {-r}"
        f"v{-y}a{r} {r} 0 0 1 {r} {-r}Z"
    )
    card = way(path).transformed(rotation(-30))
    painted = stroke(card, Pen(width, Join.ROUND), closed=True)
    round_ = w * h - (4 - math.pi) * r * r
    outer = round_ + k * (2 * (x + y) + 2 * math.pi * r) + math.pi * k * k
    assert painted.area == pytest.approx(outer - (w - width) * (h - width), abs=1e-3)
    assert set(painted.segments.kind.tolist()) == {Kind.LINE, Kind.ARC}
