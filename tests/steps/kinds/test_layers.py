"""Layers that lie on a base: worked figures, and what they follow."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
import shapely

from stileblade.design.adding import on_card, proposals
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import load_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.offset.offset import offset
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, union_all
from stileblade.piece.lying import AtFolds, Facing
from stileblade.steps.ground import Ground, inverse
from tests.conftest import A2
from tests.whole import BLANK, CIRCLES, ISO_A6, WINDOW, layer, problem_of, whole, work_of

SQUARES = {
    "a": {
        "layers": [
            {"name": "Large", "colour": "#112233", "path": "M0 0H60V60H0Z"},
            {"name": "Small", "colour": "#445566", "path": "M20 20H40V40H20Z"},
            {"name": "Mast", "colour": "#778899", "path": "M44 4H56V16H44Z"},
        ]
    }
}


def on_base(evaluation: Evaluation, key: str) -> Region:
    """A layer where it lies on the base."""
    work = work_of(evaluation, key)
    assert work.lying is not None
    return work.paper.transformed(work.lying.matrix)


def size_of(region: Region) -> tuple[float, float]:
    return region.bounds.width, region.bounds.height


def test_a_mat_of_a_blank_with_a_window() -> None:
    card = whole([BLANK, WINDOW], layer("m", {"kind": "mat", "margin": 4, "window_margin": 2}))
    mat = work_of(card, "m")
    assert size_of(mat.paper) == pytest.approx((97, 140))
    assert mat.paper.area == pytest.approx(8204)
    assert size_of(mat.windows[0].outline) == pytest.approx((64, 84))
    assert on_base(card, "m").bounds.as_list() == pytest.approx([109, 4, 206, 144])


def test_a_mat_of_a_mirrored_circle_is_a_circle_cut_before_the_fold() -> None:
    mat = work_of(whole(CIRCLES, layer("m", {"kind": "mat", "margin": 5})), "m")
    assert size_of(mat.paper) == pytest.approx((96, 100))
    assert mat.paper.area == pytest.approx(7748.604, abs=1e-3)


def test_a_mat_with_margins_of_its_own() -> None:
    card = whole(
        [BLANK, WINDOW],
        layer("m", {"kind": "mat", "margin": 4, "own_fold_margin": True, "fold_margin": 10,
                    "windows": "closed", "by_side": True, "foot": 20, "left": 0}),
    )  # fmt: skip
    assert on_base(card, "m").bounds.as_list() == pytest.approx([115, 4, 206, 128])
    assert work_of(card, "m").paper.openings == []


def test_a_mat_on_the_inside_is_seen_from_there() -> None:
    """A window near the fold is on the mat's right, as it is seen when the card is opened."""
    near = {**WINDOW, "at": "left", "by": "left", "dx": 10}
    mat = work_of(
        whole([BLANK, near], layer("m", {"kind": "mat"}, side="inside", panel="front")), "m"
    )
    box = mat.windows[0].outline.bounds
    assert box.right == pytest.approx(105 - 10 + 2)
    assert mat.lying is not None
    assert np.linalg.det(mat.lying.matrix[:, :2]) == pytest.approx(-1)


def test_three_stepping_mats_show_a_rim_each() -> None:
    mats = [layer(f"m{n}", {"kind": "mat", "margin": m}, order=n) for n, m in enumerate((3, 5, 7))]
    card = whole(CIRCLES, *mats)
    below, *above = [work_of(card, f"m{n}") for n in range(3)]
    for work in above:
        gap = shapely.distance(
            shapely.boundary(below.paper.polygons), shapely.boundary(work.paper.polygons)
        )
        assert gap == pytest.approx(2, abs=0.01)
        below = work
    stack = card.stack
    assert stack is not None
    assert [round(la.low, 6) for la in stack.layers] == [0, 0.3, 0.6]


def test_an_insert_of_two_circles() -> None:
    insert = work_of(whole(CIRCLES, layer("i", {"kind": "insert"}, side="inside")), "i")
    assert insert.paper.bounds.width == pytest.approx(208)
    assert insert.paper.area == pytest.approx(17572.254, abs=1e-3)
    (fold,) = insert.folds
    assert sum(s.length for s in insert.spans[fold.name]) == pytest.approx(28.844, abs=1e-3)
    assert fold.at == pytest.approx(4)


