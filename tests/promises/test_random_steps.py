"""Random values of every step in random order, on all ways of folding: nothing breaks, contours
stay closed, what cannot be applied says so, and the bench can show whatever comes out."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from stileblade.card.ways import WAYS
from stileblade.checks.check import run_checks
from stileblade.checks.slits import crossings
from stileblade.design.document import Design
from stileblade.design.evaluation import evaluate
from stileblade.folding.flat import fold_flat
from stileblade.formats.plan import Operation, formats, plan_of
from stileblade.geometry.measures.cells import area_of
from stileblade.geometry.regions.along import points_along
from stileblade.geometry.regions.region import Region
from stileblade.piece.work import Work
from stileblade.views.bench import view
from tests.conftest import design_of
from tests.geometry.regions.test_set_operations import check_whole

lengths = st.one_of(st.sampled_from([0.3, 1.0, 20.0, 60.0, 110.0]), st.floats(0.5, 150))
offsets = st.one_of(st.just(0.0), st.floats(-80, 80))
targets = st.sampled_from(["front", "back", "card", "figure"])
sides = st.sampled_from(["left", "right", "head", "foot"])
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
              st.sampled_from(["fold", "left", "right", "above", "below"]), st.floats(0, 60)),
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
    st.builds(lambda r, w, o, p: {"kind": "soften", "radius": r, "which": w, "of": o, "picks": p},
              st.floats(0.2, 12), st.sampled_from(["outer", "inner", "both", "picked"]),
              st.sampled_from(["outline", "all"]),
              st.lists(st.tuples(st.sampled_from([0.0, 0.5, 1.0]), st.sampled_from([0.0, 0.5, 1.0])),
                       min_size=1, max_size=3)),
    st.builds(lambda p, b, g, a: {"kind": "grille", "pattern": p, "bar": b, "gap": g, "angle": a},
              st.sampled_from(["one", "both", "wheel"]), st.floats(0.5, 8), st.floats(1, 20),
              st.floats(-90, 90)),
    st.builds(lambda n, f, c, h, b, s: {"kind": "slot-ladder", "count": n, "first": f, "change": c,
                                        "height": h, "between": b, "stem": s},
              st.integers(1, 8), st.floats(0.5, 60), st.floats(-6, 12), st.floats(1, 9), st.floats(1, 9),
              st.sampled_from([0.0, 3.0])),
    st.builds(lambda t, s, m, d, p, k, e: {"kind": "shaped-edge", "target": t, "side": s, "motif": m,
                                           "depth": d, "pitch": p, "keep": k, **e},
              targets, sides,
              st.sampled_from(["scallop", "wave", "zigzag", "battlement", "deckle", "figure"]),
              st.floats(0.5, 12), st.floats(4, 60), st.sampled_from(["shortened", "added"]),
              st.fixed_dictionaries({"ends": st.sampled_from(["deep", "full"]),
                                     "plain": st.floats(0, 30), "taper": st.floats(0, 1)})),
    st.builds(
        lambda n, c, h, hinge, stem: {
            "kind": "slot-ladder", "count": n, "first": 20, "change": c, "height": h, "between": 3,
            "stem": stem, "cut": "flaps", "hinge": hinge,
        },
        st.integers(1, 5), st.floats(-2, 8), st.floats(2, 9),
        st.sampled_from(["left", "right", "head", "foot", "stem"]), st.sampled_from([0.0, 4.0]),
    ),
    st.builds(
        lambda f, t, s, out, along, sized, inner, turn: {
            "kind": "overhang", "outline": f, "target": t, "side": s, "out": out, "along": along,
            "sized": sized, "inner": inner, "turn": turn,
        },
        figures, targets, sides, st.floats(0.5, 60), offsets, st.sampled_from(["own", "edge"]),
        st.sampled_from(["dropped", "kept"]), st.floats(-180, 180),
    ),
    st.builds(
        lambda f, t, s, m, b: {"kind": "stencil-edge", "outline": f, "target": t, "side": s,
                               "surround": m, "back": b},
        figures, targets, sides, st.floats(0, 12), st.sampled_from([0.0, 10.0, 40.0]),
    ),
    st.builds(
        lambda by, runs, edge, d, strip, f, dx: {
            "kind": "split", "by": by, "runs": runs, "edge": edge, "distance": d, "strip": strip,
            "outline": f, "dx": dx,
        },
        st.sampled_from(["line", "figure"]), st.sampled_from(["upright", "level"]),
        st.sampled_from(["near", "middle", "far"]), offsets, st.sampled_from([0.0, 0.2, 5.0]),
        figures, offsets,
    ),
    st.builds(
        lambda t, s, w, d, at, along: {"kind": "lock", "target": t, "side": s, "width": w,
                                       "depth": d, "at": at, "along": along},
        st.one_of(targets, st.sampled_from(["left door", "flap"])), sides, st.floats(4, 60),
        st.floats(3, 30), st.floats(0, 20), offsets,
    ),
    st.builds(
        lambda onto, shown, m: {"kind": "seen-through", "onto": onto, "shown_as": shown, "margin": m},
        targets, st.sampled_from(["window", "line"]), st.floats(-6, 10),
    ),
    st.builds(
        lambda f, stays, over, along, relief, turn: {
            "kind": "standing-figure", "outline": f, "stays": stays, "over": over, "along": along,
            "relief": relief, "turn": turn,
        },
        figures, st.sampled_from(["more", "less"]), st.floats(1, 60), offsets,
        st.sampled_from([0.0, 1.2]), st.floats(-180, 180),
    ),
    st.builds(
        lambda w, a, b, along: {"kind": "forward-step", "width": w, "less": a, "more": b,
                                "along": along},
        st.floats(2, 60), st.floats(2, 60), st.floats(2, 60), offsets,
    ),
    st.builds(
        lambda text, face, h, t, turn: {"kind": "lettering", "text": text, "face": face,
                                        "height": h, "target": t, "turn": turn},
        st.sampled_from(["Ahoy", "Low water 06:12", "i"]), st.sampled_from(["plain", "script"]),
        st.floats(1, 40), targets, st.floats(-180, 180),
    ),
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
    # nothing floats, and nothing is cut across a crease, without a finding
    said = {f.code for f in run_checks(evaluation)}
    if work.paper.pieces > 1:
        assert "pieces.apart" in said
    elif any(f.loose and area_of(f.cell) > 1 for f in fold_flat(work).faces):
        assert "slit.loose" in said
    if any(crossings(work, points_along(way)) for way in work.slits):
        assert "slit.across" in said
    if any(_over_a_fold(work, w.outline) for w in work.windows if not w.crosses):
        assert "window.near" in said
    plan = plan_of(evaluation, piece)
    outer = plan.lines[Operation.CUT_OUTER]
    inner = plan.lines[Operation.CUT_INNER]
    assert sum(line.closed for line in inner) >= len(work.paper.openings)
    assert len(outer) == work.paper.pieces
    assert all(line.closed for line in outer)
    # creases lie on paper: no score and no perforation off the piece
    for fold in work.folds:
        for span in work.spans[fold.name]:
            assert work.paper.bounds.left - 1e-6 <= span.start[0] <= work.paper.bounds.right + 1e-6
            assert work.paper.bounds.head - 1e-6 <= span.end[1] <= work.paper.bounds.foot + 1e-6
    assert formats()["svg"].write(plan).startswith(b"<?xml")


def _over_a_fold(work: Work, outline: Region) -> bool:
    """Whether an outline reaches more than a hundredth of a mm to both sides of a fold."""
    s = outline.segments
    for fold in work.folds:
        off = fold.line.off(s.start)
        if fold.folds and off.min() < -0.01 and off.max() > 0.01:
            return True
    return False


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
