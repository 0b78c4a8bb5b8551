"""What is worked out of a region wherever it lies."""

from __future__ import annotations

import numpy as np
import pytest

from stileblade.geometry.curves.transforms import rotation, translation
from stileblade.geometry.offset.offset import offset
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import wherever
from stileblade.outlines.figures.round import Circle, Heart

ASKED: list[tuple[Region, float]] = []


@wherever
def grown(region: Region, by: float) -> Region:
    ASKED.append((region, by))
    return offset(region, by)


def test_it_is_worked_out_once_for_all_places_and_lies_where_the_first_one_does() -> None:
    ASKED.clear()
    heart = Heart(width=61.7, height=55.3).outline({})
    for x, y in ((0.0, 0.0), (12.3, -4.5), (0.1 + 0.2, 1e3 / 7)):
        there = heart.transformed(translation(x, y))
        assert grown(there, 2.5).area == pytest.approx(offset(there, 2.5).area, abs=1e-5)
        assert np.allclose(
            grown(there, 2.5).bounds.as_list(), offset(there, 2.5).bounds.as_list(), atol=1e-6
        )
    assert len(ASKED) == 1


def test_what_is_not_the_same_is_worked_out_anew() -> None:
    ASKED.clear()
    heart = Heart(width=40, height=36).outline({})
    grown(heart, 1.0)
    grown(heart, 1.1)
    grown(heart.transformed(rotation(5.0)), 1.0)
    grown(Heart(width=40.00001, height=36).outline({}), 1.0)
    grown(Circle(diameter=40).outline({}), 1.0)
    assert len(ASKED) == 5
    assert not grown(Region.empty(), 1.0)
