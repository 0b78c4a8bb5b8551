"""Regions remembered by what they were made of, the least used let go first."""

from __future__ import annotations

from collections.abc import Callable
from threading import Lock
from typing import TypeVar

from cachetools import LRUCache, cached

from stileblade.geometry.regions.region import Region

Make = TypeVar("Make", bound=Callable[..., Region])

BYTES_OF_SEGMENT = 600
"""About what a segment takes: itself, its flattened form, and what is looked up in it."""
BYTES_OF_REGION = 4_000
MOST_BYTES = 128_000_000


def bytes_of(region: Region) -> int:
    """About how much memory a region keeps, with what is worked out of it when it is used."""
    return BYTES_OF_REGION + BYTES_OF_SEGMENT * region.nodes


def remembered(make: Make) -> Make:
    """A function of hashable values to a region: one and the same region for the same values, for
    as long as there is room. Safe between threads."""
    room: LRUCache[object, Region] = LRUCache(MOST_BYTES, getsizeof=bytes_of)
    return cached(room, lock=Lock())(make)  # type: ignore[return-value]
