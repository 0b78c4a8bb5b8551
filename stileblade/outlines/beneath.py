"""Layers of an artwork as pieces of paper: closed beneath what covers them, and the shadow of them all.

What is made of layers costs the same wherever they are moved to, and is remembered without that: an edit
that moves the artwork on the card does not make it anew.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypeAlias

import numpy as np

from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import remembered
from stileblade.geometry.regions.set_operations import (
    difference,
    intersection,
    union,
    union_all,
)
from stileblade.outlines.artwork import LayerOutlines

Turned: TypeAlias = tuple[float, float, float, float]
"""a, b, c, d of a map from mm of the artwork to those of the card: x becomes a x + b y."""


def shadow_of(
    drawn: LayerOutlines, numbers: Sequence[int], margin: float, matrix: Floats
) -> Region:
    """The chosen layers united, grown by a margin in mm, openings filled; ``matrix`` (2, 3) takes mm of the
    artwork to those of the card. None chosen: all of them."""
    return _shadow(drawn, tuple(numbers), margin, _turned(matrix)).transformed(_moved(matrix))


def closed_beneath(
    drawn: LayerOutlines, numbers: Sequence[int], margin: float | None, matrix: Floats
) -> Region:
    """The chosen layers, each running on under those that cover it by a margin in mm, or (None) all the way;
    ``matrix`` as for the shadow."""
    return _closed(drawn, tuple(numbers), margin, _turned(matrix)).transformed(_moved(matrix))


def _turned(matrix: Floats) -> Turned:
    (a, b), (c, d) = matrix[:, :2].tolist()
    return a, b, c, d


def _moved(matrix: Floats) -> Floats:
    return translation(float(matrix[0, 2]), float(matrix[1, 2]))


def _map_of(turned: Turned) -> Floats:
    a, b, c, d = turned
    return np.array([[a, b, 0.0], [c, d, 0.0]])


@remembered
def _shadow(
    drawn: LayerOutlines, numbers: tuple[int, ...], margin: float, turned: Turned
) -> Region:
    whole = filled(drawn.union(numbers)).transformed(_map_of(turned))
    return filled(grown_by(whole, margin)) if margin else whole


@remembered
def _closed(
    drawn: LayerOutlines, numbers: tuple[int, ...], margin: float | None, turned: Turned
) -> Region:
    matrix, found = _map_of(turned), []
    for number in numbers:
        own = drawn.layers[number].transformed(matrix)
        above = [la for n, la in enumerate(drawn.layers) if n > number and n not in numbers]
        covers = union_all(above)
        found.append(_beneath(own, covers.transformed(matrix), margin) if covers else own)
    return union_all(found)


def _beneath(own: Region, covers: Region, margin: float | None) -> Region:
    """One layer, closed beneath what covers it."""
    if margin is None:
        return union(own, intersection(filled(own), covers))
    seen = difference(own, covers)
    if not seen:
        return seen
    under = intersection(grown_by(seen, margin), covers)
    return union(seen, under) if margin else seen
