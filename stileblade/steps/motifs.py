"""What is repeated along an edge, as path data: from deepest places at y = 0 to tips above them."""

from __future__ import annotations

import random
from enum import StrEnum
from itertools import pairwise

_SINE = 0.3642
"""Handle of a cubic from trough to crest, as a share of its width, that is nearest to a sine."""


class Motif(StrEnum):
    SCALLOP = "scallop"
    WAVE = "wave"
    ZIGZAG = "zigzag"
    BATTLEMENT = "battlement"
    DECKLE = "deckle"
    FIGURE = "figure"


def whole(motif: Motif, x: float, p: float, tip: float) -> str:
    """One repeat of length p, from a deepest place to the next."""
    if motif is Motif.SCALLOP:
        return f"A{p / 2!r} {max(-tip, 1e-6)!r} 0 0 1 {x + p!r} 0"
    middle = x + p / 2
    return half(motif, x, middle, 0.0, tip) + half(motif, middle, x + p, tip, 0.0)


def half(motif: Motif, a: float, b: float, y: float, z: float) -> str:
    """From (a, y) to (b, z), one of which is a tip and the other a deepest place."""
    if motif is Motif.SCALLOP:
        return f"A{b - a!r} {max(abs(z - y), 1e-6)!r} 0 0 1 {b!r} {z!r}"
    if motif is Motif.ZIGZAG:
        return f"L{b!r} {z!r}"
    if motif is Motif.BATTLEMENT:
        return f"H{(a + b) / 2!r}V{z!r}H{b!r}"
    h = (b - a) * _SINE
    return f"C{a + h!r} {y!r} {b - h!r} {z!r} {b!r} {z!r}"


def torn(seed: int, x: float, free: float, depths: list[float], start: float, end: float) -> str:
    """Uneven bumps from ``x`` on, smooth at their tips; the same for the same seed."""
    rng, n = random.Random(seed), len(depths)
    places = [free * (i + rng.uniform(-0.3, 0.3) * (0 < i < n)) / n for i in range(n + 1)]
    heights = [start, *(-depths[i] * rng.uniform(0, 1) for i in range(1, n)), end]
    if n > 1:  # tips reach the depth, troughs the edge
        tallest = rng.randrange(1, n)
        heights[tallest] = -depths[tallest]
    found = []
    for (a, b), (g, h) in zip(pairwise(places), pairwise(heights), strict=True):
        third = (b - a) * _SINE
        a, b = a + x, b + x
        found.append(f"C{a + third!r} {g!r} {b - third!r} {h!r} {b!r} {h!r}")
    return "".join(found)
