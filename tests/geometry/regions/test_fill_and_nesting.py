"""Fill rules: contours sorted by what lies in what, and the same by noding where they cross."""

from __future__ import annotations

import math
from itertools import pairwise, product

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from stileblade.errors import GeometryError
from stileblade.geometry.curves.places import Side
from stileblade.geometry.curves.segments import Segments
from stileblade.geometry.measures.flat_run import depth_for_run, run_at
from stileblade.geometry.paths.pathdata import read_path_to_error, region_from_path
from stileblade.geometry.regions.figures import figures_of
from stileblade.geometry.regions.fill import (
    Painted,
    fill,
    fill_all,
    filled,
    winding_numbers,
    with_rings,
)
from tests.geometry.zoo import disc, star

RULES = ("nonzero", "evenodd")


def square(size: float, x: float = 0.0, y: float = 0.0, *, back: bool = False) -> Segments:
    r = size / 2
    path = f"M{x - r} {y - r}H{x + r}V{y + r}H{x - r}Z"
    contour = read_path_to_error(path)[0].contours[0]
    return contour.reversed() if back else contour


@pytest.mark.parametrize(
    ("turns", "nonzero", "evenodd"),
    [
        # squares of 40, 30, 20, 10 in one another, each run forwards (+) or back (-)
        ("++++", 1600, 1600 - 900 + 400 - 100),
        ("+-+-", 1600 - 900 + 400 - 100, 1600 - 900 + 400 - 100),
        ("+--+", 1600 - 900 + 400 - 100, 1600 - 900 + 400 - 100),
        ("+-++", 1600 - 900 + 400, 1600 - 900 + 400 - 100),
        ("----", 1600, 1600 - 900 + 400 - 100),
        ("++--", 1600 - 100, 1600 - 900 + 400 - 100),
    ],
)
def test_holes_in_holes_by_winding_number_and_by_parity(
    turns: str, nonzero: float, evenodd: float
) -> None:
    sizes = (40, 30, 20, 10)
    contours = [square(s, back=t == "-") for s, t in zip(sizes, turns, strict=True)]
    for rule, area in (("nonzero", nonzero), ("evenodd", evenodd)):
        for order in (contours, contours[::-1]):
            region = fill(order, rule)  # type: ignore[arg-type]
            assert region.area == pytest.approx(area)


def test_islands_belong_to_themselves_and_openings_to_what_is_next_round_them() -> None:
    region = fill([square(s) for s in (60, 40, 20, 10)], "evenodd")
    assert region.pieces == 2
    assert region.shell.tolist() == [0, 0, 2, 2]
    assert [round(p.area) for p in region.parts()] == [3600 - 1600, 400 - 100]
    assert filled(region).pieces == 1
    assert filled(region).area == pytest.approx(3600)
    # the outer opening kept, the inner one closed
    assert with_rings(region, [0, 1, 2]).area == pytest.approx(3600 - 1600 + 400)


def test_what_crosses_or_touches_is_noded_and_comes_out_the_same() -> None:
    """Two squares of 20 that overlap by 10 x 20; two that share an edge; two at a corner."""
    pair = [square(20), square(20, 10, 0)]
    assert fill(pair).area == pytest.approx(600)
    assert fill(pair, "evenodd").area == pytest.approx(400)
    assert fill([square(20), square(20, 20, 0)]).pieces == 1
    assert fill([square(20), square(20, 20, 20)]).pieces == 2


def test_slivers_lines_and_nothing_paint_nothing() -> None:
    thin = read_path_to_error("M0 0H100V0.004H0Z")[0].contours
    line = read_path_to_error("M0 0L50 50Z")[0].contours
    assert not fill(thin)
    assert not fill(line)
    assert not fill([])
    assert fill([*line, square(10)]).area == pytest.approx(100)
    with pytest.raises(GeometryError, match="choose 'nonzero' or 'evenodd'"):
        fill([square(10)], "both")  # type: ignore[arg-type]


def test_many_paintings_at_once_are_each_their_own() -> None:
    jobs = [
        Painted([square(20)]),
        Painted([]),
        Painted([square(20), square(10, back=True)]),
        Painted([square(20), square(20, 10, 0)], "evenodd"),
        Painted([star(7, 30, 12).segments], "nonzero"),
    ]
    together = fill_all(jobs)
    assert [round(r.area, 6) for r in together[:4]] == [400, 0, 300, 400]
    for job, region in zip(jobs, together, strict=True):
        assert region.area == pytest.approx(fill(job.contours, job.rule).area)


@given(st.integers(0, 10_000), st.integers(2, 7), st.sampled_from(RULES))
def test_random_contours_cover_what_the_kernel_says(seed: int, count: int, rule: str) -> None:
    """Random squares, forwards and back: areas by sampling winding numbers on a fine grid."""
    chance = np.random.default_rng(seed)
    boxes = [(chance.uniform(4, 50), *chance.uniform(-30, 30, 2)) for _ in range(count)]
    turns = chance.choice([1, -1], count)
    contours = [square(*b, back=t < 0) for b, t in zip(boxes, turns, strict=True)]
    region = fill(contours, rule)  # type: ignore[arg-type]
    edges = sorted({e for s, x, _ in boxes for e in (x - s / 2, x + s / 2)})
    levels = sorted({e for s, _, y in boxes for e in (y - s / 2, y + s / 2)})
    area = 0.0
    for (x0, x1), (y0, y1) in product(pairwise(edges), pairwise(levels)):
        cx, cy = (x0 + x1) / 2, (y0 + y1) / 2
        number = sum(
            t
            for (s, x, y), t in zip(boxes, turns, strict=True)
            if abs(cx - x) < s / 2 and abs(cy - y) < s / 2
        )
        if number % 2 if rule == "evenodd" else number:
            area += (x1 - x0) * (y1 - y0)
    assert region.area == pytest.approx(area, abs=0.05)
    assert shapely.is_valid(region.polygons)


