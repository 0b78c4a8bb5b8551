"""What lies on one side of a line: cut on the curves, as the general intersection has it."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from bench.shapes import figure_300, outline_20000
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import rotation
from stileblade.geometry.regions.halving import halved
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import (
    cut_off,
    difference,
    half_plane,
    intersection,
    polygon,
    rectangle,
)
from tests.geometry.zoo import ZOO, blob, check_whole, disc

SHAPES: dict[str, Region] = {
    **{name: shape for name, shape in ZOO.items() if shape},
    "figure of 300 cubics": figure_300(),
    "20,000 vertices": outline_20000(),
    "discs beside each other": gather([disc(0, 0, 20), disc(25, 32, 15)]),
    "comb": polygon([(0, 0), (90, 0), (90, 60), (70, 60), (70, 20), (50, 20), (50, 60), (30, 60),
                     (30, 20), (10, 20), (10, 60), (0, 60)]),
}  # fmt: skip


@pytest.mark.parametrize("name", SHAPES)
def test_it_is_what_the_general_intersection_makes(name: str) -> None:
    shape, random, simple = SHAPES[name], np.random.default_rng(len(name)), 0
    for k in range(8 if shape.nodes < 5000 else 2):
        axis, keep = "xy"[k % 2], ("less", "more")[k // 2 % 2]
        box = shape.bounds
        low, high = (box.left, box.right) if axis == "x" else (box.head, box.foot)
        at = float(random.uniform(low + 0.05 * (high - low), high - 0.05 * (high - low)))
        made = halved(shape, axis=axis, at=at, keep=keep)
        if made is None:
            continue
        simple += 1
        general = intersection(shape, half_plane(box, axis=axis, at=at, keep=keep))
        check_whole(made)
        assert (made.pieces, len(made.openings), made.nodes) == (
            general.pieces, len(general.openings), general.nodes,
        )  # fmt: skip
        assert made.area == pytest.approx(general.area, abs=1e-7)
        assert shapely.symmetric_difference(made.polygons, general.polygons).area < 1e-4
        left, head, right, foot = made.bounds.as_list()
        near, far = (left, right) if axis == "x" else (head, foot)
        assert at == (far if keep == "less" else near)
    assert simple or shape.bounds.height < 1


def test_openings_stay_with_their_paper() -> None:
    framed = difference(rectangle(Box(0, 0, 100, 60)), disc(20, 30, 8))
    framed = difference(framed, disc(60, 30, 12))
    half = halved(framed, axis="x", at=61.5, keep="less")
    assert half is not None
    check_whole(half)
    assert (half.pieces, len(half.openings)) == (1, 1)
    assert half.area == pytest.approx(
        intersection(framed, rectangle(Box(-1, -1, 61.5, 61))).area, abs=1e-9
    )
    # the other side has a bay alone
    other = halved(framed, axis="x", at=61.5, keep="more")
    assert other is not None
    assert (other.pieces, len(other.openings)) == (1, 0)
    assert half.area + other.area == pytest.approx(framed.area, abs=1e-9)


def test_of_several_pieces_with_openings_the_general_way_tells_which_has_them() -> None:
    comb = difference(SHAPES["comb"], disc(60, 40, 3))
    comb = difference(comb, disc(80, 40, 3))
    assert halved(comb, axis="y", at=30, keep="more") is None
    teeth = cut_off(comb, axis="y", at=30, keep="more")
    assert (teeth.pieces, len(teeth.openings)) == (3, 1)
    assert teeth.area == pytest.approx(10 * 30 + 20 * 30 + 20 * 30 - np.pi * 9, abs=1e-3)


@pytest.mark.parametrize(
    ("shape", "axis", "at", "keep", "area"),
    [
        (rectangle(Box(0, 0, 40, 30)), "x", 5e-4, "more", 40 * 30),  # a corner nearly on the line
        (rectangle(Box(0, 0, 40, 30)), "x", 39.995, "more", 0.0),  # a sliver is no paper
        (SHAPES["comb"], "y", 20.0, "less", 90 * 20),  # edges along the line
        (polygon([(0, 0), (40, 0), (40.015, 20), (40, 40), (0, 40)]), "x", 40.008, "more", 0.0),
    ],
)
def test_what_is_not_that_simple_is_left_to_the_general_intersection(
    shape: Region, axis: str, at: float, keep: str, area: float
) -> None:
    assert halved(shape, axis=axis, at=at, keep=keep) is None
    assert cut_off(shape, axis=axis, at=at, keep=keep).area == pytest.approx(area, abs=0.02)


def test_a_contour_of_one_turn_is_cut_where_it_begins_too() -> None:
    half = halved(disc(0, 0, 10), axis="x", at=2.0, keep="more")
    assert half is not None
    assert half.nodes == 2
    beyond = np.arccos(0.2)
    assert half.area == pytest.approx(100 * (beyond - np.sin(beyond) * 0.2), abs=1e-9)


def test_of_bulges_lower_than_flattening_shows_nothing_is_cut_wrong() -> None:
    """Near the extremes of smooth outlines, down to what the kernel does not see at all."""
    for seed in range(4):
        shape = blob(seed).transformed(rotation(13.0 * seed))
        for axis in ("x", "y"):
            box = shape.bounds.as_list()
            for keep, edge, inwards in (("more", 2, -1), ("less", 0, 1)):
                for depth in (1e-6, 1e-4, 5e-4, 2e-3, 4e-3, 0.02, 0.2):
                    at = box[edge + (axis == "y")] + inwards * depth
                    cap = cut_off(shape, axis=axis, at=at, keep=keep)
                    rest = cut_off(
                        shape, axis=axis, at=at, keep="less" if keep == "more" else "more"
                    )
                    check_whole(rest)
                    # a sliver is no paper
                    lost = shape.area - cap.area - rest.area
                    assert -2e-3 < lost < (0.01 if cap else min(60 * depth, 0.1))
                    assert cap.area < 60 * depth
