"""Sheets, envelopes, and readings that are true; alarms that are false."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import Finding, Severity, Subject, run_checks
from stileblade.checks.envelope import ranked
from stileblade.design.changes import with_changes
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import evaluate
from stileblade.folding.closed import closed_card
from stileblade.folding.scoring import scoring_table
from stileblade.views.findings import changes_of, findings_of
from stileblade.views.folds import folds_of
from stileblade.views.lap import lap_of
from stileblade.views.readings import readings_of
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, work_of

A4 = {"sheet_width": 210, "sheet_height": 297}


def on_paper(*steps: dict[str, Any], paper: dict[str, Any] | None = None, **card: Any) -> Design:
    data = design_of(BLANK, *steps, **card).model_dump(mode="json")
    data["papers"][0].update(paper or A4)
    return load_design(data)


def found(design: Design, code: str) -> list[Finding]:
    return [f for f in run_checks(evaluate(design)) if f.code == code]


def test_508_does_not_go_on_297_and_is_mended_in_three_ways() -> None:
    """An accordion of four panels of 127: 508 x 177.8; of A4 with an edge of 5 the machine reaches 287."""
    size = {"name": "A7", "width": 127, "height": 177.8}
    design = on_paper(size=size, way="accordion")
    (over,) = found(design, "sheet.over")
    assert over.severity is Severity.ERROR
    assert over.value == pytest.approx(508 - 287)
    assert over.message.startswith("508 mm x 177.8 mm does not go on a sheet of 210 mm x 297 mm")
    assert [m.title for m in over.mends] == [
        "sheet A2",
        "sheet 500 x 700 mm",
        "join of two sheets at fold 2, with a glue tab of 12 mm",
    ]
    for mend in over.mends:
        mended = evaluate(with_changes(design, changes_of(mend, "base")))
        assert not [f for f in run_checks(mended) if f.code.startswith("sheet")], mend.title
    joined = evaluate(with_changes(design, changes_of(over.mends[2], "base")))
    base, other = joined.pieces
    assert other.piece.name == "Base, to be glued on"
    assert base.work is not None
    assert other.work is not None
    assert base.work.paper.bounds.width == pytest.approx(254 + 12)
    assert other.work.paper.bounds.width == pytest.approx(254)
    # the tab's ends slant by its depth
    assert base.work.paper.area == pytest.approx(254 * 177.8 + 12 * (177.8 - 12), abs=1e-6)
    codes = {f.code for f in run_checks(joined)}
    assert not codes & {"hinge.none", "parts.twice", "parts.lost", "pieces.apart"}


def test_a_piece_is_turned_on_its_sheet() -> None:
    """215.9 wide goes on A4 turned; 200 x 200 with an edge of 5 only just; 201 at no angle."""
    assert found(on_paper(), "sheet.over") == []
    square = {"kind": "figure", "outline": {"kind": "rectangle", "width": 200, "height": 200}}

    def of(side: float, edge: float = 5) -> Design:
        data = design_of(
            {**square, "outline": {"kind": "rectangle", "width": side, "height": side}}
        )
        dumped = data.model_dump(mode="json")
        dumped["papers"][0].update({**A4, "edge": edge})
        return load_design(dumped)

    assert found(of(200), "sheet.over") == []
    assert len(found(of(201), "sheet.over")) == 1
    assert found(of(201, edge=4), "sheet.over") == []
    long = {"kind": "figure", "outline": {"kind": "rectangle", "width": 300, "height": 10}}
    data = design_of(long).model_dump(mode="json")
    data["papers"][0].update(A4)
    (turned,) = found(load_design(data), "sheet.turned")
    assert turned.severity is Severity.NOTE
    assert 20 < (turned.value or 0) < 70 or 110 < (turned.value or 0) < 160


def test_envelopes_are_ranked_the_tightest_first() -> None:
    """A2 of two layers of 0.3: 108.55 x 140.3; the A2 envelope is the tightest that leaves 2 mm."""
    evaluation = evaluate(design_of(BLANK))
    rows = ranked(Subject(evaluation, evaluation.pieces[0]))
    assert (rows[0].envelope.name, rows[0].chosen, rows[0].takes) == ("A2", True, True)
    assert rows[0].room.least == pytest.approx(2.575)
    takes = [r.room.width + r.room.height for r in rows if r.takes]
    assert takes == sorted(takes)
    assert all(r.room.least < 2 for r in rows if not r.takes)
    own = {
        "name": "own",
        "width": 90,
        "height": 90,
        "envelope": {"name": "Mine", "width": 92, "height": 93},
    }
    small = evaluate(design_of(BLANK, size=own))
    first = ranked(Subject(small, small.pieces[0]))
    assert {r.envelope.name for r in first if r.chosen} == {"Mine"}
    assert len(first) == 15


@pytest.mark.parametrize("gap", [2, 20])
def test_what_is_seen_between_two_doors_is_as_wide_as_the_gap(gap: float) -> None:
    closed = closed_card(work_of(way="gatefold", folding={"gap": gap}))
    assert closed.reveal_by == pytest.approx(gap, abs=0.01)
    assert closed.reveal_area == pytest.approx(gap * 139.7, abs=0.1)


def test_a_standing_figure_stands_out_by_its_own_measure() -> None:
    """A circle of 50, 25 over the fold: 25, and half its area, 981.7; the hole that it leaves is no paper.
    Held along 50 less both relief holes of 1.2."""
    figure = {
        "kind": "standing-figure",
        "id": "s",
        "outline": {"kind": "circle", "diameter": 50},
        "over": 25,
    }
    closed = closed_card(work_of(figure | {"relief": 0}))
    assert closed.out_by == pytest.approx(25, abs=0.01)
    assert closed.out_area == pytest.approx(982, abs=1)
    assert closed.reveal_area == pytest.approx(0, abs=0.5)
    piece = evaluate(design_of(BLANK, figure)).pieces[0]
    last = piece.outcomes[-1]
    assert last.work is not None
    told = {t.name: t.value for t in last.step.tells(last.before, last.work, piece.setting)}
    assert told["Held along"] == pytest.approx(47.6, abs=1e-6)


def test_a_box_deeper_on_one_side_shows_by_the_difference() -> None:
    closed = closed_card(work_of({"kind": "forward-step", "width": 40, "less": 30, "more": 20}))
    assert max(closed.reveal_by, closed.out_by) == pytest.approx(10, abs=0.01)


def test_areas_and_thresholds_follow_the_unit() -> None:
    slot = {"kind": "window", "outline": {"kind": "circle", "diameter": 1.5}}
    design = design_of(BLANK, slot).model_copy(update={"units": "in"})
    messages = [f.message for f in run_checks(evaluate(design))]
    (crumb,) = [m for m in messages if "crumb" in m]
    assert crumb == "One opening leaves a crumb of less than 0.006 in²: 0.003 in²."
    gate = design_of(BLANK, way="gatefold", folding={"gap": 20}).model_copy(update={"units": "in"})
    evaluation = evaluate(gate)
    (reveal,) = [r for r in readings_of(evaluation, evaluation.pieces[0]) if r.name == "Reveal"]
    assert reveal.note == "4.331 in² of the back seen round the front"


@pytest.mark.parametrize(
    ("steps", "card"),
    [
        ([], {"way": "easel"}),
        ([{"kind": "split", "distance": 0}], {}),
        ([], {"folding": {"front_shorter": 15}}),
        ([{"kind": "slice", "keep": "left", "edge": "far", "distance": 15}], {}),
    ],
)  # fmt: skip
def test_nothing_is_said_where_nothing_is_wrong(
    steps: list[dict[str, Any]], card: dict[str, Any]
) -> None:
    found = run_checks(evaluate(design_of(BLANK, *steps, **card)))
    assert [f.message for f in found if f.severity is not Severity.NOTE] == []


def test_the_mirrors_pane_says_the_hinge_of_its_own_lap() -> None:
    """A circle of 90, lap 3.35: 2 sqrt(45^2 - 43.325^2) = 24.3; a tab of 30 makes it 30 in the end."""
    steps = [
        {"kind": "figure", "outline": {"kind": "circle", "diameter": 90}},
        {"kind": "mirror", "lap": 3.35},
        {"kind": "tab", "length": 30},
    ]
    work = evaluate(design_of(*steps)).pieces[0].work
    assert work is not None
    lap = lap_of(work)
    assert lap is not None
    assert lap.hinge == pytest.approx(24.33, abs=0.01)
    assert lap.finished == pytest.approx(30, abs=1e-6)


def test_one_frame_for_the_figures_of_a_fold() -> None:
    """A fold at 107.95 with 12 welded on at the left: 119.95 in the flat view, the file and the table."""
    tab = {"kind": "weld", "target": "back", "at": "left", "by": "right", "dx": 2,
           "outline": {"kind": "rectangle", "width": 14, "height": 40}}  # fmt: skip
    work = work_of(tab)
    (row,) = scoring_table(work)
    (fold,) = folds_of(work)
    assert row.distance == pytest.approx(119.95, abs=1e-6)
    assert fold.from_left == pytest.approx(row.distance, abs=1e-6)


def test_a_bay_that_the_mirror_closes_is_said_and_filled() -> None:
    bay = {
        "kind": "cut-away",
        "outline": {"kind": "circle", "diameter": 20},
        "at": "left",
        "by": "centre",
    }
    steps = [{"kind": "figure", "outline": {"kind": "rectangle", "width": 80, "height": 80}}, bay,
             {"id": "m", "kind": "mirror", "lap": 3}]  # fmt: skip
    design = design_of(*steps)
    (closed,) = found(design, "openings.mirrored")
    assert closed.message.startswith(
        "A bay at the fold becomes an opening where the mirror closes it: "
    )
    assert closed.step == "m"
    (mend,) = closed.mends
    mended = evaluate(with_changes(design, changes_of(mend, "base")))
    work = mended.pieces[0].work
    assert work is not None
    assert len(work.paper.openings) == 0
    assert not {f.code for f in run_checks(mended)} & {"openings.mirrored", "openings.large"}


def test_windows_of_a_figure_stay_windows_after_its_mirror() -> None:
    window = {
        "id": "w",
        "kind": "window",
        "target": "figure",
        "outline": {"kind": "circle", "diameter": 20},
    }
    steps = [{"kind": "figure", "outline": {"kind": "rectangle", "width": 80, "height": 80}}, window,
             {"kind": "mirror", "lap": 3}]  # fmt: skip
    evaluation = evaluate(design_of(*steps))
    assert not [f for f in run_checks(evaluation) if f.code.startswith("openings")]
    work = evaluation.pieces[0].work
    assert work is not None
    assert [w.panel for w in work.windows_of("w")] == ["front", "back"]


def test_a_finding_names_its_panel_and_its_step() -> None:
    windows = [
        {"id": "a", "kind": "window", "target": "front", "at": "left", "by": "left", "dx": 4,
         "outline": {"kind": "circle", "diameter": 20}},
        {"id": "b", "kind": "window", "target": "back", "at": "left", "by": "left", "dx": 4,
         "outline": {"kind": "circle", "diameter": 20}},
    ]  # fmt: skip
    near = [f for f in findings_of(evaluate(design_of(BLANK, *windows))) if f.code == "window.near"]
    assert [f.where for f in near] == ["front, step 2, Window", "back, step 3, Window"]
    assert len({f.message for f in near}) == 2
