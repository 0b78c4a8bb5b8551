"""Offsets of random outlines with steps far smaller than the distance, by every join, against what their sides
and corners sweep over, each by itself (decision 21)."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stileblade.geometry.offset.offset import Join, offset
from stileblade.geometry.regions.set_operations import polygon
from stileblade.tolerance import TOLERANCE
from tests.conftest import TIMES

COUNT = 40 * TIMES
HAIR = 0.002
"""mm: what is shorter is no corner of its own to mitres and bevels."""
OFF = 0.01


def stepped(chance: np.random.Generator) -> np.ndarray:
    """Corners (n, 2) of an outline with jogs and notches of 0.01 to 3 mm."""
    while True:
        count = int(chance.integers(5, 26))
        angle, radius = np.sort(chance.uniform(0, 2 * np.pi, count)), chance.uniform(18, 40, count)
        p = np.stack([radius * np.cos(angle), radius * np.sin(angle)], axis=1)
        corners = []
        for a, b in zip(p, np.roll(p, -1, axis=0), strict=True):
            corners.append(a)
            if chance.random() < 0.5:
                along = (b - a) / np.hypot(*(b - a))
                across = np.array([along[1], -along[0]]) * chance.choice([-1, 1])
                deep, wide = 10 ** chance.uniform(-2, 0.5), 10 ** chance.uniform(-2, 0.7)
                at = a + (b - a) * chance.uniform(0.2, 0.7)
                wide = min(wide, 0.2 * np.hypot(*(b - a)))
                corners += [at, at + across * deep, at + across * deep + along * wide]
                if chance.random() < 0.7:
                    corners.append(at + along * wide)
        parts = shapely.get_parts(shapely.make_valid(shapely.Polygon(corners)))
        largest = max(parts, key=shapely.area)
        found = shapely.get_coordinates(shapely.orient_polygons(largest).exterior)[:-1]
        if np.hypot(*np.diff(found, axis=0, append=found[:1]).T).min() > HAIR:
            return found


def swept(p: np.ndarray, distance: float, join: Join, limit: float) -> shapely.Geometry:
    """The outline with all that its sides and corners sweep over, put on or taken away."""
    after = np.roll(p, -1, axis=0)
    way = (after - p) / np.hypot(*(after - p).T)[:, None]
    aside = np.stack([way[:, 1], -way[:, 0]], axis=1) * distance
    if join is Join.ROUND:
        sides = shapely.linestrings(np.stack([p, after], axis=1))
        pieces = list(shapely.buffer(sides, abs(distance), quad_segs=100))
    else:
        pieces = list(shapely.polygons(np.stack([p, after, after + aside, p + aside], axis=1)))
        for i, corner in enumerate(p):
            (ux, uy), (vx, vy) = way[i - 1], way[i]
            if (ux * vy - uy * vx) * distance <= 0:
                continue
            a, b, middle = corner + aside[i - 1], corner + aside[i], aside[i - 1] + aside[i]
            ratio = 2 * abs(distance) / np.hypot(*middle)
            tip = corner + middle * (2 * distance**2 / (middle @ middle))
            mitred = join is Join.MITRE and ratio <= limit
            pieces.append(shapely.Polygon([corner, a, tip, b] if mitred else [corner, a, b]))
    all_of_them = shapely.union_all(shapely.make_valid(np.array(pieces)))
    combined = shapely.union if distance > 0 else shapely.difference
    return combined(shapely.Polygon(p), all_of_them)


@pytest.mark.parametrize("join", list(Join))
def test_no_corner_of_random_outlines_is_off_by_a_hundredth(join: Join) -> None:
    wrong = []
    for seed in range(COUNT):
        chance = np.random.default_rng([7, seed])
        corners = stepped(chance)
        distance = float(chance.choice([-1, 1]) * 10 ** chance.uniform(-0.5, 0.8))
        limit = float(chance.choice([2, 4, 10]))
        source = polygon([(x, y) for x, y in corners.tolist()])
        made = offset(source, distance, join=join, mitre_limit=limit)
        wanted = swept(corners, distance, join, limit)
        apart = shapely.symmetric_difference(shapely.make_valid(made.polygons), wanted)
        parts = shapely.get_parts(apart)
        parts = parts[shapely.area(parts) > TOLERANCE.leftover**2]  # tips, which go with leftovers
        if not shapely.is_empty(shapely.buffer(parts, -OFF / 2)).all():
            wrong.append((seed, distance, limit))
    assert not wrong


@pytest.mark.parametrize("distance", [4.0, -4.0])
def test_a_step_of_hundredths_in_a_long_side_stays(distance: float) -> None:
    """To the kernel a step of less than a hundredth of the distance is none: half the side would lie 0.03 off."""
    side = 0.03
    source = polygon([(0, 0), (60, 0), (60, 40), (30, 40), (30, 40 + side), (0, 40 + side)])
    grown = offset(source, distance)
    feet = [grown.bounds.foot, *(s for s in grown.segments.start[:, 1].tolist())]
    assert min(abs(foot - (40 + side + distance)) for foot in feet) < 1e-6
    assert min(abs(foot - (40 + distance)) for foot in feet) < 1e-6
