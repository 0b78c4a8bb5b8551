"""Mirror with lap, slice and foot, hinges and perforation: the worked figures of the rules."""

from __future__ import annotations

import math
from collections.abc import Callable

import pytest

from stileblade.card.creases import Direction
from stileblade.design.evaluation import Evaluation
from stileblade.folding.flat import fold_flat
from stileblade.folding.hinge import (
    cut_count,
    hinge_at_lap,
    hinge_length,
    lap_for,
    perforation,
)
from stileblade.folding.stand import Foot, stand_of
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.transforms import mirror_across
from stileblade.geometry.measures.cells import area_of
from stileblade.geometry.regions.set_operations import difference
from stileblade.piece.folds import Fold, Made, Span
from stileblade.piece.work import Work

Run = Callable[..., Evaluation]
CIRCLE = {"kind": "figure", "outline": {"kind": "circle", "diameter": 110}}
SIZE = {"name": "big", "width": 200, "height": 200, "envelope": None}


def finished(evaluation: Evaluation) -> Work:
    work = evaluation.pieces[0].work
    assert work is not None
    return work


def mirror(lap: float, towards: str = "right") -> dict[str, object]:
    return {"kind": "mirror", "towards": towards, "lap": lap}


@pytest.mark.parametrize(
    ("folding", "same_as"),
    [
        ({"kind": "side-fold"}, "left"),
        ({"kind": "side-fold", "swapped": True}, "right"),
        ({"kind": "top-fold"}, "above"),
        ({"kind": "top-fold", "swapped": True}, "below"),
        ({"kind": "side-fold", "creases": "level"}, "above"),
        ({"kind": "gatefold"}, "left"),
    ],
)
def test_a_mirror_goes_where_the_card_folds(
    evaluated: Run, folding: dict[str, object], same_as: str
) -> None:
    """An ellipse with its hinge on the side that the card opens from, unless another is said."""
    egg = {"kind": "figure", "outline": {"kind": "ellipse", "width": 60, "height": 90}}
    by_fold = finished(evaluated(egg, {"kind": "mirror", "lap": 6}, folding=folding, size=SIZE))
    wanted = finished(evaluated(egg, mirror(6, same_as), folding=folding, size=SIZE))
    assert by_fold.mirrored is not None
    assert wanted.mirrored is not None
    assert by_fold.mirrored.towards is wanted.mirrored.towards
    assert by_fold.paper.bounds.as_list() == wanted.paper.bounds.as_list()
    assert [fold.line for fold in by_fold.folds] == [fold.line for fold in wanted.folds]


@pytest.mark.parametrize(
    ("lap", "width", "fold", "loss"),
    [(1, 219, 109.5, 4.937), (3, 217, 108.5, 25.585), (8, 212, 106, 110.644)],
)
def test_a_circle_mirrored_to_the_right(
    evaluated: Run, lap: float, width: float, fold: float, loss: float
) -> None:
    """r = 55: the axis lies lap/2 inside 110; hinge 2 sqrt(r^2 - (r - lap/2)^2); the loss is
    the circular segment r^2 acos(d/r) - d sqrt(r^2 - d^2), d = r - lap/2."""
    work = finished(evaluated(CIRCLE, mirror(lap), size=SIZE))
    assert work.paper.bounds.width == pytest.approx(width, abs=1e-3)
    assert work.folds[0].at == pytest.approx(fold, abs=1e-3)
    d = 55 - lap / 2
    assert hinge_length(work.spans["fold"], work.folds[0]) == pytest.approx(
        2 * math.sqrt(55**2 - d**2), abs=1e-3
    )
    assert work.mirrored is not None
    assert work.mirrored.loss == pytest.approx(loss, abs=1e-3)
    assert work.paper.pieces == 1


def test_halves_are_congruent(evaluated: Run) -> None:
    work = finished(evaluated(CIRCLE, mirror(8), size=SIZE))
    at = work.folds[0].at
    image = work.paper.transformed(mirror_across(axis="x", at=at))
    assert difference(work.paper, image).area < 1e-6
    assert difference(image, work.paper).area < 1e-6