def test_an_insert_over_two_panels_of_an_accordion() -> None:
    card = whole(
        [BLANK],
        layer("i", {"kind": "insert", "over": "two"}, side="inside"),
        layer("all", {"kind": "insert"}, side="inside"),
        way={"kind": "accordion"},
    )
    one, all_ = work_of(card, "i"), work_of(card, "all")
    assert (len(one.folds), len(one.panels)) == (1, 2)
    assert len(all_.folds) == len(work_of(card, "base").folds)
    assert all_.paper.bounds.width == pytest.approx(work_of(card, "base").paper.bounds.width - 4)


@pytest.mark.parametrize(("window", "size"), [
    (WINDOW, (72, 92)), ({**WINDOW, "at": "left", "by": "left", "dx": 5}, (70, 92)),
])  # fmt: skip
def test_a_backing_ends_before_the_fold(
    window: dict[str, object], size: tuple[float, float]
) -> None:
    card = whole([BLANK, window], layer("b", {"kind": "backing"}, side="inside"))
    assert size_of(work_of(card, "b").paper) == pytest.approx(size)
    told = {t.name: t.value for t in card.pieces[1].outcomes[0].step.tells(
        None, work_of(card, "b"), card.pieces[1].setting)}  # fmt: skip
    if size[0] == 72:
        assert told["Glue face"] == pytest.approx(1824)


def test_a_backing_of_several_windows() -> None:
    holes = {"kind": "window", "id": "h", "outline": {"kind": "circle", "diameter": 20},
             "repeat": "grid", "columns": 2, "rows": 1, "gap": 30}  # fmt: skip
    card = whole(
        [BLANK, holes],
        layer("each", {"kind": "backing"}, side="inside"),
        layer("one", {"kind": "backing", "together": "one"}, side="inside"),
        layer("second", {"kind": "backing", "window": "h.2"}, side="inside"),
    )
    assert work_of(card, "each").paper.area == pytest.approx(2 * math.pi * 16**2, rel=1e-4)
    assert size_of(work_of(card, "one").paper) == pytest.approx((82, 32))
    assert size_of(work_of(card, "second").paper) == pytest.approx((32, 32))
    assert "no window" in problem_of(
        whole([BLANK], layer("b", {"kind": "backing"}, side="inside")), "b"
    )


@pytest.mark.parametrize(("values", "area"), [
    ({"beneath": "drawn"}, 3600), ({"beneath": "margin"}, 3344), ({"beneath": "whole"}, 3600),
    ({"beneath": "margin", "beneath_margin": 0}, 3200),
    ({"beneath": "margin", "step_in": 5}, 50 * 50 - 16 * 16),
])  # fmt: skip
def test_a_layer_closed_beneath(values: dict[str, object], area: float) -> None:
    artwork = {"a": {"layers": SQUARES["a"]["layers"][:2]}}
    base = [{"kind": "artwork", "ref": "a", "surround": 0}]
    card = whole(base, layer("l", {"kind": "layers", "layers": [0], **values}), artworks=artwork)
    assert work_of(card, "l").paper.area == pytest.approx(area, abs=0.01)


def test_layers_of_one_paper_are_one_piece_of_parts_and_cover_the_drawing() -> None:
    base = [{"kind": "artwork", "ref": "a", "surround": 6}, {"kind": "mirror", "lap": 3}]
    pieces = [
        layer("low", {"kind": "layers", "layers": [0], "beneath": "margin"}),
        layer("high", {"kind": "layers", "layers": [1, 2]}),
        layer("shadow", {"kind": "layers", "made_as": "shadow", "margin": 3}),
    ]
    card = whole(base, *pieces, artworks=SQUARES)
    assert work_of(card, "high").paper.pieces == 2
    assert work_of(card, "shadow").paper.area == pytest.approx(66 * 66 - (4 - math.pi) * 9)
    both = union_all([on_base(card, "low"), on_base(card, "high")])
    assert both.area == pytest.approx(3600, abs=1e-6)


