"""Splitting a piece, and pieces made of its parts."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from stileblade.checks.check import Severity, run_checks
from stileblade.design.changes import with_changes
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import evaluate
from stileblade.views.findings import changes_of
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, problem_of, work_of

CIRCLE = {"kind": "circle", "diameter": 60}


def split(strip: float = 4.0, **more: Any) -> dict[str, Any]:
    return {"id": "cut", "kind": "split", "edge": "near", "distance": 40, "strip": strip, **more}


def test_a_strip_parts_a_blank() -> None:
    """215.9 wide, 4 around 40 fall out: 38 and 173.9. The larger stays, both are known."""
    work = work_of(split())
    assert work.paper.bounds.width == pytest.approx(173.9, abs=1e-6)
    (parted,) = work.parted
    assert [p.bounds.width for p in parted.parts] == pytest.approx([38, 173.9], abs=1e-6)
    assert parted.kept == (1,)


def test_parts_are_picked() -> None:
    """The narrow part lies about a tenth from the left."""
    both = work_of(split(keep="picked", picks=[[0.09, 0.5], [0.6, 0.5]]))
    assert both.parted[0].kept == (0, 1)
    narrow = work_of(split(keep="picked", picks=[[0.09, 0.5]]))
    assert narrow.paper.bounds.width == pytest.approx(38, abs=1e-6)
    problem = problem_of(split(keep="picked", picks=[[0.185, 0.5]]))
    assert problem.message == "None of the places that were picked lies in a part any more."


def test_a_figure_parts_what_it_covers() -> None:
    work = work_of({"kind": "split", "by": "figure", "target": "front",
                    "outline": {"kind": "circle", "diameter": 40}})  # fmt: skip
    assert len(work.paper.openings) == 1
    assert sorted(p.area for p in work.parted[0].parts)[0] == pytest.approx(400 * np.pi, abs=1e-2)
    assert "Nothing is parted" in problem_of(split(distance=-20)).message


def with_part(number: int = 1, **more: Any) -> Design:
    design = design_of(BLANK, split())
    data = design.model_dump(mode="json")
    part = {"id": "p", "kind": "part", "piece": "base", "number": number, **more}
    data["pieces"].append({"id": "rest", "name": "Rest", "paper": "paper", "steps": [part]})
    return load_design(data)


def test_a_part_is_a_piece_of_its_own_and_follows() -> None:
    base, rest = evaluate(with_part()).pieces
    assert rest.work is not None
    assert rest.work.paper.bounds.width == pytest.approx(38, abs=1e-6)
    assert [p.name for p in rest.work.panels] == ["back"]
    # the fold lies in the other part
    assert rest.work.spans["fold"] == []
    wider = with_part().model_dump(mode="json")
    wider["pieces"][0]["steps"][1]["distance"] = 60
    _, moved = evaluate(load_design(wider)).pieces
    assert moved.work is not None
    assert moved.work.paper.bounds.width == pytest.approx(58, abs=1e-6)
    assert base.work is not None


@pytest.mark.parametrize(
    ("change", "message"),
    [
        ({"number": 3}, "There is no part 3: the split makes 2."),
        ({"piece": "lid"}, "There is no piece 'lid' before this one."),
        ({"step": "other"}, "The piece 'base' is not split by 'other'."),
    ],
)
def test_a_part_that_is_not_there_says_so(change: dict[str, Any], message: str) -> None:
    _, rest = evaluate(with_part(**{"number": 1, **change})).pieces
    problem = rest.outcomes[0].problem
    assert problem is not None
    assert problem.message == message


def test_a_part_that_is_a_piece_is_not_kept_as_well() -> None:
    """A2 split by 3 in the middle; part 1 is a piece. At 40 from the middle part 1 is the larger: the
    base keeps part 2 all the same."""
    cut = {"id": "cut", "kind": "split", "strip": 3, "distance": 0}
    part = {"kind": "part", "piece": "base", "step": "cut", "number": 1}
    for distance, widths in ((0, (106.45, 106.45)), (40, (66.45, 146.45)), (-40, (146.45, 66.45))):
        data = design_of(BLANK, cut | {"distance": distance}).model_dump(mode="json")
        data["pieces"].append({"id": "rest", "name": "Rest", "paper": "paper", "steps": [part]})
        found = evaluate(load_design(data))
        made = [p.work.paper.bounds.width for p in found.pieces if p.work]
        assert made == pytest.approx(widths, abs=1e-6)
        assert not {f.code for f in run_checks(found)} & {"parts.lost", "parts.twice"}


def test_a_part_in_no_piece_or_in_two_is_said() -> None:
    design = design_of(BLANK, split())
    (lost,) = [f for f in run_checks(evaluate(design)) if f.code == "parts.lost"]
    assert lost.message == "Part 1 of 2 of the split is in no piece: 38 mm x 139.7 mm."
    assert (lost.step, lost.severity) == ("cut", Severity.NOTE)
    (mend,) = lost.mends
    mended = evaluate(with_changes(design, changes_of(mend, "base")))
    assert [p.piece.name for p in mended.pieces] == ["Base", "Base, part 1"]
    assert [p.work and p.work.paper.bounds.width for p in mended.pieces] == pytest.approx(
        [173.9, 38], abs=1e-6
    )
    assert "parts.lost" not in {f.code for f in run_checks(mended)}
    picked = split(keep="picked", picks=[[0.09, 0.5], [0.6, 0.5]])
    data = with_part(number=2).model_dump(mode="json")
    data["pieces"][0]["steps"][1] = picked
    (twice,) = [f for f in run_checks(evaluate(load_design(data))) if f.code == "parts.twice"]
    assert twice.message == "Part 2 of 2 of the split is in more than one piece."
