"""Findings with their figures, at the boundary and just past it; and mends that mend."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import Finding, Mend, Severity, run_checks
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import evaluate
from tests.conftest import A2, design_of

BLANK = {"kind": "blank", "id": "a"}
ROOMY = {"size": {"name": "big", "width": 200, "height": 200, "envelope": None}}


def findings(*steps: dict[str, Any], **card: Any) -> dict[str, Finding]:
    return {f.code: f for f in run_checks(evaluate(design_of(*steps, **card)))}


def circle(diameter: float) -> dict[str, Any]:
    return {"kind": "figure", "id": "a", "outline": {"kind": "circle", "diameter": diameter}}


def mirror(lap: float) -> dict[str, Any]:
    return {"kind": "mirror", "id": "m", "towards": "left", "lap": lap}


def mended(design: Design, mend: Mend) -> dict[str, Finding]:
    """Findings after the mend's change to the document."""
    steps = [s.model_dump(mode="json") for s in design.pieces[0].steps]
    if mend.add is not None:
        at = next((i for i, s in enumerate(steps) if s["id"] == mend.before), len(steps))
        steps.insert(at, {**mend.add.model_dump(mode="json"), "id": "new"})
    else:
        for step in steps:
            if step["id"] == mend.step:
                step.update(mend.values)
    data = design.model_dump(mode="json")
    data["pieces"][0]["steps"] = steps
    return {f.code: f for f in run_checks(evaluate(Design.model_validate(data)))}


def test_a_plain_a2_passes_all() -> None:
    assert findings(BLANK) == {}


def test_halves_that_do_not_hold_together() -> None:
    """Two circles that touch: two pieces and no hinge; the mend's lap gives a fifth of 110."""
    design = design_of(circle(110), mirror(0), **ROOMY)
    found = {f.code: f for f in run_checks(evaluate(design))}
    assert found["pieces.apart"].severity is Severity.ERROR
    assert found["pieces.apart"].value == 2
    none = found["hinge.none"]
    assert none.severity is Severity.ERROR
    assert none.value == 0
    assert (
        none.message
        == "What lies on either side of the fold does not hold together: there is no hinge."
    )
    assert none.place.lines
    # it is round: all that is left to say is that it rocks
    assert set(mended(design, none.mends[0])) == {"foot.rocks"}


@pytest.mark.parametrize("margin", [0.0, 1.0])
def test_a_surround_joins_the_parts_of_an_outline(margin: float) -> None:
    """Squares 8 and 4 mm apart: over the 8 a margin m leaves a neck of 2 sqrt(m^2 - 4^2), which is
    5 mm where m = sqrt(4^2 + 2.5^2) = 4.717; the next half millimetre is 5."""
    squares = "M0 0H20V20H0Z M28 0H48V20H28Z M52 0H72V20H52Z"
    start = {"kind": "artwork", "id": "a", "ref": "o", "to": "as-read"}
    steps = [start, *([{"kind": "grow", "id": "g", "margin": margin}] if margin else [])]
    window = {"kind": "window", "id": "w", "outline": {"kind": "circle", "diameter": 3}}
    document = design_of(*steps, window, **ROOMY).model_dump(mode="json")
    design = load_design({**document, "artworks": {"o": {"layers": [{"path": squares}]}}})
    apart = {f.code: f for f in run_checks(evaluate(design))}["pieces.apart"]
    assert apart.value == 3
    (mend,) = apart.mends
    assert mend.title == "surround of 5 mm"
    assert (mend.step, mend.before) == (("g", "") if margin else ("", "w"))
    assert "pieces.apart" not in mended(design, mend)
    # further apart than a surround is worth
    far = squares.replace("M52", "M152").replace("H72", "H172").replace("H52Z", "H152Z")
    wide = load_design({**document, "artworks": {"o": {"layers": [{"path": far}]}}})
    assert not {f.code: f for f in run_checks(evaluate(wide))}["pieces.apart"].mends


