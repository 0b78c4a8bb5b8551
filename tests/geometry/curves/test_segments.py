"""The mathematics of segments: derivatives, directions, reversal, cutting, drawing to pens."""

from __future__ import annotations

import math

import numpy as np
import pytest

from stileblade.errors import GeometryError
from stileblade.geometry.curves.crossing import crossings, feet
from stileblade.geometry.curves.flatten import flatten, pack, rounded
from stileblade.geometry.curves.measurement import lengths, signed_area
from stileblade.geometry.curves.parallel import OffsetCurves
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import (
    TAU,
    Segments,
    arc,
    beziers,
    concatenate,
    lines,
    transformed_all,
)
from stileblade.geometry.curves.transforms import after, identity, rotation, scaling, translation
from stileblade.geometry.paths.drawing import Drawing, centre_form
from stileblade.geometry.paths.pens import Arc, bezier_points
from stileblade.tolerance import TOLERANCE

ALL = concatenate(
    [
        lines([[0, 0]], [[30, 10]]),
        beziers([[[0, 0], [20, -30], [40, 0]]]),
        beziers([[[0, 0], [10, 30], [40, 30], [50, 0]]]),
        arc((5, 5), (20, 3), (-4, 12), 0.3, 2.5),
    ]
)
INDEX = np.arange(4)


def test_derivatives_are_those_of_the_points() -> None:
    h = 1e-6
    for share in (0.2, 0.5, 0.9):
        t = ALL.span[:, 0] * (1 - share) + ALL.span[:, 1] * share
        slope = (ALL.points_at(INDEX, t + h) - ALL.points_at(INDEX, t - h)) / (2 * h)
        assert np.allclose(ALL.derivatives_at(INDEX, t), slope, atol=1e-6)


def test_parallels_lie_beside_their_segments_and_move_as_they_do() -> None:
    h, distance = 1e-6, 1.5
    curves = OffsetCurves(ALL, np.full(4, distance), np.array([3, 0, 1, 2]))
    for share in (0.2, 0.5, 0.9):
        t = ALL.span[:, 0] * (1 - share) + ALL.span[:, 1] * share
        places, slope = curves.motion_at(INDEX, t)
        way = ALL.derivatives_at(INDEX, t)
        right = np.stack([way[:, 1], -way[:, 0]], axis=1) / np.hypot(*way.T)[:, None]
        assert np.allclose(places, ALL.points_at(INDEX, t) + distance * right, atol=1e-9)
        moved = (curves.points_at(INDEX, t + h) - curves.points_at(INDEX, t - h)) / (2 * h)
        assert np.allclose(slope, moved, atol=1e-4)


def test_running_backwards_swaps_ends_and_changes_no_point() -> None:
    back = ALL.reversed()
    assert (back.start == ALL.end[::-1]).all()
    assert (back.span == ALL.span[::-1, ::-1]).all()
    assert np.allclose(back.end_directions()[0], -ALL.end_directions()[1][::-1])


def test_maps_of_segments_map_their_points() -> None:
    matrix = after(translation(3, -7), after(rotation(33, about=(2, 1)), scaling(2, 0.5)))
    t = ALL.span.mean(axis=1)
    direct = ALL.points_at(INDEX, t) @ matrix[:, :2].T + matrix[:, 2]
    assert np.allclose(ALL.transformed(matrix).points_at(INDEX, t), direct, atol=1e-12)
    assert (after(identity(), matrix) == matrix).all()


def test_many_maps_at_once_are_as_one_by_one() -> None:
    """Reversing ones among them, and parts without segments; what stays stays to the last bit."""
    turned = after(translation(3, -7), after(rotation(33), scaling(2, 0.5)))
    matrices = [turned, scaling(-1.5, 1.5), identity(), turned]
    parts = [ALL, ALL.take(INDEX[:2]), ALL.take(INDEX[1:]), Segments.empty()]
    found = transformed_all(parts, matrices)
    assert [len(part) for part in found] == [4, 2, 3, 0]
    for part, matrix, made in zip(parts, matrices, found, strict=True):
        wanted = part.transformed(matrix)
        for name in ("kind", "coef", "span", "start", "end"):
            assert np.allclose(getattr(made, name), getattr(wanted, name), atol=1e-12)
    assert (found[2].coef == parts[2].coef).all()
    assert transformed_all([], []) == []


def test_quarter_turns_are_exact() -> None:
    assert (rotation(90)[:, :2] == [[0, -1], [1, 0]]).all()
    assert (rotation(-270) == rotation(90)).all()
    assert (rotation(720) == identity()).all()


def test_stretches_of_beziers_have_their_own_control_points() -> None:
    """A cubic's stretch from 0.2 to 0.7 as a curve of its own runs through the same points."""
    whole = beziers([[[0, 0], [10, 30], [40, 30], [50, 0]]])
    zero = np.zeros(1, np.int64)
    ends = whole.points_at(np.zeros(2, np.int64), np.array([0.2, 0.7]))
    cut = type(whole)(whole.kind, whole.coef, np.array([[0.2, 0.7]]), ends[:1], ends[1:])
    own = beziers(bezier_points(cut))
    for s in (0.0, 0.3, 1.0):
        assert np.allclose(
            own.points_at(zero, np.array([s])), whole.points_at(zero, np.array([0.2 + 0.5 * s]))
        )


