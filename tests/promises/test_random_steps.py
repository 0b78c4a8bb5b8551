"""Random values of every step in random order, on all ways of folding: nothing breaks, contours
stay closed, what cannot be applied says so, and the bench can show whatever comes out."""

from __future__ import annotations

import logging
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from stileblade.card.ways import WAYS
from stileblade.checks.check import run_checks
from stileblade.checks.slits import crossings
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.folding.flat import fold_flat
from stileblade.formats.format import formats
from stileblade.formats.plan import plan_of
from stileblade.geometry.measures.cells import area_of
from stileblade.geometry.regions.along import points_along
from stileblade.geometry.regions.loops import crosses_itself
from stileblade.geometry.regions.region import Region
from stileblade.machine.operation import Operation
from stileblade.piece.work import Work
from stileblade.steps.step import STEPS
from stileblade.views.bench import view
from stileblade.views.cuts import cuts_of, placed_of
from stileblade.views.summary import summary_of
from tests.conftest import TIMES, design_of
from tests.geometry.regions.test_set_operations import check_whole
from tests.promises.values import BEFORE, BY_KIND, Values, starts, steps

ways = st.sampled_from(WAYS.names())


@pytest.fixture(autouse=True)
def nothing_breaks(caplog: pytest.LogCaptureFixture) -> Any:
    """What fails unexpectedly is logged as an error: here that is a failure of the test."""
    caplog.set_level(logging.ERROR, "stileblade")
    yield
    assert not caplog.records, caplog.records[0].getMessage() + (caplog.records[0].exc_text or "")


ARTWORKS = {key: drawn for cls in STEPS for key, drawn in cls.sample_artworks.items()}
"""What steps of samples are made of."""


def built(*made: Values, way: str = "side-fold") -> Evaluation:
    """The design's evaluation, looked at from everywhere."""
    design = design_of(*made, way=way).model_copy(update={"artworks": ARTWORKS})
    evaluation = evaluate(design)
    for piece in evaluation.pieces:
        for outcome in piece.outcomes:
            if outcome.problem is not None:
                assert outcome.problem.message.endswith((".", "…"))
                assert outcome.work is outcome.before
            if outcome.work is not None:
                check_whole(outcome.work.paper)
                assert not crosses_itself(outcome.work.paper)
        shown = view(evaluation, piece, made_id(design), set())
        assert shown.rest is not None
        assert not [f for f in shown.rest.findings if f.code == "not-computed"]
        cuts_of(piece)
        placed_of(piece)
    return evaluation


def made_id(design: Design) -> str:
    return design.pieces[0].steps[-1].id


@pytest.mark.parametrize("kind", sorted(BY_KIND))
def test_every_step_with_random_values(kind: str) -> None:
    """After whatever starts a card, and after the steps of its own sample."""
    before = st.one_of(starts.map(lambda start: [start]), st.just(BEFORE[kind]))
    applied = 0

    @given(before, BY_KIND[kind], ways)
    @settings(max_examples=16 * TIMES)
    def check(before: list[Values], step: Values, way: str) -> None:
        nonlocal applied
        evaluation = built(*before, step, way=way)
        applied += evaluation.pieces[0].outcomes[-1].problem is None

    check()
    assert applied


@given(starts, steps, steps, ways)
@settings(max_examples=60 * TIMES)
def test_two_odd_steps_together(start: Values, first: Values, second: Values, way: str) -> None:
    built(start, first, second, way=way)


@given(starts, st.lists(steps, max_size=5), ways)
@settings(max_examples=80 * TIMES)
def test_whatever_is_built_can_be_shown_and_cut(
    start: Values, more: list[Values], way: str
) -> None:
    evaluation = built(start, *more, way=way)
    (piece,) = evaluation.pieces
    work = piece.work
    if work is None or not work.paper:
        return
    _nothing_wrong_is_silent(work, {f.code for f in run_checks(evaluation)})
    plan = plan_of(evaluation, piece)
    outer, inner = plan.lines[Operation.CUT_OUTER], plan.lines[Operation.CUT_INNER]
    assert sum(line.closed for line in inner) >= len(work.paper.openings)
    assert len(outer) == work.paper.pieces
    assert all(line.closed for line in outer)
    # creases lie on paper: no score and no perforation off the piece
    box = work.paper.bounds
    for fold in work.folds:
        for span in work.spans[fold.name]:
            assert box.left - 1e-6 <= span.start[0] <= box.right + 1e-6
            assert box.head - 1e-6 <= span.end[1] <= box.foot + 1e-6
    assert formats()["svg"].write(plan).startswith(b"<?xml")


def _nothing_wrong_is_silent(work: Work, said: set[str]) -> None:
    """Nothing floats, and nothing is cut across a crease, without a finding."""
    if work.paper.pieces > 1:
        assert "pieces.apart" in said
    elif any(f.loose and area_of(f.cell) > 1 for f in fold_flat(work).faces):
        assert "slit.loose" in said
    if any(crossings(work, points_along(way)) for way in work.slits):
        assert "slit.across" in said
    if any(_over_a_fold(work, w.outline) for w in work.windows if not w.crosses):
        assert "window.near" in said


def _over_a_fold(work: Work, outline: Region) -> bool:
    """Whether an outline reaches more than a hundredth of a mm to both sides of a fold."""
    s = outline.segments
    for fold in work.folds:
        off = fold.line.off(s.start)
        if fold.folds and off.min() < -0.01 and off.max() > 0.01:
            return True
    return False


@given(starts, st.lists(steps, max_size=4))
@settings(max_examples=40 * TIMES)
def test_the_same_design_comes_out_the_same(start: Values, more: list[Values]) -> None:
    """Through JSON and back, and computed twice without what was remembered."""
    design = design_of(start, *more)
    again = Design.model_validate_json(design.model_dump_json())
    assert again == design
    assert load_design(design.model_dump(mode="json")) == design
    first, second = (evaluate(d).pieces[0].work for d in (design, again))
    if first is None or second is None:
        assert first is second
        return
    assert first.paper.area == second.paper.area
    assert (first.paper.segments.coef == second.paper.segments.coef).all()
    assert summary_of(design.model_dump_json()) == summary_of(again.model_dump_json())


@pytest.mark.parametrize("way", ["side-fold", "top-fold"])
def test_a_lower_limit_is_a_limit(way: str) -> None:
    """A window of exactly the panel's size fits; a hair more does not."""
    for extra, fits in ((0.0, True), (0.001, False)):
        window = {
            "kind": "window",
            "outline": {"kind": "rectangle", "width": 107.95 + extra, "height": 30},
        }
        outcome = evaluate(design_of({"kind": "blank"}, window, way=way)).pieces[0].outcomes[1]
        assert (outcome.problem is None) is fits
