"""Standing: the worked figures of the rules, and cards that rock or fall over."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from stileblade.checks.check import Finding, run_checks
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import evaluate
from stileblade.folding.space import corners_in_space, in_space, maps_in_space, standing
from stileblade.folding.stand import Stand, stand_of
from stileblade.piece.work import Work
from stileblade.views.findings import changes_of
from tests.conftest import design_of

BLANK = {"kind": "blank"}


def made(*steps: dict[str, Any], **card: Any) -> Work:
    work = evaluate(design_of(*(steps or (BLANK,)), **card)).pieces[0].work
    assert work is not None
    return work


def stood(*steps: dict[str, Any], **card: Any) -> Stand:
    stand = stand_of(made(*steps, **card))
    assert stand is not None
    return stand


def findings(*steps: dict[str, Any], **card: Any) -> list[Finding]:
    return run_checks(evaluate(design_of(*steps, **card)))


def test_an_upright_side_fold_stands_safe() -> None:
    """Two panels of 107.95 at 40 degrees: the centre of mass lies half way out on the bisector, so
    107.95 / 2 cos 20 sin 20 = 17.347 from either foot."""
    stand = stood()
    assert stand.safe == pytest.approx(17.347, abs=1e-3)
    assert stand.safe == pytest.approx(
        107.95 / 2 * math.cos(math.radians(20)) * math.sin(math.radians(20))
    )
    assert [f.touching for f in stand.feet] == pytest.approx([107.95, 107.95])
    assert (stand.rocks, stand.tips) == ([], False)


def test_a_top_fold_stands_like_a_tent() -> None:
    """Panels 107.95 high: feet 2 x 107.95 sin 20 = 73.842 apart, distance 36.921."""
    stand = stood(way="top-fold", turned=True)
    plan = np.array(stand.plan)
    assert float(np.ptp(plan[:, 1])) == pytest.approx(73.842, abs=1e-3)
    assert stand.safe == pytest.approx(36.921, abs=1e-3)
    tall = corners_in_space(made(way="top-fold", turned=True), stand.angles)
    heights = np.concatenate(tall) @ stand.up
    assert float(np.ptp(heights)) == pytest.approx(107.95 * math.cos(math.radians(20)), abs=1e-6)


def test_panels_stand_at_forty_degrees() -> None:
    work = made()
    (a, b) = corners_in_space(work, standing(work))
    spread = []
    for corners in (a, b):
        away = corners[np.argmax(np.hypot(corners[:, 0] - 107.95, corners[:, 2]))] - (107.95, 0, 0)
        spread.append(math.degrees(math.atan2(away[2], away[0])))
    assert abs(spread[0] - spread[1]) == pytest.approx(40, abs=1e-6)


def test_a_tent_with_a_shorter_leg_leans_and_still_stands_on_both() -> None:
    """The back's foot trimmed by 10: settled, both feet touch the table."""
    trim = {"kind": "slice", "target": "back", "keep": "below", "edge": "near", "distance": 10}
    stand = stood(BLANK, trim, way="top-fold", turned=True)
    assert {f.panel for f in stand.feet} == {"front", "back"}
    assert 0 < stand.safe < 36.921


def test_an_easel_lies_on_its_back() -> None:
    stand = stood(way="easel")
    back = next(f for f in stand.feet if f.panel == "back")
    assert back.touching == pytest.approx(139.7)
    assert not stand.tips


def test_a_round_foot_rocks_and_a_trim_is_offered() -> None:
    """r = 50 touches along 2.828; the trim that is offered makes it steady."""
    figure = {"kind": "figure", "outline": {"kind": "circle", "diameter": 100}}
    mirror = {"kind": "mirror", "towards": "left", "lap": 30, "id": "m"}
    rocks = next(f for f in findings(figure, mirror) if f.code == "foot.rocks")
    assert rocks.value == pytest.approx(2.828, abs=1e-3)
    assert rocks.message == (
        "It rocks: the back and the front touch the table along 2.83 mm; 10 mm is steady."
    )
    mend = rocks.mends[0]
    assert mend.title == "foot flat for 25 mm, 1.59 mm lost"
    assert mend.before == "m"
    assert mend.add is not None
    trim = mend.add.model_dump(mode="json", exclude={"id"})
    assert not any(f.code == "foot.rocks" for f in findings(figure, trim, mirror))
    # 50 - sqrt(50^2 - 12.5^2) = 1.588
    flat = stood(figure, trim, mirror)
    assert [f.run for f in flat.feet] == pytest.approx([25, 25], abs=0.2)


