"""Overhangs, stencilled edges, tabs with slits, splits, and what is seen through windows."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding.flat import fold_flat
from stileblade.geometry.regions.along import length_of
from stileblade.piece.carrying import carried
from stileblade.piece.lines import How
from stileblade.steps.handle import AroundHandle
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, piece_of, problem_of, work_of

CIRCLE = {"kind": "circle", "diameter": 60}


@pytest.mark.parametrize(
    ("side", "closed"),
    [("right", (120, 139.7)), ("head", (107.95, 151.75)), ("foot", (107.95, 151.75))],
)
def test_an_overhang_stands_out_by_its_measure(side: str, closed: tuple[float, float]) -> None:
    """A2, 107.95 x 139.7 closed: 12.05 over an edge of the front are 12.05 more of the card."""
    work = work_of({"kind": "overhang", "outline": CIRCLE, "side": side, "out": 12.05})
    assert fold_flat(work).closed == pytest.approx(closed, abs=1e-3)
    assert work.paper.pieces == 1


def test_an_overhang_tied_to_the_edge_grows_with_the_card() -> None:
    """As long as the edge less 10 at either end: 119.7 on A2; in proportion."""
    step = {"kind": "overhang", "outline": CIRCLE, "sized": "edge", "margin": 10, "out": 20}
    design = design_of(BLANK, step)
    (piece,) = evaluate(design).pieces
    outcome = piece.outcomes[-1]
    figure = outcome.step.placed(outcome.before, piece.setting)  # type: ignore[attr-defined]
    assert figure.bounds.height == pytest.approx(119.7, abs=1e-6)
    assert figure.bounds.right == pytest.approx(215.9 + 20, abs=1e-6)


def test_openings_of_an_overhang_are_closed_or_cut() -> None:
    ring = {"kind": "ring", "diameter": 60, "opening": 20}
    closed = work_of({"kind": "overhang", "outline": ring, "out": 15})
    cut = work_of({"kind": "overhang", "outline": ring, "out": 15, "inner": "kept"})
    assert len(closed.paper.openings) == 0
    assert len(cut.paper.openings) == 1
    assert closed.paper.area - cut.paper.area == pytest.approx(100 * np.pi, abs=1e-3)


@pytest.mark.parametrize(
    ("change", "message", "field"),
    [
        ({"out": 60}, "The figure is 60 mm deep and cannot stand out by 60 mm.", "out"),
        ({"side": "left"}, "That edge is no edge: fold lies there.", "side"),
        ({"along": 200}, "The figure does not reach the paper: it would be a piece of its own.",
         "along"),
        ({"sized": "edge", "margin": 70},
         "Less 70 mm at either end leaves nothing of the edge's 139.7 mm.", "margin"),
    ],
)  # fmt: skip
def test_an_overhang_says_why_not(change: dict[str, Any], message: str, field: str) -> None:
    problem = problem_of({"kind": "overhang", "outline": CIRCLE, "out": 10, **change})
    assert (problem.message, problem.field) == (message, field)


def test_an_overhang_too_far_out_is_mended() -> None:
    """A2 leaves 111.125 - 107.95 - 0.6 = 2.575; with 2 of slack 0.57 may stand out: too little for
    that mend. An A6 envelope, 120.65 wide, takes 10.1 of 20."""
    a6 = {"name": "A2 in A6", "width": 107.95, "height": 139.7,
          "envelope": {"name": "A6", "width": 120.65, "height": 165.1}}  # fmt: skip
    step = {"kind": "overhang", "outline": CIRCLE, "out": 20}
    found = run_checks(evaluate(design_of(BLANK, step, size=a6)))
    (over,) = [f for f in found if f.code == "envelope.over"]
    mend, envelope = over.mends
    assert envelope.title == "envelope 155 mm square"
    assert mend.title == "let it stand out by 10.1 mm"
    assert mend.values == {"out": 10.1}
    mended = run_checks(evaluate(design_of(BLANK, {**step, **mend.values}, size=a6)))
    assert not [f for f in mended if f.code.startswith("envelope")]
    tight = run_checks(evaluate(design_of(BLANK, step)))
    (titles,) = ([m.title for m in f.mends] for f in tight if f.code == "envelope.over")
    assert titles == ["envelope 155 mm square"]


def test_a_stencilled_edge_keeps_the_closed_size_and_the_fold() -> None:
    """An ellipse of 40 x 100 with a surround of 4 along 139.7: it is 131.7 long and 52.68 wide; the
    panel is cut back to its middle, and what it encloses stays paper."""
    step = {"kind": "stencil-edge", "surround": 4,
            "outline": {"kind": "ellipse", "width": 40, "height": 100}}  # fmt: skip
    piece = piece_of(step)
    work = piece.work
    assert work is not None
    assert fold_flat(work).closed == pytest.approx((107.95, 139.7), abs=0.01)
    assert sum(s.length for s in work.spans["fold"]) == pytest.approx(139.7, abs=1e-6)
    told = {t.name: t.value for t in
            piece.outcomes[-1].step.tells(piece.outcomes[-1].before, work, piece.setting)}  # fmt: skip
    assert told["Figure, along the edge"] == pytest.approx(131.7, abs=1e-6)
    assert told["Figure, across"] == pytest.approx(52.68, abs=1e-6)
    assert told["Cut back by"] == pytest.approx(30.34, abs=0.01)
    assert work.paper.pieces == 1


def test_openings_of_a_stencilled_edge_are_cut() -> None:
    ring = {"kind": "ring", "diameter": 60, "opening": 40}
    work = work_of({"kind": "stencil-edge", "outline": ring, "surround": 3, "margin": 30})
    # along 139.7 less 60 and 6 the ring is 73.7 across, its opening two thirds of it
    (opening,) = work.paper.openings
    assert opening.bounds.width == pytest.approx(73.7 * 2 / 3, abs=1e-3)
    assert work.windows[-1].outline.area == pytest.approx(np.pi * (73.7 / 3) ** 2, abs=1e-2)


@pytest.mark.parametrize(
    ("change", "message", "field"),
    [
        ({"surround": 70}, "A surround of 70 mm leaves nothing of the edge's 139.7 mm for the figure.",
         "surround"),
        ({"back": 100}, "Cut back by 100 mm, the panel does not reach the figure", "back"),
        ({"outline": CIRCLE}, "With its surround the figure is 139.7 mm deep, more than the panel's",
         "margin"),
    ],
)  # fmt: skip
def test_a_stencilled_edge_says_why_not(change: dict[str, Any], message: str, field: str) -> None:
    ellipse = {"kind": "ellipse", "width": 40, "height": 100}
    problem = problem_of({"kind": "stencil-edge", "outline": ellipse, **change})
    assert problem.message.startswith(message)
    assert problem.field == field


def test_a_tab_finds_its_slit_on_the_other_door() -> None:
    """A gatefold of A2 with a gap of 1: doors of 53.475. The tab of the left door stands 12 out at
    x = 0; entering the slit 4 from that edge, it lies at 2 * 53.475 + 4 on the back, and, folded
    over the right edge of the back at 161.425, at 2 * 161.425 - 110.95 = 211.9."""
    step = {
        "kind": "lock",
        "target": "left door",
        "side": "left",
        "width": 20,
        "depth": 12,
        "at": 4,
    }
    work = work_of(step, way="gatefold", folding={"gap": 1})
    (line,) = [line for line in work.lines if line.how is How.CUT]
    ((slit, closed),) = line.ways
    assert not closed
    assert slit.start[0, 0] == pytest.approx(211.9, abs=1e-6)
    # 20 wide where its sides are straight, and four times 0.3 mm more
    assert length_of(slit) == pytest.approx(21.2, abs=1e-6)
    assert work.paper.bounds.left == pytest.approx(-12, abs=1e-6)
    assert "slit.loose" not in {
        f.code for f in run_checks(evaluate(design_of(BLANK, step, way="gatefold")))
    }


def test_a_tab_of_a_flap_enters_the_front() -> None:
    """A flap of 40 folds back on to the front of 107.95, which ends at 215.9: its edge lies at
    175.9, and the slit 5 further in."""
    step = {"kind": "lock", "target": "flap", "side": "right", "width": 16, "depth": 12, "at": 5}
    work = work_of(step, way="side-fold-flap", folding={"flap": 40})
    ((slit, _),) = work.lines[-1].ways
    assert slit.start[0, 0] == pytest.approx(170.9, abs=1e-6)


def test_a_tab_without_a_place_for_its_slit_says_so() -> None:
    """A side fold's front ends where its back does."""
    problem = problem_of({"kind": "lock"})
    assert "does not come to lie on any panel" in problem.message
    problem = problem_of(
        {"kind": "lock", "target": "left door", "side": "left", "depth": 5, "at": 4.5},
        way="gatefold",
    )
    assert "does not reach through it" in problem.message


