"""The same design on another card: what is kept, placed anew, switched off."""

from __future__ import annotations

from typing import Any

from stileblade.card.folding import Folding
from stileblade.design.document import Design
from stileblade.design.evaluation import evaluate
from stileblade.design.refold import Refolded, refold
from tests.conftest import design_of

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
    assert (found.kept, found.changes) == (2, ())
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
    assert [(c.step, c.what) for c in found.changes] == [("s", "off")]
