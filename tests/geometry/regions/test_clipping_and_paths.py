"""Lines clipped to regions; path data read and written; fill rules; exact measures."""

from __future__ import annotations

import math
import time

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from stileblade.errors import GeometryError, ReadingError
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import lines
from stileblade.geometry.curves.transforms import rotation
from stileblade.geometry.paths.pathdata import (
    path_data,
    read_path,
    read_path_to_error,
    region_from_path,
)
from stileblade.geometry.regions.clipping import clip_line
from stileblade.geometry.regions.fill import fill, filled
from stileblade.geometry.regions.set_operations import difference, intersection, rectangle, union
from tests.geometry.zoo import ZOO, blob, disc, ellipse


def test_a_line_is_clipped_to_the_true_curve() -> None:
    """A disc of 55 at 53.5 across: 2 sqrt(55^2 - 53.5^2) = 25.515, to 1e-9."""
    ((a, b),) = clip_line(disc(0, 0, 55), (53.5, -99), (53.5, 99))
    assert b[1] - a[1] == pytest.approx(2 * math.sqrt(55**2 - 53.5**2), abs=1e-9)


def test_spans_skip_openings_and_touches_are_none() -> None:
    spans = clip_line(ZOO["ring"], (-99, 0), (99, 0))
    assert [round(b[0] - a[0], 9) for a, b in spans] == [18, 18]
    assert clip_line(disc(0, 0, 55), (55, -99), (55, 99)) == []
    assert clip_line(ZOO["nothing"], (0, 0), (1, 1)) == []


def test_straight_edges_on_the_line_count() -> None:
    assert clip_line(rectangle(Box(0, 0, 60, 40)), (60, -9), (60, 99)) == [((60, 0), (60, 40))]


def test_arcs_and_curves_are_read_and_written_as_themselves() -> None:
    region = region_from_path("M0 0A50 50 0 0 1 100 0Q50 80 0 0Z")
    assert sorted(region.segments.kind) == [Kind.QUAD, Kind.ARC]
    again = region_from_path(path_data(region, None))
    assert again.area == pytest.approx(region.area, abs=1e-9)
    assert "A" in path_data(region)
    assert "Q" in path_data(region)


@pytest.mark.parametrize(
    ("text", "area"),
    [
        ("M0 0H10V10H0Z", 100),
        ("m0 0h10v10h-10z", 100),
        ("M0,0 10,0 10,10 0,10z", 100),
        ("M0 0l10 0 0 10-10 0Z", 100),
        ("M.5.5h9.5v9.5h-9.5z", 90.25),
        ("M0 0h10v10h-10zm20 0h10v10h-10z", 200),
        ("M0 5a5 5 0 1110 0a5 5 0 11-10 0z", 25 * math.pi),
        ("M0 0C0 10 10 10 10 0S20-10 20 0V20H0Z", 400),
        ("M0 0Q5 10 10 0T20 0V20H0Z", 400),
        ("M0 0l5 0l5 0l0 10l-10-0z", 100),
        ("M0,0L10,0L1e1,.1e2L0,10Z", 100),
        ("M0 0l1e1-0l0.5 9.5l-.5.5l-10 0l0 0z", 102.5),
        ("M0 0l10 0L10 10l-5 0l-5 0v-5v-5", 100),
    ],
)
def test_path_data_in_all_its_forms(text: str, area: float) -> None:
    """In the last two, S and T mirror the handle: hollow and bulge cancel out."""
    region = region_from_path(text)
    assert region.area == pytest.approx(area, abs=1e-6)


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ("10 10", "Path data at character 1 ('10 10'): no command."),
        ("L1 1", "Path data at character 1 ('L1 1'): it must start with a move (M)."),
        ("M0 0L1", "Path data at character 5 ('L1'): L takes 2 numbers at a time."),
        ("M0 0L1 nan", "Path data at character 5 ('L1 nan'): a number is not understood."),
        ("M0 0L1 1e308", "Path data at character 5 ('L1 1e308'): a number is too large."),
        ("M0 0l1 1l2l3 3 4 4 5", "Path data at character 9 ('l2l3 3 4 4 5'): "
         "l takes 2 numbers at a time."),
        ("M0 0h1h2h-9e9h1", "Path data at character 9 ('h-9e9h1'): a number is too large."),
        ("M0 0l1 1l2 2,x l3 3", "Path data at character 9 ('l2 2,x l3 3'): a number is not "
         "understood."),
        ("M0 0A1 1 0 2 0 5 5", "Path data at character 5 ('A1 1 0 2 0 5 5'): an arc has seven "
         "numbers, two of them flags 0 or 1."),
    ],
)  # fmt: skip
def test_broken_path_data_says_where(text: str, message: str) -> None:
    with pytest.raises(ReadingError) as caught:
        read_path(text)
    assert caught.value.message == message


