"""The same design on another card: what is kept, placed anew, switched off."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.card.folding import Folding
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import Artworks, evaluate
from stileblade.design.refold import Refolded, refold
from stileblade.outlines.artwork import Artwork
from stileblade.outlines.figure import FIGURES, outline_of
from stileblade.steps.step import STEPS
from tests.conftest import design_of
from tests.promises.sampled import KINDS, sampled

BLANK = {"kind": "blank", "id": "b"}
A6 = {"name": "ISO A6", "width": 105, "height": 148, "envelope": None}


def window(width: float = 40, **values: Any) -> dict[str, Any]:
    outline = {"kind": "rectangle", "width": width, "height": 30}
    return {"kind": "window", "id": "w", "outline": outline, **values}


def folded(design: Design, **folding: Any) -> Refolded:
    card = design.card.model_copy(update={"folding": Folding.model_validate(folding)})
    return refold(design, card)


def sized(design: Design, size: dict[str, Any]) -> Refolded:
    data = design.card.model_dump()
    return refold(design, type(design.card).model_validate({**data, "size": size}))


def problems(design: Design) -> list[str]:
    return [o.step.id for o in evaluate(design).pieces[0].outcomes if o.problem]


def test_what_fits_stays_by_its_panel() -> None:
    """A window centred on the front of A2 is centred on the front of ISO A6."""
    found = sized(design_of(BLANK, window()), A6)
    assert found.kept == 2
    assert [(c.step, c.what, c.why) for c in found.changes] == [
        ("w", "stayed", "stays 40 mm × 30 mm")
    ]
    work = evaluate(found.design).pieces[0].work
    assert work is not None
    x, y = work.windows[0].outline.bounds.centre
    assert (x, y) == (105 + 52.5, 74)


def test_what_does_not_fit_is_switched_off_and_says_why() -> None:
    found = sized(design_of(BLANK, window(106), {"kind": "soften", "id": "s"}), A6)
    assert found.kept == 2
    (change,) = found.changes
    assert (change.step, change.what) == ("w", "off")
    assert change.why.startswith("The window of 106 mm x 30 mm is larger than the panel")
    steps = {s.id: s.on for s in found.design.pieces[0].steps}
    assert steps == {"b": True, "w": False, "s": True}
    assert problems(found.design) == []


def test_panels_that_are_gone_are_replaced_by_those_in_their_place() -> None:
    """On the flap of a side fold, then without one: the front is nearest. On the second panel of an
    accordion of four, then a side fold: the back."""
    flap = design_of(BLANK, window(20, target="flap"), way="side-fold-flap")
    (change,) = folded(flap, kind="side-fold").changes
    assert (change.what, change.why) == ("placed", "now on 'front'")
    accordion = design_of(BLANK, window(target="panel 2"), way="accordion")
    found = folded(accordion, kind="side-fold")
    assert [c.why for c in found.changes] == ["now on 'back'"]
    assert problems(found.design) == []


def test_the_front_is_whatever_panel_is_in_front() -> None:
    """A window on the front goes on the gatefold's right door, and back, if it fits."""
    design = design_of(BLANK, window(30), size=A6)
    found = folded(design, kind="gatefold")
    assert [c.why for c in found.changes] == ["now on 'right door'"]
    work = evaluate(found.design).pieces[0].work
    assert work is not None
    assert work.windows[0].outline.bounds.centre[0] == 157 + 26
    again = folded(found.design, kind="side-fold")
    assert [c.why for c in again.changes] == ["now on 'front'"]
    wide = folded(design_of(BLANK, window(60), size=A6), kind="gatefold")
    assert [c.what for c in wide.changes] == ["off"]


def test_folds_keep_their_place_from_the_front_on() -> None:
    """The crease on the only fold is on the one beside the front of an accordion, and back."""
    crease = {"kind": "crease", "id": "c", "fold": "fold", "made": "perforate"}
    found = folded(design_of(BLANK, crease), kind="accordion", count=4)
    assert [c.why for c in found.changes] == ["now on 'fold 3'"]
    again = folded(found.design, kind="side-fold")
    assert [c.why for c in again.changes] == ["now on 'fold'"]
    assert problems(again.design) == []


def test_what_failed_before_is_left_alone() -> None:
    design = design_of(BLANK, window(300))
    found = sized(design, A6)
    assert (found.kept, found.changes) == (1, ())
    assert found.design.pieces[0].steps[1].on


def test_a_step_that_another_made_fail_applies_again() -> None:
    """The foot trimmed by 120 mm of 139.7 leaves too little on the lower ISO A7, and the slice alone
    is switched off: the window that stood on what it left is not."""
    a7 = {"name": "ISO A7", "width": 74, "height": 105, "envelope": None}
    cut = {"kind": "slice", "id": "s", "keep": "above", "distance": 120, "target": "card"}
    found = sized(design_of(BLANK, cut, window(20, at="head", by="head")), a7)
    assert [(c.step, c.what) for c in found.changes] == [("s", "off"), ("w", "stayed")]


DL = {"name": "DL", "width": 99, "height": 210, "envelope": None}
SQUARE = {"name": "150 mm square", "width": 150, "height": 150, "envelope": None}
FACTOR = 150 / 210
"""From DL to the square: 1.515 across, 0.714 down; the less of both."""
TOWER = {"layers": [{"name": "Tower", "path": "M0 0H40V100H0Z"}]}
"""40 x 100 as read."""


def card_of(*steps: dict[str, Any], **more: Any) -> Design:
    data = design_of(*steps, size=DL).model_dump(mode="json")
    return load_design({**data, "artworks": {"tower": TOWER}} | more)


