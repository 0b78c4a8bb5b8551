"""The hinge over the lap, best joins, tabs and the scoring table."""

from __future__ import annotations

import math
from typing import Any

import pytest

from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from stileblade.folding.hinge import chords, hinge_length, safe_lap
from stileblade.folding.joins import Wish, best_joins, lap_curve
from stileblade.folding.scoring import is_shaped, score_spans, scoring_table, ticks
from stileblade.geometry.curves.places import Box, Side
from stileblade.geometry.curves.transforms import rotation
from stileblade.geometry.regions.region import gather
from stileblade.geometry.regions.set_operations import rectangle, union
from stileblade.piece.mirrored import Mirrored
from stileblade.piece.work import Work
from tests.conftest import design_of

CIRCLE = {"kind": "figure", "outline": {"kind": "circle", "diameter": 110}}
BLANK = {"kind": "blank"}


def made(*steps: dict[str, Any], **card: Any) -> Work:
    work = evaluate(design_of(*steps, **card)).pieces[0].work
    assert work is not None
    return work


def mirrored(figure: dict[str, Any], lap: float = 8, towards: str = "right") -> Mirrored:
    found = made(figure, {"kind": "mirror", "towards": towards, "lap": lap}).mirrored
    assert found is not None
    return found


@pytest.mark.parametrize("towards", ["left", "right", "above", "below"])
def test_the_curve_of_a_circle(towards: str) -> None:
    """At lap p the hinge is 2 sqrt(55^2 - (55 - p/2)^2); the loss is the segment cut off: 4.937 at
    lap 1, 25.585 at 3, 110.644 at 8."""
    points = lap_curve(mirrored(CIRCLE, towards=towards))
    assert (points[0].lap, points[0].hinge, points[0].loss) == (0, 0, 0)
    for p in points[1:]:
        # on the flattened circle, which lies 0.004 mm inside: at most 0.1 where it is steep
        assert p.hinge == pytest.approx(2 * math.sqrt(55**2 - (55 - p.lap / 2) ** 2), abs=0.1)
        half = math.acos(1 - p.lap / 110)
        assert p.loss == pytest.approx(55**2 * (half - math.sin(half) * math.cos(half)), abs=0.5)
    # two fifths of 110; farther out where the lap is larger
    assert points[-1].lap == pytest.approx(44)
    assert lap_curve(mirrored(CIRCLE, 50, towards))[-1].lap == pytest.approx(88)


def test_a_wide_figure_gives_its_best_join_by_turning() -> None:
    """A rectangle 80 x 60 leaned by 7 degrees touches in a corner; turned back by 7 its whole side
    of 60 is the hinge."""
    leaned = [
        {"kind": "figure", "outline": {"kind": "rectangle", "width": 80, "height": 60}},
        {"kind": "turn", "angle": 7},
        {"kind": "mirror", "towards": "left", "lap": 2},
    ]
    found = made(*leaned).mirrored
    assert found is not None
    best, *others = best_joins(found, Wish(100, most_turn=10))
    assert best.turn_deg == pytest.approx(-7)
    assert best.hinge == pytest.approx(60, abs=0.01)
    assert best.lap == pytest.approx(0.1)
    assert best.loss == pytest.approx(0.05 * 60, abs=1e-3)
    assert all(abs(o.turn_deg - best.turn_deg) >= 2 and o.hinge <= best.hinge + 0.5 for o in others)
    assert all(o.loss <= 100 + 1e-6 for o in others)


def test_spans_under_six_millimetres_do_not_count() -> None:
    """A comb of teeth 5 wide, on a back 12 deep: laps that only join teeth are no join at all."""
    comb = [
        {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 60}},
        *(
            {"kind": "cut-away", "target": "figure", "at": "head-left", "by": "head-left",
             "dx": -1, "dy": 5 + 10 * i,
             "outline": {"kind": "rectangle", "width": 21, "height": 5}}
            for i in range(6)
        ),
    ]  # fmt: skip
    work = made(*comb, {"kind": "mirror", "towards": "left", "lap": 10})
    assert work.mirrored is not None
    assert best_joins(work.mirrored, Wish(30 * 15, most_turn=0)) == []
    (deep,) = best_joins(work.mirrored, Wish(30 * 20 + 100, most_turn=0))
    assert deep.lap >= 40
    assert (deep.spans, deep.hinge) == (1, pytest.approx(60))


