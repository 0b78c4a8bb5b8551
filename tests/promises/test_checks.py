"""Every registered check is held to what the guide to extending says, in a moved and in a mirrored frame."""

from __future__ import annotations

from pathlib import Path

import pytest

from stileblade.checks.check import CHECKS, Finding, Severity, Subject, run_checks
from stileblade.design.changes import with_changes
from stileblade.design.document import load_design, read_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.geometry.curves.segments import Floats
from stileblade.views.findings import changes_of
from tests.conftest import design_of
from tests.promises.frames import MIRRORED, MOVED, elsewhere

BLANK = {"kind": "blank"}
CIRCLE = {"kind": "figure", "outline": {"kind": "circle", "diameter": 110}}
STAR = {"kind": "figure", "outline": {"kind": "star", "points": 9, "diameter": 100}}
DEMO = sorted((Path(__file__).parents[2] / "demo" / "designs").glob("*.json"))
WRONG = {
    "hardly joined": [CIRCLE, {"kind": "mirror", "towards": "left", "lap": 1}],
    "not joined": [CIRCLE, {"kind": "mirror", "towards": "below", "lap": 0}],
    "sharp and rocking": [STAR, {"kind": "mirror", "towards": "left", "lap": 12}],
    "window near": [BLANK, {"kind": "window", "at": "left", "by": "left", "dx": 4, "dy": 9}],
    "crumbs": [BLANK, {"kind": "stencil", "outline": {"kind": "word", "text": "Ahoy", "size": 5}}],
    "slit across": [
        BLANK,
        {"kind": "border-line", "along": "outline", "margin": 2, "how": "score"},
    ],
    "line twice": [BLANK, *[{"kind": "border-line", "along": "outline", "margin": 4}] * 2],
    "too large": [BLANK, {"kind": "overhang", "out": 14}],
}
run_checks(evaluate(design_of(BLANK)))  # with it all checks are registered


def designs() -> list[tuple[str, Evaluation]]:
    made = [(name, evaluate(design_of(*steps))) for name, steps in WRONG.items()]
    return made + [(p.stem, evaluate(read_design(p.read_text()))) for p in DEMO]


def said(findings: list[Finding]) -> list[tuple[str, str, float | None]]:
    return sorted(
        (f.code, str(f.severity), None if f.value is None else round(f.value, 3)) for f in findings
    )


@pytest.mark.parametrize("name", CHECKS.names())
def test_a_check_says_what_it_does(name: str) -> None:
    assert CHECKS[name].__doc__


@pytest.mark.parametrize("matrix", [MOVED, MIRRORED], ids=["moved", "mirrored"])
def test_findings_are_the_same_in_every_frame(matrix: Floats) -> None:
    told = set()
    for name, evaluation in designs():
        here, there = run_checks(evaluation), run_checks(elsewhere(evaluation, matrix))
        assert said(there) == said(here), name
        told |= {f.code for f in here}
    assert len(told) > 8


def test_findings_can_be_read_and_shown() -> None:
    """A sentence, its piece, and a place or a step; what can be mended says by what."""
    for _, evaluation in designs():
        names = {p.piece.name for p in evaluation.pieces}
        for finding in run_checks(evaluation):
            assert finding.message.endswith((".", "…", "?"))
            assert finding.piece in names
            assert finding.severity in Severity
            assert "{" not in finding.message
            assert all(m.title for m in finding.mends)


def test_every_mend_can_be_applied() -> None:
    """What it proposes is a valid document, and the finding it mends is gone, or has changed."""
    for name, evaluation in designs():
        for piece in evaluation.pieces:
            for finding in run_checks(evaluation):
                if finding.piece != piece.piece.name:
                    continue
                for mend in finding.mends:
                    changes = changes_of(mend, piece.piece.id)
                    mended = evaluate(with_changes(evaluation.design, changes))
                    after = [(f.code, f.value, f.piece) for f in run_checks(mended)]
                    told = (finding.code, finding.value, finding.piece)
                    assert told not in after, (name, mend.title)


def test_a_check_of_a_piece_without_paper_is_silent() -> None:
    empty = load_design({"pieces": [{"steps": [{"kind": "turn"}]}]})
    evaluation = evaluate(empty)
    subject = Subject(evaluation, evaluation.pieces[0])
    for name in CHECKS.names():
        codes = {f.code for f in CHECKS[name](subject)}
        assert codes <= {"step.not-applied", "piece.empty"}
