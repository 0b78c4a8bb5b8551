"""Hulls of places, however few and however they lie."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stileblade.geometry.measures.hull import hull_of


@pytest.mark.parametrize("seed", range(60))
def test_a_hull_is_the_kernels_hull_of_the_places(seed: int) -> None:
    chance = np.random.default_rng(seed)
    places = chance.normal(size=(int(chance.integers(1, 30)), 2))
    if seed % 3 == 0:
        places = places.round()
    if seed % 5 == 0:
        places[:, 1] = places[:, 0]
    if seed % 7 == 0:
        places[:] = places[0]
    hull = hull_of(places)
    wanted = shapely.get_coordinates(shapely.convex_hull(shapely.multipoints(places)))
    assert {tuple(p) for p in hull} == {tuple(p) for p in wanted}
