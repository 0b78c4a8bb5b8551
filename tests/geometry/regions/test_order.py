"""Orders that rounding does not change: by size, from left to right, from head to foot."""

from __future__ import annotations

import numpy as np
import pytest

from stileblade.geometry.curves.arrays import ranks
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.regions.region import by_size, from_left, gather
from stileblade.geometry.regions.set_operations import cut_off, rectangle
from tests.geometry.zoo import disc


def test_values_that_only_rounding_tells_apart_have_one_rank() -> None:
    values = np.array([3.0, 1.0 + 1e-12, 1.0, 2.0, 3.0 - 1e-9, 1.0 - 1e-12])
    assert ranks(values, 1e-6).tolist() == [2, 0, 0, 1, 2, 0]
    assert ranks(np.zeros(0), 1.0).tolist() == []


@pytest.mark.parametrize("noise", [-1e-10, 0.0, 1e-10])
def test_pieces_as_large_as_each_other_come_as_they_lie(noise: float) -> None:
    """53.975 and the like lie on the edge of what two decimals tell apart."""
    size = 20.0
    places = [(53.975 + noise, 40.0), (10.0, 90.0 + noise), (53.975, 10.0), (10.0 - noise, 5.0)]
    boxes = [rectangle(Box(x, y, x + size, y + size + noise)) for x, y in places]
    assert from_left(boxes) == [3, 1, 2, 0]
    assert by_size(boxes) == [3, 1, 2, 0]
    large = [*boxes, disc(200, 0, 30)]
    assert by_size(large) == [4, 3, 1, 2, 0]
    assert boxes[0].parts()[0] is boxes[0]
    parts = gather(large).parts()
    assert [p.bounds.left for p in parts[1:]] == [boxes[i].bounds.left for i in (3, 1, 2, 0)]


@pytest.mark.parametrize("width", [215.9, 322.85, 210.0, 148.5])
def test_halves_of_one_sheet_come_from_left_to_right_wherever_it_lies(width: float) -> None:
    for shift in np.linspace(-90, 90, 37):
        sheet = rectangle(Box(0, 0, width, 139.7)).transformed(translation(float(shift), 0.1))
        at = (sheet.bounds.left + sheet.bounds.right) / 2
        halves = [cut_off(sheet, axis="x", at=at, keep=keep) for keep in ("more", "less")]
        assert by_size(halves) == [1, 0]
