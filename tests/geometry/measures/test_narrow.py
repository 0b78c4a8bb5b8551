"""Thin places and sharp corners."""

from __future__ import annotations

import math

import pytest

from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import rotation, translation
from stileblade.geometry.measures.narrow import sharp_corners, thin_places
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, rectangle, union
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.outlines.figures.straight import Star


def plate() -> Region:
    return rectangle(Box(0, 0, 100, 80))


def less(region: Region, *boxes: tuple[float, float, float, float]) -> Region:
    for box in boxes:
        region = difference(region, rectangle(Box(*box)))
    return region


@pytest.mark.parametrize("angle", [0.0, 31.0, 90.0, 200.0])
def test_a_bar_between_two_windows(angle: float) -> None:
    """1.2 mm between them: one place, 1.2 wide, wherever the piece is turned to."""
    work = less(plate(), (20, 20, 40, 40), (41.2, 20, 60, 40)).transformed(rotation(angle))
    (bar,) = thin_places(work, 1.5)
    assert bar.width == pytest.approx(1.2, abs=1e-5)
    assert math.dist(bar.start, bar.end) == pytest.approx(1.2, abs=1e-5)
    assert thin_places(work, 1.19) == ()


def test_several_places_come_narrowest_first() -> None:
    work = less(plate(), (20, 20, 40, 40), (41.2, 20, 60, 40), (70, 0.9, 80, 60))
    assert [t.width for t in thin_places(work, 1.5)] == pytest.approx([0.9, 1.2], abs=1e-5)


def test_corners_and_wide_paper_are_not_thin() -> None:
    assert thin_places(plate(), 1.5) == ()
    assert thin_places(outline_of(Star(points=7, diameter=80), {}), 1.5) == ()
    assert thin_places(Region.empty(), 1.5) == ()


def test_a_slit_is_a_thin_gap_and_no_thin_paper() -> None:
    work = less(plate(), (50, -1, 50.5, 40))
    (slit,) = thin_places(work, 1.0, of_paper=False)
    assert slit.width == pytest.approx(0.5, abs=1e-5)
    assert thin_places(work, 1.5) == ()


def test_cusps_where_two_arcs_meet_are_no_gaps() -> None:
    """Scallops side by side: between two of them the gap shrinks to nothing."""
    scallops = union(
        outline_of(Circle(diameter=20), {}),
        outline_of(Circle(diameter=20), {}).transformed(translation(20 - 1e-3, 0)),
    )
    assert thin_places(scallops, 1.0, of_paper=False) == ()


def test_a_neck_between_two_discs() -> None:
    """Two plates joined by a bridge 1 mm wide and 5 mm long."""
    work = union(union(plate(), rectangle(Box(105, 0, 160, 80))), rectangle(Box(99, 40, 106, 41)))
    (neck,) = thin_places(work, 1.5)
    assert neck.width == pytest.approx(1.0, abs=1e-5)
    assert 100 < neck.start[0] < 105


def test_angles_of_corners() -> None:
    """A rectangle has four right angles; a thin wedge one of 2 atan(5 / 50) = 11.42 degrees, and no
    other under 90."""
    assert [c.angle_deg for c in sharp_corners(plate(), 91)] == pytest.approx([90] * 4)
    assert sharp_corners(plate(), 89) == []
    star = outline_of(Star(points=3, diameter=100), {})
    found = sharp_corners(star, 60.1)
    assert len(found) == 3
    assert len({round(c.angle_deg, 6) for c in found}) == 1
