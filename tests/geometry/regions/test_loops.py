"""Loops by a hair are undone; what crosses itself on purpose stays as it was."""

from __future__ import annotations

import numpy as np
import pytest

from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import lines
from stileblade.geometry.regions.loops import crosses_itself, without_loops
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import rectangle


def ring(*corners: tuple[float, float]) -> Region:
    p = np.array(corners, float)
    return Region(lines(p, np.roll(p, -1, axis=0)), np.array([0, len(p)]), np.zeros(1, np.int64))


def with_loop(size: float) -> Region:
    """A square of 20 whose upper edge crosses over itself by so much."""
    return ring(
        (0, 0), (10 + size, 0), (10 + size, -size), (10, size / 2), (20, 0), (20, 20), (0, 20)
    )


@pytest.mark.parametrize("size", [1e-4, 0.01, 0.05, 0.1])
def test_a_loop_is_undone(size: float) -> None:
    region = with_loop(size)
    assert crosses_itself(region)
    made = without_loops(region)
    assert not crosses_itself(made)
    assert made.pieces == 1
    assert made.area == pytest.approx(region.area, abs=2 * size**2)


def test_what_is_sound_is_the_same() -> None:
    square = rectangle(Box(0, 0, 20, 20))
    assert without_loops(square) is square
    assert without_loops(Region.empty()).pieces == 0


def test_what_is_no_loop_is_left() -> None:
    region = ring((0, 0), (20, 20), (20, 0), (0, 20))
    assert without_loops(region) is region
