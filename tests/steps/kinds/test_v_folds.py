"""V folds: they fold flat, hang together in every pose, and stand beside boxes."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from stileblade.checks.check import Severity, run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding.faces import sheet_of
from stileblade.folding.flat import fold_flat
from stileblade.folding.space import half_open, in_space, maps_in_space, sequence, standing
from stileblade.folding.stand import stand_of
from stileblade.piece.work import Work
from stileblade.steps.handle import LineHandle
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, problem_of, work_of


def v(**more: Any) -> dict[str, Any]:
    return {"id": "v", "kind": "v-fold", "width": 50, "angle": 35, **more}


def gap(work: Work) -> float:
    """The farthest that the two faces of a crease come apart, in all poses and while it is closed."""
    sheet, worst = sheet_of(work), 0.0
    for angles in (half_open(work), standing(work), *sequence(work)):
        maps = maps_in_space(work, angles)
        for joint in sheet.joints:
            ends = np.array([joint.start, joint.end])
            a, b = (in_space(maps[face], ends) for face in (joint.a, joint.b))
            worst = max(worst, float(np.linalg.norm(a - b, axis=1).max()))
    return worst


@pytest.mark.parametrize("way", ["side-fold", "top-fold", "accordion"])
@pytest.mark.parametrize("angle", [10, 35, 60, 75])
@pytest.mark.parametrize("points", ["back", "on"])
def test_it_folds_flat_and_hangs_together_in_every_pose(
    way: str, angle: float, points: str
) -> None:
    """The slanting creases turn with tan(b / 2) = tan(a / 2) / cos(angle) of the fold's a."""
    along = {"back": 45, "on": -45}[points] if angle == 10 else 0
    work = work_of(
        v(angle=angle, points=points, width=20 if angle == 10 else 50, along=along), way=way
    )
    before = work_of(way=way)
    folded = fold_flat(work)
    assert not folded.troubles
    assert folded.closed == pytest.approx(fold_flat(before).closed, abs=1e-6)
    assert len(folded.faces) == len(fold_flat(before).faces) + 2
    assert gap(work) < 1e-9
    assert work.paper.area == pytest.approx(before.paper.area)


def test_its_measures_and_creases() -> None:
    """Slit 50, 45 degrees: 25 deep, slanting creases of 25 sqrt 2; mountains and a valley between them."""
    work = work_of(v(angle=45))
    inner = [f for f in work.folds if f.step == "v"]
    spans = [s for f in inner for s in work.spans[f.name]]
    assert [round(s.length, 6) for s in spans] == [
        25,
        round(25 * math.sqrt(2), 6),
        round(25 * math.sqrt(2), 6),
    ]
    assert [s.direction for s in spans] == ["valley", "mountain", "mountain"]
    assert [s.length for s in work.spans["fold"]] == pytest.approx([139.7 / 2 - 25, 139.7 / 2])
    ((slit, _),) = [way for line in work.lines for way in line.ways]
    assert float(slit.chords[0]) == pytest.approx(50)


def test_it_stands_beside_boxes_and_others() -> None:
    steps = [
        v(along=-30),
        {"kind": "forward-step", "width": 30, "along": 10},
        v(id="w", width=30, along=50),
    ]
    work = work_of(*steps)
    assert not fold_flat(work).troubles
    assert gap(work) < 1e-9
    bad = [
        f for f in run_checks(evaluate(design_of(BLANK, *steps))) if f.severity is Severity.ERROR
    ]
    assert bad == []


def test_a_card_with_a_v_stands_and_is_moved_by_its_handles() -> None:
    stand = stand_of(work_of(v(along=-20)))
    assert stand is not None
    assert not stand.tips
    piece = evaluate(design_of(BLANK, v())).pieces[0].outcomes[1]
    wide, along = piece.step.handles(
        piece.before, evaluate(design_of(BLANK, v())).pieces[0].setting
    )
    assert isinstance(wide, LineHandle)
    assert isinstance(along, LineHandle)
    assert (wide.axis, wide.at) == ("x", pytest.approx(107.95 + 25))
    assert (along.axis, along.at) == ("y", pytest.approx(139.7 / 2))


def test_what_cannot_be_says_what_can() -> None:
    flat = problem_of(v(angle=85))
    assert (flat.field, flat.would_do) == ("angle", 75)
    assert "has no paper all the way" in problem_of(v(angle=10, width=90)).message
    over = problem_of(v(along=-60))
    assert over.field == "along"