def test_a_window_is_seen_through_on_the_panel_behind() -> None:
    """A circle of 20 at 30, 20 from the front's middle: mirrored on the fold at 107.95 it lies on
    the back as far to the other side, 3 larger all round."""
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 20}, "dx": 30, "dy": 20}
    work = work_of(window, {"kind": "seen-through", "shown_as": "window", "margin": 3})
    (first, second) = work.windows
    assert second.panel == "back"
    assert second.outline.bounds.width == pytest.approx(26, abs=1e-3)
    x, y = first.outline.bounds.centre
    assert second.outline.bounds.centre == pytest.approx((2 * 107.95 - x, y), abs=1e-6)
    drawn = work_of(window, {"kind": "seen-through"})
    assert [line.how for line in drawn.lines] == [How.DRAW]
    assert len(drawn.paper.openings) == 1


def test_what_is_carried_comes_to_lie_where_folding_takes_it() -> None:
    """For every pair of panels of folded cards, against the maps of folding flat."""
    for way in ("roll-4", "french-fold", "gatefold", "double-parallel"):
        work = work_of(way=way)
        faces = {f.name: f for f in fold_flat(work).faces}
        for a, b in [(a, b) for a in faces for b in faces]:
            spot = np.array([faces[a].box.centre])
            here = spot @ faces[a].closed[:, :2].T + faces[a].closed[:, 2]
            matrix = carried(work, a, b)
            moved = spot @ matrix[:, :2].T + matrix[:, 2]
            there = moved @ faces[b].closed[:, :2].T + faces[b].closed[:, 2]
            assert there == pytest.approx(here, abs=1e-6), (way, a, b)


