"""Hairs at corners: what a corner is, the outline as a whole says."""

from __future__ import annotations

import math

import pytest

from stileblade.geometry.offset.hairs import HAIR, region_without_hairs
from stileblade.geometry.offset.offset import Join, offset
from stileblade.geometry.offset.stroke import Pen, stroke
from stileblade.geometry.paths.pathdata import read_path, region_from_path

# there and back in a bow, the two joined by a hair
THERE_AND_BACK = [
    "M0 0C3 0 6 0 9 0h0.0006C6 0 3 0 0 1",
    "M0 0C3 0 6 1 9 0h0.0006C6 1 3 0 0.3 1",
    "M0 0L10 0v0.0006L0 0.1",
]


@pytest.mark.parametrize("limit", [1.5, 4, 10, 100])
@pytest.mark.parametrize("path", THERE_AND_BACK)
def test_a_stroke_that_turns_back_at_a_hair_is_bevelled_whatever_the_limit(
    path: str, limit: float
) -> None:
    (way,) = read_path(path).open
    area = stroke(way, Pen(width=1, mitre_limit=limit), closed=False).area
    bevelled = stroke(way, Pen(width=1, mitre_limit=1), closed=False).area
    assert area == pytest.approx(bevelled, abs=1e-3)


def test_straight_back_without_a_hair_has_no_bar_either() -> None:
    (way,) = read_path("M0 0L10 0L2 0").open
    box = stroke(way, Pen(width=1, mitre_limit=50), closed=False).bounds
    assert (box.right, box.height) == (pytest.approx(10, abs=1e-6), pytest.approx(1, abs=1e-6))


ROUNDED = (
    "M10 {0}L50 0A10 10 0 0 1 60 10V40A10 10 0 0 1 50 50H10A10 10 0 0 1 0 40V10A10 10 0 0 1 10 0Z"
)
# what the rounded rectangle of 60 x 50 with corners of 10 is, grown by 5
GROWN = 70 * 60 - (4 - math.pi) * 15**2


@pytest.mark.parametrize("limit", [2, 10])
@pytest.mark.parametrize("hair", [0, 1e-10, 1e-7, 1e-5, 1e-4, 1e-3, HAIR * 0.9])
def test_a_hair_at_a_smooth_joint_puts_out_no_mitre(hair: float, limit: float) -> None:
    region = region_from_path(ROUNDED.format(hair))
    grown = offset(region, 5, join=Join.MITRE, mitre_limit=limit)
    assert grown.area == pytest.approx(GROWN, abs=70 * HAIR)
    assert grown.bounds.head == pytest.approx(-5, abs=HAIR)


@pytest.mark.parametrize("steps", [40, 4000])
def test_finely_drawn_outlines_stay(steps: int) -> None:
    corners = [
        (math.cos(2 * math.pi * n / steps), math.sin(2 * math.pi * n / steps)) for n in range(steps)
    ]
    region = region_from_path(f"M{'L'.join(f'{x:.9f} {y:.9f}' for x, y in corners)}Z")
    assert len(region_without_hairs(region).segments) == len(region.segments)


def test_a_step_that_is_none_stays_a_corner() -> None:
    region = region_from_path("M0 0H20V10H10V10.02H0Z")
    assert len(region_without_hairs(region).segments) == len(region.segments)
