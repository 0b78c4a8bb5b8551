"""Faces, the half-open picture and the coarse outlines of the folded view."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from stileblade.card.stock import Paper
from stileblade.design.evaluation import Evaluation
from stileblade.folding.flat import fold_flat
from stileblade.folding.space import MOST_CORNERS, faces_in_space
from stileblade.folding.stand import stand_of
from stileblade.piece.work import Work
from stileblade.views.folded import folded_picture

Run = Callable[..., Evaluation]
WELD = {
    "kind": "weld", "at": "right", "dx": -10, "outline": {"kind": "circle", "diameter": 60},
}  # fmt: skip


def finished(evaluation: Evaluation) -> Work:
    work = evaluation.pieces[0].work
    assert work is not None
    return work


def test_an_overhang_makes_the_closed_card_wider(evaluated: Run) -> None:
    """A disc of 60 set 10 inside the open edge stands 20 over it."""
    work = finished(evaluated({"kind": "blank"}, WELD))
    assert fold_flat(work).closed == pytest.approx((127.95, 139.7), abs=1e-9)


def test_an_overhang_of_the_back_counts_as_well(evaluated: Run) -> None:
    weld = {**WELD, "target": "back", "at": "left", "dx": 10}
    work = finished(evaluated({"kind": "blank"}, weld))
    assert fold_flat(work).closed == pytest.approx((127.95, 139.7), abs=1e-9)


def test_a_figure_without_fold_is_its_own_only_face(evaluated: Run) -> None:
    work = finished(evaluated({"kind": "figure", "outline": {"kind": "heart"}}))
    folded = fold_flat(work)
    assert (len(folded.faces), folded.layers) == (1, 1)
    assert folded.closed == pytest.approx((70, 64))


@pytest.mark.parametrize(
    ("way", "axis", "at"), [("side-fold", "x", 107.95), ("top-fold", "y", 139.7)]
)
def test_faces_hang_on_the_front_by_the_fold(
    evaluated: Run, way: str, axis: str, at: float
) -> None:
    faces = faces_in_space(finished(evaluated({"kind": "blank"}, way=way)))
    front, back = sorted(faces, key=lambda f: f.panel, reverse=True)
    assert (front.panel, front.parent, front.hinge) == ("front", None, None)
    assert back.panel == "back"
    assert back.parent == faces.index(front)
    assert back.hinge is not None
    along = 0 if axis == "x" else 1
    assert (back.hinge.start[along], back.hinge.end[along]) == pytest.approx((at, at))
    assert len(front.rings) == 1
    assert len(front.rings[0]) == 4


def test_openings_run_against_their_outline(evaluated: Run) -> None:
    window = {"kind": "window", "outline": {"kind": "rectangle", "width": 30, "height": 30}}
    faces = faces_in_space(finished(evaluated({"kind": "blank"}, window)))
    front = next(f for f in faces if f.panel == "front")
    areas = [
        sum(x * ny - nx * y for (x, y), (nx, ny) in zip(r, r[1:] + r[:1], strict=True)) / 2
        for r in front.rings
    ]
    assert areas == pytest.approx([107.95 * 139.7, -900])


def test_heavy_outlines_are_thinned_to_what_can_be_turned(evaluated: Run) -> None:
    scallops = {"kind": "scalloped-circle", "diameter": 180, "scallops": 200, "depth": 2}
    mirror = {"kind": "mirror", "towards": "left", "lap": 20}
    size = {"name": "x", "width": 300, "height": 300, "envelope": None}
    work = finished(evaluated({"kind": "figure", "outline": scallops}, mirror, size=size))
    corners = sum(len(r) for f in faces_in_space(work) for r in f.rings)
    assert 200 < corners <= MOST_CORNERS + 8


def test_the_half_open_picture_shows_the_front_before_the_inside_of_the_back(
    evaluated: Run,
) -> None:
    work = finished(evaluated({"kind": "blank"}))
    picture = folded_picture(work, Paper())
    assert [s.side for s in picture.shapes] == ["inside", "outside"]
    assert [s.fill for s in picture.shapes] == [Paper().inside, Paper().outside]
    _, _, width, height = picture.box
    # seen from the right and above: narrower than the front, higher for the back's upper edge
    assert 60 < width < 107.95
    assert 139.7 * 0.9 < height < 139.7 * 1.3


def test_the_foot_is_what_touches_the_table_of_each_panel(evaluated: Run) -> None:
    """Notched from below, 30 wide: 107.95 - 30 of the front's foot are left, in two stretches."""
    notch = {
        "kind": "cut-away", "target": "front", "at": "foot", "by": "foot",
        "outline": {"kind": "rectangle", "width": 30, "height": 12},
    }  # fmt: skip
    stand = stand_of(finished(evaluated({"kind": "blank"}, notch)))
    assert stand is not None
    front = next(f for f in stand.feet if f.panel == "front")
    lengths = [b[0] - a[0] for a, b in front.stretches]
    assert lengths == pytest.approx([38.975, 38.975], abs=1e-6)
    assert (front.touching, front.apart) == pytest.approx((77.95, 107.95), abs=1e-6)
    back = next(f for f in stand.feet if f.panel == "back")
    assert back.touching == pytest.approx(107.95, abs=1e-6)