TURNED: list[list[dict[str, object]]] = [
    [{"kind": "turn", "angle": 37}], [{"kind": "flip"}], [{"kind": "fit", "to": "width", "width": 50}],
    [{"kind": "turn", "angle": -15}, {"kind": "flip"}],
]  # fmt: skip


@pytest.mark.parametrize("steps", TURNED)
def test_layers_keep_their_place_on_the_base_whatever_that_does(
    steps: list[dict[str, object]],
) -> None:
    def placed(change: list[dict[str, object]]) -> tuple[Region, Floats]:
        base = [{"kind": "artwork", "ref": "a"}, *change]
        card = whole(base, layer("l", {"kind": "layers", "layers": [2], "at_edges": "stand"}),
                     artworks=SQUARES)  # fmt: skip
        artwork = work_of(card, "base").artwork
        assert artwork is not None
        return on_base(card, "l"), artwork.matrix

    before, first = placed([])
    after, second = placed(steps)
    there = before.transformed(inverse(first)).transformed(second)
    assert difference(there, after).area < 1e-9
    assert difference(after, there).area < 1e-9
    ends = sorted(map(tuple, after.segments.start.round(9).tolist()))
    assert np.abs(np.array(ends) - sorted(map(tuple, there.segments.start.round(9).tolist()))).max() < 1e-9  # fmt: skip


def test_a_layer_on_the_back_is_its_mirror_image() -> None:
    base = [{"kind": "artwork", "ref": "a", "surround": 6}, {"kind": "mirror", "towards": "left"}]
    card = whole(base, layer("f", {"kind": "layers", "layers": [2]}),
                 layer("b", {"kind": "layers", "layers": [2]}, panel="back"), artworks=SQUARES)  # fmt: skip
    at = work_of(card, "base").folds[0].at
    front, back = on_base(card, "f").bounds, on_base(card, "b").bounds
    assert (back.left, back.right) == pytest.approx((2 * at - front.right, 2 * at - front.left))


def test_a_figure_is_placed_as_a_window_is() -> None:
    figure = {"kind": "overlay", "outline": {"kind": "rectangle", "width": 40, "height": 10},
              "at": "foot-right", "by": "foot-right", "dx": -5, "dy": -6}  # fmt: skip
    card = whole([BLANK], layer("f", figure), layer("in", figure, side="inside"))
    assert on_base(card, "f").bounds.as_list() == pytest.approx([165, 132, 205, 142])
    # seen from inside, the front's right is at the fold
    assert on_base(card, "in").bounds.as_list() == pytest.approx([110, 132, 150, 142])


def test_borders_follow_the_piece_that_they_lie_behind() -> None:
    word = {"kind": "overlay", "outline": {"kind": "word", "text": "ahoi", "size": 40}, "turn": 20}
    pieces = [layer("w", word, order=2)]
    for n, margin in enumerate((2, 4)):
        border = {"kind": "overlay", "of": "w", "borders": margin, "openings": "kept"}
        pieces.append(layer(f"b{margin}", border, order=1 - n))
    card = whole([BLANK], *pieces)
    figure = on_base(card, "w")
    areas = [figure.area]
    for margin in (2, 4):
        border = on_base(card, f"b{margin}")
        exact = shapely.buffer(figure.polygons, margin, quad_segs=32)
        assert border.area == pytest.approx(shapely.area(exact), rel=1e-3)
        areas.append(border.area)
    assert areas == sorted(areas)
    stack = card.stack
    assert stack is not None
    assert [la.key for la in stack.layers] == ["b4", "b2", "w"]


