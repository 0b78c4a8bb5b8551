"""The outlines that are measured: reproducible, and as heavy as real ones."""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.segments import TAU, beziers
from stileblade.geometry.curves.transforms import after, rotation, scaling, translation
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import polygon
from stileblade.outlines.figures.word import Word
from stileblade.outlines.text.shipped import Face
from tests.geometry.zoo import blob, disc, ellipse, star


def figure_300(size: float = 60.0) -> Region:
    """A closed figure of 300 cubics, about 120 mm across."""
    n = 300
    angles = np.arange(n) * TAU / n
    r = size * (0.86 + 0.1 * np.sin(5 * angles) + 0.04 * np.sin(31 * angles))
    p = np.stack([r * np.cos(angles), r * np.sin(angles)], 1)
    tangent = (np.roll(p, -1, 0) - np.roll(p, 1, 0)) / 6
    q, t = np.roll(p, -1, 0), np.roll(tangent, -1, 0)
    return fill([beziers(np.stack([p, p + tangent, q - t, q], axis=1))])


def outline_20000(size: float = 80.0) -> Region:
    """A scanned shape: 20,000 lines with a finely waved edge, about 160 mm across."""
    angles = np.linspace(0, TAU, 20_001)[:-1]
    r = size * (0.9 + 0.06 * np.sin(7 * angles)) + 0.05 * np.sin(300 * angles)
    x, y = (r * np.cos(angles)).tolist(), (r * np.sin(angles)).tolist()
    return polygon(list(zip(x, y, strict=True)))


def glyphs() -> Region:
    """A letter with curves and a counter, 40 mm high."""
    return Word(text="a", font=Face.SERIF, size=60).outline({})


def artwork_200() -> list[Region]:
    """200 overlapping shapes of lines, curves and arcs, spread over 200 x 200 mm."""
    chance = np.random.default_rng(11)
    found = []
    for i in range(200):
        kinds = (disc(0, 0, 9), star(5 + i % 4, 10, 5), ellipse(0, 0, 12, 6), blob(i, 10, 14))
        x, y, turn = chance.uniform(0, 200), chance.uniform(0, 200), chance.uniform(0, 360)
        found.append(kinds[i % 4].transformed(after(translation(x, y), rotation(turn))))
    return found


def random_pair(seed: int) -> tuple[Region, Region]:
    """Two shapes that overlap, touch, or share edges, one of them perhaps mirrored."""
    chance = np.random.default_rng(seed)
    kinds = (disc(0, 0, 30), star(7, 32, 15), ellipse(0, 0, 35, 18), blob(seed, 9, 34),
             polygon([(-25, -20), (25, -20), (25, 20), (-25, 20)]))  # fmt: skip
    a, b = (kinds[int(chance.integers(len(kinds)))] for _ in range(2))
    place = int(chance.integers(4))
    shift = (0.0, 0.0) if place == 0 else tuple(chance.uniform(-50, 50, 2))
    if place == 1:
        shift = (float(a.bounds.right - b.bounds.left), 0.0)
    turn = 0.0 if place < 2 else float(chance.uniform(0, 360))
    flip = scaling(-1 if chance.random() < 0.5 else 1, 1)
    return a, b.transformed(after(translation(*shift), after(rotation(turn), flip)))
