"""Folding flat: sizes, layers, order, what cannot be folded; checked by independent means too."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from stileblade.card.ways import WAYS
from stileblade.design.evaluation import evaluate
from stileblade.folding.closed import closed_card
from stileblade.folding.faces import sheet_of
from stileblade.folding.flat import Folded, fold_flat, over_each_other
from stileblade.folding.space import corners_in_space, maps_in_space, sequence
from stileblade.geometry.measures.cells import area_of, points_of
from stileblade.piece.work import Work
from tests.conftest import design_of

BLANK = {"kind": "blank"}
CLOSED = [k for k in WAYS.names() if k != "own"]


def made(*steps: dict[str, Any], **card: Any) -> Work:
    work = evaluate(design_of(*(steps or (BLANK,)), **card)).pieces[0].work
    assert work is not None
    return work


def order_of(folded: Folded) -> list[str]:
    return [folded.faces[i].panel for i in folded.order]


@pytest.mark.parametrize("kind", CLOSED)
@pytest.mark.parametrize("creases", ["upright", "level"])
@pytest.mark.parametrize("swapped", [False, True])
def test_a_blank_closes_to_the_card_size(kind: str, creases: str, swapped: bool) -> None:
    folding = {"creases": creases, "swapped": swapped}
    folded = fold_flat(made(way=kind, folding=folding))
    assert folded.closed == pytest.approx((107.95, 139.7), abs=1e-3)
    assert [t for t in folded.troubles if t.what != "tight"] == []


@pytest.mark.parametrize(
    ("kind", "order", "layers"),
    [
        ("side-fold", ["front", "back"], 2),
        ("gatefold", ["right door", "left door", "back"], 2),
        ("roll-3", ["front", "inner", "back"], 3),
        ("roll-4", ["front", "inner", "innermost", "back"], 4),
        ("window-card", ["front", "liner", "back"], 3),
        ("accordion", ["front", "panel 3", "panel 2", "back"], 4),
        # the two outer creases nest: the inner panels lie between front and back
        ("double-parallel", ["front", "inner back", "inner front", "back"], 4),
        ("french-fold", ["front", "inner right", "inner left", "back"], 4),
        ("side-fold-flap", ["flap", "front", "back"], 3),
    ],
)
def test_layers_from_front_to_back(kind: str, order: list[str], layers: int) -> None:
    folded = fold_flat(made(way=kind))
    assert order_of(folded) == order
    assert folded.layers == layers


def test_bulk_counts_the_thickest_place_alone() -> None:
    """A gatefold's doors lie side by side: two layers, never three. A big window in the back of a
    side fold leaves the two layers at its rim."""
    assert fold_flat(made(way="gatefold")).layers == 2
    window = {"kind": "window", "target": "back", "outline": {"kind": "circle", "diameter": 90}}
    assert fold_flat(made(BLANK, window)).layers == 2


@pytest.mark.parametrize("kind", WAYS.names())
def test_folding_keeps_area(kind: str) -> None:
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 22}, "crosses": True}
    work = made(BLANK, window, way=kind)
    folded = fold_flat(work)
    assert sum(area_of(f.cell) for f in folded.faces) == pytest.approx(work.paper.area, abs=1)
    for face in folded.faces:
        assert area_of(face.closed_cell) == pytest.approx(area_of(face.cell), abs=1e-6)


@pytest.mark.parametrize("kind", CLOSED)
def test_folding_in_space_ends_where_folding_flat_says(kind: str) -> None:
    """Two ways to the same place: rotations about hinges, and mirror maps across creases. Paper
    keeps its lengths at every stage, and a closed card opened again is as it was."""
    work = made(way=kind)
    folded = fold_flat(work)
    stages = sequence(work)
    flat = corners_in_space(work, stages[0])
    closed = corners_in_space(work, stages[-1])
    for face, before, after in zip(folded.faces, flat, closed, strict=True):
        corners = points_of(face.closed_cell) * (1, -1)
        assert after[:, :2] == pytest.approx(corners, abs=1e-6)
        assert np.abs(after[:, 2]).max() < 1e-6
        assert before[:, :2] == pytest.approx(points_of(face.cell) * (1, -1), abs=1e-9)
    for angles in [*stages, *([a / 2 for a in s] for s in stages)]:
        for face, matrix in zip(folded.faces, maps_in_space(work, angles), strict=True):
            assert matrix[:3, :3] @ matrix[:3, :3].T == pytest.approx(np.eye(3), abs=1e-9)
            if face.joint and face.parent is not None:
                ends = np.array([face.joint.start, face.joint.end]) * (1, -1)
                homogeneous = np.column_stack([ends, np.zeros(2), np.ones(2)])
                parent = maps_in_space(work, angles)[face.parent]
                assert homogeneous @ matrix.T == pytest.approx(homogeneous @ parent.T, abs=1e-9)


@pytest.mark.parametrize("kind", CLOSED)
def test_closed_layers_do_not_lie_in_each_other(kind: str) -> None:
    """With the paper's thickness, overlapping faces of the closed card are one thickness apart, in
    the order that folding flat found, seen from the front."""
    work = made(way=kind, thickness=0.3)
    folded = fold_flat(work)
    maps = maps_in_space(work, sequence(work)[-1], 0.3)
    root = next(f.level for f in folded.faces if f.parent is None)
    for face, matrix in zip(folded.faces, maps, strict=True):
        # half a thickness behind the outside, which is z = 0 of the face
        middle = matrix @ np.array([*points_of(face.cell)[0] * (1, -1), -0.15, 1.0])
        assert middle[2] == pytest.approx(-0.15 - 0.3 * (face.level - root), abs=1e-6)


def test_the_two_spans_of_a_french_fold_close_on_the_same_line() -> None:
    """Its faces hang together in a ring: closed, all four joints meet."""
    work = made(way="french-fold")
    sheet = sheet_of(work)
    assert len(sheet.joints) == 4
    assert {str(j.direction) for j in sheet.joints if work.folds[j.fold].name == "fold 2"} == {
        "mountain", "valley",
    }  # fmt: skip
    assert fold_flat(work).troubles == ()


def own(*rows: tuple[float, str, int], front: int) -> dict[str, Any]:
    return {
        "panels": [{"width": w, "direction": d, "order": n} for w, d, n in rows],
        "front": front,
    }


def test_a_panel_too_long_to_lie_inside_passes_through_the_crease() -> None:
    """Rolled up from the left, an inner panel 3 mm longer than the one it folds on to."""
    rows = ((63, "mountain", 1), (60, "mountain", 2), (60, "mountain", 1))
    (trouble,) = fold_flat(made(way="own", folding=own(*rows, front=3))).troubles
    assert (trouble.what, trouble.face, trouble.fold) == ("through", "panel 1", "fold 2")
    assert trouble.by == pytest.approx(3, abs=1e-6)


def test_a_panel_without_room_is_told_as_tight() -> None:
    rows = ((59.6, "mountain", 1), (60, "mountain", 2), (60, "mountain", 1))
    (trouble,) = fold_flat(made(way="own", folding=own(*rows, front=3))).troubles
    assert (trouble.what, trouble.face) == ("tight", "panel 1")
    assert trouble.by == pytest.approx(0.4, abs=1e-6)


def test_creases_that_nest_must_fold_together() -> None:
    """Double parallel, but the left crease only after the right one: its panel would have to
    swing through the front."""
    rows = ((58, "valley", 3), (58, "mountain", 1), (60, "mountain", 2), (60, "mountain", 1))
    apart = fold_flat(made(way="own", folding=own(*rows, front=4)))
    assert {t.what for t in apart.troubles} == {"through"}
    rows = ((58, "valley", 2), *rows[1:])
    assert [t.what for t in fold_flat(made(way="own", folding=own(*rows, front=4))).troubles] == []


def test_a_slanting_fold_mirrors_across_itself() -> None:
    """A square of 60 folded along its diagonal closes to half of itself, in two layers."""
    square = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 60}}
    fold = {"kind": "fold-line", "by": "angle", "angle": 45, "target": "figure"}
    work = made(square, fold)
    folded = fold_flat(work)
    assert folded.layers == 2
    assert folded.closed == pytest.approx((60, 60), abs=1e-6)
    assert area_of(closed_card(work).outline) == pytest.approx(1800, abs=0.5)


def test_a_slanting_fold_off_the_middle_is_exact() -> None:
    """A strip 200 x 20 folded at 45 degrees at its middle becomes an L with legs of 110."""
    strip = {"kind": "figure", "outline": {"kind": "rectangle", "width": 200, "height": 20}}
    fold = {"kind": "fold-line", "by": "angle", "angle": 45, "target": "figure", "x": 90, "y": 0}
    folded = fold_flat(made(strip, fold))
    assert folded.closed == pytest.approx((110, 110), abs=1e-6)


@given(
    st.sampled_from(CLOSED), st.floats(30, 80), st.floats(-20, 20), st.floats(-20, 20),
    st.sampled_from(["front", "back"]),
)  # fmt: skip
@settings(max_examples=40)
def test_shapes_and_windows_fold_without_loss(
    kind: str, size: float, dx: float, dy: float, target: str
) -> None:
    """Whatever is welded on and cut out: faces add up, and the closed outline is no larger than
    all faces, no smaller than the largest."""
    weld = {"kind": "weld", "target": target, "at": "foot", "dx": dx, "dy": dy,
            "outline": {"kind": "heart", "width": size, "height": size}}  # fmt: skip
    work = made(BLANK, weld, way=kind)
    folded = fold_flat(work)
    areas = [area_of(f.cell) for f in folded.faces]
    assert sum(areas) == pytest.approx(work.paper.area, rel=1e-3)
    outline = area_of(closed_card(work).outline)
    assert max(areas) - 1e-6 <= outline <= sum(areas) + 1e-6
    box = folded.closed_box
    drawn = points_of(closed_card(work).outline)
    low, high = drawn.min(axis=0), drawn.max(axis=0)
    assert box.as_list() == pytest.approx([*low, *high], abs=0.02)


def test_reveal_and_what_stands_out() -> None:
    """A disc of 60 set 10 inside the front's open edge stands 20 beyond the back; one on the back
    is seen as far beyond the front."""
    disc = {"kind": "weld", "at": "right", "dx": -10, "outline": {"kind": "circle", "diameter": 60}}
    part = 30**2 * np.arccos(10 / 30) - 10 * np.sqrt(30**2 - 10**2)
    front = closed_card(made(BLANK, disc))
    assert (front.out_by, front.reveal_by) == pytest.approx((20, 0), abs=0.01)
    assert front.out_area == pytest.approx(part, abs=1)
    back = closed_card(made(BLANK, {**disc, "target": "back", "at": "left", "dx": 10}))
    assert (back.out_by, back.reveal_by) == pytest.approx((0, 20), abs=0.01)
    assert back.reveal_area == pytest.approx(part, abs=1)


def test_the_gap_of_a_gatefold_is_its_reveal_and_a_window_is_none() -> None:
    """1 mm along 139.7."""
    assert closed_card(made(way="gatefold")).reveal_area == pytest.approx(139.7, abs=0.5)
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 40}}
    assert closed_card(made(BLANK, window)).reveal_area == 0


@pytest.mark.parametrize(
    ("kind", "over"),
    [
        ("side-fold", ((),)),
        ("gatefold", ((), ())),
        ("roll-3", ((1,), (0,))),
        ("window-card", ((1,), (0,))),
        ("side-fold-flap", ((1,), (0,))),
    ],
)
def test_folds_that_lie_over_each_other(kind: str, over: tuple[tuple[int, ...], ...]) -> None:
    """The two doors of a gatefold meet in the middle: each opens by itself."""
    assert over_each_other(made(way=kind)) == over
