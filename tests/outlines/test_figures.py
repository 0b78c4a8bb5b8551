"""Figures against their own formulas."""

from __future__ import annotations

import math

import pytest

from stileblade.outlines.figure import FIGURES, outline_of


def area(kind: str, **values: float) -> float:
    return FIGURES[kind].model_validate({"kind": kind, **values}).outline({}).area


@pytest.mark.parametrize(
    ("kind", "values", "expected"),
    [
        ("circle", {"diameter": 60}, 900 * math.pi),
        ("ellipse", {"width": 80, "height": 30}, 600 * math.pi),
        ("ring", {"diameter": 60, "opening": 20}, 800 * math.pi),
        ("rectangle", {"width": 60, "height": 40, "radius": 5}, 2400 - (4 - math.pi) * 25),
        ("polygon", {"sides": 6, "diameter": 60}, 1.5 * math.sqrt(3) * 900),
        ("polygon", {"sides": 3, "diameter": 60}, 0.75 * math.sqrt(3) * 900),
        # a star of n points is 2n triangles of R r sin(pi / n) / 2
        ("star", {"points": 5, "diameter": 60, "waist": 0.5}, 5 * 30 * 15 * math.sin(math.pi / 5)),
        ("tag", {"width": 50, "height": 90, "shoulder": 10, "hole": 0}, 4500 - 100),
        ("tag", {"width": 50, "height": 90, "shoulder": 10, "hole": 4}, 4400 - 4 * math.pi),
        ("arch", {"width": 50, "height": 80, "rise": 25}, 50 * 55 + math.pi * 25**2 / 2),
        ("arch", {"width": 50, "height": 80, "rise": 40}, 50 * 40 + math.pi * 25 * 40 / 2),
        # crests and troughs cancel out
        ("wave-top", {"width": 90, "height": 50, "waves": 4, "depth": 10}, 90 * 45),
    ],
)
def test_areas(kind: str, values: dict[str, float], expected: float) -> None:
    assert area(kind, **values) == pytest.approx(expected, rel=1e-9)


def test_scallops_are_a_whole_number_on_every_side() -> None:
    """74 - 2 * 2 = 70 at a pitch of 9.5: 7 scallops of 10; 44 - 4 = 40: 4 of 10."""
    figure = FIGURES["scalloped-rectangle"].model_validate(
        {"kind": "scalloped-rectangle", "width": 74, "height": 44, "pitch": 9.5, "depth": 2}
    )
    region = figure.outline({})
    assert region.nodes == 2 * (7 + 4)
    assert region.bounds.as_list() == pytest.approx([0, 0, 74, 44])
    # each scallop is a circular segment of chord 10 and rise 2
    r = (25 + 4) / 4
    segment = r * r * math.asin(5 / r) - 5 * (r - 2)
    assert region.area == pytest.approx(2800 + 22 * segment, rel=1e-9)


def test_hearts_stand_on_their_point_and_are_even() -> None:
    region = FIGURES["heart"]().outline({})
    assert region.centroid[0] == pytest.approx(region.bounds.centre[0], abs=1e-9)
    assert region.centroid[1] < region.bounds.centre[1]


def test_outlines_are_remembered_by_their_values() -> None:
    cls = FIGURES["circle"]
    first = outline_of(cls.model_validate({"diameter": 33}), {})
    assert outline_of(cls.model_validate({"diameter": 33.0}), {}) is first
    assert outline_of(cls.model_validate({"diameter": 34}), {}) is not first
