"""What of a way lies on a region: each stretch once, however the way touches or crosses itself."""

from __future__ import annotations

import numpy as np
import pytest

from stileblade.design.evaluation import evaluate
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Segments, arc, concatenate, lines
from stileblade.geometry.measures.distances import holds
from stileblade.geometry.regions.along import length_of, points_along, points_along_each, within
from stileblade.geometry.regions.set_operations import difference, rectangle
from tests.conftest import design_of


def covered(region: object, way: Segments) -> float:
    """Length of the way on a region, by 20,000 looks."""
    places = points_along(way)
    table = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(places, axis=0).T))])
    at = (np.arange(20_000) + 0.5) / 20_000 * table[-1]
    spots = np.column_stack([np.interp(at, table, places[:, k]) for k in (0, 1)])
    inside = holds(region, [(float(x), float(y)) for x, y in spots])  # type: ignore[arg-type]
    return float(inside.mean() * table[-1])


def eight(size: float) -> Segments:
    """Two circles run one after the other from where they touch."""
    right = arc((50 + size, 50), (size, 0), (0, size), np.pi, 3 * np.pi)
    left = arc((50 - size, 50), (size, 0), (0, size), 0, 2 * np.pi)
    return concatenate([right, left])


@pytest.mark.parametrize("seed", range(20))
def test_ways_that_cross_themselves_lie_there_once(seed: int) -> None:
    chance = np.random.default_rng(seed)
    sheet = rectangle(Box(0, 0, 100, 100))
    x, y = (20 + 40 * chance.random(2)).tolist()
    region = difference(sheet, rectangle(Box(x, y, x + 15, y + 20)))
    places = 110 * chance.random((12, 2)) - 5
    way = eight(30) if seed % 4 == 0 else lines(places[:-1], places[1:])
    found = [part for part, _ in within(region, way, closed=False)]
    total = sum(length_of(part) for part in found)
    assert total == pytest.approx(covered(region, way), abs=length_of(way) / 2000)
    for part in found:
        assert covered(region, part) == pytest.approx(length_of(part), abs=0.02)


def test_a_slit_whose_scallops_cross_by_a_hair_is_cut_once() -> None:
    """A whole turn leaves the corners of the figure 1e-14 mm off: it was cut thirteen times over."""
    figure = {"kind": "scalloped-rectangle"}
    standing = {"kind": "standing-figure", "over": 23.5, "stays": "more", "outline": figure}
    lengths = []
    for turn in (0, 360):
        made = evaluate(design_of({"kind": "blank"}, {**standing, "turn": turn}, way="top-fold"))
        work = made.pieces[0].work
        assert work is not None
        (slit,) = work.slits
        lengths.append(length_of(slit))
    assert lengths[0] == pytest.approx(lengths[1], abs=1e-6)


def test_places_along_many_ways_are_those_of_each() -> None:
    ways = [
        eight(10.0),
        lines([(0, 0), (30, 0)], [(30, 0), (30, 20)]),
        arc((5, 5), (2, 0), (0, 2), 0, 1),
    ]
    found = points_along_each(ways)
    assert len(found) == len(ways)
    for places, way in zip(found, ways, strict=True):
        np.testing.assert_allclose(places, points_along(way), atol=1e-9)
    assert points_along_each([]) == []
