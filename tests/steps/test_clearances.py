"""What is meant as a distance is kept everywhere, at points, too: mats, backings, surrounds, borders, shadows."""

from __future__ import annotations

import math
import random
from typing import Any

import numpy as np
import pytest
import shapely

from stileblade.geometry.offset.offset import clearance
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import polygon
from tests.whole import BLANK, ISO_A6, layer, whole, work_of

TIGHT = 0.01
STAR = {"kind": "star", "points": 5, "diameter": 60, "waist": 0.45}


def least(inner: Region, outer: Region) -> float:
    """The least distance in mm from one outline to the other, of fine polylines."""
    a, b = shapely.boundary(inner.polygons), shapely.boundary(outer.polygons)
    return float(shapely.distance(a, b))


def on_base(card: Any, key: str) -> Region:
    work = work_of(card, key)
    assert work.lying is not None
    return work.paper.transformed(work.lying.matrix)


@pytest.mark.parametrize(("start", "side"), [
    ({"kind": "backing", "glue_margin": 5}, "inside"),
    ({"kind": "mat", "margin": 4, "window_margin": 5}, "outside"),
])  # fmt: skip
def test_a_margin_round_a_star_is_kept_at_its_points(start: dict[str, Any], side: str) -> None:
    """Five points: 5 mm of glue, or of paper seen, everywhere (1.89 mm before)."""
    card = whole([BLANK, {"kind": "window", "id": "w", "outline": STAR}],
                 layer("l", start, side=side), size=ISO_A6)  # fmt: skip
    window = work_of(card, "base").windows[0].outline
    found = on_base(card, "l")
    if side == "outside":
        found = found.openings[0].as_region()
    assert least(window, found) == pytest.approx(5, abs=TIGHT)


def spiky(chance: random.Random) -> Region:
    """An outline about a centre with points of 10 degrees and more between deep notches."""
    points = chance.randint(3, 7)
    half = math.radians(chance.uniform(5, 40))
    rim: list[tuple[float, float]] = []
    for n in range(points):
        turn = 2 * math.pi * (n + chance.uniform(-0.15, 0.15)) / points
        out = chance.uniform(18, 50)
        inner = chance.uniform(5, 9)
        # the point's sides leave it at so many degrees from its middle
        spread = math.atan2(math.tan(half) * (out - inner), inner)
        spread = min(spread, math.pi / points * 0.8)
        rim += [(inner * math.cos(turn - spread), inner * math.sin(turn - spread)),
                (out * math.cos(turn), out * math.sin(turn)),
                (inner * math.cos(turn + spread), inner * math.sin(turn + spread))]  # fmt: skip
    return polygon(rim)


def test_every_clearance_is_kept_on_500_outlines_with_sharp_points() -> None:
    """Grown by 1 to 8 mm; the result is no nearer to any place of the outline, and its mitres are no longer
    than twice the distance."""
    chance, worst, sharpest = random.Random(33), 0.0, 180.0
    for _ in range(500):
        region = spiky(chance)
        margin = chance.uniform(1, 8)
        grown = clearance(region, margin)
        worst = max(worst, margin - least(region, grown))
        points = shapely.points(shapely.get_coordinates(grown.polygons))
        farthest = float(shapely.distance(shapely.boundary(region.polygons), points).max())
        assert farthest < 2 * margin + TIGHT
        sharpest = min(sharpest, _sharpest(region))
    assert worst < TIGHT
    assert sharpest < 12


def _sharpest(region: Region) -> float:
    """The sharpest corner of a polygon, in degrees."""
    points = region.segments.start
    a, b = np.roll(points, 1, axis=0) - points, np.roll(points, -1, axis=0) - points
    cosine = (a * b).sum(axis=1) / np.hypot(*a.T) / np.hypot(*b.T)
    return float(np.degrees(np.arccos(np.clip(cosine, -1, 1))).min())


@pytest.mark.parametrize("join", ["round", "mitre"])
def test_a_surround_is_never_less_than_its_margin(join: str) -> None:
    steps = [{"kind": "figure", "outline": STAR}, {"kind": "grow", "margin": 5, "join": join}]
    card = whole(steps)
    piece = card.pieces[0]
    before = piece.outcomes[1].before
    assert before is not None
    assert least(before.paper, work_of(card, "base").paper) == pytest.approx(5, abs=TIGHT)
