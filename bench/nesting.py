"""Made-up pieces for layouts: stars, hearts, frames, mirrored figures, rectangles, strips, by a seed; and the
sets of them laid out, beside kept libraries.

    python -m bench.nesting
"""

from __future__ import annotations

import math
import random
import time
from itertools import pairwise

import numpy as np
import shapely

from stileblade.sheets.layout.boxes import by_boxes
from stileblade.sheets.layout.distances import apart
from stileblade.sheets.layout.pack import lay_out
from stileblade.sheets.layout.parts import Format, Part

SETS = {12: 4, 30: 4, 60: 12}
"""Of so many pieces so many sets."""
FORM = Format(210, 297, 5, 2)


def made_up(count: int, seed: int) -> list[Part]:
    """So many pieces that fit on A4, each with its box at 0, 0."""
    chance = random.Random(seed * 100 + count)
    found = []
    for i in range(count):
        kind = chance.choice(["star", "heart", "frame", "mirrored", "rectangle", "strip"])
        shape = _SHAPES[kind](chance)
        left, head, _, _ = shapely.bounds(shape)
        at = np.array([left, head])
        found.append(Part(f"{kind} {i}", shapely.transform(shape, lambda p, at=at: p - at)))
    return found


def _star(chance: random.Random) -> shapely.Geometry:
    points, outer, inner = chance.choice([5, 6, 8]), chance.uniform(15, 45), chance.uniform(8, 14)
    radii = [outer if i % 2 == 0 else inner for i in range(2 * points)]
    turns = [math.pi * i / points for i in range(2 * points)]
    return shapely.Polygon(
        [(r * math.cos(a), r * math.sin(a)) for r, a in zip(radii, turns, strict=True)]
    )


def _heart(chance: random.Random) -> shapely.Geometry:
    t = np.linspace(0, 2 * np.pi, 160)[:-1]
    y = 13 * np.cos(t) - 5 * np.cos(2 * t) - 2 * np.cos(3 * t) - np.cos(4 * t)
    return shapely.Polygon(
        np.stack([16 * np.sin(t) ** 3, -y], axis=1) * chance.uniform(30, 100) / 32
    )


def _frame(chance: random.Random) -> shapely.Geometry:
    w, h, border = chance.uniform(60, 150), chance.uniform(60, 150), chance.uniform(8, 20)
    return shapely.box(0, 0, w, h).difference(shapely.box(border, border, w - border, h - border))


def _mirrored(chance: random.Random) -> shapely.Geometry:
    r, lap = chance.uniform(20, 45), chance.uniform(4, 10)
    disc = shapely.Point(0, 0).buffer(r, 64)
    return disc.union(shapely.transform(disc, lambda p: p + [2 * r - lap, 0]))


def _rectangle(chance: random.Random) -> shapely.Geometry:
    return shapely.box(0, 0, chance.uniform(20, 150), chance.uniform(20, 120))


def _strip(chance: random.Random) -> shapely.Geometry:
    return shapely.box(0, 0, chance.uniform(100, 200), chance.uniform(8, 20))


_SHAPES = {
    "star": _star, "heart": _heart, "frame": _frame, "mirrored": _mirrored,
    "rectangle": _rectangle, "strip": _strip,
}  # fmt: skip


def by_nesting(parts: list[Part], seconds: int) -> int:
    """Sheets that a kept library for irregular pieces needs: as many as fit on one strip of a sheet's
    length are taken off, sheet by sheet."""
    import spyrrow

    w, h = FORM.inner
    rest, sheets = sorted(parts, key=lambda p: -p.area), 0
    while rest and sheets < 40:
        low, high = 1, len(rest)
        # by area, how many could go at most
        area = np.cumsum([p.area for p in rest])
        high = max(1, int(np.searchsorted(area, w * h)))
        taken = 1
        while low <= high:
            some = (low + high + 1) // 2
            items = [
                spyrrow.Item(str(i), _ring(p), 1, [0.0, 90.0, 180.0, 270.0])
                for i, p in enumerate(rest[:some])
            ]
            try:
                strip = spyrrow.StripPackingInstance("sheet", strip_height=w, items=items)
                config = spyrrow.StripPackingConfig(
                    total_computation_time=seconds, min_items_separation=FORM.gap, seed=1
                )
                fits = strip.solve(config).width <= h
            except BaseException:
                fits = False
            if fits:
                taken, low = some, some + 1
            else:
                high = some - 1
        rest, sheets = rest[taken:], sheets + 1
    return sheets


def _ring(part: Part) -> list[tuple[float, float]]:
    ring = shapely.get_exterior_ring(shapely.get_parts(shapely.simplify(part.shape, 0.2))[0])
    return [(float(x), float(y)) for x, y in shapely.get_coordinates(ring)[:-1]]


def report() -> None:
    total = {"boxes alone": 0, "nesting library": 0, "ours": 0, "by area": 0}
    print(f"{'pieces':>7} {'set':>4} {'boxes':>12} {'nesting':>12} {'ours':>12} {'by area':>8}")
    for count, sets in SETS.items():
        for seed in range(sets):
            parts = made_up(count, seed)
            times = [time.perf_counter()]
            boxes = by_boxes(parts, FORM) or []
            times.append(time.perf_counter())
            nested = by_nesting(parts, 1)
            times.append(time.perf_counter())
            layout = lay_out(parts, FORM)
            times.append(time.perf_counter())
            wrong = apart(layout.placed, FORM)
            spent = [f"{b - a:5.1f} s" for a, b in pairwise(times)]
            counts = [1 + max(p.sheet for p in boxes), nested, layout.sheets]
            for name, number in zip(total, [*counts, layout.bound], strict=True):
                total[name] += number
            said = " ".join(f"{n:3} {t:>8}" for n, t in zip(counts, spent, strict=True))
            print(f"{count:7} {seed:4} {said} {layout.bound:8} {'; '.join(wrong)}", flush=True)
    print("in sum: " + ", ".join(f"{name} {number}" for name, number in total.items()))


if __name__ == "__main__":
    report()
