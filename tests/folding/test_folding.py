"""Faces, the half-open picture and the coarse outlines of the folded view."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from stileblade.build.evaluation import Evaluation
from stileblade.build.work import Work
from stileblade.card.stock import Paper
from stileblade.folding.flat import fold_flat
from stileblade.folding.foot import contact
from stileblade.folding.picture import half_open
from stileblade.folding.space import MOST_CORNERS, faces_in_space

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
    back, front = faces_in_space(finished(evaluated({"kind": "blank"}, way=way)))
    assert (front.panel, front.parent, front.hinge) == ("front", None, None)
    assert (back.panel, back.parent) == ("back", 1)
    assert back.hinge is not None
    assert (back.hinge.axis, back.hinge.at, back.hinge.direction) == (axis, at, "mountain")
    assert len(front.rings) == 1
    assert len(front.rings[0]) == 4


def test_openings_run_against_their_outline(evaluated: Run) -> None:
    window = {"kind": "window", "outline": {"kind": "rectangle", "width": 30, "height": 30}}
    _, front = faces_in_space(finished(evaluated({"kind": "blank"}, window)))
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
    picture = half_open(work, Paper())
    assert [s.side for s in picture.shapes] == ["inside", "outside"]
    assert [s.fill for s in picture.shapes] == [Paper().inside, Paper().outside]
    left, head, width, height = picture.box
    # the back lies flat, 107.95 wide; the front comes nearer and so grows
    assert width == pytest.approx(107.95, abs=1e-2)
    assert height > 139.7
    assert left == pytest.approx(107.95)
    assert head <= 0


def test_contact_is_measured_at_the_foot_of_the_part_that_stands(evaluated: Run) -> None:
    """Notched from below, 30 wide: 107.95 - 30 of the front's foot are left, in two stretches."""
    notch = {
        "kind": "cut-away", "target": "front", "at": "foot", "by": "foot",
        "outline": {"kind": "rectangle", "width": 30, "height": 12},
    }  # fmt: skip
    work = finished(evaluated({"kind": "blank"}, notch))
    front = next(f for f in fold_flat(work).faces if f.panel == "front")
    stretches = contact(work.paper, front.box)
    assert [b[0] - a[0] for a, b in stretches] == pytest.approx([38.975, 38.975], abs=1e-6)
