"""Regions remembered: one for equal values, within a bound of memory."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

import pytest

from stileblade.geometry.curves.places import Box
from stileblade.geometry.regions import remembered as remembering
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import rectangle


def test_what_was_made_once_is_not_made_again_until_there_is_no_room(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    one = remembering.bytes_of(rectangle(Box(0, 0, 1, 1)))
    monkeypatch.setattr(remembering, "MOST_BYTES", 3 * one)
    made: list[float] = []

    @remembering.remembered
    def square(size: float) -> Region:
        made.append(size)
        return rectangle(Box(0, 0, size, size))

    assert square(1) is square(1)
    for size in (2, 3, 1, 4):  # 2 is the least used when 4 needs its room
        square(size)
    assert made == [1, 2, 3, 4]
    square(1)
    assert made == [1, 2, 3, 4]
    square(2)
    assert made == [1, 2, 3, 4, 2]


def test_a_region_larger_than_all_the_room_is_made_but_not_kept(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(remembering, "MOST_BYTES", 1)
    made: list[float] = []

    @remembering.remembered
    def square(size: float) -> Region:
        made.append(size)
        return rectangle(Box(0, 0, size, size))

    assert square(2).area == square(2).area == 4
    assert made == [2, 2]


def test_memory_grows_with_the_outline() -> None:
    small, large = rectangle(Box(0, 0, 1, 1)), Region.empty()
    assert remembering.bytes_of(small) > remembering.bytes_of(large) > 0


def test_many_at_once_come_to_one_answer() -> None:
    @remembering.remembered
    def square(size: float) -> Region:
        return rectangle(Box(0, 0, size, size))

    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(square, [1.0, 2.0] * 50))
    assert {region.area for region in found} == {1.0, 4.0}
    assert square(1.0) is square(1.0)


def test_figures_are_remembered_by_the_bytes_of_what_they_are_of() -> None:
    made: list[int] = []

    @remembering.with_figures
    def size(region: Region, times: int) -> int:
        made.append(times)
        return len(region.segments) * times

    square = rectangle(Box(0, 0, 1, 1))
    assert size(square, 2) == size(square, 2) == 8
    assert size(square, 3) == 12
    assert made == [2, 3]
    room = remembering.MOST_BYTES_OF_FIGURES // remembering.bytes_of(square)
    for times in range(100, 101 + room):
        size(square, times)
    size(square, 2)
    assert made.count(2) == 2