def test_a_tab_joins_circles_that_only_touch() -> None:
    """Two circles of 90 mm touch in a point: hinge 0. A tab 22 long, 10 to each side: hinge 22."""
    circle = {"kind": "figure", "outline": {"kind": "circle", "diameter": 90}}
    mirror = {"kind": "mirror", "towards": "left", "lap": 0}
    bare = made(circle, mirror)
    assert bare.paper.pieces == 2
    assert hinge_length(bare.spans["fold"], bare.folds[0]) == 0
    joined = made(circle, mirror, {"kind": "tab", "length": 22, "reach": 10})
    assert joined.paper.pieces == 1
    assert hinge_length(joined.spans["fold"], joined.folds[0]) == pytest.approx(22, abs=1e-6)


def test_a_tab_that_reaches_nothing_says_so() -> None:
    circle = {"kind": "figure", "outline": {"kind": "circle", "diameter": 90}}
    tab = {"kind": "tab", "length": 22, "reach": 10, "offset": 300}
    outcome = evaluate(
        design_of(circle, {"kind": "mirror", "towards": "left", "lap": 0}, tab)
    ).pieces[0].outcomes[-1]  # fmt: skip
    assert outcome.problem is not None
    assert outcome.problem.message == "The tab does not reach the paper on both sides of the fold."


def test_the_scoring_table_in_sixteenths() -> None:
    """A2: 107.95 is 4 1/4 in to the last bit. DL roll fold: 98 mm is nearest to 3 7/8 in = 98.425,
    0.425 off; 197 to 7 3/4 = 196.85, -0.15 off."""
    (row,) = scoring_table(made(BLANK))
    assert (row.distance, row.sixteenths, row.side) == (pytest.approx(107.95), "4 1/4", "outside")
    assert row.error == pytest.approx(0, abs=1e-9)
    dl = {"name": "DL", "width": 99, "height": 210, "envelope": None}
    rows = scoring_table(made(BLANK, way="roll-3", thickness=0.25, size=dl))
    assert [(r.distance, r.sixteenths) for r in rows] == [(98, "3 7/8"), (197, "7 3/4")]
    assert [r.error for r in rows] == pytest.approx([0.425, -0.15], abs=1e-9)


def test_valleys_are_scored_from_the_other_side_and_last() -> None:
    rows = scoring_table(made(BLANK, way="accordion"))
    assert [(r.fold, r.side, r.order) for r in rows] == [
        ("fold 1", "outside", 1), ("fold 3", "outside", 2), ("fold 2", "inside", 3),
    ]  # fmt: skip


def test_a_spine_is_scored_twice() -> None:
    """A spine of 3 mm: two lines 1.5 to each side of the fold."""
    crease = {"kind": "crease", "made": "score", "spine": 3}
    work = made(BLANK, crease)
    assert [r.distance for r in scoring_table(work)] == pytest.approx([106.45, 109.45])
    spans = score_spans(work, work.folds[0])
    assert [s.start[0] for s in spans] == pytest.approx([106.45, 109.45])
    assert [s.length for s in spans] == pytest.approx([139.7, 139.7])


def test_shaped_pieces_get_ticks_beside_the_outline() -> None:
    """A circle mirrored with lap 8: its fold of 41.183 runs from 34.408 to 75.592 down; ticks of
    4 mm begin half a millimetre beyond. A plain blank needs none."""
    work = made(CIRCLE, {"kind": "mirror", "towards": "right", "lap": 8})
    assert is_shaped(work, work.folds[0])
    (a, b), (c, d) = ticks(work)
    half = math.sqrt(55**2 - 51**2)
    assert (a[1], b[1]) == pytest.approx((55 - half - 0.5, 55 - half - 4.5), abs=1e-6)
    assert (c[1], d[1]) == pytest.approx((55 + half + 0.5, 55 + half + 4.5), abs=1e-6)
    assert ticks(made(BLANK)) == []


