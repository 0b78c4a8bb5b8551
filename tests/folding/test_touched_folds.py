"""Folds that a window, a notch or an edge touches, or that meet the outline at a flat angle; sizes of
closed cards against their true outlines."""

from __future__ import annotations

import random
from typing import Any

import pytest

from stileblade.checks.check import Severity, run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding import faces
from stileblade.folding.flat import fold_flat
from stileblade.piece.work import Work
from tests.conftest import design_of

A6 = {"name": "A6", "width": 105, "height": 148, "envelope": None}
LARGE = {"name": "large", "width": 400, "height": 400, "envelope": None}
OUTLINES = [
    {"kind": "circle", "diameter": 30},
    {"kind": "ellipse", "width": 30, "height": 40},
    {"kind": "rectangle", "width": 30, "height": 30},
]


def work_of(*steps: dict[str, Any], **card: Any) -> Work:
    piece = evaluate(design_of(*steps, **card)).pieces[0]
    assert [o.problem for o in piece.outcomes] == [None] * len(piece.outcomes)
    assert piece.work is not None
    return piece.work


@pytest.mark.parametrize("kind", ["window", "cut-away"])
@pytest.mark.parametrize("outline", OUTLINES, ids=lambda o: str(o["kind"]))
@pytest.mark.parametrize("way", ["side-fold", "top-fold", "gatefold", "accordion"])
@pytest.mark.parametrize("target", ["front", "back"])
def test_what_touches_a_fold_does_not_unfold_the_card(
    kind: str, outline: dict[str, Any], way: str, target: str
) -> None:
    """On ISO A6 every one of these closes to 105 x 148, with no part loose."""
    sides = ("head", "foot") if way == "top-fold" else ("left", "right")
    side = sides[target == "back"]
    step = {"kind": kind, "outline": outline, "target": target, "at": side, "by": side}
    folded = fold_flat(work_of({"kind": "blank"}, step, way=way, size=A6))
    assert folded.closed == pytest.approx((105, 148), abs=1e-6)
    assert not any(face.loose for face in folded.faces)


def test_the_hinge_is_where_paper_stands_on_both_sides() -> None:
    """A side of 30 on the fold leaves 118 of 148; a circle touches it in a place without length."""
    square, circle = (
        work_of(
            {"kind": "blank"},
            {"kind": "window", "outline": outline, "at": "left", "by": "left"},
            size=A6,
        )
        for outline in (OUTLINES[2], OUTLINES[0])
    )
    assert [s.length for s in square.spans["fold"]] == pytest.approx([59, 59], abs=1e-6)
    assert [s.length for s in circle.spans["fold"]] == pytest.approx([148], abs=1e-6)


@pytest.mark.parametrize(("towards", "closed"), [("left", (122.844, 60)), ("right", (122.844, 60))])
def test_a_fold_at_a_flat_angle_to_the_outline_parts_it(
    towards: str, closed: tuple[float, float]
) -> None:
    """46 waves, mirrored with lap 3, folded 0.6 from the far edge: 124.344 - 1.5 at most."""
    work = work_of(
        {"kind": "figure", "outline": {"kind": "wave-top", "width": 124.344, "height": 60, "waves": 46}},
        {"kind": "mirror", "lap": 3, "towards": towards},
        {"kind": "fold-line", "target": "front", "edge": "far", "distance": 0.6},
        size=LARGE,
    )  # fmt: skip
    folded = fold_flat(work)
    assert len(folded.faces) == 3
    assert folded.closed == pytest.approx(closed, abs=1e-3)


@pytest.mark.parametrize(
    ("figure", "turn", "lap"),
    [
        ({"kind": "wave-top", "width": 72.40062584628306, "height": 78.38143311691542, "waves": 32},
         6.435394914136658, 4.557305681796611),
        ({"kind": "scalloped-rectangle", "width": 139.09310918167026, "height": 93.59760206797935},
         -8.125055743810918, 4.023158924257288),
    ],
)  # fmt: skip
def test_a_crest_that_all_but_reaches_the_fold_is_not_the_other_sides(
    figure: dict[str, Any], turn: float, lap: float
) -> None:
    """They were 0.0039 and 0.0021 mm too high: a crest of the one half counted as the other's."""
    work = work_of(
        {"kind": "figure", "outline": figure},
        {"kind": "turn", "angle": turn},
        {"kind": "mirror", "towards": "above", "lap": lap},
        size=LARGE,
    )
    height = work.paper.bounds.foot - work.folds[0].at
    assert fold_flat(work).closed[1] == pytest.approx(height, abs=1e-6)


def test_closed_sizes_are_those_of_the_true_outline() -> None:
    """Of a card with one fold: from that to the farther edge, within 0.001 mm."""
    chance = random.Random(2)
    figures = ["wave-top", "heart", "star", "scalloped-rectangle", "scalloped-circle", "bracket"]
    seen = 0
    for _ in range(80):
        work = work_of(
            {"kind": "figure", "outline": {"kind": chance.choice(figures)}},
            {"kind": "turn", "angle": chance.choice([0.0, chance.uniform(-40, 40)])},
            {"kind": "mirror", "towards": chance.choice(["left", "right", "above", "below"]),
             "lap": chance.uniform(0.5, 12)},
            size=LARGE,
        )  # fmt: skip
        box, fold, folded = work.paper.bounds, work.folds[0], fold_flat(work)
        if not work.spans[fold.name] or any(face.loose for face in folded.faces):
            continue
        seen += 1
        across = max(fold.at - box.left, box.right - fold.at), box.height
        down = box.width, max(fold.at - box.head, box.foot - fold.at)
        wanted = across if fold.axis == "x" else down
        assert folded.closed == pytest.approx(wanted, abs=1e-3)
    assert seen > 60


def test_a_part_that_nothing_holds_is_an_error(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(faces, "HOLDS", 1e3)
    faces.sheet_of.cache_clear()
    fold_flat.cache_clear()
    try:
        found = run_checks(evaluate(design_of({"kind": "blank"}, size=A6)))
    finally:
        faces.sheet_of.cache_clear()
        fold_flat.cache_clear()
    (loose,) = (f for f in found if f.code == "fold.loose")
    assert loose.severity is Severity.ERROR
    assert loose.message == "No fold holds the back: the card does not fold there."
    assert len(loose.place.lines) == 4
