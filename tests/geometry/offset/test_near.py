"""Lines looked up by place, against all compared with all."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stileblade.geometry.offset.near import Lines, run_along


def chains(chance: np.random.Generator, step: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Chains of short lines, and long ones among them, of two jobs: starts, ends, jobs."""
    starts, ends, jobs = [], [], []
    for job in (0, 1):
        for _ in range(4):
            ways = chance.normal(0, step, (60, 2))
            ways[chance.integers(60, size=3)] *= 40
            places = 30 * chance.random(2) + np.cumsum(ways, axis=0)
            starts.append(places[:-1])
            ends.append(places[1:])
            jobs.append(np.full(59, job))
    return np.concatenate(starts), np.concatenate(ends), np.concatenate(jobs)


@pytest.mark.parametrize("step", [0.01, 0.3, 5.0])
@pytest.mark.parametrize("seed", range(6))
def test_all_lines_within_reach_are_found_and_no_others(seed: int, step: float) -> None:
    chance = np.random.default_rng(seed)
    start, end, job = chains(chance, step)
    reach = np.array([2.5, 0.7])
    lines = Lines(start, end, job, reach, 100)
    spots, of = 40 * chance.random((300, 2)), chance.integers(2, size=300)
    near = lines.near(spots, of)
    shapes = shapely.linestrings(np.stack([start, end], axis=1))
    away = shapely.distance(shapely.points(spots)[:, None], shapes[None])
    wanted = (away <= reach[of][:, None]) & (of[:, None] == job)
    found = np.zeros_like(wanted)
    found[near.spot, near.line] = True
    sure = np.abs(away - reach[of][:, None]) > 1e-9
    assert (found == wanted)[sure].all()
    assert near.away == pytest.approx(away[near.spot, near.line], abs=1e-9)
    assert (np.diff(near.spot) >= 0).all()


def test_an_edge_runs_along_a_line_rather_than_beside_a_nearer_corner() -> None:
    start = np.array([[0.0, 0], [10, 0], [4, 1.5]])
    end = np.array([[10.0, 0], [20, 0], [4.1, 1.4]])
    lines = Lines(start, end, np.zeros(3, np.int64), np.array([2.01]), 3)
    u, v = np.array([[3.0, 2], [12, 2], [50, 50]]), np.array([[5.0, 2], [14, 2], [51, 50]])
    found = run_along(lines, u, v, np.zeros(3, np.int64), np.array([2.0]), 0.02)
    assert found.tolist() == [0, 1, -1]