def test_without_lap_a_circle_falls_apart_and_a_square_does_not(evaluated: Run) -> None:
    circles = finished(evaluated(CIRCLE, mirror(0), size=SIZE))
    assert circles.paper.pieces == 2
    assert circles.spans["fold"] == []
    square = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 60}}
    work = finished(evaluated(square, mirror(0), size=SIZE))
    assert hinge_length(work.spans["fold"], work.folds[0]) == pytest.approx(60, abs=1e-3)
    assert work.paper.pieces == 1


@pytest.mark.parametrize(
    ("towards", "front"),
    [
        ("left", [1.5, 0, 60, 40]),
        ("right", [58.5, 0, 117, 40]),
        ("above", [0, 1.5, 60, 40]),
        ("below", [0, 38.5, 60, 77]),
    ],
)
def test_the_front_is_the_right_or_lower_half(
    evaluated: Run, towards: str, front: list[float]
) -> None:
    """A 60 x 40 rectangle, lap 3: the axis lies 1.5 inside."""
    figure = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 40}}
    evaluation = evaluated(figure, mirror(3, towards), size=SIZE)
    work = finished(evaluation)
    panel = next(p for p in work.panels if p.name == "front")
    assert panel.box.as_list() == pytest.approx(front, abs=1e-9)
    said = [note.code for note in work.notes]
    assert said == (["mirror.reversed"] if towards in ("right", "below") else [])


def test_a_lap_deeper_than_the_figure_names_the_largest(evaluated: Run) -> None:
    outcome = evaluated(CIRCLE, mirror(220), size=SIZE).pieces[0].outcomes[1]
    assert outcome.problem is not None
    assert outcome.problem.message == (
        "A lap of 220 mm is deeper than the figure; 219.9 mm still leaves something."
    )
    assert outcome.problem.field == "lap"
    assert outcome.work is outcome.before
    assert evaluated(CIRCLE, mirror(219.9), size=SIZE).pieces[0].outcomes[1].problem is None


@pytest.mark.parametrize("lap", [1.0, 3.0, 8.0, 40.0])
def test_the_hinge_foretold_for_a_lap_is_the_hinge_it_has(evaluated: Run, lap: float) -> None:
    work = finished(evaluated(CIRCLE, mirror(3), size=SIZE))
    assert work.mirrored is not None
    d = 55 - lap / 2
    assert hinge_at_lap(work.mirrored, lap) == pytest.approx(2 * math.sqrt(55**2 - d**2), abs=0.05)


def test_the_lap_for_a_hinge_is_the_smallest_that_does(evaluated: Run) -> None:
    """2 sqrt(55^2 - (55 - p/2)^2) >= 30 from p = 2 (55 - sqrt(55^2 - 15^2)) = 4.17 on."""
    work = finished(evaluated(CIRCLE, mirror(1), size=SIZE))
    assert work.mirrored is not None
    assert lap_for(work.mirrored, 30) == 4.2
    assert lap_for(work.mirrored, 111) is None


def test_a_slice_for_a_flat_foot_of_forty(evaluated: Run) -> None:
    """r = 50: the cut lies 50 - sqrt(50^2 - 20^2) = 4.174 above the lowest point."""
    at = 50 - math.sqrt(50**2 - 20**2)
    assert at == pytest.approx(4.174, abs=1e-3)
    figure = {"kind": "figure", "outline": {"kind": "circle", "diameter": 100}}
    cut = {"kind": "slice", "keep": "above", "edge": "far", "distance": at}
    work = finished(evaluated(figure, cut, mirror(8)))
    assert work.paper.bounds.foot == pytest.approx(100 - at, abs=1e-9)
    # what lies within 0.02 mm of the table: at that height the circle is a little wider
    reach = 2 * math.sqrt(50**2 - (50 - at - 0.02) ** 2)
    for foot in feet(work):
        assert foot.touching == pytest.approx(reach, abs=1e-3)
        assert foot.steady
    assert reach == pytest.approx(40, abs=0.1)


def feet(work: Work) -> tuple[Foot, ...]:
    stand = stand_of(work)
    assert stand is not None
    assert len(stand.feet) == 2
    return stand.feet


