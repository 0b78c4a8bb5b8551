"""Parts of a layer that are too small to be cut: left out, joined to the next one, or drawn on what lies below."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import run_checks
from stileblade.design.changes import with_changes
from stileblade.design.document import Design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.piece.lines import How
from stileblade.views.findings import changes_of
from tests.whole import layer, problem_of, whole, work_of

ARTWORK = {
    "a": {
        "layers": [
            {"name": "Hull", "colour": "#112233", "path": "M0 0H90V60H0Z"},
            # a square of 30, and one of 3 that is 4 away from it
            {"name": "Sail", "colour": "#445566", "path": "M10 10H40V40H10ZM44 20H47V23H44Z"},
        ]
    }
}
BASE = [{"kind": "artwork", "ref": "a", "layers": [0], "id": "start"}]


def card(*more: dict[str, Any], **values: Any) -> Evaluation:
    sail = {"kind": "layers", "layers": [1], "id": "sail", **values}
    return whole([*BASE, *more], layer("l", sail), artworks=ARTWORK)


def test_a_small_part_is_joined_to_the_next_one_by_a_bridge() -> None:
    """900 + 9, and a bridge of 4 by 2 between them."""
    paper = work_of(card(small_parts="joined"), "l").paper
    assert paper.area == pytest.approx(917, abs=1e-6)
    assert paper.pieces == 1
    assert work_of(card(small_parts="joined", bridge=1), "l").paper.area == pytest.approx(913)
    assert work_of(card(small_parts="left_out"), "l").paper.area == pytest.approx(900)


def test_what_is_of_one_part_stays_as_it_is() -> None:
    one = {"a": {"layers": [ARTWORK["a"]["layers"][0], {"name": "Dot", "path": "M9 9H12V12H9Z"}]}}
    sail = {"kind": "layers", "layers": [1], "small_parts": "joined"}
    assert work_of(whole(BASE, layer("l", sail), artworks=one), "l").paper.area == pytest.approx(9)


def test_layers_are_drawn_in_register() -> None:
    drawn = {"kind": "drawn-layers", "layers": [1], "id": "d"}
    turned = [{"kind": "turn", "angle": 30}, {"kind": "flip"}]
    work = work_of(card(*turned, drawn), "base")
    (line,) = work.lines_on_paper
    assert (line.how, len(line.ways)) == (How.DRAW, 2)
    # as long as the two squares' sides, and where the layer itself comes to lie
    there = work_of(card(*turned), "l")
    assert there.lying is not None
    box = there.paper.transformed(there.lying.matrix).bounds
    xs, ys = zip(*(spot for edge in line.edges for spot in edge), strict=True)
    assert (min(xs), min(ys), max(xs), max(ys)) == pytest.approx(box.as_list(), abs=1e-9)
    small = work_of(card({**drawn, "parts": "small"}), "base").lines_on_paper
    assert [len(found.ways) for found in small] == [1]


def test_what_has_no_artwork_or_no_small_parts_says_so() -> None:
    drawn = {"kind": "drawn-layers", "parts": "small"}
    assert "was not made of an artwork" in problem_of(whole([{"kind": "blank"}, drawn]), "base")
    hull = {**drawn, "layers": [0]}
    assert problem_of(card(hull), "base") == "The layers have no small parts."


@pytest.mark.parametrize(
    ("title", "area", "lines"),
    [
        ("leave small parts out", 900, 0),
        ("join them to the next part", 917, 0),
        ("draw them with the pen below", 900, 1),
    ],
)
def test_each_mend_ends_the_finding(title: str, area: float, lines: int) -> None:
    before = card()
    (finding,) = [f for f in run_checks(before) if f.code == "layers.small"]
    mend = next(m for m in finding.mends if m.title == title)
    design: Design = with_changes(before.design, changes_of(mend, "l"))
    after = evaluate(design)
    assert "layers.small" not in {f.code for f in run_checks(after)}
    assert work_of(after, "l").paper.area == pytest.approx(area, abs=1e-6)
    assert len(work_of(after, "base").lines_on_paper) == lines
