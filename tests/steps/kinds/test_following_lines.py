"""Lines that follow the finished outline: several, along cut edges, stitched, pricked, by pens."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
import shapely

from stileblade.checks.check import run_checks
from stileblade.design.evaluation import evaluate
from stileblade.geometry.curves.measurement import bounds
from stileblade.geometry.curves.segments import concatenate
from stileblade.geometry.regions.along import length_of, points_along
from stileblade.piece.work import Work
from tests.conftest import design_of
from tests.steps.kinds.on_a_blank import BLANK, work_of

STAR = {"kind": "figure", "outline": {"kind": "star"}}


def line(**more: Any) -> dict[str, Any]:
    return {"id": "l", "kind": "border-line", "margin": 3, **more}


def nearest(work: Work) -> float:
    """The least distance of the lines from the finished outline."""
    points = np.concatenate([points_along(w) for d in work.lines_on_paper for w, _ in d.ways])
    outline = shapely.boundary(work.paper.polygons)
    return float(shapely.distance(shapely.points(points), outline).min())


@pytest.mark.parametrize("order", [(0, 1), (1, 0)])
def test_a_line_three_inside_stays_three_inside_whatever_comes_later(
    order: tuple[int, int],
) -> None:
    """Softened after the line or before it: 2.398 from a softened tip once."""
    steps = [line(), {"kind": "soften", "radius": 3}]
    work = evaluate(design_of(STAR, *(steps[i] for i in order))).pieces[0].work
    assert work is not None
    assert nearest(work) == pytest.approx(3, abs=0.01)


def test_several_lines_in_one_step() -> None:
    """3, 6 and 9 inside a panel of 107.95 x 139.7."""
    work = work_of(line(count=3, apart=3))
    (drawn,) = work.lines_on_paper
    boxes = [bounds(w) for w, _ in drawn.ways]
    assert [round(b[2] - b[0], 3) for b in boxes] == [101.95, 95.95, 89.95]


def test_along_cut_edges_only_it_runs_from_fold_to_fold() -> None:
    work = work_of(line(edges="cut"))
    (drawn,) = work.lines_on_paper
    ((way, closed),) = drawn.ways
    assert not closed
    assert length_of(way) == pytest.approx(2 * (107.95 - 3) + 139.7 - 6, abs=0.01)
    ends = sorted(p[0] for p in (way.start[0].tolist(), way.end[-1].tolist()))
    assert ends == pytest.approx([107.95, 107.95], abs=0.01)


def test_a_line_that_finds_nothing_in_the_end_is_said() -> None:
    cut = {"kind": "slice", "keep": "right", "target": "card", "edge": "far", "distance": 5}
    design = design_of(BLANK, line(margin=20), cut)
    (lost,) = [f for f in run_checks(evaluate(design)) if f.code == "line.lost"]
    assert lost.step == "l"
    assert lost.message.startswith("A line is left out of the finished piece: ")


def test_holes_for_a_thread_are_whole_numbers_with_one_in_each_corner() -> None:
    """Inside by 3: 101.95 x 133.7; 5 apart: 20 and 27 on the sides, 94 in all, four in the corners."""
    work = work_of(line(how="prick", spacing=5, diameter=1))
    (drawn,) = work.lines_on_paper
    assert len(drawn.ways) == 2 * (20 + 27)
    centres = np.array(
        [(np.array(bounds(w))[:2] + np.array(bounds(w))[2:]) / 2 for w, _ in drawn.ways]
    )
    corners = [(110.95, 3), (212.9, 3), (110.95, 136.7), (212.9, 136.7)]
    for corner in corners:
        assert np.hypot(*(centres - corner).T).min() < 1e-6
    assert all(closed for _, closed in drawn.ways)
    pricked = work_of(line(how="prick", spacing=5, diameter=0)).lines_on_paper[0]
    assert len(pricked.ways) == len(drawn.ways)
    assert max(length_of(w) for w, _ in pricked.ways) <= 0.3 + 1e-6


def test_round_a_figure_that_is_not_cut() -> None:
    """A circle of 40, lines 2 and 5 outside it."""
    figure = {"kind": "drawn-figure", "outline": {"kind": "circle", "diameter": 40}, "margin": 2,
              "lines": 2, "apart": 3}  # fmt: skip
    (drawn,) = work_of(figure).lines_on_paper
    widths = [round(bounds(w)[2] - bounds(w)[0], 2) for w, _ in drawn.ways]
    assert widths == [44, 50]


@pytest.mark.parametrize(("sized", "values"), [("width", {"wide": 70}), ("height", {"high": 25})])
def test_lettering_is_fitted(sized: str, values: dict[str, float]) -> None:
    words = {"kind": "lettering", "text": "Low tide", "sized": sized, **values}
    (drawn,) = work_of(words).lines_on_paper
    left, head, right, foot = bounds(concatenate([w for w, _ in drawn.ways]))
    size = right - left if sized == "width" else foot - head
    assert size == pytest.approx(next(iter(values.values())), abs=0.01)


def test_how_many_lines_and_how_many_in_a_ring_are_two_things() -> None:
    """Kept designs say how many there are in a ring although there is none: one line is drawn then."""
    drawn = {"kind": "drawn-figure", "outline": {"kind": "circle", "diameter": 10}, "count": 8}
    assert len(work_of(drawn).lines_on_paper[0].ways) == 1
    ring = drawn | {"repeat": "ring", "count": 5, "radius": 30, "lines": 2, "apart": 1}
    assert len(work_of(ring).lines_on_paper[0].ways) == 10