def test_figures_are_sorted_from_contours_whichever_way_they_run() -> None:
    contours = [square(40), square(20, back=True), square(10), square(10, 40, 0, back=True)]
    figures = figures_of(contours)
    assert sorted(round(f.area) for f in figures) == [100, 100, 1600 - 400]
    # contours that cross are figures of their own
    assert [round(f.area) for f in figures_of([square(20), square(20, 10, 0)])] == [400, 400]
    # and one that crosses itself is what it goes round: two triangles of a bow, a star as a whole
    bow = read_path_to_error("M0 0L40 40L40 0L0 40Z")[0].contours
    assert [round(f.area, 6) for f in figures_of(bow)] == [400, 400]
    tips = [(30 * math.cos(a), 30 * math.sin(a)) for a in np.arange(5) * 4 * math.pi / 5]
    path = "M" + "L".join(f"{x} {y}" for x, y in tips) + "Z"
    (whole,) = figures_of(read_path_to_error(path)[0].contours)
    # five triangles from the middle to a tip and the two dents beside it
    dent = 30 * math.cos(2 * math.pi / 5) / math.cos(math.pi / 5)
    assert whole.area == pytest.approx(5 * 30 * dent * math.sin(math.pi / 5), abs=1e-6)
    assert whole.nodes == 10
    assert figures_of([]) == []


@pytest.mark.parametrize("side", ["head", "foot", "left", "right"])
@pytest.mark.parametrize("run", [5, 20, 40, 70, 99])
def test_the_cut_that_gives_a_run_of_a_circle(side: str, run: float) -> None:
    """r - sqrt(r^2 - (run / 2)^2) inside, from every side."""
    depth, longest = depth_for_run(disc(3, -7, 50), Side(side), run)
    assert depth == pytest.approx(50 - math.sqrt(2500 - run * run / 4), abs=1e-7)
    assert longest == pytest.approx(100, abs=0.05)


def test_runs_of_points_edges_and_what_is_too_long() -> None:
    star_ = star(5, 40, 16)
    none, longest = depth_for_run(star_, Side.FOOT, 500)
    assert none is None
    depth, _ = depth_for_run(star_, Side.HEAD, longest / 2)
    assert depth is not None
    assert run_at(star_, "y", star_.bounds.head + depth) == pytest.approx(longest / 2, abs=1e-6)
    foot = region_from_path("M0 0H40V30H0Z")
    assert depth_for_run(foot, Side.FOOT, 40)[0] == pytest.approx(0, abs=1e-6)
    assert run_at(foot, "y", 30) == pytest.approx(40)


def test_crossing_contours_made_together_are_what_each_is_alone() -> None:
    """Also where they lie on each other to the last bit, as a word painted twice does."""
    bow = read_path_to_error("M0 0C40 60 60 -60 100 0L100 40C60 -20 40 100 0 40Z")[0].contours
    knot = read_path_to_error("M10 10A20 20 0 1 1 50 30L10 30A20 20 0 1 0 50 10Z")[0].contours
    half = read_path_to_error("M10 10A20 20 0 1 1 50 30L10 30Z")[0].contours
    paintings = [Painted(bow), Painted(knot), Painted(bow), Painted(half), Painted(knot, "evenodd")]
    together = fill_all(paintings)
    for painting, region in zip(paintings, together, strict=True):
        alone = fill(painting.contours, painting.rule)
        assert region.area == pytest.approx(alone.area, abs=1e-9)
        assert region.nodes == alone.nodes
        assert region.shell.tolist() == alone.shell.tolist()
        assert not shapely.symmetric_difference(region.polygons, alone.polygons).area > 1e-9


@pytest.mark.parametrize("count", [3, 10, 200, 3000])
def test_winding_numbers_are_sums_of_angles(count: int) -> None:
    """Corners on whole numbers, so that many lie on the same heights as others and as spots do."""
    rng = np.random.default_rng(count)
    corners = rng.integers(0, 50, (count, 2)).astype(float)
    edges = np.stack([corners, np.roll(corners, -1, axis=0)], axis=1)
    spots = rng.integers(-3, 53, (80, 2)) + [[0.0137, 0.0]]  # on no edge
    a, b = (edges[None, :, i] - spots[:, None] for i in (0, 1))
    turn = np.arctan2(a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0], (a * b).sum(axis=2))
    clear = np.abs(np.abs(turn) - np.pi).min(axis=1) > 1e-9
    expected = np.rint(turn.sum(axis=1) / (2 * np.pi))
    assert clear.sum() > 30
    assert winding_numbers(edges, spots)[clear].tolist() == expected[clear].tolist()
