"""Every registered step is held to what the guide to extending says."""

from __future__ import annotations

import pytest
from hypothesis import given, settings

from stileblade.design.evaluation import Artworks, evaluate
from stileblade.folding.flat import fold_flat
from stileblade.steps.handle import AroundHandle, BoxHandle, LineHandle, PickHandle
from stileblade.steps.step import STEPS, Stage
from stileblade.views.bench import view
from stileblade.views.strip import small_picture
from tests.conftest import TIMES, design_of
from tests.promises.described import assert_described
from tests.promises.sampled import KINDS, sampled
from tests.promises.values import BY_KIND, Values, starts


@pytest.mark.parametrize("kind", KINDS)
def test_it_is_described_builds_and_has_a_picture(kind: str) -> None:
    cls = STEPS[kind]
    assert_described(cls)
    assert cls.title
    assert cls.stage in Stage
    assert type(cls.sample()[-1]) is cls
    evaluation, outcome = sampled(cls)
    piece = evaluation.pieces[-1]
    assert [o.problem for o in piece.outcomes] == [None] * len(piece.outcomes)
    assert outcome.work is not None
    assert small_picture(outcome.work).path
    shown = view(evaluation, piece, outcome.step.id, set())
    assert shown.flat is not None
    assert shown.flat.path


@pytest.mark.parametrize("kind", KINDS)
def test_it_goes_through_json_and_back(kind: str) -> None:
    step = STEPS[kind].sample()[-1]
    assert type(step).model_validate_json(step.model_dump_json()) == step


@pytest.mark.parametrize("kind", KINDS)
def test_values_go_through_json_and_back_at_their_bounds(kind: str) -> None:
    if kind not in BY_KIND:
        return

    @given(BY_KIND[kind])
    @settings(max_examples=20 * TIMES)
    def check(values: Values) -> None:
        design = design_of({"kind": "blank"}, values)
        again = type(design).model_validate_json(design.model_dump_json())
        assert again == design

    check()


@pytest.mark.parametrize("kind", KINDS)
def test_its_handles_stand_where_its_values_say(kind: str) -> None:
    """A line's place makes its value; every field of a handle is a value of the step."""
    cls = STEPS[kind]
    evaluation, outcome = sampled(cls)
    setting = evaluation.design.setting_for(
        evaluation.design.pieces[-1], Artworks(evaluation.design.artworks)
    )
    for handle in outcome.step.handles(outcome.before, setting):
        if isinstance(handle, LineHandle):
            made = (handle.at - handle.origin) * handle.sets.factor
            assert made == pytest.approx(handle.sets.value, abs=1e-9)
            fields = [handle.sets.field]
        elif isinstance(handle, BoxHandle):
            fields = [handle.across.field, handle.down.field]
        else:
            assert isinstance(handle, AroundHandle | PickHandle)
            fields = [handle.field]
        assert all(field.split(".")[0] in cls.model_fields for field in fields)


@pytest.mark.parametrize("kind", KINDS)
def test_moved_by_a_way_it_lies_that_far_on(kind: str) -> None:
    """What a box stands round, moved by 1.5 to the right and 2.5 up, reaches that far on."""
    cls = STEPS[kind]
    _, outcome = sampled(cls)
    if outcome.before is None:
        return
    values = outcome.step.moved_by(outcome.before, 1.5, -2.5)
    moves = outcome.step.moves(outcome.before)
    assert set(values) == {m.field for m in moves or ()}
    if not values:
        return
    evaluation, moved = sampled(cls, **values)
    setting = evaluation.pieces[-1].setting
    if outcome.step.placed_on(setting) is not None:
        return  # it is moved on another piece, where the assembled view shows it
    before, after = (
        next(h for h in o.step.handles(o.before, setting) if isinstance(h, BoxHandle))
        for o in (outcome, moved)
    )
    ways = [b - a for a, b in zip(before.box.as_list(), after.box.as_list(), strict=True)]
    # a tab reaches out farther, and stays where it is held
    assert 1.5 in [pytest.approx(w, abs=1e-6) for w in ways[0::2]]
    assert -2.5 in [pytest.approx(w, abs=1e-6) for w in ways[1::2]]


@pytest.mark.parametrize("kind", KINDS)
def test_it_says_whether_it_may_cut_openings_on_purpose(kind: str) -> None:
    """The sample, and twenty random ones: openings cut on purpose are windows of the piece."""
    _, outcome = sampled(STEPS[kind])
    before = outcome.before.windows if outcome.before else ()
    assert outcome.work is not None
    assert outcome.step.opens or len(outcome.work.windows) == len(before)
    if kind not in BY_KIND:
        return

    @given(starts, BY_KIND[kind])
    @settings(max_examples=15 * TIMES)
    def check(start: Values, values: Values) -> None:
        for made in evaluate(design_of(start, values)).pieces[0].outcomes[1:]:
            if made.problem is None and made.work is not None and made.before is not None:
                more = len(made.work.windows) > len(made.before.windows)
                assert made.step.opens or not more

    check()


@pytest.mark.parametrize("kind", KINDS)
def test_drawn_in_the_closed_card_is_no_larger(kind: str) -> None:
    cls = STEPS[kind]
    _, outcome = sampled(cls)
    values = outcome.step.drawn_in_by(0.5)
    if not values:
        return
    assert cls.changes_size
    _, less = sampled(cls, **values)
    assert outcome.work is not None
    assert less.work is not None
    before, after = fold_flat(outcome.work).closed, fold_flat(less.work).closed
    assert after[0] <= before[0] + 1e-9
    assert after[1] <= before[1] + 1e-9


@pytest.mark.parametrize("kind", KINDS)
def test_turned_or_grown_it_sets_values_of_its_own(kind: str) -> None:
    """Turned by 30 degrees more the figure keeps its area; grown to a margin it surrounds by that."""
    cls = STEPS[kind]
    _, outcome = sampled(cls)
    assert outcome.work is not None
    if values := outcome.step.turned_by(30):
        _, turned = sampled(cls, **values)
        assert turned.work is not None
        assert turned.work.paper.area == pytest.approx(outcome.work.paper.area)
        assert turned.work.paper.bounds != outcome.work.paper.bounds
    if values := outcome.step.grown_to(7):
        _, grown = sampled(cls, **values)
        assert grown.step.surrounds_by == 7
        assert grown.work is not None
        assert grown.before is not None
        widths = grown.work.paper.bounds.width - grown.before.paper.bounds.width
        assert widths == pytest.approx(14, abs=0.01)


@pytest.mark.parametrize("kind", KINDS)
def test_what_it_tells_and_its_caption_can_be_read(kind: str) -> None:
    cls = STEPS[kind]
    evaluation, outcome = sampled(cls)
    assert outcome.work is not None
    told = outcome.step.tells(outcome.before, outcome.work, evaluation.pieces[-1].setting)
    assert all(t.name and t.unit in ("mm", "deg", "mm2", "count", "percent") for t in told)
    caption = outcome.step.caption()
    assert caption.text or caption.value is not None


@pytest.mark.parametrize("kind", STEPS.names())
def test_a_value_means_the_same_as_in_what_the_step_derives_from(kind: str) -> None:
    """A field of another name for another thing: kept designs have values for both."""
    cls = STEPS[kind]
    for base in cls.__mro__[1:]:
        for name, info in getattr(base, "model_fields", {}).items():
            assert cls.model_fields[name].title == info.title, (kind, name, base.__name__)
