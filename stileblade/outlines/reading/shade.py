"""Translucent shapes: shadows, gleams and tints. Their colour is what is seen, mixed with what lies below;
what is translucent all over is *shade*, which is no part of the object that is cut."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.measures.covered import seen_below
from stileblade.outlines.reading.found import Shape

OPAQUE = 0.98
"""Of that much and more of its colour, a shape hides what is below it."""
PAGE = np.array([255.0, 255.0, 255.0])
MOST_MIXED = 200
"""Translucent shapes; more than these are mixed with the page alone."""


def mixed(shapes: Sequence[Shape]) -> list[Shape]:
    """The shapes, from the lowest to the topmost, with the colours that are seen."""
    found: list[Shape] = []
    seen: list[Floats] = []
    translucent = [s.alpha < OPAQUE for s in shapes]  # also what fades, and is dense somewhere
    for number, shape in enumerate(shapes):
        own = _numbers(shape.colour)
        if not translucent[number]:
            found.append(shape)
            seen.append(own)
            continue
        below = PAGE
        if sum(translucent[:number]) < MOST_MIXED:
            shares = seen_below(shape.region, [s.region for s in shapes[:number]])
            below = PAGE * (1 - sum(shares))
            for share, colour in zip(shares, seen, strict=True):
                below = below + share * colour
        colour = shape.alpha * own + (1 - shape.alpha) * below
        seen.append(colour)
        found.append(replace(shape, colour=_hex(colour), shade=shape.densest < OPAQUE))
    return found


def _numbers(colour: str) -> Floats:
    return np.array([int(colour[i : i + 2], 16) for i in (1, 3, 5)], float)


def _hex(colour: Floats) -> str:
    return "#" + "".join(f"{int(v):02x}" for v in np.rint(np.clip(colour, 0, 255)))
