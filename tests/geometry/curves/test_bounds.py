"""Boxes of curves are their true extremes."""

from __future__ import annotations

import numpy as np
import pytest

from bench.shapes import figure_300
from stileblade.geometry.curves.measurement import bounds
from stileblade.geometry.curves.segments import Segments, arc, beziers, concatenate, lines


def looked_at(segments: Segments) -> list[float]:
    """The box of 2,001 places of each segment."""
    share = np.linspace(0, 1, 2001)
    index = np.arange(len(segments)).repeat(len(share))
    t0, t1 = segments.span[index].T
    places = segments.points_at(index, t0 + (t1 - t0) * np.tile(share, len(segments)))
    return [*places.min(axis=0), *places.max(axis=0)]


@pytest.mark.parametrize("seed", range(20))
def test_curves_of_all_kinds_reach_as_far_as_their_box(seed: int) -> None:
    random = np.random.default_rng(seed)
    quads = beziers(random.uniform(-40, 40, (random.integers(1, 4), 3, 2)))
    cubics = beziers(random.uniform(-50, 50, (random.integers(1, 4), 4, 2)))
    cubics.span[:] = np.sort(random.uniform(0, 1, cubics.span.shape), axis=1)
    n = np.arange(len(cubics))
    cubics.start[:] = cubics.points_at(n, cubics.span[:, 0])
    cubics.end[:] = cubics.points_at(n, cubics.span[:, 1])
    turned = arc((3, 4), random.uniform(-30, 30, 2), random.uniform(-30, 30, 2), 0.4, 5.1)
    straight = lines(random.uniform(-45, 45, (2, 2)), random.uniform(-45, 45, (2, 2)))
    for segments in (quads, cubics, turned, concatenate([straight, quads, turned, cubics])):
        assert bounds(segments) == pytest.approx(looked_at(segments), abs=1e-3)


def test_a_figure_of_many_cubics_reaches_as_far_as_its_box() -> None:
    segments = figure_300().segments
    assert bounds(segments) == pytest.approx(looked_at(segments), abs=1e-3)
