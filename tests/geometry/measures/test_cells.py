"""Cells: what is left of one beside another, how wide, how coarse."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stileblade.geometry.measures.cells import area_of, coarser, less
from stileblade.geometry.measures.widths import at_least_wide, farthest, is_wide, reach_out, widest


def test_the_widest_of_the_parts_counts_however_long_another_is() -> None:
    long, round_ = (
        shapely.box(0, 0, 200, 6),
        shapely.buffer(shapely.points(50, 50), 5, quad_segs=64),
    )
    slanting = shapely.polygons([(100, 50), (180, 130), (183, 127), (103, 47)])
    parts = shapely.multipolygons([long, slanting, round_])
    assert widest(parts) == pytest.approx(10, abs=0.01)
    assert widest(shapely.multipolygons([long, slanting])) == pytest.approx(6, abs=0.01)
    assert widest(shapely.MultiPolygon()) == 0


def test_of_two_that_all_but_coincide_nothing_is_left() -> None:
    ring = shapely.buffer(shapely.points(50, 50), 40, quad_segs=200)
    shifted = shapely.transform(ring, lambda p: p + 0.004)
    assert area_of(less(ring, shifted)) == 0 == area_of(less(shifted, ring))
    further = shapely.transform(ring, lambda p: p + [0.1, 0.0])
    assert area_of(less(ring, further)) == pytest.approx(8, abs=0.1)


def test_what_lies_outside_stays_to_its_edge() -> None:
    rest = less(shapely.box(0, 0, 100, 50), shapely.box(0, 0, 96, 50))
    assert area_of(rest) == pytest.approx(200, abs=0.2)
    assert shapely.bounds(rest).tolist() == pytest.approx([96, 0, 100, 50], abs=0.01)
    assert area_of(less(shapely.box(0, 0, 9, 9), shapely.MultiPolygon())) == pytest.approx(81)


@pytest.mark.parametrize("seed", range(30))
def test_coarser_cells_keep_their_rings_and_do_not_cross_themselves(seed: int) -> None:
    chance = np.random.default_rng(seed)
    turn = np.sort(chance.random(60)) * 2 * np.pi
    far = 20 + 25 * chance.random(60)
    star = np.column_stack([np.cos(turn), np.sin(turn)]) * far[:, None]
    inner = star[::-1] * 0.9 * (1 - 0.6 * chance.random(60)[:, None])
    cell = shapely.difference(shapely.polygons(star), shapely.make_valid(shapely.polygons(inner)))
    for tolerance in (0.5, 3.0):
        rough = coarser(cell, tolerance)
        assert shapely.is_valid(rough)
        assert not shapely.is_empty(rough)
        assert shapely.hausdorff_distance(cell, rough) < 4 * tolerance
        assert shapely.get_num_coordinates(rough) <= shapely.get_num_coordinates(cell)


@pytest.mark.parametrize("seed", range(60))
def test_whether_a_circle_has_room_is_the_same_as_how_wide_it_is(seed: int) -> None:
    chance = np.random.default_rng(seed)
    cell = shapely.box(0, 0, *(5 + 60 * chance.random(2)))
    for _ in range(seed % 5):
        x, y, size = *(60 * chance.random(2)), 1 + 8 * chance.random()
        cell = shapely.difference(cell, shapely.buffer(shapely.points(x, y), size, quad_segs=8))
    at = widest(cell)
    if at == 0:
        return
    for share in (0.3, 0.6, 0.9, 0.98):
        assert is_wide(cell, share * at)
    assert not is_wide(cell, 1.02 * at)


def test_of_what_is_smaller_than_the_tolerance_something_stays() -> None:
    speck = shapely.buffer(shapely.points(3, 3), 0.1, quad_segs=32)
    assert area_of(coarser(speck, 0.5)) > 0
    assert farthest(speck, speck) == 0
    assert farthest(shapely.box(0, 0, 4, 3), speck) == pytest.approx(np.hypot(3, 3) - 0.1, abs=0.1)


@pytest.mark.parametrize("seed", range(40))
def test_what_need_not_be_measured_is_surely_not_more_than_what_counts(seed: int) -> None:
    chance = np.random.default_rng(seed)
    cell = shapely.box(0, 0, *(5 + 60 * chance.random(2)))
    for _ in range(3):
        x, y, size = *(60 * chance.random(2)), 1 + 12 * chance.random()
        cell = shapely.difference(cell, shapely.buffer(shapely.points(x, y), size, quad_segs=8))
    other = shapely.buffer(shapely.points(*(40 * chance.random(2))), 30, quad_segs=64)
    assert 0 < at_least_wide(cell) <= widest(cell) + 0.02
    away = farthest(cell, other)
    for beyond in (0.5 * away, away, away + 0.3, away + 2):
        found = farthest(cell, other, beyond=beyond)
        assert found == away or (found == 0 and away < beyond)
    assert farthest(cell, other, beyond=away + 1.5) == 0


def test_how_wide_a_strip_is_at_least_is_how_wide_it_is() -> None:
    assert at_least_wide(shapely.box(0, 0, 1000, 4)) == pytest.approx(4, abs=0.02)
    assert at_least_wide(shapely.MultiPolygon()) == 0


def test_a_cell_over_a_bay_reaches_out_to_the_middle_of_the_bay() -> None:
    """A square hole of 40 in a plate, open at the right by 10: its middle is 20 from the plate, its edges less."""
    plate = shapely.box(0, 0, 80, 80) - shapely.box(20, 20, 60, 60) - shapely.box(60, 35, 80, 45)
    over = shapely.box(10, 10, 65, 70)
    assert reach_out(shapely.difference(over, plate), plate) == pytest.approx(20, abs=0.5)
    assert reach_out(shapely.Polygon(), plate) == 0
