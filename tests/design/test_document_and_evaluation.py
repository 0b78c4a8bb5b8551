"""The document's form and errors; what an edit computes again."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from stileblade.design.cache import OutcomeCache
from stileblade.design.document import load_design, read_design
from stileblade.design.evaluation import evaluate
from stileblade.errors import DocumentError
from stileblade.geometry.regions.remembered import BYTES_OF_REGION
from tests.conftest import design_of

FIGURE = {"kind": "figure", "outline": {"kind": "circle", "diameter": 60}, "id": "a"}
MIRROR = {"kind": "mirror", "towards": "left", "lap": 5, "id": "b"}
WINDOW = {"kind": "window", "outline": {"kind": "circle", "diameter": 10}, "id": "c"}
DEMO = sorted((Path(__file__).parents[2] / "demo" / "designs").glob("*.json"))


@pytest.mark.parametrize(
    ("data", "message"),
    [
        ([], "This is no design document: it is not a JSON object."),
        ({"format": "other"}, "format='other': this is no Stileblade design."),
        ({"version": 7}, "The design is of version 7; this program reads versions up to 4."),
        ({"version": "one"}, "version='one' is no version."),
        ({"card": {"folding": {"kind": "sideways"}}},
         "card.folding: kind='sideways' is not known; known are side-fold, top-fold, gatefold, "
         "roll-3, roll-4, window-card, accordion, double-parallel, french-fold, easel, "
         "side-fold-flap, own."),
        ({"pieces": [{"paper": "gold"}]},
         "the document: piece 'Base' is of paper 'gold', which is not in papers."),
        ({"pieces": [{"steps": [{"kind": "blank", "id": "x"}, {"kind": "flip", "id": "x"}]}]},
         "pieces.0: two steps have the same id."),
        ({"pieces": [{"steps": [{"kind": "mirror", "lap": -1}]}]},
         "pieces.0.steps.0.mirror.lap: Input should be greater than or equal to 0 (it is -1)."),
        ({"nane": "x"}, "nane: Extra inputs are not permitted (it is 'x')."),
    ],
)  # fmt: skip
def test_a_wrong_document_is_answered_with_place_and_rule(data: Any, message: str) -> None:
    with pytest.raises(DocumentError) as caught:
        load_design(data)
    assert caught.value.message == message


def test_an_unknown_step_is_answered_with_the_known() -> None:
    with pytest.raises(DocumentError, match=r"'blank', .*'window'"):
        load_design({"pieces": [{"steps": [{"kind": "emboss"}]}]})


@pytest.mark.parametrize("text", ["", "{", "[" * 100_000, '{"a": NaN'])
def test_what_is_no_json_says_so(text: str) -> None:
    with pytest.raises(DocumentError, match="This is no JSON"):
        read_design(text)


@pytest.mark.parametrize("value", ["NaN", "Infinity", "1e400"])
def test_no_number_that_is_none(value: str) -> None:
    text = '{"pieces": [{"steps": [{"kind": "mirror", "lap": VALUE}]}]}'.replace("VALUE", value)
    with pytest.raises(DocumentError, match="lap"):
        read_design(text)


def test_a_design_comes_back_as_it_went() -> None:
    design = design_of(FIGURE, MIRROR, WINDOW)
    assert read_design(design.model_dump_json()) == design


def test_steps_without_key_get_one() -> None:
    steps = [{"kind": "blank"}, {"kind": "crease", "id": "s1"}, {"kind": "crease"}]
    design = load_design({"pieces": [{"steps": steps}]})
    assert [s.id for s in design.pieces[0].steps] == ["s2", "s1", "s3"]


def misses(cache: OutcomeCache, *steps: dict[str, Any], **more: Any) -> int:
    before = cache.misses
    evaluate(design_of(*steps, **more), cache)
    return cache.misses - before


def test_an_edit_computes_again_what_depends_on_it_and_nothing_else() -> None:
    cache = OutcomeCache()
    assert misses(cache, FIGURE, MIRROR, WINDOW) == 3
    assert misses(cache, FIGURE, MIRROR, WINDOW) == 0
    assert misses(cache, FIGURE, MIRROR, {**WINDOW, "dx": 1}) == 1
    assert misses(cache, FIGURE, {**MIRROR, "lap": 6}, WINDOW) == 2
    assert misses(cache, FIGURE, {**MIRROR, "on": False}, WINDOW) == 1
    # back again: all is still known
    assert misses(cache, FIGURE, MIRROR, WINDOW) == 0


def test_an_evaluation_can_stop_at_a_step() -> None:
    cache = OutcomeCache()
    design = design_of(FIGURE, MIRROR, WINDOW)
    stopped = evaluate(design, cache, until=("base", "b")).pieces[0]
    assert [o.step.id for o in stopped.outcomes] == ["a", "b"]
    assert cache.misses == 2
    for other in (("base", "gone"), ("other", "b")):
        assert len(evaluate(design, cache, until=other).pieces[0].outcomes) == 3


def test_steps_that_read_the_card_follow_it_and_others_do_not() -> None:
    cache = OutcomeCache()
    other = {"size": {"name": "x", "width": 90, "height": 120, "envelope": None}}
    fit = {"kind": "fit", "to": "panel", "id": "f"}
    assert misses(cache, FIGURE, fit, MIRROR) == 3
    assert misses(cache, FIGURE, fit, MIRROR, **other) == 2
    assert misses(cache, FIGURE, MIRROR) == 1
    assert misses(cache, FIGURE, MIRROR, **other) == 0


def test_a_window_follows_its_panel_when_the_card_changes() -> None:
    window = {**WINDOW, "at": "foot-right", "by": "foot-right", "dx": -10, "dy": -10}
    for width, height in ((107.95, 139.7), (148.0, 210.0)):
        size = {"name": "x", "width": width, "height": height, "envelope": None}
        work = evaluate(design_of({"kind": "blank"}, window, size=size)).pieces[0].work
        assert work is not None
        box = work.paper.openings[0].bounds
        assert (box.right, box.foot) == pytest.approx((2 * width - 10, height - 10))


def test_the_cache_lets_go_of_the_least_used() -> None:
    cache = OutcomeCache(most_bytes=2 * BYTES_OF_REGION)
    misses(cache, FIGURE, MIRROR, WINDOW)
    assert misses(cache, FIGURE, MIRROR, WINDOW) > 0


def test_a_step_that_cannot_be_applied_is_passed_over_and_the_rest_goes_on() -> None:
    evaluation = evaluate(design_of(FIGURE, {**MIRROR, "lap": 500}, WINDOW))
    outcomes = evaluation.pieces[0].outcomes
    assert outcomes[1].problem is not None
    assert outcomes[2].problem is None
    assert len(outcomes[2].work.paper.openings) == 1  # type: ignore[union-attr]


def test_a_second_start_is_refused() -> None:
    outcome = evaluate(design_of(FIGURE, {"kind": "blank"})).pieces[0].outcomes[1]
    assert outcome.problem is not None
    assert "A piece has one start" in outcome.problem.message


def test_drawn_outlines_are_scaled_and_broken_ones_said() -> None:
    steps = [{"kind": "figure", "outline": {"kind": "drawn", "ref": "o", "height": 30}}]
    base = {"pieces": [{"steps": steps}]}
    good = load_design({**base, "artworks": {"o": {"layers": [{"path": "M0 0H20V10H0Z"}]}}})
    assert evaluate(good).pieces[0].work.paper.bounds.as_list() == [0, 0, 60, 30]  # type: ignore[union-attr]
    for path, message in (("M0 0L", "cannot be read"), ("M0 0L5 5Z", "encloses nothing")):
        bad = load_design({**base, "artworks": {"o": {"layers": [{"path": path}]}}})
        problem = evaluate(bad).pieces[0].outcomes[0].problem
        assert problem is not None
        assert message in problem.message


def test_a_design_of_version_1_opens_and_makes_the_same_piece() -> None:
    """Its single outlines become artworks of one layer; the shell stays 124 mm wide."""
    kept = (Path(__file__).parents[1] / "golden" / "design-1.json").read_text()
    design = read_design(kept)
    (artwork,) = design.artworks.values()
    assert (design.version, artwork.scale, len(artwork.layers)) == (4, 1.0, 1)
    assert artwork.layers[0].path == next(iter(json.loads(kept)["outlines"].values()))["path"]
    outcomes = evaluate(design).pieces[0].outcomes
    assert [o.problem for o in outcomes if o.problem] == []
    assert outcomes[-1].work.paper.bounds.width == pytest.approx(124)  # type: ignore[union-attr]


def test_a_design_of_version_2_opens_with_its_way_of_folding() -> None:
    """The key of the way becomes an object; the tide tables stay an ISO A6 side fold."""
    design = read_design((Path(__file__).parents[1] / "golden" / "design-2.json").read_text())
    assert (design.version, design.card.folding.kind) == (4, "side-fold")
    work = evaluate(design).pieces[0].work
    assert work is not None
    assert [f.at for f in work.folds] == [105.0]


def test_a_design_of_version_3_opens_with_pieces_that_lie_on_nothing() -> None:
    """All pieces were bases; a piece's host comes before it."""
    kept = (Path(__file__).parents[1] / "golden" / "design-3.json").read_text()
    assert all(p["role"] == "base" for p in json.loads(kept)["pieces"])
    design = read_design(kept)
    assert (design.version, {p.host for p in design.pieces}) == (4, {""})
    data = design.model_dump(mode="json")
    data["pieces"].insert(0, {**data["pieces"][0], "id": "layer", "host": "base"})
    with pytest.raises(DocumentError, match="lies on 'base', and no piece before it"):
        load_design(data)


def test_the_demo_designs_use_all_but_the_newest_kinds_of_step() -> None:
    """A step is one file: its card in the demo may come later, but the demo keeps up."""
    from stileblade.steps.step import STEPS

    designs = [read_design(p.read_text()) for p in DEMO]
    assert len(designs) >= 6
    used = {s.kind for d in designs for p in d.pieces for s in p.steps}  # type: ignore[attr-defined]
    assert len(set(STEPS.names()) - used) <= 3
    assert used <= set(STEPS.names())
    assert {str(d.units) for d in designs} == {"mm", "in"}
    for design, path in zip(designs, DEMO, strict=True):
        assert json.loads(design.model_dump_json()) == json.loads(path.read_text())
        made = evaluate(design).pieces
        assert [o.problem for p in made for o in p.outcomes if o.problem] == []
