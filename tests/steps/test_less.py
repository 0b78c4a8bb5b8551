"""A panel less a margin: what is quick for rectangles is what all other outlines get."""

from __future__ import annotations

import pytest

from stileblade.geometry.measures.distances import is_same
from stileblade.geometry.regions.set_operations import polygon
from stileblade.steps.ground import _less

PANEL = [(0.0, 0.0), (105.0, 0.0), (105.0, 148.5), (0.0, 148.5)]
WITH_A_NODE_MORE = [*PANEL[:3], (60.0, 148.5), PANEL[3]]


@pytest.mark.parametrize(
    "folds",
    [
        (),
        (("x", 0.0, -1.0, 2.0),),
        (("x", 0.0, -1.0, 0.0), ("x", 105.0, 1.0, 6.5)),
        (("y", 0.0, -1.0, 4.0), ("x", 105.0, 1.0, 0.5), ("y", 148.5, 1.0, 0.0)),
    ],
)
@pytest.mark.parametrize("margin", [0.0, 4.0, 12.25])
def test_a_rectangle_s_sides_lie_where_those_of_any_outline_do(
    margin: float, folds: tuple[tuple[str, float, float, float], ...]
) -> None:
    quick, other = (_less(polygon(p), margin, folds) for p in (PANEL, WITH_A_NODE_MORE))
    assert quick
    assert is_same(quick, other)
    assert quick.bounds.as_list() == pytest.approx(other.bounds.as_list(), abs=1e-9)


def test_of_a_rectangle_nothing_is_left_where_margins_meet() -> None:
    """A fold's side takes the fold's margin alone."""
    assert not _less(polygon(PANEL), 52.5, ())
    assert _less(polygon(PANEL), 52.5, (("x", 0.0, -1.0, 2.0),)).bounds.width == 50.5
    assert not _less(polygon(PANEL), 103.0, (("x", 0.0, -1.0, 2.0),))
