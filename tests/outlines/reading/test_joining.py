"""Loose ways joined end to end."""

from __future__ import annotations

import numpy as np
import pytest

from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.measurement import signed_area
from stileblade.geometry.curves.segments import Segments
from stileblade.geometry.paths.pathdata import read_path_to_error
from stileblade.outlines.reading.joining import join


def ways(*paths: str) -> list[Segments]:
    return [read_path_to_error(p)[0].open[0] for p in paths]


def is_closed(contour: Segments) -> bool:
    return bool((contour.end == np.roll(contour.start, -1, axis=0)).all())


def test_four_sides_in_any_order_and_direction_are_one_contour() -> None:
    sides = ["M0 0H20", "M20 10H0", "M20 0V10", "M0 0V10"]
    for turn in range(4):
        found = join(ways(*sides[turn:], *sides[:turn]), 0.05)
        (contour,) = found.closed
        assert is_closed(contour)
        assert abs(signed_area(contour)) == pytest.approx(200)
        assert (found.open, found.bridged) == ([], 0)


def test_gaps_up_to_the_tolerance_are_bridged_half_way() -> None:
    """Ends 0.04 apart meet at 20.02; lines and handles follow, no scrap is put in."""
    found = join(ways("M0 0H20", "M20.04 0C20.04 5 20 8 20 10", "M20 10H0V0"), 0.05)
    (contour,) = found.closed
    assert (len(contour), found.bridged) == (4, 1)
    assert found.widest == pytest.approx(0.04)
    cubic = contour.take(contour.kind == Kind.CUBIC)
    ends = {tuple(cubic.start[0].round(9)), tuple(cubic.end[0].round(9))}
    assert ends == {(20.02, 0.0), (20.0, 10.0)}
    handles = cubic.coef[0].reshape(4, 2)
    assert any(np.allclose(h, (20.02, 5)) for h in handles)
    apart = join(ways("M0 0H20", "M20.06 0V10", "M20.06 10H0V0"), 0.05)
    assert apart.closed == []
    assert len(apart.open) == 1


def test_the_nearest_ends_are_joined_first() -> None:
    """Three ends within reach of each other: the two that touch are joined, the third stays."""
    found = join(ways("M0 0H20", "M20 0V10", "M20.03 0H40"), 0.05)
    assert found.closed == []
    assert sorted(len(w) for w in found.open) == [1, 2]


def test_a_way_that_closes_on_itself_and_one_that_does_not() -> None:
    found = join(ways("M0 0H20V10H0V0.01", "M40 0H60V10"), 0.05)
    assert [len(c) for c in found.closed] == [4]
    assert is_closed(found.closed[0])
    assert [len(o) for o in found.open] == [2]
    assert join([], 0.05).closed == []


def test_arcs_keep_their_circle_when_their_ends_are_pulled() -> None:
    arc, line = ways("M0 0A10 10 0 0 1 20 0", "M20.02 0H0")
    (contour,) = join([arc, line], 0.05).closed
    kept = contour.take(contour.kind == Kind.ARC)
    assert (kept.coef == arc.coef).all()
    assert is_closed(contour)
