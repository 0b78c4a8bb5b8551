"""Figures aimed at: the values found give them, on the evaluation itself."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.aims.solve import solve, solve_for
from stileblade.aims.trial import MOST_EVALUATIONS, Budget, Reached, Wish, figure_of
from stileblade.aims.variables import variable_of, variables_of
from stileblade.checks.check import run_checks
from stileblade.checks.measures import measures_of
from stileblade.design.cache import OutcomeCache
from stileblade.design.changes import with_changes
from stileblade.design.document import Aim, Design, Relation
from stileblade.design.evaluation import evaluate
from stileblade.views.aims import aim_at, figures_of, kept_again, wish_of
from tests.conftest import design_of

pytestmark = pytest.mark.usefixtures("no_hurry")
BLANK = {"kind": "blank"}
HEART = {"kind": "figure", "id": "f", "outline": {"kind": "heart", "width": 110}}
MIRROR = {"kind": "mirror", "id": "m", "lap": 6}
C6 = {"name": "ISO A6", "width": 105, "height": 148,
      "envelope": {"name": "C6", "width": 114, "height": 162}}  # fmt: skip


def solved(design: Design, figure: str, relation: str, target: float) -> list[Reached]:
    """All that were found, each applied to the design and measured anew."""
    wish = Wish("base", figure, Relation(relation), target)
    budget = Budget()
    found = solve(design, wish, budget=budget)
    assert budget.spent <= MOST_EVALUATIONS
    for reached in found:
        change = reached.variable.change(design, "base", reached.value)
        value = figure_of(with_changes(design, [change]), wish, OutcomeCache())
        assert value == pytest.approx(reached.figure, abs=1e-6)
        if reached.met:
            assert value is not None
            near = {
                "least": value - target,
                "most": target - value,
                "exactly": -abs(value - target),
            }
            assert near[relation] >= -0.005
    assert [r.met for r in found] == sorted((r.met for r in found), reverse=True)
    return found


def titles(found: list[Reached]) -> list[str]:
    return [r.variable.title for r in found if r.met]


def test_a_hinge_of_forty_after_perforation() -> None:
    """Perforated 2 on, 1 off, a third of the paper stays: the lap must be far larger than for 40 whole."""
    crease = {"kind": "crease", "id": "c", "made": "perforate"}
    large = {**HEART, "outline": {"kind": "circle", "diameter": 160}}
    design = design_of(large, MIRROR, crease)
    found = solved(design, "hinge:fold", "least", 40)
    (lap,) = [r for r in found if r.variable.field == "lap"]
    assert lap.met
    assert lap.value > 12
    cut = [r for r in found if r.variable.field == "cut"]
    assert all(r.value < 2 for r in cut)


def test_closed_127_wide() -> None:
    found = solved(design_of(HEART, MIRROR), "closed.width", "exactly", 127)
    assert "step 1, Figure: figure, width" in titles(found)
    assert all(abs(r.figure - 127) <= 1e-3 for r in found if r.met)
    (size,) = [r for r in solved(design_of(BLANK), "closed.width", "exactly", 127) if r.met][:1]
    assert (size.variable.title, size.value) == ("the card: wide", 127)


def test_a_foot_flat_for_sixty() -> None:
    figure = {"kind": "figure", "id": "f", "outline": {"kind": "circle", "diameter": 120}}
    cut = {"kind": "slice", "id": "s", "keep": "above", "edge": "far", "distance": 2}
    found = solved(design_of(figure, cut, MIRROR), "foot", "least", 60)
    (slice_,) = [r for r in found if r.variable.step == "s" and r.met]
    # 60 - sqrt(60^2 - 30^2) = 8.038 below the middle's chord of 60
    assert slice_.value == pytest.approx(8.038, abs=0.07)


def test_room_in_the_c6_envelope() -> None:
    """Two layers of 0.3: 114 - 0.6 - 2 = 111.4 may be wide."""
    figure = {"kind": "figure", "id": "f", "outline": {"kind": "circle", "diameter": 116}}
    found = solved(design_of(figure, MIRROR, size=C6), "room", "least", 2)
    (wide,) = [r for r in found if r.variable.field == "outline.diameter"]
    assert wide.value == pytest.approx(111.4, abs=0.1 + 3)
    assert wide.met


def test_a_window_eight_from_the_fold() -> None:
    window = {"kind": "window", "id": "w", "at": "left", "by": "left", "dx": 3,
              "outline": {"kind": "circle", "diameter": 30}}  # fmt: skip
    design = design_of(BLANK, window)
    (best, *_) = solved(design, "window:w:fold", "exactly", 8)
    values = {r.variable.field: r.value for r in solved(design, "window:w:fold", "exactly", 8)}
    assert values["dx"] == pytest.approx(8, abs=0.006)  # measured on the flattened circle
    assert best.met


def test_it_stands_with_ten_to_spare() -> None:
    figure = {"kind": "figure", "id": "f", "outline": {"kind": "circle", "diameter": 118}}
    tab = {"kind": "tab", "id": "t", "length": 30}
    found = solved(design_of(figure, MIRROR | {"lap": 0}, tab), "stands", "least", 10)
    assert found


def test_whole_numbers_are_stepped() -> None:
    """How many slots of 7 and 5 between there may be for the open area to stay: counts are whole."""
    ladder = {"kind": "slot-ladder", "id": "l", "count": 6, "first": 20, "change": 0, "height": 5,
              "between": 4}  # fmt: skip
    design = design_of(BLANK, ladder)
    full = measures_of(evaluate(design), "base")["area"].measure()
    assert full is not None
    variable = variable_of(design, "base", "l", "count")
    assert variable is not None
    wish = Wish("base", "area", Relation.MOST, full - 250)
    count = solve_for(design, wish, variable, OutcomeCache())
    assert count is not None
    assert count.value == 9  # two and a half more of 100
    assert count.met


def test_what_cannot_be_reached_says_how_near_it_comes() -> None:
    found = solved(design_of(HEART, MIRROR), "stands", "least", 1e4)
    assert found
    assert not any(r.met for r in found)
    now = measures_of(evaluate(design_of(HEART, MIRROR)), "base")["stands"].measure()
    assert now is not None
    assert max(r.figure for r in found) > now
    assert solved(design_of(BLANK), "hinge:fold", "least", 100) == []  # it is so already
    assert solve(design_of(BLANK), Wish("base", "hinge:gone", Relation.LEAST, 1)) == []


def test_variables_are_those_that_count() -> None:
    names = {v.field for v in variables_of(design_of(HEART, MIRROR), "base") if v.step}
    assert {"outline.width", "lap"} <= names
    perforated = {"kind": "crease", "made": "perforate"}
    assert "cut" in {v.field for v in variables_of(design_of(BLANK, perforated), "base")}
    assert "cut" not in {
        v.field for v in variables_of(design_of(BLANK, {"kind": "crease", "made": "none"}), "base")
    }
    off = variables_of(design_of(HEART, MIRROR | {"on": False}), "base")
    assert "lap" not in {v.field for v in off}


def kept(*steps: dict[str, Any], target: float = 40) -> Design:
    aim = Aim(figure="hinge:fold", target=target, step="m", field="lap")
    return design_of(*steps).model_copy(update={"aims": [aim]})


def test_a_kept_aim_is_missed_and_reached_again() -> None:
    """The lap that gave 40 on a circle of 110 does not on one of 80."""
    circle = {"kind": "figure", "id": "f", "outline": {"kind": "circle", "diameter": 110}}
    small = {**circle, "outline": {"kind": "circle", "diameter": 80}}
    found = solved(design_of(circle, MIRROR), "hinge:fold", "least", 40)
    lap = next(r for r in found if r.variable.field == "lap")
    fine = kept(circle, MIRROR | {"lap": lap.value})
    assert not [f for f in run_checks(evaluate(fine)) if f.code == "aim.missed"]
    assert kept_again(fine).changes == []
    smaller = kept(small, MIRROR | {"lap": lap.value})
    (missed,) = [f for f in run_checks(evaluate(smaller)) if f.code == "aim.missed"]
    assert missed.message.startswith("Hinge is ")
    assert missed.message.endswith("the aim is at least 40 mm.")
    again = kept_again(smaller)
    assert again.missed == []
    mended = with_changes(smaller, again.changes)
    assert not [f for f in run_checks(evaluate(mended)) if f.code == "aim.missed"]
    assert kept_again(kept(small, MIRROR, target=200)).missed == ["hinge:fold"]
    gone = kept({"kind": "blank"}).model_copy(
        update={"aims": [Aim(figure="loss", target=1, field="x")]}
    )
    assert [f.code for f in run_checks(evaluate(gone)) if f.code.startswith("aim")] == ["aim.gone"]


def test_proposals_say_what_else_changes() -> None:
    design = design_of(HEART, MIRROR)
    seen = aim_at(design, wish_of("base", "hinge:fold", "least", 45))
    assert seen.proposals
    assert not seen.met
    for proposal in seen.proposals:
        assert proposal.picture is not None
        variable = variable_of(design, "base", proposal.aim.step, proposal.aim.field)
        assert variable is not None
        assert variable.title == proposal.title
    narrow = design_of(HEART, MIRROR, size=C6)
    wide = aim_at(narrow, wish_of("base", "closed.width", "exactly", 170))
    (worse, *_) = [p.worse for p in wide.proposals if p.met]
    assert any("too large for the C6 envelope" in w for w in worse)
    keys = [f.key for f in figures_of(evaluate(design), "base")]
    assert {"hinge:fold", "closed.width", "room", "stands", "loss"} <= set(keys)


def test_a_search_that_is_broken_off_goes_on_to_the_same_end(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """In slices of three evaluations it tries what it tries in one go, no more, and finds the same."""
    design, wish = design_of(HEART, MIRROR), wish_of("base", "hinge:fold", "least", 60)
    whole = aim_at(design, wish)
    assert whole.done
    assert whole.evaluations <= whole.most == MOST_EVALUATIONS
    now = iter(range(10**6))
    monkeypatch.setattr("stileblade.aims.trial.clock", lambda: next(now) / 2)
    slices = [aim_at(design, wish, seconds=1.5)]
    while not slices[-1].done:
        slices.append(aim_at(design, wish, seconds=1.5, before=slices[-1].tried))
        assert slices[-1].evaluations > slices[-2].evaluations
    assert len(slices) > 3
    last = slices[-1]
    assert last.evaluations == whole.evaluations
    assert [(p.title, p.value) for p in last.proposals] == [
        (p.title, p.value) for p in whole.proposals
    ]
    assert any(p.met for p in last.proposals)


def test_it_ends_when_its_time_is_up(monkeypatch: pytest.MonkeyPatch) -> None:
    """Of a clock that goes on by half a second with each look, no more than three evaluations are had."""
    now = iter(range(10**6))
    monkeypatch.setattr("stileblade.aims.trial.clock", lambda: next(now) / 2)
    budget = Budget(seconds=1.5)
    solve(design_of(HEART, MIRROR), Wish("base", "hinge:fold", Relation.LEAST, 60), budget=budget)
    assert budget.spent <= 3
