"""Findings that a person leaves as they are: set aside with a reason, and counted apart."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from stileblade.__main__ import main
from stileblade.checks.check import Severity, open_findings, run_checks
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import evaluate
from stileblade.views.findings import findings_of, standing
from stileblade.views.summary import summary_of
from tests.conftest import design_of
from tests.whole import BLANK, WINDOW, whole

NEAR = {"kind": "window", "id": "w", "dx": 20,
        "outline": {"kind": "rectangle", "width": 58, "height": 40}}  # fmt: skip
"""In a panel of 107.95: its right edge at 53.975 + 20 + 29 = 102.975, which is 4.975 from the edge."""
ABOUT = {"code": "window.near", "piece": "base", "step": "w", "severity": "warning"}


def accepting(**more: Any) -> Design:
    design = design_of({"kind": "blank"}, NEAR)
    taken = [{**ABOUT, "reason": "the tape covers it", **more}]
    return load_design(design.model_dump(mode="json") | {"accepted": taken})


def test_an_accepted_finding_keeps_its_words_and_has_its_reason() -> None:
    evaluation = evaluate(accepting())
    (finding,) = run_checks(evaluation)
    assert finding.value == pytest.approx(4.975, abs=0.01)
    assert finding.accepted == "the tape covers it"
    assert open_findings(evaluation) == []
    assert standing(evaluation) == {}
    assert [f.accepted for f in findings_of(evaluation)] == ["the tape covers it"]


@pytest.mark.parametrize(
    "other", [{"code": "window"}, {"piece": "mat"}, {"step": "v"}, {"step": ""}]
)
def test_only_the_finding_that_it_is_about_is_accepted(other: dict[str, str]) -> None:
    assert len(open_findings(evaluate(accepting(**other)))) == 1


def test_a_finding_that_has_become_worse_is_open_again() -> None:
    """The same window 2.975 mm from the edge: an error now, and a warning was accepted."""
    data = accepting().model_dump(mode="json")
    data["pieces"][0]["steps"][1]["dx"] = 22
    (finding,) = open_findings(evaluate(load_design(data)))
    assert finding.severity is Severity.ERROR
    data["accepted"][0]["severity"] = "error"
    assert open_findings(evaluate(load_design(data))) == []
    data["pieces"][0]["steps"][1]["dx"] = 20  # better than what was accepted
    assert open_findings(evaluate(load_design(data))) == []


def test_the_list_of_designs_counts_accepted_ones_apart() -> None:
    summary = summary_of(accepting().model_dump_json())
    assert (summary.errors, summary.warnings, summary.notes, summary.accepted) == (0, 0, 0, 1)


def test_the_command_line_says_what_is_accepted(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    data = accepting(severity="error").model_dump(mode="json")
    data["pieces"][0]["steps"][1]["dx"] = 22
    file = tmp_path / "card.json"
    file.write_text(json.dumps(data))
    assert main(["check", str(file)]) == 0
    (found,) = json.loads(capsys.readouterr().out)
    assert (found["severity"], found["accepted"]) == ("error", "the tape covers it")
    file.write_text(json.dumps({**data, "accepted": []}))
    assert main(["check", str(file)]) == 1


def test_an_island_of_a_window_is_no_edge_that_the_window_is_near() -> None:
    """A ring of 70 cut from a panel of 105 leaves a disc loose: that is said, and not that the ring is 0 mm from
    the edge. Beside the panel's edge it is too near, island or not."""
    ring = {**WINDOW, "outline": {"kind": "ring", "diameter": 70, "opening": 52}}
    assert [f.code for f in run_checks(whole([BLANK, ring]))] == ["pieces.apart"]
    beside = {f.code: f for f in run_checks(whole([BLANK, {**ring, "dx": 14}]))}
    assert beside["window.near"].value == pytest.approx(105 / 2 - 35 - 14, abs=0.01)