def test_a_path_is_drawn_up_to_its_error() -> None:
    """Also within commands of one letter, and where their numbers are right all together only."""
    for text in ("M0 0l1 1l2 2l3l4 4 5", "M0 0l1 1l2 2l3 x", "M0 0l1 1l2 2l3 1e9"):
        drawing, error = read_path_to_error(text)
        assert error is not None
        assert drawing.open[0].end.tolist() == [[1, 1], [3, 3]]


def test_fill_rules_on_a_bow_tie_and_on_nested_circles() -> None:
    """Two rings of one running direction: nonzero fills the inner one, even-odd opens it."""
    bow = lines([(0, 0), (60, 60), (60, 0), (0, 60)], [(60, 60), (60, 0), (0, 60), (0, 0)])
    assert fill([bow]).area == pytest.approx(1800)
    rings = [disc(0, 0, 20).segments, disc(0, 0, 10).segments]
    assert fill(rings, "nonzero").area == pytest.approx(400 * math.pi)
    assert fill(rings, "evenodd").area == pytest.approx(300 * math.pi)
    assert fill([rings[0], rings[1].reversed()]).area == pytest.approx(300 * math.pi)
    with pytest.raises(GeometryError, match="rule='both': choose"):
        fill(rings, "both")  # type: ignore[arg-type]


def test_openings_are_filled_all_or_below_an_area() -> None:
    """Openings of 4 pi and 9 pi mm^2: below 20 only the first closes."""
    sheet = rectangle(Box(0, 0, 60, 40))
    for x, r in ((15, 2), (40, 3)):
        sheet = difference(sheet, disc(x, 20, r))
    assert len(filled(sheet).openings) == 0
    kept = filled(sheet, below=20)
    assert [round(c.area, 6) for c in kept.openings] == [round(9 * math.pi, 6)]
    assert len(filled(sheet, below=4 * math.pi - 1e-6).openings) == 2


def test_bounds_area_and_centroid_are_those_of_the_curves() -> None:
    """A turned ellipse reaches sqrt(a^2 cos^2 + b^2 sin^2); a half disc's centre of mass lies
    4 r / 3 pi from its flat side."""
    turned = ellipse(0, 0, 40, 18).transformed(rotation(30))
    c, s = math.cos(math.pi / 6), math.sin(math.pi / 6)
    assert turned.bounds.right == pytest.approx(math.hypot(40 * c, 18 * s), abs=1e-9)
    assert turned.bounds.foot == pytest.approx(math.hypot(40 * s, 18 * c), abs=1e-9)
    half = intersection(disc(0, 0, 30), rectangle(Box(0, -50, 50, 50)))
    assert half.centroid[0] == pytest.approx(40 / math.pi, abs=1e-9)
    assert half.area == pytest.approx(450 * math.pi, abs=1e-9)


@given(st.integers(0, 300), st.integers(0, 300))
@settings(max_examples=40)
def test_what_is_written_reads_back(first: int, second: int) -> None:
    region = union(blob(first), disc(second % 40, 10, 25))
    again = region_from_path(path_data(region, 4))
    assert again.area == pytest.approx(region.area, abs=0.005 * 400)
    left = difference(region, again).area + difference(again, region).area
    assert left < 0.005 * 400


def test_large_outlines_are_read_and_written_in_time() -> None:
    """20,000 lines; reading is allowed 50 ms for each 1,000 segments."""
    angle = np.linspace(0, 2 * math.pi, 20_001)[:-1]
    path = "M" + "L".join(f"{80 * math.cos(a):.5f} {80 * math.sin(a):.5f}" for a in angle) + "Z"
    started = time.process_time()
    assert region_from_path(path).nodes == pytest.approx(20_000, abs=2)
    assert time.process_time() - started < 1.0
