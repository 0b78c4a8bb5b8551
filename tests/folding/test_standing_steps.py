"""Steps that cut and fold across a fold: standing figures, and boxes that come forward."""

from __future__ import annotations

import itertools

import numpy as np
import pytest

from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding.faces import sheet_of
from stileblade.folding.flat import fold_flat
from stileblade.folding.space import in_space, maps_in_space
from stileblade.piece.lines import How
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import piece_of, work_of

BOX = {"kind": "forward-step", "width": 40, "less": 30, "more": 20}
ROUND = {
    "kind": "standing-figure",
    "outline": {"kind": "circle", "diameter": 60},
    "over": 30,
    "relief": 0,
}


def test_a_box_has_two_slits_and_three_folds() -> None:
    """A2: the fold at 107.95, 139.7 long; the box from 49.85 to 89.85. Folds at 77.95, 97.95
    (30 from the one edge less the 20 of the other) and 127.95; 99.7 of the main fold are left."""
    work = work_of(BOX)
    at = {f.name: f.at for f in work.folds}
    assert at == {"fold": 107.95, "step 1.1": 77.95, "step 1.2": 97.95, "step 1.3": 127.95}
    lengths = {name: sum(s.length for s in spans) for name, spans in work.spans.items()}
    assert lengths["fold"] == pytest.approx(99.7, abs=1e-3)
    assert lengths["step 1.2"] == pytest.approx(40, abs=1e-3)
    directions = [f.direction.value for f in work.folds]
    assert directions == ["mountain", "mountain", "valley", "mountain"]
    assert len(work.slits) == 2


def test_a_box_folds_away_between_its_panels() -> None:
    folded = fold_flat(work_of(BOX))
    assert folded.closed == pytest.approx((107.95, 139.7), abs=1e-3)
    assert folded.troubles == ()
    names = [folded.faces[i].name for i in folded.order]
    assert len(names) == 4
    assert names[0].startswith("front")
    assert names[-1].startswith("back")
    assert folded.layers == 4


@pytest.mark.parametrize("angle", [0.0, 35.0, 90.0, 150.0, 180.0])
@pytest.mark.parametrize("way", ["side-fold", "top-fold"])
def test_a_box_stays_joined_at_every_angle(angle: float, way: str) -> None:
    """All joints come together in space, those too on which no face hangs; at a right angle the
    two faces of the box are parallel to the panels, 30 and 20 from them."""
    work = work_of(BOX, way=way)
    folded = fold_flat(work)
    maps = maps_in_space(work, [angle] * len(work.folds))
    for joint in sheet_of(work).joints:
        ends = np.array([joint.start, joint.end])
        a, b = (in_space(maps[f], ends) for f in (joint.a, joint.b))
        assert np.abs(a - b).max() < 1e-6
    if angle == 90:
        normals = [m[:3, 2] for m in maps]
        panels = {f.name: n for f, n in zip(folded.faces, normals, strict=True)}
        inner = [n for name, n in panels.items() if name not in ("front", "back")]
        for n in inner:
            along = [abs(float(n @ panels[p])) for p in ("front", "back")]
            assert sorted(along) == pytest.approx([0, 1], abs=1e-9)


def test_a_box_deeper_than_its_panel_would_stand_out() -> None:
    """70 and 45 together are 7.05 more than 107.95."""
    outcome = piece_of({**BOX, "less": 70, "more": 45}).outcomes[-1]
    assert outcome.problem is not None
    assert "would stand 7.05 mm out of back" in outcome.problem.message
    assert outcome.problem.field == "less"


def test_a_figure_stands_over_the_fold_in_the_plane_of_its_panel() -> None:
    """A circle of 60 whose centre is on the fold: cut round along pi * 30 = 94.248, held along its
    60; closed it stands 30 over the fold, and the card is 137.95 wide."""
    piece = piece_of(ROUND)
    work = piece.work
    assert work is not None
    told = piece.outcomes[-1].step.tells(piece.outcomes[-1].before, work, piece.setting)
    assert [t.value for t in told] == pytest.approx([94.2478, 60], abs=1e-2)
    folded = fold_flat(work)
    assert len(folded.faces) == 2
    assert folded.closed == pytest.approx((137.95, 139.7), abs=0.01)
    front = next(f for f in folded.faces if f.name == "front")
    assert front.box.left == pytest.approx(77.95, abs=0.01)
    assert [line.how for line in work.lines] == [How.CUT]
    assert sum(s.length for s in work.spans["fold"]) == pytest.approx(79.7, abs=1e-3)


def test_it_may_stay_with_either_panel() -> None:
    work = work_of({**ROUND, "stays": "less"})
    back = next(f for f in fold_flat(work).faces if f.name == "back")
    assert back.box.right == pytest.approx(137.95, abs=0.01)


def test_relief_takes_a_round_hole_at_either_end() -> None:
    plain, relieved = work_of(ROUND), work_of({**ROUND, "relief": 1})
    assert plain.paper.area - relieved.paper.area == pytest.approx(2 * np.pi, abs=1e-3)
    assert len(relieved.paper.openings) == 2


@pytest.mark.parametrize(
    ("change", "message", "field"),
    [
        ({"over": 60}, "cannot stand 60 mm over the fold", "over"),
        ({"along": 60}, "has no paper all the way", "along"),
        ({"fold": "fold 9"}, "There is no fold 'fold 9'.", "fold"),
    ],
)
def test_what_does_not_stand_says_why(change: dict[str, object], message: str, field: str) -> None:
    problem = piece_of({**ROUND, **change}).outcomes[-1].problem
    assert problem is not None
    assert message in problem.message
    assert problem.field == field


def test_both_are_checked_against_the_envelope() -> None:
    """The figure's 30 do not go into the A2 envelope, which has 3.175 of room."""
    design = design_of({"kind": "blank"}, ROUND)
    evaluation = evaluate(design)
    codes = {f.code for f in run_checks(evaluation)}
    assert "envelope.over" in codes
    assert "envelope.over" not in {
        f.code for f in run_checks(evaluate(design_of({"kind": "blank"}, BOX)))
    }


def test_several_boxes_side_by_side() -> None:
    steps = [{**BOX, "along": a, "width": 25} for a in (-40, 0, 40)]
    work = work_of(*steps)
    folded = fold_flat(work)
    assert folded.troubles == ()
    assert len(folded.faces) == 8
    assert folded.layers == 4
    for a, b in itertools.pairwise(folded.order):
        assert a != b
