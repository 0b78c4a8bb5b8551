"""Points near edges, and how often edges cross: as a tree and all pairs say it."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stileblade.geometry.regions.estimate import MOST_CROSSINGS, crossings_of
from stileblade.geometry.regions.near import near_pairs


def ring(count: int, radius: float, waves: int = 0) -> np.ndarray:
    angle = np.linspace(0, 2 * np.pi, count, endpoint=False)
    r = radius * (1 + 0.2 * np.sin(waves * angle))
    return np.stack([r * np.cos(angle), r * np.sin(angle)], axis=1)


def shaken(points: np.ndarray, seed: int) -> np.ndarray:
    return points + np.random.default_rng(seed).normal(0, 0.05, points.shape)


EDGES = {
    "few": ring(12, 30),
    "many": ring(900, 30, 5),
    "from side to side": shaken(np.tile([[-40.0, 0.0], [40.0, 1.0]], (400, 1)), 1),
}


@pytest.mark.parametrize("name", EDGES)
@pytest.mark.parametrize("reach", [1e-6, 0.05, 2.0])
def test_points_near_edges_are_those_that_a_tree_finds(name: str, reach: float) -> None:
    a = EDGES[name]
    b = np.roll(a, -1, axis=0)
    points = np.concatenate([a[::3], shaken(a, 2), (a + b)[::2] / 2])
    found = set(zip(*(x.tolist() for x in near_pairs(points, a, b, reach)), strict=True))
    edges = shapely.linestrings(np.stack([a, b], axis=1))
    away = shapely.distance(shapely.points(points)[:, None], edges[None])
    assert found >= set(zip(*(x.tolist() for x in (away < reach - 1e-9).nonzero()), strict=True))
    assert found <= set(zip(*(x.tolist() for x in (away < reach + 1e-9).nonzero()), strict=True))
    assert found


def test_how_often_edges_cross_is_told_to_a_third() -> None:
    """A star of chords, each of which crosses most others; and one so small that it cannot cross too often."""
    points = ring(401, 40)[(np.arange(401) * 200) % 401]
    ends = np.roll(points, -1, axis=0)
    edges = shapely.linestrings(np.stack([points, ends], axis=1))
    met = sum(int(shapely.intersects(edges[i], edges).sum()) for i in range(len(edges)))
    true = (met - 3 * len(edges)) / 2
    assert true > MOST_CROSSINGS
    assert crossings_of(points, ends) == pytest.approx(true, rel=1 / 3)
    assert crossings_of(points[:150], ends[:150]) == 0.0
    fine = ring(5000, 40, 9)
    assert crossings_of(fine, np.roll(fine, -1, axis=0)) < 100