def stayed(found: Refolded) -> list[tuple[str, str]]:
    return [(c.step, c.why) for c in found.changes if c.what == "stayed"]


def on_square(design: Design, **more: Any) -> Refolded:
    data = design.card.model_dump()
    return refold(design, type(design.card).model_validate({**data, "size": SQUARE}), **more)


def test_a_figure_of_its_own_height_stays_behind_and_is_taken_along() -> None:
    """A lighthouse of 178 on a DL card stays 178 on a square of 150, which is said; taken along it is
    178 * 150 / 210 = 127.143."""
    tower = {"kind": "artwork", "id": "a", "ref": "tower", "to": "height", "height": 178}
    design = card_of(tower, {"kind": "mirror", "id": "m", "lap": 12})
    found = on_square(design)
    assert found.factor == pytest.approx(FACTOR)
    assert stayed(found) == [("a", "stays 178 mm")]
    along = on_square(design, along=True)
    assert stayed(along) == []
    work = evaluate(along.design).pieces[0].work
    assert work is not None
    assert work.paper.bounds.height == pytest.approx(127.143, abs=1e-3)
    later = refold(found.design, found.design.card, factor=found.factor)
    assert later.design == along.design


@pytest.mark.parametrize(
    ("steps", "names"),
    [
        ([BLANK, window(40, dx=10)], ["w"]),
        ([BLANK, {**window(), "sized": "fit", "margin": 12}], []),
        ([{"kind": "artwork", "id": "a", "ref": "tower", "to": "panel"}], []),
        ([{"kind": "artwork", "id": "a", "ref": "tower"}], ["a"]),
        # what sizes the figure anew counts, and not what it was before
        (
            [
                {"kind": "artwork", "id": "a", "ref": "tower"},
                {"kind": "fit", "id": "f", "width": 60},
            ],
            ["f"],
        ),
        (
            [
                {"kind": "artwork", "id": "a", "ref": "tower"},
                {"kind": "fit", "id": "f", "to": "panel"},
            ],
            [],
        ),
        ([BLANK, {**window(), "on": False}], []),
    ],
)
def test_only_figures_with_sizes_of_their_own_stay_behind(
    steps: list[dict[str, Any]], names: list[str]
) -> None:
    assert [step for step, _ in stayed(on_square(card_of(*steps)))] == names


def test_taken_along_a_figure_is_as_far_from_where_it_is_placed_by() -> None:
    steps = [BLANK, {**window(40, dx=10, dy=-20), "at": "foot", "by": "foot"}]
    found = on_square(card_of(*steps), along=True)
    box = evaluate(found.design).pieces[0].work.windows[0].outline.bounds  # type: ignore[union-attr]
    assert (box.width, box.height) == pytest.approx((40 * FACTOR, 30 * FACTOR))
    assert box.centre[0] == pytest.approx(150 + 75 + 10 * FACTOR)
    assert box.foot == pytest.approx(150 - 20 * FACTOR)


def test_every_kind_that_says_how_it_is_scaled_is_scaled_so() -> None:
    """Of every kind's own sample: twice as large, what it makes or places is twice as wide and high."""
    tried = 0
    for kind in KINDS:
        evaluation, outcome = sampled(STEPS[kind])
        piece = evaluation.pieces[-1]
        values = outcome.step.scaled_by(0.5, piece.setting)
        if "outline" not in values:
            continue
        half = outline_of(values["outline"], piece.setting.shelf).bounds
        whole = outline_of(outcome.step.outline, piece.setting.shelf).bounds  # type: ignore[attr-defined]
        assert (half.width, half.height) == pytest.approx(
            (whole.width / 2, whole.height / 2), rel=1e-3
        ), kind
        tried += 1
    assert tried > 6


@pytest.mark.parametrize("kind", FIGURES.names())
def test_every_figure_is_scaled_in_proportion(kind: str) -> None:
    figure = FIGURES[kind]()
    if figure.reads():
        figure = figure.model_copy(update={"ref": "tower"})
    shelf = Artworks({"tower": Artwork.model_validate(TOWER)})
    box = outline_of(figure, shelf).bounds
    larger = outline_of(figure.scaled(1.25, shelf), shelf)
    assert larger.bounds.width == pytest.approx(1.25 * box.width, rel=1e-3)
    assert larger.bounds.height == pytest.approx(1.25 * box.height, rel=1e-3)
    assert larger.area == pytest.approx(1.25**2 * outline_of(figure, shelf).area, rel=5e-3)


@pytest.mark.parametrize("kind", ["artwork", "fit"])
def test_another_kind_of_fit_begins_with_the_present_measures(kind: str) -> None:
    """Said of a figure as it stands; put in, they change nothing."""
    start = {"kind": "artwork", "id": "a", "ref": "tower", "to": "height", "height": 150}
    steps = [start] if kind == "artwork" else [start, {"kind": "fit", "id": "f", "to": "panel"}]
    outcome = evaluate(card_of(*steps)).pieces[0].outcomes[-1]
    assert outcome.work is not None
    present = outcome.step.present(outcome.work)
    box = outcome.work.paper.bounds
    assert present == pytest.approx({"width": box.width, "height": box.height}, abs=1e-3)
    for to in ("width", "height"):
        changed = [*steps[:-1], {**steps[-1], "to": to, **present}]
        again = evaluate(card_of(*changed)).pieces[0].work
        assert again is not None
        assert again.paper.bounds.width == pytest.approx(box.width, abs=2e-3)