def flower(turn: float = 0.0) -> dict[str, Any]:
    """Five pointed petals: from the middle round either side to a tip at 63 from it."""
    parts = []
    for k in range(5):
        angle = math.radians(-90 + 72 * k + turn)
        c, s = math.cos(angle), math.sin(angle)

        def at(along: float, aside: float, c: float = c, s: float = s) -> str:
            return f"{60 + along * c - aside * s:.6f} {60 + along * s + aside * c:.6f}"

        parts.append(
            f"M{at(0, 0)}L{at(20, -14)}C{at(40, -30)} {at(57, -12)} {at(63, 0)}"
            f"C{at(57, 12)} {at(40, 30)} {at(20, 14)}Z"
        )
    return {"layers": [{"path": "".join(parts), "rule": "nonzero"}]}


def of_flower(turn: float = 0.0) -> Mirrored:
    data = design_of(
        {"kind": "figure", "outline": {"kind": "drawn", "ref": "f"}},
        {"kind": "fit", "to": "width", "width": 120},
        {"kind": "mirror", "towards": "left", "lap": 6},
    ).model_dump(mode="json")
    data["artworks"] = {"f": {"name": "Flower", **flower(turn)}}
    work = evaluate(load_design(data)).pieces[0].work
    assert work is not None
    assert work.mirrored is not None
    return work.mirrored


def test_the_best_join_of_a_flower_is_at_two_petals() -> None:
    """One petal points up: turned by 18 degrees, two of them lie beside the mirror alike."""
    found = of_flower()
    joins = best_joins(found, Wish(130, most_lap=6))
    best = joins[0]
    assert best.spans == 2
    assert abs(best.turn_deg) % 36 == pytest.approx(18, abs=1e-9)
    ranks = [j.hinge for j in joins]
    assert ranks == sorted(ranks, reverse=True)
    box = found.figure.bounds
    turned = found.figure.transformed(rotation(best.turn_deg, about=box.centre))
    at = turned.bounds.left + best.lap / 2
    assert chords(turned, "x", at) == pytest.approx([best.hinge / 2] * 2, abs=0.01)
    (single, *_) = best_joins(found, Wish(130, most_lap=6, spans=1))
    assert single.spans == 1
    assert single.hinge < best.hinge


def test_all_turns_are_tried() -> None:
    """The long side of a leaned rectangle, 80, is the best hinge; it is there twice, and named once."""
    leaned = mirrored(
        {"kind": "figure", "outline": {"kind": "rectangle", "width": 80, "height": 60}}
    )
    best, *others = best_joins(leaned, Wish(100))
    assert best.hinge == pytest.approx(80, abs=0.01)
    assert abs(best.turn_deg) == 90
    assert sum(abs(o.hinge - 80) < 0.01 for o in others) == 0


def test_where_all_spans_are_short_the_least_lap_that_is_long_enough_is_safe() -> None:
    """A comb: nine teeth of 4 mm, 60 of its 100 deep, are crossed wherever it can be folded: 36 mm at once."""
    teeth = [rectangle(Box(0, 6.0 * n, 60, 6.0 * n + 4)) for n in range(9)]
    comb = union(gather(teeth), rectangle(Box(59, 0, 100, 52)))
    assert safe_lap(comb, Side.LEFT, 3.0) == 3.0
    # with the first three teeth alone 12 mm, which is less than 20: as much lap as is asked for at least
    few = union(gather(teeth[:3]), rectangle(Box(59, 0, 100, 52)))
    assert safe_lap(few, Side.LEFT, 3.0) == 3.0
