"""Nearness of shapes: the same in either order, and of shapes without length."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely

from stileblade.geometry.curves.transforms import scaling
from stileblade.geometry.measures.distances import line_of, nearest, shell_beside
from stileblade.outlines.figures.round import Circle


@pytest.mark.parametrize("seed", range(20))
def test_the_nearest_places_are_told_in_the_order_asked_for(seed: int) -> None:
    chance = np.random.default_rng(seed)
    few, many = (shapely.linestrings(chance.random((n, 2)) * 50) for n in (3, 40))
    away = float(shapely.distance(few, many))
    for first, second in ((few, many), (many, few)):
        found, start, end = nearest(first, second)
        assert found == pytest.approx(away, abs=1e-9)
        assert math.dist(start, end) == pytest.approx(away, abs=1e-9)
        assert shapely.distance(first, shapely.points(start)) < 1e-9
        assert shapely.distance(second, shapely.points(end)) < 1e-9


def test_a_line_without_length_is_a_point() -> None:
    frame = shapely.boundary(shapely.multipolygons([shapely.box(0, 0, 100, 100)]))
    spot = line_of((30, 40), (30, 40))
    assert nearest(spot, frame) == (30, (30, 40), (0, 40))
    assert nearest(frame, spot) == (30, (0, 40), (30, 40))
    assert nearest(spot, line_of((30, 50), (30, 50)))[0] == 10


def test_a_hair_of_paper_has_an_edge() -> None:
    hair = Circle(diameter=50).outline({}).transformed(scaling(0.001 / 50, 2))
    assert shapely.length(shell_beside(hair, hair)) == pytest.approx(200, abs=0.1)