def test_a_figure_by_itself_is_made_smaller_for_its_envelope() -> None:
    """A disc of 200 in an A2 envelope of 111.125, with 2 to spare and 0.3 of paper: 108.8 wide."""
    design = design_of(circle(200))
    (mend,) = {f.code: f for f in run_checks(evaluate(design))}["envelope.over"].mends
    assert mend.title == "fit to 108.8 mm wide"
    assert not {c for c in mended(design, mend) if c.startswith("envelope")}
    # a blank has the card's own measures, and is no figure to be made smaller
    large = {"size": {**A2, "width": 200.0, "height": 200.0}}
    assert not findings(BLANK, **large)["envelope.over"].mends


def test_a_short_hinge_against_a_fifth_of_the_panel() -> None:
    """r = 55 and lap 3: 25.515 is more than 22. Lap 2: 2 sqrt(55^2 - 54^2) = 20.881 is less.
    r = 40: at least 20; lap 2.5: 2 sqrt(40^2 - 38.75^2) = 19.843; lap 2.6: 20.229."""
    assert set(findings(circle(110), mirror(3), **ROOMY)) == {"foot.rocks"}
    short = findings(circle(110), mirror(2), **ROOMY)["hinge.short"]
    assert short.severity is Severity.WARNING
    assert short.value == pytest.approx(20.881, abs=1e-3)
    assert short.message == "The hinge is 20.88 mm long; 22 mm is safe."
    assert "hinge.short" in findings(circle(80), mirror(2.5), **ROOMY)
    assert "hinge.short" not in findings(circle(80), mirror(2.6), **ROOMY)


def test_spans_under_six_millimetres_tear() -> None:
    """A row of two notches leaves spans of 5 and 5.9 mm beside a long one."""
    notch = {"kind": "cut-away", "target": "card", "at": "head", "by": "head", "id": "n"}
    first = {**notch, "outline": {"kind": "rectangle", "width": 30, "height": 10}, "dy": 5.9}
    found = findings(BLANK, first)["hinge.span"]
    assert found.value == pytest.approx(5.9, abs=1e-6)
    assert found.message == "The paper crosses the fold in a span of only 5.9 mm: it tears."
    assert "hinge.span" not in findings(BLANK, {**first, "dy": 6.0})


def test_a_perforated_hinge_counts_what_is_left() -> None:
    crease = {"kind": "crease", "made": "perforate", "cut": 8, "leave": 1, "id": "c"}
    short = findings(BLANK, crease)["hinge.short"]
    # floor(138.7 / 9) = 15 cuts of 8 leave 19.7 of 139.7; 27.94 is a fifth
    assert short.value == pytest.approx(19.7, abs=1e-6)


def test_openings_left_in_by_size_and_their_mends() -> None:
    ring = {"kind": "figure", "id": "a", "outline": {"kind": "ring", "diameter": 60, "opening": 3}}
    window = {"kind": "window", "id": "w", "dx": 15, "outline": {"kind": "circle", "diameter": 10}}
    design = design_of(ring, mirror(12), window, **ROOMY)
    found = {f.code: f for f in run_checks(evaluate(design))}
    small = found["openings.small"]
    # 2.25 pi = 7.07 mm^2, in both halves; the window is meant
    assert (small.severity, small.value) == (Severity.WARNING, 2)
    assert small.message == "2 openings are left in: 7.07 mm², 7.07 mm²."
    assert small.mends[0].before == "w"
    after = mended(design, small.mends[0])
    assert "openings.small" not in after
    assert "step.not-applied" not in after
    large = findings({**ring, "outline": {"kind": "ring", "diameter": 60, "opening": 30}}, **ROOMY)
    assert large["openings.large"].severity is Severity.NOTE


