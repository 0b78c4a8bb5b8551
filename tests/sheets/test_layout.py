"""Laying out: figures, gaps, edges, holes, grain; every layout verified by exact distances."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from bench.nesting import made_up
from stileblade.geometry.measures import rows
from stileblade.sheets.layout.boxes import by_boxes
from stileblade.sheets.layout.distances import apart
from stileblade.sheets.layout.pack import lay_out, lower_bound, quickly
from stileblade.sheets.layout.parts import Format, Part, Placed, Turns
from stileblade.sheets.layout.placing import laid
from stileblade.sheets.layout.settling import settled


def rectangle(width: float, height: float, key: str = "r", **more: object) -> Part:
    return Part(key, shapely.box(0, 0, width, height), **more)  # type: ignore[arg-type]


@pytest.mark.parametrize(("gap", "sheets"), [(2.0, 2), (1.0, 1), (0.5, 1)])
def test_two_a6_bases_on_a4_without_an_edge(gap: float, sheets: int) -> None:
    """148 + 148 + 1 = 297 exactly; with a gap of 2 there is one on each sheet."""
    assert lay_out([rectangle(210, 148)] * 2, Format(210, 297, 0, gap)).sheets == sheets


def test_two_a2_bases_on_twelve_inches() -> None:
    """139.7 + 2 + 139.7 = 281.4 of 304.8 - 2 x 6.35 = 292.1."""
    form = Format(304.8, 304.8, 6.35, 2)
    assert lay_out([rectangle(215.9, 139.7)] * 2, form).sheets == 1
    assert lay_out([rectangle(215.9, 139.7)] * 3, form).sheets == 2


def test_small_pieces_go_into_windows_of_large_ones() -> None:
    frame = shapely.box(0, 0, 200, 287).difference(shapely.box(20, 20, 180, 267))
    parts = [Part("frame", frame), *[rectangle(70, 70, f"s{i}") for i in range(6)]]
    layout = lay_out(parts, Format(210, 297, 5, 2))
    assert layout.sheets == 1
    assert apart(layout.placed, layout.form) == []
    boxes = by_boxes(parts, layout.form)
    assert boxes is not None
    assert max(p.sheet for p in boxes) > 0


def test_folds_along_the_grain_are_turned_by_halves_alone() -> None:
    """Of 200 x 100 on 210 x 297 two lie beside each other turned by a quarter; by halves they lie one above
    the other; not turned at all they are at 0."""
    form = Format(210, 297, 5, 2)
    for turns, angles in ((Turns.HALVES, {0.0, 180.0}), (Turns.NONE, {0.0})):
        layout = lay_out([rectangle(190, 60, turns=turns)] * 4, form)
        assert {p.turn for p in layout.placed} <= angles
    tall = lay_out([rectangle(60, 190, turns=Turns.HALVES, first=90.0)] * 2, form)
    assert {p.turn for p in tall.placed} <= {90.0, 270.0}


def test_what_is_locked_stays_and_the_rest_is_laid_round_it() -> None:
    form = Format(210, 297, 5, 2)
    locked = Placed(rectangle(80, 80, "l"), 0, 60.123, 100.456, 0.0, locked=True)
    layout = lay_out([rectangle(90, 60, "a")] * 4, form, locked=[locked])
    assert locked in layout.placed
    assert apart(layout.placed, form) == []
    assert layout.sheets == 1


def test_what_a_person_locked_too_near_stays_and_stops_nothing() -> None:
    form = Format(210, 297, 5, 2)
    part = rectangle(50, 50, "l")
    locked = [Placed(part, 0, 5, 5, 0, locked=True), Placed(part, 0, 56.9995, 5, 0, locked=True)]
    layout = lay_out([rectangle(40, 30, "a")] * 3, form, locked=locked)
    assert len(layout.placed) == 5
    assert apart(layout.placed, form) == []


def test_what_is_used_of_a_sheet_is_left_alone() -> None:
    used = shapely.box(5, 5, 205, 150)
    form = Format(210, 297, 5, 2, taken=((used,),))
    layout = lay_out([rectangle(90, 60, "a")] * 4, form)
    assert apart(layout.placed, form) == []
    assert all(p.y >= 152 - 1e-6 for p in layout.placed if p.sheet == 0)


def test_it_is_stopped_with_the_best_so_far() -> None:
    parts = made_up(30, 3)
    told = []

    def progress(share: float, sheets: int) -> bool:
        told.append((share, sheets))
        return False

    layout = lay_out(parts, Format(210, 297), progress=progress)
    assert len(layout.placed) == 30
    assert apart(layout.placed, layout.form) == []
    assert len(told) <= 2


@pytest.mark.parametrize("seed", [0, 1, 2])
def test_made_up_pieces(seed: int) -> None:
    """No more sheets than boxes need, all distances right, the same each time."""
    parts = made_up(30, seed)
    form = Format(210, 297)
    layout, boxes = lay_out(parts, form), by_boxes(parts, form)
    assert boxes is not None
    assert lower_bound(parts, form) <= layout.sheets <= 1 + max(p.sheet for p in boxes)
    assert apart(layout.placed, form) == []
    assert sorted(p.part.key for p in layout.placed) == sorted(p.key for p in parts)
    again = lay_out(made_up(30, seed), form)
    where = [(p.part.key, p.sheet, p.x, p.y, p.turn) for p in layout.placed]
    assert where == [(p.part.key, p.sheet, p.x, p.y, p.turn) for p in again.placed]


@pytest.mark.parametrize("seed", [2, 4, 7])
def test_sixty_made_up_pieces_need_fewer_sheets_than_in_one_order(seed: int) -> None:
    parts, form = made_up(60, seed), Format(210, 297)
    layout = lay_out(parts, form)
    assert lower_bound(parts, form) <= layout.sheets < quickly(parts, form)
    assert apart(layout.placed, form) == []


def test_upright_edges_on_the_grid_lose_nothing() -> None:
    """2 x 99 + 2 = 200 and 2 x 142 + 2 = 286 lie on A4 within an edge of 5."""
    parts = [rectangle(99, 142, str(i), turns=Turns.NONE) for i in range(4)]
    found = laid(parts, Format(210, 297), (), None, lowest=True)
    assert found is not None
    assert {p.sheet for p in found} == {0}
    assert apart(settled(found, Format(210, 297)), Format(210, 297)) == []


@settings(max_examples=60, deadline=None)
@given(st.integers(0, 10_000), st.sampled_from([0.7, 1.0, 2.5]))
def test_cells_that_a_shape_touches(seed: int, cell: float) -> None:
    """Those of which it has an area, by the kernel; between two of them in a row none is left out."""
    shape = shapely.transform(made_up(1, seed)[0].shape, lambda p: p * 0.2 - [3.3, 1.7])
    runs = rows.touched(shape, cell)
    told = {(int(r), c) for r, first, last in runs for c in range(int(first), int(last))}
    left, head, right, foot = (int(v // cell) for v in shape.bounds)
    for row in range(head - 1, foot + 2):
        for column in range(left - 1, right + 2):
            box = shapely.box(*(cell * np.array([column, row, column + 1, row + 1])))
            area = shapely.area(shapely.intersection(shape, box))
            assert ((row, column) in told) == (area > 1e-5) or area < 1e-3, (row, column, area)


@pytest.mark.parametrize("gap", [0.0, 2.0, 7.5])
def test_what_is_nearer_than_the_gap_is_within_what_is_grown(gap: float) -> None:
    for seed in range(6):
        shape = made_up(1, seed)[0].shape
        grown = rows.grown(shape, gap)
        exact = shapely.buffer(shape, gap, quad_segs=64)
        assert shapely.area(shapely.difference(exact, grown)) < 1e-3
        assert shapely.area(shapely.difference(grown, exact)) < 0.15 * shape.length
        box = shapely.bounds(shape) + [-gap, -gap, gap, gap]
        assert np.allclose(shapely.bounds(grown), box, atol=0.01)
        assert shapely.covers(shapely.box(*box), grown)


def test_pieces_are_moved_together_to_the_gap() -> None:
    """None can be moved by half a mm towards the head or to the left."""
    form = Format(210, 297)
    layout = lay_out(made_up(30, 1), form)
    for placed in layout.placed:
        for x, y in ((-0.5, 0.0), (0.0, -0.5)):
            moved = replace(placed, x=placed.x + x, y=placed.y + y)
            rest = [p for p in layout.placed if p is not placed]
            assert apart([*rest, moved], form), (placed.part.key, x, y)


def test_a_piece_slides_along_its_neighbour() -> None:
    """Beside one at exactly the gap, up to the next one at the gap."""
    form = Format(210, 297)
    head = Placed(rectangle(60, 30, "head"), 0, 60.0, 5.0, 0.0, locked=True)
    side = Placed(rectangle(53, 200, "side"), 0, 5.0, 5.0, 0.0, locked=True)
    low = Placed(rectangle(40, 40, "low"), 0, 60.0, 150.0, 0.0)
    moved = next(p for p in settled([head, side, low], form) if not p.locked)
    assert moved.x == 60.0
    assert 37.0 <= moved.y < 37.001


@settings(max_examples=25, deadline=None)
@given(
    st.integers(1, 12),
    st.integers(0, 10_000),
    st.sampled_from([0.0, 1.0, 3.5]),
    st.sampled_from(list(Turns)),
)
def test_no_two_are_nearer_than_the_gap(count: int, seed: int, gap: float, turns: Turns) -> None:
    """Distances measured by the kernel between all pairs, not by the raster."""
    form = Format(297, 420, 7, gap)
    parts = [Part(p.key, p.shape, turns) for p in made_up(count, seed)]
    parts = [p for p in parts if form.fits(p)]
    layout = lay_out(parts, form)
    shapes = [p.shape for p in layout.placed]
    inner = shapely.box(7, 7, 290, 413).buffer(1e-6)
    for i, placed in enumerate(layout.placed):
        assert inner.contains(shapes[i])
        for j in range(i):
            if layout.placed[j].sheet == placed.sheet:
                assert shapes[i].intersection(shapes[j]).area < 1e-9
                assert shapes[i].distance(shapes[j]) >= gap - 1e-6


def test_a_wrong_layout_is_told() -> None:
    form = Format(210, 297, 5, 2)
    near = [Placed(rectangle(50, 50), 0, 5, 5, 0), Placed(rectangle(50, 50), 0, 56.5, 5, 0)]
    assert apart(near, form) == ["r is 1.500 mm from another on sheet 1"]
    over = [Placed(rectangle(50, 50), 0, 4, 5, 0)]
    assert apart(over, form) == ["r is 1.000 mm over the edge of sheet 1"]