def test_two_places_ten_apart_are_as_steady_as_a_run() -> None:
    """Two round feet of a saddle, 40 apart."""
    notch = {
        "kind": "cut-away", "target": "card", "at": "foot", "by": "foot",
        "outline": {"kind": "rectangle", "width": 180, "height": 12, "radius": 0},
    }  # fmt: skip
    stand = stood(BLANK, notch)
    for foot in stand.feet:
        assert foot.touching == pytest.approx((215.9 - 180) / 2)
        assert foot.steady
    points = {
        "kind": "cut-away", "target": "front", "at": "foot", "by": "foot",
        "outline": {"kind": "wave-top", "width": 400, "height": 20, "waves": 8},
    }  # fmt: skip
    front = next(f for f in stood(BLANK, points).feet if f.panel == "front")
    assert front.apart > 10


def test_a_card_whose_weight_lies_beyond_its_feet_falls_over() -> None:
    """Only 20 mm of foot beside the fold are left, all else is cut away 30 mm up."""
    cut = {"kind": "cut-away", "at": "foot-right", "by": "foot-right",
           "outline": {"kind": "rectangle", "width": 87.95, "height": 30}}  # fmt: skip
    other = {**cut, "target": "back", "at": "foot-left", "by": "foot-left"}
    tips = next(f for f in findings(BLANK, cut, other) if f.code == "foot.tips")
    assert tips.value is not None
    assert tips.value < -10
    assert tips.message.startswith("It falls over: its centre of mass lies ")


def test_what_has_no_fold_does_not_stand() -> None:
    figure = {"kind": "figure", "outline": {"kind": "circle", "diameter": 100}}
    assert stand_of(made(figure)) is None


def test_an_easel_is_propped_up_by_a_display_panel_and_a_stop() -> None:
    """A2: the ridge lies 69.85 from the fold at 60 degrees; the display runs from it down to the back,
    half a panel from the fold, where the stop is glued."""
    design = design_of({"kind": "blank"}, way="easel")
    (bare,) = [f for f in run_checks(evaluate(design)) if f.code == "easel.bare"]
    assert bare.severity == "note"
    (mend,) = bare.mends
    assert mend.title == "make a display panel and a stop"
    made = evaluate(with_changes(design, changes_of(mend, "base")))
    assert [p.piece.name for p in made.pieces] == ["Base", "Display panel", "Stop"]
    display, stop = (p.work.paper.bounds for p in made.pieces[1:] if p.work)
    assert (display.width, display.height) == pytest.approx((107.95, 139.7))
    assert (stop.width, stop.height) == pytest.approx((87.95, 12))
    assert "easel.bare" not in {f.code for f in run_checks(made)}
    work = made.pieces[0].work
    assert work is not None
    back, _, free = maps_in_space(work, standing(work))
    ridge = in_space(free, np.array([[0.0, 209.55]]))[0]
    down = ridge - in_space(free, np.array([[0.0, 279.4]]))[0]
    foot = ridge + down / np.linalg.norm(down) * 69.85
    on_back = in_space(back, np.array([[0.0, 139.7 - 69.85]]))[0]
    assert foot == pytest.approx(on_back, abs=1e-6)
    (told,) = (
        made.pieces[2].outcomes[0].step.tells(None, made.pieces[2].work, made.pieces[2].setting)
    )  # type: ignore[arg-type]
    assert told.value == pytest.approx(69.85)