@pytest.mark.parametrize(
    ("thickness", "code"), [(0.3, None), (0.5875, None), (0.588, "envelope.tight")]
)
def test_room_below_the_slack_of_two(thickness: float, code: str | None) -> None:
    """A2: 111.125 - 107.95 = 3.175 less twice the thickness: 2 at 0.5875."""
    data = design_of(BLANK).model_dump(mode="json")
    data["papers"][0]["thickness"] = thickness
    found = run_checks(evaluate(Design.model_validate(data)))
    assert [f.code for f in found] == ([code] if code else [])


def test_a_card_that_does_not_go_in() -> None:
    """The half closes to 118.5 x 120: 120 + 0.6 + 2 leaves A2's 111.125 by 9.475 less room."""
    design = design_of(circle(120), mirror(3), size=A2)
    found = {f.code: f for f in run_checks(evaluate(design))}
    over = found["envelope.over"]
    assert over.severity is Severity.ERROR
    assert over.value == pytest.approx(111.125 - 118.5 - 0.6, abs=1e-6)
    assert over.hint == "Envelope 5 1/4 in square would take it, then 140 mm square, 155 mm square."
    after = mended(design, over.mends[0])
    assert "envelope.over" not in after
    assert "envelope.tight" not in after


@pytest.mark.parametrize(
    ("gap", "severity"),
    [(6.0, None), (5.99, Severity.WARNING), (3.0, Severity.WARNING), (2.99, Severity.ERROR)],
)
@pytest.mark.parametrize("side", ["left", "right"])
def test_a_window_near_a_fold_or_an_edge(gap: float, severity: Severity | None, side: str) -> None:
    """On the front, left is the fold and right the open edge."""
    window = {
        "kind": "window", "id": "w", "at": side, "by": side, "dx": gap if side == "left" else -gap,
        "outline": {"kind": "rectangle", "width": 30, "height": 30},
    }  # fmt: skip
    design = design_of(BLANK, window)
    found = {f.code: f for f in run_checks(evaluate(design))}
    if severity is None:
        assert found == {}
        return
    near = found["window.near"]
    assert near.severity is severity
    assert near.value == pytest.approx(gap, abs=1e-6)
    assert ("fold" if side == "left" else "edge") in near.message
    assert mended(design, near.mends[0]) == {}


def test_a_window_meant_to_cross_is_not_judged() -> None:
    window = {
        "kind": "window", "id": "w", "target": "card", "crosses": True,
        "outline": {"kind": "rectangle", "width": 30, "height": 30},
    }  # fmt: skip
    assert "window.near" not in findings(BLANK, window)


def test_steps_passed_over_are_errors_with_the_value_that_would_do() -> None:
    design = design_of(circle(60), mirror(500), **ROOMY)
    found = {f.code: f for f in run_checks(evaluate(design))}
    error = found["step.not-applied"]
    assert error.message == (
        "Mirror: A lap of 500 mm is deeper than the figure; 119.9 mm still leaves something."
    )
    assert "step.not-applied" not in mended(design, error.mends[0])
    radius = design_of(
        {"kind": "figure", "id": "a",
         "outline": {"kind": "rectangle", "width": 60, "height": 40, "radius": 30}}, **ROOMY
    )  # fmt: skip
    wrong = next(f for f in run_checks(evaluate(radius)) if f.code == "step.not-applied")
    assert mended(radius, wrong.mends[0]) == {}


def test_figures_are_said_in_the_designs_unit() -> None:
    data = design_of(circle(110), mirror(2), **ROOMY).model_dump(mode="json")
    data["units"] = "in"
    found = {f.code: f.message for f in run_checks(evaluate(Design.model_validate(data)))}
    assert found["hinge.short"] == "The hinge is 0.822 in long; 0.866 in is safe."


def test_an_empty_piece_is_an_error_and_a_reversed_figure_a_note() -> None:
    assert findings()["piece.empty"].severity is Severity.ERROR
    below = findings(circle(60), {**mirror(10), "towards": "below"}, **ROOMY)
    assert below["mirror.reversed"].severity is Severity.NOTE