def test_a_round_foot_touches_hardly_at_all(evaluated: Run) -> None:
    """r = 50 touches along 2 sqrt(50^2 - 49.98^2) = 2.828."""
    figure = {"kind": "figure", "outline": {"kind": "circle", "diameter": 100}}
    for foot in feet(finished(evaluated(figure, mirror(8)))):
        assert foot.touching == pytest.approx(2.828, abs=1e-3)
        assert not foot.steady


def test_a_slice_is_measured_on_the_figure_not_on_what_is_left(evaluated: Run) -> None:
    """Two trims of the same foot: the second, at 10, is where it says, whatever the first did."""
    figure = {"kind": "figure", "outline": {"kind": "circle", "diameter": 100}}

    def foot(*distances: float) -> float:
        cuts = [{"kind": "slice", "keep": "above", "edge": "far", "distance": d} for d in distances]
        return finished(evaluated(figure, *cuts)).paper.bounds.foot

    assert foot(4, 10) == pytest.approx(90)
    assert foot(10) == pytest.approx(90)


@pytest.mark.parametrize(
    ("keep", "edge", "box"),
    [
        ("above", "near", [0, 0, 60, 10]),
        ("below", "near", [0, 10, 60, 40]),
        ("left", "middle", [0, 0, 40, 40]),
        ("right", "far", [50, 0, 60, 40]),
    ],
)
def test_slices_from_every_side(evaluated: Run, keep: str, edge: str, box: list[float]) -> None:
    figure = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 40}}
    cut = {"kind": "slice", "keep": keep, "edge": edge, "distance": 10}
    assert finished(evaluated(figure, cut)).paper.bounds.as_list() == pytest.approx(box)


def test_a_slice_that_leaves_nothing_says_so(evaluated: Run) -> None:
    cut = {"kind": "slice", "keep": "above", "edge": "far", "distance": 120}
    outcome = evaluated(CIRCLE, cut).pieces[0].outcomes[1]
    assert outcome.problem is not None
    assert outcome.problem.message == (
        "The slice leaves nothing: all of the piece lies on the other side of it."
    )
    assert outcome.problem.would_do == 55
    assert outcome.work is not None
    assert outcome.work.paper.area == pytest.approx(math.pi * 55**2)


def test_perforation_of_a_span_of_139_7() -> None:
    """floor((139.7 - 1) / 3) = 46 cuts; 46*3 - 1 = 137 long, 1.35 left at each end; of the
    paper 139.7 - 92 = 47.7 mm stay."""
    fold = Fold("fold", Line.on("x", 0), made=Made.PERFORATE, cut=2, leave=1)
    span = Span((0, 0), (0, 139.7), Direction.MOUNTAIN)
    assert cut_count(139.7, fold) == 46
    cuts = perforation(span, fold)
    assert len(cuts) == 46
    assert cuts[0][0][1] == pytest.approx(1.35, abs=1e-9)
    assert 139.7 - cuts[-1][1][1] == pytest.approx(1.35, abs=1e-9)
    assert hinge_length([span], fold) == pytest.approx(47.7, abs=1e-9)


def test_closed_and_opened_again_keeps_the_paper(evaluated: Run) -> None:
    """Folding keeps area: the faces together are the piece, and each is only mirrored."""
    work = finished(evaluated(CIRCLE, mirror(8), size=SIZE))
    folded = fold_flat(work)
    # faces are flattened to 0.005 mm: along 650 mm of outline that is at most 3 mm^2
    assert sum(area_of(f.cell) for f in folded.faces) == pytest.approx(work.paper.area, abs=3)
    assert folded.closed == pytest.approx((106, 110), abs=1e-6)
    assert [f.box.as_list() for f in folded.faces if f.panel == "front"] == [
        pytest.approx([106, 0, 212, 110], abs=1e-6)
    ]
    assert folded.layers == 2


@pytest.mark.parametrize(
    ("way", "closed"), [("side-fold", (107.95, 139.7)), ("top-fold", (107.95, 139.7))]
)
def test_blanks_close_to_the_card_size(
    evaluated: Run, way: str, closed: tuple[float, float]
) -> None:
    work = finished(evaluated({"kind": "blank"}, way=way))
    assert fold_flat(work).closed == pytest.approx(closed, abs=1e-3)
