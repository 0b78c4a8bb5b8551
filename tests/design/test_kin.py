"""Changes of one design of a family, taken over by another."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from stileblade.design.document import Design, load_design
from stileblade.design.kin.differences import How, Names, What, differences
from stileblade.design.kin.here import ratio_of
from stileblade.views.kin import chosen, offered, taken_over

A6 = {"name": "ISO A6", "width": 105, "height": 148}
A5 = {"name": "ISO A5", "width": 148, "height": 210}
WINDOW = {"kind": "window", "id": "w", "outline": {"kind": "circle", "diameter": 40}, "dy": 10}
STEPS = ({"kind": "blank", "id": "b"}, WINDOW)
NONE = Names()


def design(*steps: dict[str, Any], size: dict[str, Any] | None = None, **more: Any) -> Design:
    card = {"size": size or A6, **more.pop("card", {})}
    pieces = [{"id": "base", "name": "Base", "steps": [dict(s) for s in steps]}]
    pieces += more.pop("layers", [])
    return load_design({"card": card, "pieces": pieces, **more})


def step(design: Design, key: str, piece: str = "base") -> Any:
    (found,) = (s for p in design.pieces if p.id == piece for s in p.steps if s.id == key)
    return found


def over(before: Design, source: Design, target: Design, **how: How) -> Design:
    named = {
        d.key: how[d.path.replace(".", "_")]
        for d in differences(before, source)
        if d.path.replace(".", "_") in how
    }
    return taken_over(before, source, target, target, NONE, named)[0]


def test_nothing_is_changed_in_what_is_the_same() -> None:
    assert differences(design(*STEPS), design(*STEPS)) == []
    other = design(*STEPS, size=A5, name="Other", units="in")
    assert differences(design(*STEPS), other) == []


def test_a_value_is_kept_or_scaled_by_choice() -> None:
    """The A5 card is larger by 148 / 105 = 1.40952 (its height by 1.41892)."""
    before, source = (
        design(*STEPS),
        design(STEPS[0], {**WINDOW, "outline": {"kind": "circle", "diameter": 50}}),
    )
    (one,) = differences(before, source)
    assert (one.path, one.before, one.after, one.unit, one.title) == (
        "outline.diameter",
        40,
        50,
        "mm",
        "Diameter",
    )
    target = design(*STEPS, size=A5)
    assert ratio_of(source, target) == pytest.approx(1.409524, abs=1e-6)
    assert step(over(before, source, target), "w").outline.diameter == 50
    assert (
        step(over(before, source, target, outline_diameter=How.SCALED), "w").outline.diameter
        == 70.48
    )
    assert over(before, source, target, outline_diameter=How.LEFT) == target


def test_what_was_scaled_before_is_scaled_again_and_an_own_value_stays() -> None:
    before, source = design(*STEPS), design(STEPS[0], {**WINDOW, "dy": 20})
    scaled = design(STEPS[0], {**WINDOW, "dy": 14.1}, size=A5)
    assert step(over(before, source, scaled), "w").dy == 28.19
    own = design(STEPS[0], {**WINDOW, "dy": 3}, size=A5)
    ((_, stands, how),) = chosen(before, source, own, NONE, {})
    assert (stands.value, how) == (3, How.LEFT)
    assert over(before, source, own) == own
    assert step(over(before, source, own, dy=How.KEPT), "w").dy == 20


def test_what_is_so_already_is_not_offered() -> None:
    before, source = design(*STEPS), design(STEPS[0], {**WINDOW, "dy": 20})
    assert chosen(before, source, design(STEPS[0], {**WINDOW, "dy": 20}, size=A5), NONE, {}) == []
    assert chosen(before, source, design(STEPS[0], size=A5), NONE, {}) == []


def test_steps_are_added_behind_the_same_one_taken_away_and_put_in_order() -> None:
    soften, hole = {"kind": "soften", "id": "s"}, {"kind": "hang-hole", "id": "h"}
    before = design(*STEPS, hole)
    source = design(STEPS[0], hole, soften, WINDOW)
    target = design(*STEPS, hole, {"kind": "grow", "id": "g"}, size=A5)
    made = over(before, source, target)
    assert [s.id for s in made.pieces[0].steps] == ["b", "h", "s", "w", "g"]
    gone = over(design(*STEPS, hole), design(*STEPS), target)
    assert [s.id for s in gone.pieces[0].steps] == ["b", "w", "g"]


def test_another_kind_of_step_may_have_the_key_of_one_that_is_gone() -> None:
    before, source = design(*STEPS), design(STEPS[0], {"kind": "soften", "id": "w"})
    made, known, names = taken_over(before, source, design(*STEPS, size=A5), before, NONE, {})
    assert [(s.id, s.kind) for s in made.pieces[0].steps] == [("b", "blank"), ("w", "soften")]
    # taken away and put in again, it is taken over again
    without, _, _ = taken_over(source, design(STEPS[0]), made, known, names, {})
    assert [s.id for s in without.pieces[0].steps] == ["b"]
    again, _, _ = taken_over(design(STEPS[0]), source, without, known, names, {})
    assert [s.id for s in again.pieces[0].steps] == ["b", "w"]


def test_an_added_step_gets_a_key_of_its_own_where_that_is_taken() -> None:
    """Both got a step "s1" of their own; later changes find the right one, both ways."""
    soften, hole = {"kind": "soften", "id": "s1"}, {"kind": "hang-hole", "id": "s1"}
    before, source = design(*STEPS), design(*STEPS, soften)
    mine, behind = design(*STEPS, hole, size=A5), design(*STEPS, size=A5)
    made, known, names = taken_over(before, source, mine, behind, NONE, {})
    assert [(s.id, s.kind) for s in made.pieces[0].steps] == [
        ("b", "blank"), ("w", "window"), ("s2", "soften"), ("s1", "hang-hole"),
    ]  # fmt: skip
    assert names.other == {"base/s1": "s2"}
    assert names.the_other_way().other == {"base/s2": "s1"}
    # the hole alone is left to be offered to the first one
    assert [(d.what, d.title) for d in differences(known, made)] == [(What.STEP, "Hang hole")]
    later = design(*STEPS, {**soften, "radius": 4})
    changed, _, _ = taken_over(source, later, made, known, names, {})
    assert step(changed, "s2").radius == 4
    back, _, back_names = taken_over(known, changed, later, source, names.the_other_way(), {})
    assert {s.kind for s in back.pieces[0].steps} == {"blank", "window", "soften", "hang-hole"}
    assert len({s.id for s in back.pieces[0].steps}) == 4
    assert set(back_names.other) == {"base/s2", "base/s1"}


def test_pieces_come_with_their_paper_and_artworks() -> None:
    red = {"id": "red", "name": "Red", "outside": "#cc0000"}
    mat = {
        "id": "mat",
        "name": "Mat",
        "host": "base",
        "paper": "red",
        "steps": [{"kind": "mat", "margin": 4}],
    }
    before, source = (
        design(*STEPS, papers=[{"id": "paper"}]),
        design(*STEPS, papers=[{"id": "paper"}, red], layers=[mat]),
    )
    target = design(*STEPS, size=A5, papers=[{"id": "paper"}])
    made = over(before, source, target)
    assert [(p.id, p.paper, p.host) for p in made.pieces] == [
        ("base", "paper", ""),
        ("mat", "red", "base"),
    ]
    assert step(made, "s1", "mat").margin == 4
    keys = {d.key: How.SCALED for d in differences(before, source)}
    scaled, _, _ = taken_over(before, source, target, target, NONE, keys)
    assert step(scaled, "s1", "mat").margin == 5.64
    gone = over(source, before, made)
    assert [p.id for p in gone.pieces] == ["base"]
    # left out, the paper comes all the same when the piece does
    paper = next(d.key for d in differences(before, source) if d.what is What.PAPER)
    some, _, _ = taken_over(before, source, target, target, NONE, {paper: How.LEFT})
    assert [p.id for p in some.papers] == ["paper", "red"]


def test_another_way_of_folding_places_steps_anew() -> None:
    before = design(*STEPS)
    source = design(*STEPS, card={"folding": {"kind": "gatefold"}})
    made = over(before, source, design(*STEPS, size=A5))
    assert made.card.folding.kind == "gatefold"
    assert made.card.size.name == "ISO A5"


def test_what_would_be_no_design_is_said() -> None:
    before = design(*STEPS, layers=[{"id": "mat", "name": "Mat", "steps": [{"kind": "mat"}]}])
    source = design(*STEPS)
    target = design(*STEPS, size=A5, layers=[
        {"id": "mat", "name": "Mat", "steps": [{"kind": "mat"}]},
        {"id": "sun", "name": "Sun", "host": "mat", "steps": []},
    ])  # fmt: skip
    offer = offered(before, source, target, NONE, {})
    assert offer.look is None
    assert "lies on 'mat'" in offer.problem


def test_offers_are_said_in_the_other_designs_units() -> None:
    before, source = design(*STEPS), design(STEPS[0], {**WINDOW, "dy": 25.4, "on": False})
    offer = offered(before, source, design(*STEPS, size=A5, units="in"), NONE, {})
    told = {
        c.title: (c.of, c.before, c.after, c.here, c.kept, c.scaled, c.how) for c in offer.changes
    }
    assert told["On"] == ("step 2, Window", "on", "off", "on", "off", "", "kept")
    assert told["Down"][1:] == ("10 mm", "25.4 mm", "0.394 in", "1 in", "1.409 in", "kept")
    assert offer.look is not None


@given(st.lists(st.sampled_from(["blank", "window", "soften", "hang-hole", "grow"]), max_size=5),
       st.lists(st.sampled_from(["window", "soften", "hang-hole", "grow"]), max_size=5),
       st.randoms(use_true_random=False))  # fmt: skip
def test_a_member_that_is_in_step_follows_wholly(
    old: list[str], new: list[str], random: Any
) -> None:
    """Whatever is added, taken away and put in another order: all taken over, both have the same steps."""
    before = design(*({"kind": k, "id": f"o{n}"} for n, k in enumerate(old)))
    kept = [{"kind": k, "id": f"o{n}"} for n, k in enumerate(old) if random.random() < 0.7]
    steps = [*kept, *({"kind": k, "id": f"n{n}"} for n, k in enumerate(new))]
    random.shuffle(steps)
    source, target = design(*steps), before.model_copy(update={"name": "Other"})
    made, known, names = taken_over(before, source, target, before, NONE, {})
    assert [s.id for s in made.pieces[0].steps] == [s["id"] for s in steps]
    assert chosen(source, source, made, names, {}) == []
    assert differences(known, made) == []
