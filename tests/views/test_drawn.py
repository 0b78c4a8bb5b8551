"""Lines on the folded card: where they lie, in their pens' colours, on base and layers."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import pytest

from stileblade.design.evaluation import Evaluation
from stileblade.formats.pens import PENS
from stileblade.views.drawn import MOST, SCORED, DrawnView
from stileblade.views.space import SpaceView, space_of
from tests.whole import BLANK, layer, whole, work_of

CIRCLE = {"kind": "drawn-figure", "outline": {"kind": "circle", "diameter": 20}, "pen": "2"}


def space(evaluation: Evaluation) -> SpaceView:
    return space_of(evaluation, evaluation.pieces[0], work_of(evaluation, "base"))


def length(drawn: list[DrawnView], colour: str) -> float:
    """mm of all lines of a colour."""
    return sum(
        math.dist(a, b)
        for d in drawn
        if d.colour == colour
        for line in d.lines
        for a, b in pairwise(line)
    )


def test_a_pens_line_lies_on_its_panel_in_its_colour() -> None:
    """A circle of 20 on the front: 62.83 mm of line there, and none on the back."""
    shown = space(whole([BLANK, CIRCLE]))
    by_panel = {f.panel: length(f.lines, PENS["pen-2"]) for f in shown.faces}
    assert by_panel["front"] == pytest.approx(math.pi * 20, rel=0.01)
    assert by_panel["back"] == 0


def test_a_layers_lines_lie_where_it_lies() -> None:
    """A mat of margin 10 with a pen's circle in its middle, that is the panel's: 157.5, 74."""
    shown = space(whole([BLANK], layer("m", {"kind": "mat", "margin": 10}, CIRCLE)))
    (sheet,) = shown.layers
    places = [p for d in sheet.lines for line in d.lines for p in line]
    xs, ys = [x for x, _ in places], [y for _, y in places]
    assert (max(xs) + min(xs)) / 2 == pytest.approx(157.5, abs=0.1)
    assert (max(ys) + min(ys)) / 2 == pytest.approx(74, abs=0.1)
    assert not sheet.turned


def test_an_inserts_fold_is_a_score_on_it() -> None:
    shown = space(whole([BLANK], layer("i", {"kind": "insert"}, side="inside")))
    # 148 less 2 at head and foot, at the edge of each of its two faces
    assert [length(sheet.lines, SCORED) for sheet in shown.layers] == [
        pytest.approx(144, abs=0.5)
    ] * 2


def test_very_many_lines_are_bounded() -> None:
    many: dict[str, Any] = {**CIRCLE, "repeat": "grid", "columns": 14, "rows": 20}
    many |= {"outline": {"kind": "circle", "diameter": 4}, "gap": 1}
    shown = space(whole([BLANK, many]))
    count = sum(len(line) for f in shown.faces for d in f.lines for line in d.lines)
    assert 1000 < count <= MOST + 100
