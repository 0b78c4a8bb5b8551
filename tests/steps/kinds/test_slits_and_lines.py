"""Flaps, lettering, and what the checks say of slits."""

from __future__ import annotations

import numpy as np
import pytest

from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from stileblade.geometry.regions.along import length_of
from stileblade.piece.lines import How
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, problem_of, work_of


def test_flaps_of_a_ladder_are_cut_on_three_sides() -> None:
    """Three flaps of 20 x 5, hanging at the foot: 30 of cut and 20 of score each, and no paper
    gone."""
    step = {
        "kind": "slot-ladder",
        "count": 3,
        "first": 20,
        "change": 0,
        "height": 5,
        "cut": "flaps",
    }
    work = work_of(step)
    lengths = {line.how: [length_of(way) for way, _ in line.ways] for line in work.lines}
    assert lengths[How.CUT] == pytest.approx([30, 30, 30], abs=1e-6)
    assert lengths[How.SCORE] == pytest.approx([20, 20, 20], abs=1e-6)
    assert work.paper.area == pytest.approx(215.9 * 139.7, abs=1e-6)
    assert "There is no stem" in problem_of({**step, "hinge": "stem"}).message
    stem = work_of({**step, "hinge": "stem", "stem": 4})
    assert sum(len(line.ways) for line in stem.lines if line.how is How.CUT) == 6


def test_letters_are_drawn_in_single_strokes() -> None:
    """Capitals of 10: an H is 10 high, in three strokes; nothing of it is cut, and what there are
    no strokes for is said."""
    work = work_of({"kind": "lettering", "text": "H", "height": 10})
    (line,) = work.lines
    assert line.how is How.DRAW
    assert len(line.ways) == 3
    points = np.concatenate([np.concatenate([w.start, w.end]) for w, _ in line.ways])
    assert np.ptp(points[:, 1]) == pytest.approx(10, abs=1e-6)
    assert not any(closed for _, closed in line.ways)
    problem = problem_of({"kind": "lettering", "text": "Möwe 海"})
    assert problem.message == "There are no strokes for 海."


def test_slits_are_judged() -> None:
    """Flaps across the fold: each of their slits runs across it. A closed cut lets its part drop."""
    across = {"kind": "slot-ladder", "target": "card", "count": 1, "first": 40, "height": 20,
              "cut": "flaps"}  # fmt: skip
    found = {f.code for f in run_checks(evaluate(design_of(BLANK, across)))}
    assert "slit.across" in found
    near = {"kind": "lock", "target": "left door", "side": "left", "depth": 9, "at": 1.4}
    found = {f.code for f in run_checks(evaluate(design_of(BLANK, near, way="gatefold")))}
    assert "slit.near" in found