def test_a_strip_behind_a_wave_is_the_same_wave_further_out() -> None:
    wave = {"kind": "shaped-edge", "side": "foot", "target": "front"}
    card = whole([BLANK, wave], layer("s", {"kind": "strip", "edge": "foot", "reveal": 3, "deep": 30},
                                      side="inside", panel="front"))  # fmt: skip
    front = work_of(card, "base").paper
    strip = on_base(card, "s")
    assert strip.bounds.foot == pytest.approx(151)
    # moved back by the reveal, it has the edge of the panel
    back = strip.transformed(np.array([[1, 0, 0], [0, 1, -3.0]]))
    assert difference(back, front).area < 1e-6
    # 30 behind the deepest places of a motif of 4
    assert strip.bounds.height == pytest.approx(34)


def test_bulk_is_what_lies_on_top_of_each_other() -> None:
    papers = [{"id": "paper", "thickness": 0.3}, {"id": "thin", "thickness": 0.2}]
    beside = {"kind": "overlay", "outline": {"kind": "circle", "diameter": 20}}
    card = whole(
        [BLANK],
        layer("m", {"kind": "mat"}),
        layer("f", {**beside, "dy": -40}, paper="thin", fixing="pads"),
        layer("g", {**beside, "dy": 40}, paper="thin", fixing="pads", pad=1.0),
        papers=papers, size=A2,
    )  # fmt: skip
    stack = card.stack
    assert stack is not None
    assert stack.bulk == pytest.approx(2.6)


def across(**values: object) -> Evaluation:
    figure = {
        "kind": "overlay",
        "outline": {"kind": "circle", "diameter": 60},
        "dx": -50,
        "turn": 30,
    }
    return whole([BLANK], layer("f", figure, {"kind": "at-folds", **values}))


def test_a_layer_over_a_fold_is_creased_in_its_own_frame() -> None:
    work = work_of(across(way="creased"), "f")
    (fold,) = work.folds
    assert math.degrees(math.atan2(fold.line.uy, fold.line.ux)) % 180 == pytest.approx(90 - 30)
    # the centre is 2.5 from the fold
    (span,) = work.spans[fold.name]
    assert span.length == pytest.approx(2 * math.sqrt(30**2 - 2.5**2))


def test_a_layer_over_a_fold_is_ended_or_half_fixed() -> None:
    circle = math.pi * 900
    both = work_of(across(way="ended"), "f")
    assert both.paper.pieces == 2
    assert circle - both.paper.area == pytest.approx(2 * 60, rel=0.01)
    own = on_base(across(way="ended", keep="own", gap=2), "f")
    assert own.bounds.left == pytest.approx(107)
    half = across(way="half", fixed_on="back")
    lying = work_of(half, "f").lying
    assert lying is not None
    assert (lying.panel, lying.at_folds) == ("back", AtFolds.HALF)
    assert "across no fold" in problem_of(
        whole([BLANK], layer("f", {"kind": "overlay"}, {"kind": "at-folds"})), "f"
    )


def test_an_edit_of_the_base_computes_what_reads_it_and_nothing_else() -> None:
    def document(height: float, dx: float) -> Evaluation:
        base = [
            BLANK,
            {**WINDOW, "dx": dx},
            {"kind": "shaped-edge", "side": "foot", "depth": height},
        ]
        data = whole(base, layer("f", {"kind": "overlay"}), layer("m", {"kind": "mat"})).design
        return evaluate(load_design(data.model_dump(mode="json")), cache)

    cache = OutcomeCache()
    first, second, third = document(4, 0), document(4, 3), document(6, 3)
    keys = [[p.outcomes[0].key for p in e.pieces[1:]] for e in (first, second, third)]
    assert keys[0][0] == keys[1][0] == keys[2][0]
    assert len({keys[0][1], keys[1][1], keys[2][1]}) == 3


