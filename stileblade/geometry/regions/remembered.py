"""Regions remembered by what they were made of, the least used let go first."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from functools import wraps
from threading import Lock
from typing import Any, TypeVar

import numpy as np
from cachetools import LRUCache, cached
from cachetools.keys import hashkey

from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.regions.region import Region

Make = TypeVar("Make", bound=Callable[..., Region])
F = TypeVar("F", bound=Callable[..., Any])

BYTES_OF_SEGMENT = 600
"""About what a segment takes: itself, its flattened form, and what is looked up in it."""
BYTES_OF_REGION = 4_000
MOST_BYTES = 64_000_000
MOST_BYTES_OF_FIGURES = 12_000_000


def bytes_of(region: Region) -> int:
    """About how much memory a region keeps, with what is worked out of it when it is used."""
    return BYTES_OF_REGION + BYTES_OF_SEGMENT * region.nodes


def with_figures(work_out: F) -> F:
    """A function of regions, or of what has them as its ``paper``, that remembers what it worked out:
    as many as there is room for, counted by what they were worked out of. Safe between threads."""
    room: LRUCache[object, tuple[Any, int]] = LRUCache(
        MOST_BYTES_OF_FIGURES, getsizeof=lambda kept: kept[1]
    )
    lock = Lock()

    @wraps(work_out)
    def recall(*given: Any, **named: Any) -> Any:
        key = hashkey(*given, **named)
        with lock:
            kept = room.get(key)
        if kept is not None:
            return kept[0]
        made = work_out(*given, **named)
        cost = sum(_cost(value) for value in given)
        if cost <= MOST_BYTES_OF_FIGURES:
            with lock:
                room[key] = (made, cost)
        return made

    return recall  # type: ignore[return-value]


def _cost(value: Any) -> int:
    region = getattr(value, "paper", value)
    return bytes_of(region) if isinstance(region, Region) else 100


def remembered(make: Make) -> Make:
    """A function of hashable values to a region: one and the same region for the same values, for
    as long as there is room. Safe between threads."""
    room: LRUCache[object, Region] = LRUCache(MOST_BYTES, getsizeof=bytes_of)
    return cached(room, lock=Lock())(make)  # type: ignore[return-value]


_DIGITS = 9
"""Decimals of a mm in which two regions are the same but for where they lie."""


def wherever(make: Make) -> Make:
    """A function of a region and hashable values to a region that is the same wherever the first one lies: it is
    worked out once for all that differ in that alone, as a window does that is moved. Safe between threads."""
    room: LRUCache[object, Region] = LRUCache(MOST_BYTES_OF_FIGURES, getsizeof=bytes_of)
    lock = Lock()

    @wraps(make)
    def recall(region: Region, *given: Any, **named: Any) -> Region:
        if not region:
            return make(region, *given, **named)
        box = region.bounds
        moved = region.transformed(translation(-box.left, -box.head))
        key = hashkey(_content(moved), *given, **named)
        with lock:
            kept = room.get(key)
        if kept is None:
            kept = make(moved, *given, **named)
            if bytes_of(kept) <= MOST_BYTES_OF_FIGURES:
                with lock:
                    room[key] = kept
        return kept.transformed(translation(box.left, box.head))

    return recall  # type: ignore[return-value]


def _content(region: Region) -> bytes:
    """All that a region is, in few bytes."""
    segments, found = region.segments, hashlib.blake2b(digest_size=16)
    for figures in (segments.coef, segments.span, segments.start, segments.end):
        found.update((np.round(figures, _DIGITS) + 0.0).tobytes())
    for whole in (segments.kind, region.rings, region.shell):
        found.update(np.ascontiguousarray(whole).tobytes())
    return found.digest()
