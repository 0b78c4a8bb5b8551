"""Colours of a drawing that no piece makes: said, shown pale, and made into pieces by one press."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import Finding, run_checks
from stileblade.design.adding import on_card, proposals
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.views.findings import changes_of, findings_of
from stileblade.views.prints import painted
from tests.whole import layer, whole, work_of

SQUARES = {
    "a": {
        "layers": [
            {"name": "Large", "colour": "#112233", "path": "M0 0H60V60H0Z"},
            {"name": "Small", "colour": "#445566", "path": "M20 20H40V40H20Z"},
            {"name": "Dot", "colour": "#ffffff", "path": "M44 4H56V16H44Z"},
        ]
    }
}
BASE = {"kind": "artwork", "id": "s", "ref": "a", "layers": [0], "to": "width", "width": 90}
PAPERS = [{"thickness": 0.3, "outside": "#ffffff"}]


def card(*layers: dict[str, Any], **start: Any) -> Evaluation:
    steps = [{**BASE, **start}, {"kind": "mirror"}]
    return whole(steps, *layers, artworks=SQUARES, papers=PAPERS)


def drawn(evaluation: Evaluation) -> list[Finding]:
    return [f for f in run_checks(evaluation) if f.code == "artwork.drawn"]


def test_layers_of_which_no_piece_is_made_are_named() -> None:
    (finding,) = drawn(card())
    assert finding.value == 2
    assert finding.message == (
        "Small, Dot are shown on the paper and are in no file: no pieces are made of them."
    )
    (finding,) = drawn(card(layer("l", {"kind": "layers", "layers": [1]})))
    assert finding.message.startswith("Dot is shown on the paper and is in no file")
    assert drawn(card(layer("l", {"kind": "layers", "layers": [1, 2]}))) == []
    assert drawn(card(printed=False)) == []
    assert drawn(card(layers=[0, 1, 2])) == []


def test_one_press_makes_pieces_of_them_with_papers_and_an_insert() -> None:
    (finding,) = drawn(card())
    mend, quiet = finding.mends
    assert mend.offered
    assert not quiet.offered
    assert [m.offered for f in findings_of(card()) for m in f.mends if f.code == finding.code] == [
        True,
        False,
    ]
    made = evaluate(with_changes(card().design, changes_of(mend, "base")))
    assert [p.piece.name for p in made.pieces] == ["Base", "Large", "Small", "Dot", "Insert"]
    assert {p.paper.outside for p in made.pieces[1:4]} == {"#112233", "#445566", "#ffffff"}
    assert all(work_of(made, p.piece.id).paper for p in made.pieces)
    assert drawn(made) == []
    hidden = evaluate(with_changes(card().design, changes_of(quiet, "base")))
    assert drawn(hidden) == []
    assert painted(hidden, hidden.pieces[0]) == ()
    # taken twice, as when two answers come, nothing is there twice
    again = with_changes(made.design, changes_of(mend, "base"))
    assert len(again.pieces) == len(made.pieces)


def test_a_figure_that_is_no_card_yet_is_mirrored_by_it() -> None:
    flat = whole([BASE], artworks=SQUARES)
    (finding,) = drawn(flat)
    made = evaluate(with_changes(flat.design, changes_of(finding.mends[0], "base")))
    assert [s.kind for s in made.design.pieces[0].steps] == ["artwork", "mirror"]  # type: ignore[attr-defined]


def test_the_whole_card_is_offered_first_while_nothing_lies_on_it() -> None:
    bare = on_card(card())
    assert bare is not None
    assert proposals(bare)[0].title == "The whole card"
    layered = on_card(card(layer("l", {"kind": "layers", "layers": [1]})))
    assert layered is not None
    assert proposals(layered)[0].title != "The whole card"


def test_what_is_drawn_and_not_cut_is_shown_pale_and_on_the_front_alone() -> None:
    """Two fifths of its own colour on white: #445566 is 0.4 * 68 + 0.6 * 255 = 180 of red, 187 and 194."""
    evaluation = card()
    (colour, cell), _ = painted(evaluation, evaluation.pieces[0])
    assert colour == "#b4bbc2"
    front = evaluation.pieces[0].whole.box_of("front")  # type: ignore[union-attr]
    assert cell.bounds[0] >= front.left - 1e-6
    assert cell.area == pytest.approx(30 * 30, rel=1e-3)
