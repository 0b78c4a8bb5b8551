"""Random values of every step in random order, on all ways of folding: nothing breaks, contours
stay closed, what cannot be applied says so, and the bench can show whatever comes out."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from server.designs.views_of import view
from stileblade.build.document import Design
from stileblade.build.evaluation import evaluate
from stileblade.card.ways import WAYS
from stileblade.formats.plan import Operation, formats, plan_of
from tests.conftest import design_of
from tests.geometry.test_set_operations import check_whole

lengths = st.one_of(st.sampled_from([0.3, 1.0, 20.0, 60.0, 110.0]), st.floats(0.5, 150))
offsets = st.one_of(st.just(0.0), st.floats(-80, 80))
targets = st.sampled_from(["front", "back", "card", "figure"])
anchors = st.sampled_from(["head-left", "head", "right", "centre", "foot", "foot-right"])
figures = st.one_of(
    st.builds(lambda d: {"kind": "circle", "diameter": d}, lengths),
    st.builds(lambda w, h: {"kind": "rectangle", "width": w, "height": h}, lengths, lengths),
    st.builds(lambda w, h: {"kind": "heart", "width": w, "height": h}, lengths, lengths),
    st.builds(
        lambda n, d: {"kind": "star", "points": n, "diameter": d}, st.integers(3, 12), lengths
    ),
    st.builds(lambda d: {"kind": "ring", "diameter": d, "opening": d / 3}, lengths),
    st.builds(lambda d: {"kind": "scalloped-circle", "diameter": d, "depth": 3}, lengths),
)


def placed(kind: str) -> st.SearchStrategy[dict[str, Any]]:
    return st.builds(
        lambda outline, target, at, by, dx, dy, turn: {
            "kind": kind, "outline": outline, "target": target, "at": at, "by": by,
            "dx": dx, "dy": dy, "turn": turn,
        },
        figures, targets, anchors, anchors, offsets, offsets, st.floats(-180, 180),
    )  # fmt: skip


steps = st.one_of(
    st.builds(lambda to, w, h, p: {"kind": "fit", "to": to, "width": w, "height": h, "proportions": p},
              st.sampled_from(["width", "height", "both", "panel"]), lengths, lengths, st.booleans()),
    st.builds(lambda a: {"kind": "turn", "angle": a}, st.floats(-360, 360)),
    st.builds(lambda s: {"kind": "flip", "swap": s}, st.sampled_from(["left-right", "head-foot"])),
    st.builds(lambda m, j: {"kind": "grow", "margin": m, "join": j},
              st.floats(-8, 8), st.sampled_from(["round", "mitre", "bevel"])),
    st.builds(lambda w, b: {"kind": "fill", "which": w, "below": b},
              st.sampled_from(["all", "below"]), st.floats(0, 500)),
    st.builds(lambda k, e, d, t: {"kind": "slice", "keep": k, "edge": e, "distance": d, "target": t},
              st.sampled_from(["above", "below", "left", "right"]),
              st.sampled_from(["near", "middle", "far"]), offsets, targets),
    st.builds(lambda t, p: {"kind": "mirror", "towards": t, "lap": p},
              st.sampled_from(["left", "right", "above", "below"]), st.floats(0, 60)),
    st.builds(lambda m, c: {"kind": "crease", "made": m, "cut": c, "setback": c},
              st.sampled_from(["score", "perforate", "none"]), st.floats(0.2, 30)),
    st.builds(
        lambda by, runs, edge, d, a, purpose, made, direction, spine, order: {
            "kind": "fold-line", "by": by, "runs": runs, "edge": edge, "distance": d, "x": d, "y": d,
            "angle": a, "purpose": purpose, "made": made, "direction": direction, "spine": spine,
            "order": order,
        },
        st.sampled_from(["place", "points", "angle", "symmetry"]),
        st.sampled_from(["upright", "level"]), st.sampled_from(["near", "middle", "far"]),
        offsets, st.floats(-180, 180), st.sampled_from(["fold", "tear", "texture"]),
        st.sampled_from(["score", "perforate", "none"]), st.sampled_from(["mountain", "valley"]),
        st.sampled_from([0.0, 1.2]), st.integers(1, 4),
    ),
    st.builds(lambda n, r, o: {"kind": "tab", "length": n, "reach": r, "offset": o},
              lengths, lengths, offsets),
    st.builds(lambda r, w, o: {"kind": "soften", "radius": r, "which": w, "of": o},
              st.floats(0.2, 12), st.sampled_from(["outer", "inner", "both"]), st.sampled_from(["outline", "all"])),
    st.builds(lambda p, b, g, a: {"kind": "grille", "pattern": p, "bar": b, "gap": g, "angle": a},
              st.sampled_from(["one", "both", "wheel"]), st.floats(0.5, 8), st.floats(1, 20),
              st.floats(-90, 90)),
    st.builds(lambda n, f, c, h, b, s: {"kind": "slot-ladder", "count": n, "first": f, "change": c,
                                        "height": h, "between": b, "stem": s},
              st.integers(1, 8), st.floats(0.5, 60), st.floats(-6, 12), st.floats(1, 9), st.floats(1, 9),
              st.sampled_from([0.0, 3.0])),
    st.builds(lambda t, s, m, d, p, k: {"kind": "shaped-edge", "target": t, "side": s, "motif": m,
                                        "depth": d, "pitch": p, "keep": k},
              targets, st.sampled_from(["left", "right", "head", "foot"]),
              st.sampled_from(["scallop", "wave", "zigzag", "battlement", "deckle"]),
              st.floats(0.5, 12), st.floats(4, 60), st.sampled_from(["shortened", "added"])),
    placed("stencil"),
    placed("drawn-figure"),
    st.builds(lambda a, m, h, s, t: {"kind": "border-line", "along": a, "margin": m, "how": h,
                                     "stitch": s, "target": t},
              st.sampled_from(["outline", "windows"]), st.floats(0.2, 30),
              st.sampled_from(["draw", "stitch", "score", "perforate"]), st.floats(0.5, 9), targets),
    placed("weld"),
    placed("cut-away"),
    placed("window"),
)  # fmt: skip
starts = st.one_of(
    st.just({"kind": "blank"}), st.builds(lambda f: {"kind": "figure", "outline": f}, figures)
)


@given(starts, st.lists(steps, max_size=5), st.sampled_from(WAYS.names()))
@settings(max_examples=150)
def test_whatever_is_built_can_be_shown_and_cut(
    start: dict[str, Any], more: list[dict[str, Any]], way: str
) -> None:
    design = design_of(start, *more, way=way)
    evaluation = evaluate(design)
    (piece,) = evaluation.pieces
    for outcome in piece.outcomes:
        if outcome.problem is not None:
            assert outcome.problem.message.endswith(".")
            assert outcome.work is outcome.before
        if outcome.work is not None:
            check_whole(outcome.work.paper)
        shown = view(evaluation, piece, outcome.step.id, set())
        assert shown.flat is not None
        assert shown.rest is not None
    work = piece.work
    if work is None or not work.paper:
        return
    plan = plan_of(evaluation, piece)
    outer = plan.lines[Operation.CUT_OUTER]
    assert len(outer) == work.paper.pieces
    assert all(line.closed for line in outer)
    # creases lie on paper: no score and no perforation off the piece
    for fold in work.folds:
        for span in work.spans[fold.name]:
            assert work.paper.bounds.left - 1e-6 <= span.start[0] <= work.paper.bounds.right + 1e-6
            assert work.paper.bounds.head - 1e-6 <= span.end[1] <= work.paper.bounds.foot + 1e-6
    assert formats()["svg"](plan).startswith(b"<?xml")


@given(starts, st.lists(steps, max_size=4))
@settings(max_examples=60)
def test_the_same_design_comes_out_the_same(
    start: dict[str, Any], more: list[dict[str, Any]]
) -> None:
    """Through JSON and back, and computed twice without what was remembered."""
    design = design_of(start, *more)
    again = Design.model_validate_json(design.model_dump_json())
    assert again == design
    first, second = (evaluate(d).pieces[0].work for d in (design, again))
    if first is None or second is None:
        assert first is second
        return
    assert first.paper.area == second.paper.area
    assert (first.paper.segments.coef == second.paper.segments.coef).all()


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