def test_flattening_stays_within_its_tolerance_and_shares_grids() -> None:
    """The polyline's midpoints lie within 0.004 mm of the circle; a stretch of it has the very
    same vertices."""
    whole = flatten(arc((0, 0), (50, 0), (0, 50), 0, TAU), np.array([0, 1]))
    middle = (whole.points + whole.ends) / 2
    assert np.abs(np.hypot(*middle.T) - 50).max() < TOLERANCE.flatten
    part = flatten(arc((0, 0), (50, 0), (0, 50), 0.4, 2.9), np.array([0, 1]))
    shared = np.isin(part.keys[1:], whole.keys)
    assert shared.all()


def test_keys_are_equal_if_and_only_if_points_are() -> None:
    points = rounded(np.array([[1.0, 2.0], [1.0, 2.0 + TOLERANCE.grid], [-1.0, 2.0], [1.0, 2.0]]))
    keys = pack(points)
    assert keys[0] == keys[3]
    assert len(set(keys.tolist())) == 3
    with pytest.raises(GeometryError, match="beyond 2 m"):
        rounded(np.array([[3000.0, 0.0]]))
    with pytest.raises(GeometryError):
        rounded(np.array([[float("nan"), 0.0]]))


def test_lengths_and_areas_by_closed_forms() -> None:
    """Half a circle of 10: 10 pi long; a parabola's segment has two thirds of its box."""
    assert lengths(arc((0, 0), (10, 0), (0, 10), 0, math.pi))[0] == pytest.approx(10 * math.pi)
    drawing = Drawing()
    drawing.move(0, 0)
    drawing.quad(15, 40, 30, 0)
    drawing.close()
    assert abs(signed_area(drawing.contours[0])) == pytest.approx(2 / 3 * 30 * 20)


def test_crossings_by_newton_and_where_there_are_none() -> None:
    curves = concatenate([arc((0, 0), (10, 0), (0, 10), 0, TAU), lines([[-20, 6]], [[20, 6]]),
                          lines([[-20, 10]], [[20, 10]]), lines([[-20, 10]], [[20, 10]])])  # fmt: skip
    one = np.array([0])
    t, s, found = crossings(curves, one, np.array([0.6]), one + 1, np.array([0.7]))
    assert found[0]
    assert curves.points_at(one, t)[0] == pytest.approx((8, 6), abs=1e-9)
    assert s[0] == pytest.approx(0.7, abs=1e-9)
    assert not crossings(curves, one + 2, np.array([0.5]), one + 3, np.array([0.5]))[2][0]
    foot = feet(curves, one, np.array([0.9]), np.array([[6.01, 8.02]]))
    assert foot[0] == pytest.approx(math.atan2(8.02, 6.01), abs=1e-9)


@pytest.mark.parametrize(("large", "clockwise"), [(False, True), (True, True), (True, False)])
def test_arcs_by_their_ends_go_the_way_they_are_told(large: bool, clockwise: bool) -> None:
    """From (0, 0) to (10, 0) on a radius of 10: the centre lies sqrt(75) above or below."""
    coef, t0, t1 = centre_form(0, 0, 10, 10, 0, large, clockwise, 10, 0)
    below = large == clockwise
    assert coef[:2] == pytest.approx((5, -math.sqrt(75) if below else math.sqrt(75)))
    assert (t1 > t0) == clockwise
    assert abs(t1 - t0) == pytest.approx(TAU * 5 / 6 if large else TAU / 6)


def test_arcs_as_cubics_and_their_axes() -> None:
    round_ = Arc(np.zeros(2), np.array([50.0, 0]), np.array([0, 50.0]), 0, 2.0,
                 50 * np.array([math.cos(2), math.sin(2)]))  # fmt: skip
    assert round_.clockwise
    assert round_.axes() == (50, 50, 0)
    curve = beziers(np.concatenate([[[[50.0, 0]]], round_.cubics()[:1]], axis=1))
    middle = curve.points_at(np.zeros(9, np.int64), np.linspace(0, 1, 9))
    assert np.abs(np.hypot(*middle.T) - 50).max() < 1e-4
    tilted = Arc(np.zeros(2), np.array([30.0, 30]), np.array([-10.0, 10]), 0, 1, np.zeros(2))
    major, minor, turn = tilted.axes()
    assert (major, minor) == pytest.approx((math.hypot(30, 30), math.hypot(10, 10)))
    assert turn % 180 == pytest.approx(45)


def test_boxes() -> None:
    box = Box(0, 0, 40, 20)
    assert box.shrunk(5).as_list() == [5, 5, 35, 15]
    assert box.transformed(rotation(90, about=box.centre)).as_list() == pytest.approx(
        [10, -10, 30, 30]
    )


def test_wrong_numbers_of_control_points_are_refused() -> None:
    with pytest.raises(GeometryError, match="a Bezier segment has 3 or 4 points"):
        beziers(np.zeros((1, 5, 2)))
