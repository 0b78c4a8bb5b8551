"""Checks of layers: each is raised by a card that has the fault, and not by one without it."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import Finding, Severity, run_checks
from stileblade.design.adding import on_card, proposals, with_added
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.views.findings import changes_of
from tests.conftest import A2
from tests.whole import BLANK, WINDOW, layer, whole

CIRCLE = {"kind": "overlay", "outline": {"kind": "circle", "diameter": 30}}
FOLD = [{"kind": "at-folds", "way": "creased"}]


def found(card: Evaluation, code: str) -> list[Finding]:
    return [f for f in run_checks(card) if f.code == code]


def small(diameter: float) -> dict[str, Any]:
    return {"kind": "overlay", "outline": {"kind": "circle", "diameter": diameter}}


FAULTS = [
    ("layers.fold", [BLANK], [layer("f", {**CIRCLE, "dx": -50})],
     [layer("f", {**CIRCLE, "dx": -50}, *FOLD)]),
    ("layers.out", [BLANK], [layer("f", {**CIRCLE, "dx": 45})],
     [layer("f", {**CIRCLE, "dx": 45, "may_stand_out": True})]),
    ("layers.out", [BLANK], [layer("f", {**CIRCLE, "dx": -50}, {"kind": "at-folds", "way": "half"})],
     [layer("f", {**CIRCLE, "dx": -50}, {"kind": "at-folds", "way": "ended", "keep": "own"})]),
    ("layers.window", [BLANK, WINDOW], [layer("f", CIRCLE)], [layer("f", {**CIRCLE, "may_cover": True})]),
    ("layers.window", [BLANK, WINDOW], [layer("m", {"kind": "mat", "windows": "closed"})],
     [layer("m", {"kind": "mat"})]),
    ("layers.glue", [BLANK, WINDOW],
     [layer("f", {"kind": "overlay", "outline": {"kind": "rectangle", "width": 61, "height": 20}})],
     [layer("f", {"kind": "overlay", "outline": {"kind": "rectangle", "width": 70, "height": 20}})]),
    ("layers.small", [BLANK], [layer("f", small(5))], [layer("f", small(6))]),
    ("layers.parts", [BLANK], [layer("f", {**CIRCLE, "repeat": "grid", "columns": 2, "rows": 1})],
     [layer("f", CIRCLE)]),
    ("layers.start", [BLANK], [layer("f", {"kind": "figure"})], [layer("f", CIRCLE)]),
    ("stack.hidden", [BLANK], [layer("f", small(20)), layer("g", CIRCLE, order=1)],
     [layer("f", CIRCLE), layer("g", small(20), order=1)]),
    ("stack.sliver", [BLANK], [layer("f", CIRCLE), layer("g", small(29.4), order=1)],
     [layer("f", CIRCLE), layer("g", small(28), order=1)]),
    ("stack.thick", [BLANK], [layer("f", CIRCLE, fixing="pads", side="inside")],
     [layer("f", CIRCLE, fixing="pads", pad=0.5)]),
    ("stack.clear", [BLANK, {"kind": "forward-step", "width": 30}],
     [layer("i", {"kind": "insert"}, side="inside")],
     [layer("m", {"kind": "mat", "margin": 45}, side="inside", panel="front")]),
    ("stack.meet", [BLANK, {"kind": "forward-step", "width": 30}],
     [layer("f", small(20), side="inside", panel="front", fixing="pads")],
     [layer("f", small(20), side="inside", panel="front")]),
]  # fmt: skip


@pytest.mark.parametrize(("code", "base", "faulty", "sound"), FAULTS)
def test_a_fault_of_layers_is_found_and_its_absence_not(
    code: str,
    base: list[dict[str, Any]],
    faulty: list[dict[str, Any]],
    sound: list[dict[str, Any]],
) -> None:
    assert found(whole(base, *faulty), code)
    assert not found(whole(base, *sound), code)


def test_every_mend_of_a_layer_over_a_fold_ends_it() -> None:
    card = whole([BLANK], layer("f", {**CIRCLE, "dx": -50}))
    (finding,) = found(card, "layers.fold")
    assert finding.severity is Severity.ERROR
    assert len(finding.mends) == 3
    for mend in finding.mends:
        mended = evaluate(with_changes(card.design, changes_of(mend, "f")))
        assert not found(mended, "layers.fold"), mend.title


@pytest.mark.parametrize(("code", "base", "layers"), [
    ("layers.out", [BLANK], [layer("f", {**CIRCLE, "dx": 45})]),
    ("layers.window", [BLANK, WINDOW], [layer("f", CIRCLE)]),
    ("stack.thick", [BLANK], [layer("f", CIRCLE, fixing="pads", side="inside")]),
])  # fmt: skip
def test_the_first_mend_ends_the_finding(
    code: str, base: list[dict[str, Any]], layers: list[dict[str, Any]]
) -> None:
    card = whole(base, *layers)
    (finding,) = found(card, code)
    piece = next(p.piece.id for p in card.pieces if p.piece.name == finding.piece)
    mended = evaluate(with_changes(card.design, changes_of(finding.mends[0], piece)))
    assert not found(mended, code)


def test_the_bulk_of_layers_counts_in_the_envelope() -> None:
    """A2, base 2 x 0.3, mat 0.3, figure 0.2 on pads of 1.5: 2.6 thick, room 0.575 by 3.75."""
    papers = [{"id": "paper", "thickness": 0.3}, {"id": "thin", "thickness": 0.2}]
    card = whole([BLANK], layer("m", {"kind": "mat"}), layer("f", CIRCLE, paper="thin", fixing="pads"),
                 papers=papers, size=A2)  # fmt: skip
    (finding,) = found(card, "envelope.tight")
    assert finding.value == pytest.approx(0.575)
    assert found(whole([BLANK], layer("m", {"kind": "mat"}), size=A2), "envelope.tight") == []


def test_small_parts_of_an_artwork_are_left_out_by_a_press() -> None:
    dots = {"a": {"layers": [{"path": "M0 0H60V60H0Z"}, {"path": "M5 5H30V30H5ZM40 40H44V44H40Z"}]}}
    card = whole([{"kind": "artwork", "ref": "a"}], layer("l", {"kind": "layers", "layers": [1]}),
                 artworks=dots)  # fmt: skip
    (finding,) = found(card, "layers.small")
    mended = evaluate(with_changes(card.design, changes_of(finding.mends[0], "l")))
    work = mended.pieces[1].work
    assert work is not None
    assert (work.paper.pieces, work.paper.area) == (1, pytest.approx(625))


def test_a_see_through_layer_hides_nothing() -> None:
    papers = [{"id": "paper"}, {"id": "vellum", "light": 0.6}]
    layers = [layer("f", small(20)), layer("g", CIRCLE, order=1, paper="vellum")]
    assert not found(whole([BLANK], *layers, papers=papers), "stack.hidden")


def test_counters_of_letters_are_not_left_in() -> None:
    """The a, the o and the y of a word have openings of their own; a later hole of 4 mm is left in."""
    word = {"kind": "overlay", "outline": {"kind": "word", "text": "ahoy", "size": 40}}
    hole = {"kind": "cut-away", "target": "figure", "outline": {"kind": "circle", "diameter": 1.5}}
    assert not found(whole([BLANK], layer("w", word)), "openings.small")
    assert not found(whole([BLANK], layer("w", word)), "openings.large")
    square = {"kind": "overlay", "outline": {"kind": "rectangle", "width": 30, "height": 30}}
    assert not [
        f for f in run_checks(whole([BLANK], layer("w", square, hole))) if f.code == "foot.rocks"
    ]


def test_pieces_to_write_on_and_envelopes_are_of_a_light_paper_of_their_own() -> None:
    """120 g/m2 and 0.15 mm; named as papers are, never after the piece."""
    design = whole([BLANK]).design
    for title in ("An insert", "An envelope and its liner", "Three stepping mats"):
        on = on_card(evaluate(design))
        assert on is not None
        design, _ = with_added(design, next(p for p in proposals(on) if p.title == title))
    papers = {p.name: design.paper_of(p) for p in design.pieces}
    for name in ("Insert", "Envelope", "Liner"):
        assert (papers[name].weight, papers[name].thickness) == (120, 0.15)
        assert papers[name].name.startswith("Light paper")
    names = [p.name for p in design.papers]
    assert len(set(names)) == len(names)
    assert not [n for n in names if "Mat" in n or "Insert" in n or "Envelope" in n]


@pytest.mark.parametrize(
    ("outline", "out"),
    [
        # its right edge lies 57 / 2 mm right of the panel's right edge, at 105
        ({"kind": "rectangle", "width": 57, "height": 20}, 28.5),
        # a circle of r 25 whose centre lies on the edge
        ({"kind": "circle", "diameter": 50}, 25.0),
        # a square on its corner: half its diagonal, 20 * sqrt(2)
        ({"kind": "rectangle", "width": 40, "height": 40, "turn": 45}, 28.284),
    ],
)
def test_how_far_a_layer_stands_out_is_said_within_half_a_mm(
    outline: dict[str, Any], out: float
) -> None:
    turn = outline.get("turn", 0)
    figure = {k: v for k, v in outline.items() if k != "turn"}
    step = {"kind": "overlay", "outline": figure, "turn": turn, "dx": 52.5}
    (finding,) = found(whole([BLANK], layer("f", step)), "layers.out")
    assert finding.value == pytest.approx(out, abs=0.5)
