"""Findings about folding, standing, grain and least sizes, at the boundary and just past it."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import Finding, Severity, run_checks
from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from tests.conftest import A2, design_of

BLANK = {"kind": "blank"}


def findings(*steps: dict[str, Any], **card: Any) -> dict[str, Finding]:
    return {f.code: f for f in run_checks(evaluate(design_of(*steps, **card)))}


def own(*rows: tuple[float, str, int], front: int) -> dict[str, Any]:
    return {
        "panels": [{"width": w, "direction": d, "order": n} for w, d, n in rows],
        "front": front,
    }


ROWS = ((60, "mountain", 2), (60, "mountain", 1))


@pytest.mark.parametrize(("inner", "code"), [(59.0, None), (58.9, None), (59.1, "fold.tight")])
def test_an_inner_panel_needs_its_allowance(inner: float, code: str | None) -> None:
    """A millimetre, or twice 0.3 mm stock: 59 is enough, 59.1 is not."""
    found = findings(BLANK, way="own", folding=own((inner, "mountain", 1), *ROWS, front=3))
    assert ("fold.tight" in found) is (code is not None)
    if code:
        assert found[code].message == (
            "The panel 'panel 1' has 0.9 mm of room in fold 2; it needs 1 mm to lie flat."
        )
        assert found[code].hint == "Make it 0.1 mm narrower."


def test_a_panel_that_would_pass_through_is_an_error() -> None:
    found = findings(BLANK, way="own", folding=own((63, "mountain", 1), *ROWS, front=3))
    through = found["fold.through"]
    assert through.severity is Severity.ERROR
    assert through.message == (
        "Folded in this order, the panel 'panel 1' would pass through fold 2 by 3 mm."
    )
    assert through.place.lines == (((123.0, 0.0), (123.0, 139.7)),)


def test_a_flap_longer_than_the_front_is_shortened() -> None:
    assert "fold.longer" not in findings(BLANK, way="side-fold-flap", folding={"flap": 107.95})
    longer = findings(BLANK, way="side-fold-flap", folding={"flap": 120})["fold.longer"]
    assert longer.message == (
        "The panel 'flap' is 12.05 mm longer than 'front', on to which it folds: it stands out."
    )
    (mend,) = longer.mends
    assert mend.card == {"flap": 107.95}
    assert "fold.longer" not in findings(BLANK, way="side-fold-flap", folding=mend.card)


def test_four_panels_are_tight_in_the_a2_envelope() -> None:
    """Bulk 1.2: 111.125 - 107.95 - 1.2 = 1.975 of room, under the slack of 2."""
    assert "envelope.tight" not in findings(BLANK)
    tight = findings(BLANK, way="accordion")["envelope.tight"]
    assert tight.severity is Severity.WARNING
    assert tight.value == pytest.approx(1.975, abs=1e-9)


@pytest.mark.parametrize(
    ("weight", "grain", "sheet", "noted"),
    [
        (240, "long", (220, 297), False),  # laid upright, the fold runs up the long side
        (240, "long", (210, 297), True),  # 215.9 wide, it only fits turned
        (240, "short", (210, 297), False),  # turned, the fold runs along the short side
        (240, "short", (300, 220), False),  # the short side is upright there
        (240, "unknown", (210, 297), False),
        (200, "short", (220, 297), False),  # light stock folds well across
    ],
)
def test_grain_against_the_fold(
    weight: float, grain: str, sheet: tuple[float, float], noted: bool
) -> None:
    """A2 side fold, open 215.9 x 139.7."""
    design = load_design(
        {
            "card": {"size": A2},
            "papers": [{"weight": weight, "grain": grain,
                        "sheet_width": sheet[0], "sheet_height": sheet[1]}],
            "pieces": [{"steps": [BLANK]}],
        }
    )  # fmt: skip
    found = {f.code: f for f in run_checks(evaluate(design))}
    assert ("grain.across" in found) is noted


def test_a_french_fold_runs_across_the_grain_once() -> None:
    note = findings(BLANK, way="french-fold")["grain.across"]
    assert note.severity is Severity.NOTE
    assert note.value == 1


def window(width: float, dx: float) -> dict[str, Any]:
    return {
        "kind": "window",
        "outline": {"kind": "rectangle", "width": width, "height": 40},
        "dx": dx,
    }


@pytest.mark.parametrize(("bar", "thickness", "told"), [
    (1.5, 0.3, False), (1.49, 0.3, True), (2.0, 0.5, False), (1.99, 0.5, True),
])  # fmt: skip
def test_narrow_paper_by_the_stock(bar: float, thickness: float, told: bool) -> None:
    """max(1.5, 4t): 1.5 for 0.3 mm, 2 for 0.5 mm stock."""
    dx = 10 + bar / 2
    found = findings(BLANK, window(20, -dx), window(20, dx), thickness=thickness)
    assert ("narrow.paper" in found) is told
    if told:
        assert found["narrow.paper"].value == pytest.approx(bar, abs=1e-5)
        (a, b), *_ = found["narrow.paper"].place.lines
        assert abs(a[0] - b[0]) == pytest.approx(bar, abs=1e-5)


def test_cuts_too_close_to_each_other() -> None:
    assert "cuts.close" not in findings(BLANK, window(1.0, 0))
    close = findings(BLANK, window(0.9, 0))["cuts.close"]
    assert close.message == "Two cuts run 0.9 mm apart; 1 mm is the least."


@pytest.mark.parametrize(("side", "told"), [(2.0, False), (1.99, True)])
def test_crumbs_are_less_than_four_square_millimetres(side: float, told: bool) -> None:
    crumb = {"kind": "window", "outline": {"kind": "rectangle", "width": side, "height": side}}
    found = findings(BLANK, crumb)
    assert ("crumbs" in found) is told
    if told:
        assert found["crumbs"].message == (
            "One opening leaves a crumb of less than 4 mm²: 3.96 mm²."
        )


def test_sharp_corners_are_softened() -> None:
    """A wedge cut beside the foot leaves a tip of atan(10 / 60) = 9.5 degrees."""
    wedge = {"kind": "cut-away", "target": "front", "at": "right", "by": "centre", "turn": 9.5,
             "dx": 10, "dy": 30, "outline": {"kind": "rectangle", "width": 30, "height": 200}}  # fmt: skip
    star = {"kind": "weld", "target": "front", "at": "right",
            "outline": {"kind": "star", "points": 24, "diameter": 60}}  # fmt: skip
    assert "corner.sharp" not in findings(BLANK, wedge)
    found = findings(BLANK, star)["corner.sharp"]
    assert found.value is not None
    assert found.value < 20
    (mend,) = found.mends
    assert mend.add is not None
    softened = findings(BLANK, star, mend.add.model_dump(mode="json", exclude={"id"}))
    assert "corner.sharp" not in softened
