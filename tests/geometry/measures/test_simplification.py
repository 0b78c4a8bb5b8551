"""Corners left out in bounded time, on a bounded stack: zigzags are the worst case of the usual way."""

from __future__ import annotations

import re
import time
from pathlib import Path

import numpy as np
import pytest
import shapely

from stileblade.geometry.measures.simplification import _RUN, simplified

CORE = Path(__file__).parents[3] / "stileblade"


def zigzag(corners: int) -> shapely.Polygon:
    """Teeth of growing height along a level line: each split takes a single corner off."""
    x = np.arange(corners, dtype=float)
    y = np.where(np.arange(corners) % 2, 1.0, 0.0) * (1 + x / corners) * 10
    return shapely.Polygon([*zip(x, y, strict=True), (corners, -5), (0, -5)])


def circle(corners: int) -> shapely.Polygon:
    angles = np.linspace(0, 2 * np.pi, corners, endpoint=False)
    return shapely.Polygon(np.column_stack([np.cos(angles), np.sin(angles)]) * 50)


def test_a_zigzag_of_a_hundred_thousand_corners_takes_a_moment() -> None:
    """The process ended at 65,000; at 50,000 it took 13.5 s."""
    began = time.monotonic()
    made = simplified(zigzag(100_000), 0.01)
    assert time.monotonic() - began < 6
    assert shapely.get_num_coordinates(made) == 100_003


@pytest.mark.parametrize("corners", [40, _RUN, _RUN + 1, 9000])
@pytest.mark.parametrize("valid", [False, True])
def test_what_is_left_keeps_to_the_tolerance(corners: int, valid: bool) -> None:
    shape = circle(corners)
    made = simplified(shape, 0.02, valid=valid)
    assert made.is_valid
    assert shapely.hausdorff_distance(shape.exterior, made.exterior) <= 0.02 + 1e-9
    assert shapely.get_num_coordinates(made) <= min(corners + 1, 400)


def test_every_kind_of_shape_comes_back_as_its_kind() -> None:
    hole = shapely.Polygon(
        circle(5000).exterior, [shapely.transform(circle(4001), lambda p: p / 2).exterior]
    )
    for shape in (hole, shapely.MultiPolygon([hole, shapely.transform(hole, lambda p: p + 200)]),
                  hole.exterior, shapely.LineString(hole.exterior.coords[:-9]), hole.boundary):  # fmt: skip
        made = simplified(shape, 0.05)
        assert made.geom_type == shape.geom_type
        assert len(shapely.get_parts(made)) == len(shapely.get_parts(shape))
    assert len(simplified(hole, 0.05).interiors) == 1
    pair = simplified(np.array([hole, circle(30)]), 0.05)
    assert [p.geom_type for p in pair] == ["Polygon", "Polygon"]
    assert simplified(shapely.Polygon(), 0.1).is_empty
    speck = circle(5000)
    assert len(simplified(speck, 500.0).exterior.coords) >= 4


def test_nothing_else_asks_the_kernel_to_simplify() -> None:
    used = [
        str(path.relative_to(CORE))
        for path in CORE.rglob("*.py")
        if re.search(r"shapely\.simplify|\.simplify\(", path.read_text())
    ]
    assert used == ["geometry/measures/simplification.py"]


def test_many_short_rings_are_left_to_the_kernel_in_one_go() -> None:
    """Thirty thousand rings of 40 corners: one by one they took seconds."""
    x, y = np.meshgrid(np.arange(200) * 120.0, np.arange(150) * 120.0)
    corners = np.array(circle(40).exterior.coords)
    places = np.column_stack([x.ravel(), y.ravel()])
    many = shapely.multipolygons(shapely.polygons(corners[None] + places[:, None]))
    began = time.monotonic()
    made = simplified(many, 0.5)
    assert time.monotonic() - began < 4
    assert len(shapely.get_parts(made)) == 30_000