def test_the_same_on_another_panel_changes_with_it() -> None:
    """Mirrored as folding would: 20 to the right of the front's middle is 20 to the left of the
    back's; not mirrored it is to the right there, too."""
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 20}, "dx": 20,
              "also_on": "back"}  # fmt: skip
    for mirrored, sign in ((True, -1), (False, 1)):
        work = work_of({**window, "mirrored": mirrored})
        xs = sorted(c.bounds.centre[0] for c in work.paper.openings)
        assert xs == pytest.approx([53.975 + sign * 20, 161.925 + 20], abs=1e-6)
    assert "on that panel already" in problem_of({**window, "also_on": "front"}).message


def test_a_window_is_placed_by_another_and_sized_by_margins() -> None:
    """Set 5 below the first one's foot, left edges in line; then one that leaves 15 of the panel's
    107.95 x 139.7 all round: 77.95 x 109.7."""
    first = {"id": "a", "kind": "window", "outline": {"kind": "circle", "diameter": 20}, "dy": -30}
    below = {"id": "b", "kind": "window", "target": "step:a", "at": "foot-left", "by": "head-left",
             "dy": 5, "outline": {"kind": "rectangle", "width": 12, "height": 8}}  # fmt: skip
    a, b = (w.outline.bounds for w in work_of(first, below).windows)
    assert (b.left, b.head) == pytest.approx((a.left, a.foot + 5), abs=1e-6)
    assert (
        "There is no window of step 'gone'"
        in problem_of(first, {**below, "target": "step:gone"}).message
    )
    fill = {"kind": "window", "sized": "fill", "margin": 15,
            "outline": {"kind": "rectangle", "width": 12, "height": 8}}  # fmt: skip
    (box,) = [w.outline.bounds for w in work_of(fill).windows]
    assert (box.width, box.height) == pytest.approx((77.95, 109.7), abs=1e-6)
    (box,) = [w.outline.bounds for w in work_of({**fill, "sized": "fit"}).windows]
    assert (box.width, box.height) == pytest.approx((77.95, 77.95 * 8 / 12), abs=1e-6)


def test_a_frame_is_left_standing_round_a_window_over_the_edge() -> None:
    """A window of 60 half over the right edge, its frame 5: the card grows by 30 and 5."""
    window = {"kind": "window", "outline": CIRCLE, "at": "right", "crosses": True, "frame": 5}
    work = work_of(window)
    assert work.paper.bounds.right == pytest.approx(215.9 + 35, abs=1e-6)
    assert work.paper.pieces == 1


def test_a_figure_stands_along_an_edge_and_tapers() -> None:
    """Circles as wide as the pitch: 139.7 / 20 are 7 of 19.957, standing out by 6, at last by 3."""
    step = {"kind": "shaped-edge", "motif": "figure", "keep": "added", "depth": 6, "taper": 0.5}
    work = work_of(step)
    assert work.paper.bounds.right == pytest.approx(215.9 + 6, abs=1e-3)
    below = work_of({**step, "taper": 1.0})
    assert below.paper.area > work.paper.area > 215.9 * 139.7
    assert "cannot stand out by" in problem_of({**step, "depth": 25}).message
    # a wave that tapers to nothing begins at its full depth at the head
    wave = work_of(
        {"kind": "shaped-edge", "motif": "wave", "keep": "added", "depth": 8, "taper": 0}
    )
    box = wave.paper.bounds
    assert box.right == pytest.approx(215.9 + 8, abs=1e-3)


def test_a_bridge_is_moved_by_itself() -> None:
    """A ring with two bridges, to the right and to the left; the second turned to the foot."""
    step = {"kind": "stencil", "outline": {"kind": "ring", "diameter": 40, "opening": 20}}
    piece = piece_of({**step, "angles": [None, 90.0]})
    around = [
        h for h in piece.outcomes[-1].step.handles(piece.outcomes[-1].before, piece.setting)
        if isinstance(h, AroundHandle)
    ]  # fmt: skip
    assert [round(h.value) % 360 for h in around] == [0, 90]
    assert [h.field for h in around] == ["angles.0", "angles.1"]
    assert piece.work is not None
    assert piece.work.paper.pieces == 1
