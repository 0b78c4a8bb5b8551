"""Windows, cut-aways and edges with their sides on folds, ending on them or tangent to them: the card
falls into the faces, and hangs on the hinges, that an independent computation finds."""

from __future__ import annotations

import random
from typing import Any

import numpy as np
import pytest
import shapely

from stileblade.card.ways import WAYS
from stileblade.design.evaluation import evaluate
from stileblade.folding.faces import sheet_of
from stileblade.folding.flat import fold_flat
from stileblade.piece.work import Work
from tests.conftest import TIMES, design_of
from tests.whole import ISO_A6, whole, work_of

ASIDE = 0.005
"""mm from a fold at which this test looks for paper."""
HINGE = 0.05
"""mm: a shorter hinge is none, and cards with one of about that length are not compared."""
SIDES = [
    "left",
    "right",
    "head",
    "foot",
    "head-left",
    "head-right",
    "foot-left",
    "foot-right",
    "centre",
]


@pytest.mark.parametrize("radius", [0, 0.5, 2, 4, 10, 15])
def test_a_rounded_window_whose_side_lies_on_the_fold_leaves_the_card_shut(radius: float) -> None:
    """ISO A6 side fold: two faces of 105 x 148 on one another, whatever the corners are."""
    window = {"kind": "window", "at": "left", "by": "left",
              "outline": {"kind": "rectangle", "width": 30, "height": 30, "radius": radius}}  # fmt: skip
    work = work_of(whole([{"kind": "blank"}, window], size=ISO_A6), "base")
    assert fold_flat(work).closed == pytest.approx((105, 148), abs=1e-9)
    assert len(sheet_of(work).cells) == 2
    assert sum(s.length for s in work.spans["fold"]) == pytest.approx(148 - 30 + 2 * radius)


def outline_of(chance: random.Random) -> dict[str, Any]:
    wide, high = (round(chance.uniform(6, 46), 2) for _ in range(2))
    radius = round(chance.uniform(0, min(wide, high) / 2), 2)
    return chance.choice([
        {"kind": "rectangle", "width": wide, "height": high, "radius": radius},
        {"kind": "rectangle", "width": wide, "height": high, "radius": min(wide, high) / 2},
        {"kind": "ellipse", "width": wide, "height": high},
        {"kind": "circle", "diameter": wide},
        {"kind": "arch", "width": wide, "height": high + wide, "rise": wide / 2},
        {"kind": "heart", "width": wide, "height": high},
        {"kind": "star", "points": chance.randint(4, 9), "diameter": wide},
        {"kind": "tag", "width": wide, "height": high},
        {"kind": "scalloped-circle", "diameter": wide},
        {"kind": "wave-top", "width": wide, "height": high},
    ])  # fmt: skip


def cut_of(chance: random.Random, panels: list[str]) -> dict[str, Any]:
    """A step that cuts at or across the edges of a panel, some of which are folds."""
    if chance.random() < 0.12:
        return {"kind": "shaped-edge", "target": chance.choice(panels), "side": chance.choice(SIDES[:4]),
                "depth": round(chance.uniform(2, 9), 1)}  # fmt: skip
    side = chance.choice(SIDES)
    by = chance.choice([side, side, "centre", chance.choice(SIDES)])
    step = {"target": chance.choice(panels), "at": side, "by": by, "outline": outline_of(chance),
            "turn": chance.choice([0, 0, 0, 90, 45, round(chance.uniform(0, 180), 1)]),
            "dx": chance.choice([0, 0, 0, round(chance.uniform(-9, 9), 2)]),
            "dy": chance.choice([0, 0, 0, round(chance.uniform(-9, 9), 2)])}  # fmt: skip
    if chance.random() < 0.3:
        return {"kind": "cut-away", **step}
    return {"kind": "window", "crosses": chance.random() < 0.6, **step}


def faces_by_panels(work: Work, hair: float) -> list[tuple[int, Any]]:
    """By the number of a panel: each connected part of the paper within it, where it is held by more than
    twice ``hair``."""
    paper = shapely.make_valid(work.paper.polygons)
    found = []
    for number, panel in enumerate(work.panels):
        inside = shapely.box(*panel.box.as_list())
        for part in shapely.get_parts(shapely.intersection(paper, inside)):
            core = shapely.buffer(part, -hair)
            for one in shapely.get_parts(core):
                if shapely.area(one) > 0.05:
                    found.append((number, one))
    return found


