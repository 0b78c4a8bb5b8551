"""No paper runs through other paper on the way from flat to closed, nor to where the card stands."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest
from shapely import LineString, Polygon

from stileblade.card.ways import WAYS
from stileblade.folding.space import (
    faces_in_space,
    half_open,
    in_space,
    maps_in_space,
    sequence,
    standing,
    stood_up,
)
from stileblade.piece.work import Work
from tests.folding.test_flat import made

STEPS = 20
BESIDE = 0.6
"""mm: what is so near an edge is no running through."""


def through(work: Work, angles: list[float], thickness: float) -> float:
    """The longest line, in mm, along which one face runs through another."""
    faces, maps = faces_in_space(work), maps_in_space(work, angles, thickness)
    solid = [in_space(m, np.array(f.rings[0])) for f, m in zip(faces, maps, strict=True)]
    longest = 0.0
    for number, (face, matrix) in enumerate(zip(faces, maps, strict=True)):
        inside = Polygon(face.rings[0]).buffer(-BESIDE)
        for other, corners in enumerate(solid):
            if other == number:
                continue
            # the other face as this one sees it, itself in the plane z = 0
            seen = (np.linalg.inv(matrix) @ np.column_stack([corners, np.ones(len(corners))]).T).T
            z, following = seen[:, 2], np.roll(seen, -1, axis=0)
            if min(abs(z.min()), abs(z.max())) < 0.05:
                continue
            hit = np.flatnonzero((z < 0) != (following[:, 2] < 0))
            share = (z[hit] / (z[hit] - following[hit, 2]))[:, None]
            places = seen[hit] + share * (following[hit] - seen[hit])
            if len(places) == 2:
                line = LineString(places[:, :2] * (1, -1))
                longest = max(longest, line.intersection(inside).length)
    return longest


def worst(work: Work, path: list[list[float]], thickness: float = 0.3) -> float:
    between = [
        [a + (b - a) * n / STEPS for a, b in zip(start, end, strict=True)]
        for start, end in pairwise(path)
        for n in range(STEPS + 1)
    ]
    return max(through(work, angles, thickness) for angles in between)


@pytest.mark.parametrize("kind", WAYS.names())
@pytest.mark.parametrize("creases", ["upright", "level"])
def test_no_paper_runs_through_other_paper(kind: str, creases: str) -> None:
    work = made(way=kind, thickness=0.3, folding={"creases": creases})
    path = sequence(work)
    assert half_open(work) in path
    assert worst(work, path) == 0
    assert worst(work, stood_up(work, standing(work))) == 0


def test_it_is_seen_where_paper_does() -> None:
    """Closed all at once, a liner runs through the back: that is what is looked for."""
    work = made(way="window-card", thickness=0.3)
    path = sequence(work)
    assert worst(work, [path[0], path[-1]]) > 100
    assert worst(work, [path[-1], half_open(work)]) > 100


def test_what_is_not_shut_is_flattened_before_the_card_is_closed() -> None:
    """An easel's front is creased where it stands, and flat when the card is closed."""
    path = sequence(made(way="easel"))
    assert path == [[0, 0], [75, 0], [75, 60], [75, 0], [180, 0]]
