"""Every registered check is held to what the guide to extending says, in a moved and in a mirrored frame."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest
from hypothesis import Phase, given, settings

from stileblade.checks.check import CHECKS, Finding, Severity, Subject, run_checks
from stileblade.design.changes import with_changes
from stileblade.design.document import load_design, read_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.folding.hinge import hinge_length
from stileblade.geometry.curves.segments import Floats
from stileblade.views.findings import changes_of
from stileblade.views.pieces import card_weight
from stileblade.views.readings import readings_of
from tests.conftest import TIMES, design_of
from tests.promises.edits import cards, loaded
from tests.promises.frames import MIRRORED, MOVED, elsewhere
from tests.whole import layer, whole, work_of

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
        assert codes <= {"step.not-applied", "piece.empty", "piece.no-paper"}


def _tried(name: str, evaluation: Evaluation) -> int:
    """Every mend of every check tried on the card: it is a document, its finding is gone or another one, it brings
    no error, and what it only parts is all still there."""
    count, findings = 0, run_checks(evaluation)
    errors = {(f.code, f.piece) for f in findings if f.severity is Severity.ERROR}
    for finding in findings:
        key = next(p.piece.id for p in evaluation.pieces if p.piece.name == finding.piece)
        for mend in finding.mends:
            count += 1
            case = (name, finding.message, mend.title)
            mended = evaluate(with_changes(evaluation.design, changes_of(mend, key)))
            after = run_checks(mended)
            same = (finding.code, finding.value, finding.piece, finding.message)
            assert same not in [(f.code, f.value, f.piece, f.message) for f in after], case
            worse = {(f.code, f.piece) for f in after if f.severity is Severity.ERROR} - errors
            # a step that could not be applied may bring what is wrong with it then
            assert not worse or finding.code in BRINGS_MORE, (*case, worse)
            if mend.pieces and not mend.values:
                if "join" in mend.title and evaluation.stack and mended.stack:
                    assert mended.stack.closed == pytest.approx(evaluation.stack.closed), case
                    assert mended.stack.bulk == pytest.approx(evaluation.stack.bulk), case
                assert _paper(mended) >= _paper(evaluation) - 0.01, case
                was = {p.piece.id: p.work for p in evaluation.pieces if p.piece.id != key}
                for piece in mended.pieces:
                    before = was.get(piece.piece.id)
                    if before is not None and piece.work is not None:
                        area = piece.work.paper.area
                        assert area == pytest.approx(before.paper.area), (piece.piece.id, *case)
    return count


BRINGS_MORE = {"step.not-applied", "openings.large"}
"""A step that is applied again makes more; an opening that is filled may have been wanted by another piece, which
says so."""


def _paper(evaluation: Evaluation) -> float:
    return sum(p.work.paper.area for p in evaluation.pieces if p.work is not None)


def test_a_mend_changes_no_more_than_it_says() -> None:
    assert sum(_tried(name, evaluation) for name, evaluation in designs()) > 20


@given(cards())
@settings(max_examples=60 * TIMES, phases=[Phase.generate])
def test_mends_of_random_cards_change_no_more_than_they_say(document: Any) -> None:
    design = loaded(document, load_design)
    if design is not None:
        _tried(repr(document)[:300], evaluate(design))


def test_an_envelope_joined_of_two_sheets_stays_whole() -> None:
    """A5, 0.3 mm: with its room of 4 the front is 152.6 x 214.6, the bottom flap 0.6 of that. The front stays, with the
    top flap and its liner; the flap at the foot is a piece to be glued on, and a tab of 12 mm is all that is new."""
    papers = [{"thickness": 0.3, "weight": 240, "sheet_width": 320, "sheet_height": 350}]
    card = whole([{"kind": "blank"}], layer("e", {"kind": "envelope"}, side="around", name="Envelope"),
                 layer("l", {"kind": "liner"}, host="e", side="inside"),
                 size={"name": "A5", "width": 148, "height": 210}, papers=papers)  # fmt: skip
    over = next(f for f in run_checks(card) if f.code == "sheet.over" and f.piece == "Envelope")
    join = next(m for m in over.mends if m.title.startswith("join"))
    joined = evaluate(with_changes(card.design, changes_of(join, "e")))
    assert [p.piece.name for p in joined.pieces][1:] == [
        "Envelope",
        "l",
        "Envelope, to be glued on",
    ]
    names = [p.name for p in work_of(joined, "e").panels]
    assert {"front", "top flap"} <= set(names)
    assert work_of(joined, "l").paper.area == pytest.approx(work_of(card, "l").paper.area)
    tab = card_weight(joined, posted=True) - card_weight(card, posted=True)
    new = _paper(joined) - _paper(card)
    assert tab == pytest.approx(new * 240e-6, abs=1e-6)
    assert 0 < new < 12 * 152.6
    assert not [f for f in run_checks(joined) if f.code == "envelope.over"]


def test_a_base_joined_of_two_sheets_is_folded_whole() -> None:
    """A side fold of 296 x 190 on sheets of 210 x 297: split at its fold, one half has a tab of 12. Folded it is what it
    was: 148 x 190 closed, its hinge 190; a mat on the front and one on the back stay."""
    papers = [{"thickness": 0.3, "weight": 240, "sheet_width": 210, "sheet_height": 297, "edge": 5}]
    mats = [layer("m", {"kind": "mat"}), layer("n", {"kind": "mat"}, panel="back")]
    size = {"name": "A5", "width": 148, "height": 210}
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 40}}
    card = whole([{"kind": "blank"}, window], *mats, size={**size, "height": 190}, papers=papers)
    over = next(f for f in run_checks(card) if f.code == "sheet.over" and f.piece == "Base")
    join = next(m for m in over.mends if m.title.startswith("join"))
    joined = evaluate(with_changes(card.design, changes_of(join, "base")))
    assert card.stack
    assert joined.stack
    assert joined.stack.closed == pytest.approx((148, 190))
    assert joined.stack.bulk == pytest.approx(card.stack.bulk) == pytest.approx(4 * 0.3)
    whole_base = joined.pieces[0].whole
    assert whole_base is not None
    assert whole_base.paper.area == pytest.approx(work_of(card, "base").paper.area)
    assert hinge_length(whole_base.spans["fold"], whole_base.folds[0]) == pytest.approx(190)
    for key in ("m", "n"):
        assert work_of(joined, key).paper.area == pytest.approx(work_of(card, key).paper.area)
    part = joined.pieces[-1]
    assert part.work is not None
    sheets = sorted((work_of(joined, "base").paper.bounds.width, part.work.paper.bounds.width))
    assert sheets == pytest.approx([148, 160])
    names = {r.name: r.values for r in readings_of(joined, joined.pieces[0])}
    assert names["Open"] == pytest.approx([296, 190])
    assert names["Area"][0] < whole_base.paper.area
    bad = {f.code for f in run_checks(joined) if f.severity is Severity.ERROR}
    assert bad == set()
