"""The closed card from its front: what lies there, from the back to the front."""

from __future__ import annotations

from typing import Any

from stileblade.design.evaluation import Evaluation
from stileblade.views.closed import ClosedView, closed_of
from stileblade.views.picture import Pose, whole_picture
from tests.whole import BLANK, WINDOW, layer, whole

PAPERS: list[dict[str, Any]] = [
    {"id": "paper", "outside": "#111111", "inside": "#eeeeee", "thickness": 0.3},
    {"id": "glass", "outside": "#abcdef", "inside": "#abcdef", "light": 0.6},
]


def front_of(evaluation: Evaluation) -> ClosedView:
    base = evaluation.pieces[0]
    assert base.work is not None
    return closed_of(evaluation, base, base.work)


def test_a_flap_lies_on_the_front() -> None:
    """It folds back on to the front: its inside is seen, and it comes last."""
    shut = front_of(whole([BLANK], way={"kind": "side-fold-flap"}, papers=PAPERS))
    assert [s.fill for s in shut.sheets] == ["#eeeeee", "#111111", "#eeeeee"]
    widths = [_width(s.path) for s in shut.sheets]
    assert widths[2] < widths[1] / 1.5


def test_what_is_drawn_on_the_front_is_seen_there() -> None:
    """A border line on the front panel, and no other: open lines, nothing filled."""
    line = {"kind": "border-line", "target": "front"}
    shut = front_of(whole([BLANK, line], papers=PAPERS))
    assert [s.what for s in shut.sheets] == ["paper", "paper", "line"]
    assert "Z" not in shut.sheets[-1].path


def test_lines_that_lie_on_one_face_alone_are_nothing_on_the_others() -> None:
    """On a gatefold the line is on one door: no other face has a line, not even an empty one."""
    line = {"kind": "border-line", "target": "left door"}
    card = whole([BLANK, line], way={"kind": "gatefold"}, papers=PAPERS)
    shut = front_of(card)
    assert [s.what for s in shut.sheets].count("line") == 1
    assert all(s.path for s in shut.sheets)
    assert [s.what for s in whole_picture(card, Pose.CLOSED).shapes].count("line") == 1


def test_what_lies_on_a_panel_and_behind_its_window_is_seen() -> None:
    mat = layer("mat", {"kind": "mat"}, paper="glass")
    behind = layer("behind", {"kind": "backing"}, side="inside", paper="glass")
    shut = front_of(whole([BLANK, WINDOW], mat, behind, papers=PAPERS))
    assert [(s.fill, s.light) for s in shut.sheets] == [
        ("#eeeeee", 0),
        ("#abcdef", 0.6),
        ("#111111", 0),
        ("#abcdef", 0.6),
    ]


def _width(path: str) -> float:
    xs = [
        float(spot.split()[0])
        for spot in path.strip("MZ").replace("Z", "L").replace("M", "").split("L")
        if spot
    ]
    return max(xs) - min(xs)