def hinges(work: Work, faces: list[tuple[int, Any]]) -> dict[tuple[int, int], tuple[str, float]]:
    """Pairs of faces that hang on each other along a fold, with its name and the hinge's length: where
    both have paper right beside the fold."""
    found: dict[tuple[int, int], tuple[str, float]] = {}
    for fold in work.folds:
        start, end = fold.line.ends_beyond(work.paper.bounds)
        line, away = shapely.linestrings([start, end]), fold.line.normal * ASIDE
        sides = []
        for sign in (1.0, -1.0):
            moved = _moved(line, sign * away)
            met = [_moved(shapely.intersection(moved, f), -sign * away) for _, f in faces]
            sides.append(met)
        for i, above in enumerate(sides[0]):
            for j, below in enumerate(sides[1]):
                if i != j and not shapely.is_empty(above) and not shapely.is_empty(below):
                    shared = shapely.length(_along(fold.line, above, below))
                    if shared > HINGE:
                        found[i, j] = fold.name, float(shared)
    return found


def _moved(shape: Any, by: Any) -> Any:
    return _mapped(shape, np.column_stack([np.eye(2), by]))


def _mapped(shape: Any, matrix: Any) -> Any:
    return shapely.transform(shape, lambda p: p @ matrix[:, :2].T + matrix[:, 2])


def _along(line: Any, first: Any, second: Any) -> Any:
    """What two sets of stretches of one line share, by places along it."""

    def stretches(shape: Any) -> Any:
        lines = [g for g in shapely.get_parts(shape) if shapely.get_type_id(g) == 1]
        ends = [np.sort(line.place(shapely.get_coordinates(g)))[[0, -1]] for g in lines]
        return shapely.multilinestrings([[(a, 0.0), (b, 0.0)] for a, b in ends])

    return shapely.intersection(stretches(first), stretches(second))


def closed_size(work: Work, faces: list[tuple[int, Any]], hung: Any) -> tuple[float, float]:
    """The box of all faces, each turned over the folds on the way from the largest part of the front. What
    hangs on nothing and is no larger than 4 mm^2 falls out."""
    fronts = [i for i, (n, _) in enumerate(faces) if work.panels[n].name == work.front]
    root = max(fronts or range(len(faces)), key=lambda i: float(shapely.area(faces[i][1])))
    lines = {f.name: f for f in work.folds}
    maps: dict[int, Any] = {root: np.array([[1.0, 0, 0], [0, 1, 0]])}
    waiting = [root]
    while waiting:
        at = waiting.pop(0)
        for (i, j), (name, _) in hung.items():
            other = j if i == at else i if j == at else None
            if other is None or other in maps:
                continue
            turn = lines[name].line.mirror() if lines[name].crease.shut else maps[root]
            linear = maps[at][:, :2] @ turn[:, :2]
            maps[other] = np.column_stack([linear, maps[at][:, :2] @ turn[:, 2] + maps[at][:, 2]])
            waiting.append(other)
    placed = [
        _mapped(f, maps.get(i, maps[root]))
        for i, (_, f) in enumerate(faces)
        if i in maps or shapely.area(f) > 4
    ]
    left, head, right, foot = shapely.total_bounds(np.array(placed)).tolist()
    return right - left, foot - head


@pytest.mark.parametrize("kind", [w.kind for w in WAYS if not w.own_panels])
def test_cuts_at_folds_as_an_independent_computation_has_them(kind: str) -> None:
    """170 cards of each of twelve ways, with one or two cuts each: the number of faces, the hinges by pairs
    of faces, and the closed size."""
    chance, compared = random.Random(kind), 0
    for number in range(170 * TIMES):
        panels = [
            p.name for p in evaluate(design_of({"kind": "blank"}, way=kind)).pieces[0].work.panels
        ]  # type: ignore[union-attr]
        steps = [cut_of(chance, panels) for _ in range(chance.randint(1, 2))]
        piece = evaluate(design_of({"kind": "blank"}, *steps, way=kind)).pieces[0]
        work = piece.work
        assert work is not None
        if all(o.problem for o in piece.outcomes[1:]):
            continue
        sheet, folded = sheet_of(work), fold_flat(work)
        faces = faces_by_panels(work, 2e-6)
        if len(faces) != len(faces_by_panels(work, 0.01)):
            continue  # held by a hair that is no wider than outlines are exact
        lengths = [np.hypot(*np.subtract(j.end, j.start)) for j in sheet.joints]
        if any(HINGE / 5 < length < HINGE * 5 for length in lengths):
            continue
        compared += 1
        hung = hinges(work, faces)
        large = [i for i, cell in enumerate(sheet.cells) if shapely.area(cell) > 0.05]
        told = {(j.a, j.b) for j in sheet.joints
                if np.hypot(*np.subtract(j.end, j.start)) > HINGE and j.a in large and j.b in large}  # fmt: skip
        case = (kind, number, steps)
        assert len(large) == len(faces), case
        assert len(told) == len(hung), case
        closed = closed_size(work, faces, hung)
        assert folded.closed == pytest.approx(closed, abs=0.03), case
    assert compared > 100 * TIMES