@pytest.mark.parametrize(("edge", "motif"), [
    ({"kind": "stencil-edge", "side": "right", "surround": 3,
      "outline": {"kind": "ellipse", "width": 44, "height": 110}}, None),
    ({"kind": "shaped-edge", "side": "right", "motif": "wave", "depth": 8}, 8.0),
    ({"kind": "shaped-edge", "side": "right", "motif": "zigzag", "depth": 30}, 30.0),
])  # fmt: skip
def test_a_strip_reaches_under_the_paper_all_along_a_shaped_edge(
    edge: dict[str, Any], motif: float | None
) -> None:
    """20 deep from the edge's innermost place, 3 of it to be seen: at every height the strip is 20 wide or more, and
    17 or more of it lie under the paper."""
    card = whole([BLANK, edge], layer("s", {"kind": "strip", "edge": "right"}, side="inside"))
    strip, paper = on_base(card, "s").polygons, work_of(card, "base").paper.polygons
    left, head, right, foot = strip.bounds
    if motif is not None:
        assert right - left == pytest.approx(motif + 20, abs=0.01)
    for y in np.linspace(head + 0.5, foot - 0.5, 60):
        line = shapely.LineString([(left - 1, y), (right + 1, y)])
        across = shapely.intersection(strip, line)
        assert shapely.length(across) > 20 - 0.01
        assert shapely.length(shapely.intersection(across, paper)) > 17 - 0.01


def test_a_strip_is_proposed_for_the_edge_that_is_shaped() -> None:
    card = whole([BLANK, {"kind": "shaped-edge", "side": "right"}])
    on = on_card(card)
    assert on is not None
    strip = next(p for p in proposals(on) if p.title == "A strip behind an edge")
    assert strip.pieces[0].steps[0].edge == "right"  # type: ignore[attr-defined]


def test_a_strip_that_is_too_narrow_for_its_paper_is_refused_with_what_would_do() -> None:
    """1.2 mm of a paper of 0.3: the least is 1.5; 1.2 + 1.5 would do."""
    card = whole([BLANK], layer("s", {"kind": "strip", "edge": "foot", "deep": 1.2}, side="inside"))
    problem = card.pieces[1].outcomes[0].problem
    assert problem is not None
    assert problem.message == (
        "Somewhere the strip is narrower than 1.5 mm, the least that this paper can be cut to."
    )
    assert (problem.field, problem.would_do) == ("deep", 2.7)


def test_another_size_keeps_margins_in_mm() -> None:
    for size in (ISO_A6, A2, {"name": "own", "width": 200, "height": 90}):
        card = whole([BLANK], layer("m", {"kind": "mat"}), layer("i", {"kind": "insert"}, side="inside"),
                     size=size)  # fmt: skip
        assert size_of(work_of(card, "m").paper) == pytest.approx(
            (float(size["width"]) - 8, float(size["height"]) - 8)  # type: ignore[arg-type]
        )


@pytest.mark.parametrize(("values", "host", "words"), [
    ({"kind": "layers"}, "base", "not made of an artwork"),
    ({"kind": "mat", "margin": 90}, "base", "leaves nothing"),
    ({"kind": "liner"}, "base", "in an envelope"),
    ({"kind": "overlay", "of": "base"}, "base", "no layer"),
])  # fmt: skip
def test_what_cannot_be_says_why(values: dict[str, object], host: str, words: str) -> None:
    assert words in problem_of(whole([BLANK], layer("l", values, host=host)), "l")


def test_a_panel_that_is_not_there_says_which_are() -> None:
    assert "no panel 'flap'" in problem_of(
        whole([BLANK], layer("l", {"kind": "mat"}, panel="flap")), "l"
    )


@pytest.mark.parametrize("towards", ["left", "above"])
def test_a_mirrored_panel_is_made_smaller_as_the_figure_that_it_is_a_half_of(towards: str) -> None:
    """As its outline drawn on beyond the fold would be; where it was changed since, its own outline counts."""
    star = {"kind": "figure", "outline": {"kind": "star", "points": 7, "diameter": 110}}
    mirror = {"kind": "mirror", "towards": towards, "lap": 12}
    for more in ([], [{"kind": "soften", "radius": 1}]):
        host = work_of(whole([star, mirror, *more]), "base")
        for panel in ("front", "back"):
            ground = Ground(host, panel, Facing.INSIDE)
            expected = ground.cut(offset(ground.drawn_on, -3), 3)
            made = ground.less(3, 3)
            assert made.area == pytest.approx(expected.area, abs=0.02)
            assert made.bounds.as_list() == pytest.approx(expected.bounds.as_list(), abs=0.01)
