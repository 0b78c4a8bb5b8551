"""Pieces that lie inside up: what is done from which side, register holes, and turning over by hand."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
import pytest

from stileblade.cutter.play import play
from stileblade.cutter.sent import read_sent
from stileblade.errors import DocumentError
from stileblade.formats.options import FileOptions
from stileblade.geometry.measures import rows
from stileblade.geometry.paths.pathdata import region_from_path
from stileblade.machine.operation import Operation
from stileblade.machine.shipped import FLATBED
from stileblade.meant.report import report_of, worst
from stileblade.sheets.files import files_of_sheets
from stileblade.sheets.holes import hole_places
from stileblade.sheets.job import Card, JobOptions, Stock, stocks_of
from stileblade.sheets.kept import KeptJob, KeptPiece, kept, laid_again, placed_of
from stileblade.sheets.laying import Laid, lay_job
from stileblade.sheets.moving import measured, nearness, placed_anew
from tests.whole import whole

WITHIN = {"svg": 0.01, "dxf": 0.01, "gcode": 0.01, "hpgl": 0.03}
PAPER = {"sheet_width": 320, "sheet_height": 450}


@lru_cache(maxsize=8)
def stocks(scored_from: str, over: bool, count: int = 1) -> tuple[tuple[Stock, ...], JobOptions]:
    """Side fold cards with a slanting window, scored from one side, on 320 x 450."""
    steps = [
        {"kind": "blank"},
        {"kind": "window", "outline": {"kind": "heart", "width": 40, "height": 36}, "turn": 25},
        {"kind": "crease", "made": "score", "scored_from": scored_from},
    ]
    options = JobOptions(inside_up=("paper",) if over else ())
    card = Card("0", "Card", whole(steps, papers=[PAPER]), count)
    return tuple(stocks_of([card], options)), options


def laid(scored_from: str, over: bool, count: int = 1) -> Laid:
    some, options = stocks(scored_from, over, count)
    return lay_job("job", some, options, FLATBED)


@pytest.mark.parametrize("kind", WITHIN)
@pytest.mark.parametrize("scored_from", ["usual", "inside"])
def test_pieces_inside_up_come_loose_as_meant(kind: str, scored_from: str) -> None:
    (made,) = files_of_sheets(laid(scored_from, True), kind, FileOptions())
    (lying,) = made.sheet.lying
    assert lying.placed.part.flipped
    assert made.sheet.turned_over is (scored_from == "usual")
    for file, wanted in zip(made.files, made.wanted, strict=True):
        found = report_of(play(read_sent(file.content, FLATBED), FLATBED), wanted)
        assert found.faults == ()
        assert worst(found) <= WITHIN[kind]
    (right,) = files_of_sheets(laid(scored_from, False), kind, FileOptions())
    wrong = report_of(play(read_sent(right.files[0].content, FLATBED), FLATBED), made.wanted[0])
    assert wrong.faults


def test_scores_are_made_from_their_own_side() -> None:
    """Four ways: outside up or inside up, scored from the outside or the inside."""
    for scored_from in ("usual", "inside"):
        for over in (False, True):
            (sheet,) = laid(scored_from, over).sheets
            first, *more = sheet.plans
            beneath = (scored_from == "inside") is not over
            assert bool(first.lines[Operation.SCORE]) is not beneath
            assert bool(more) is beneath
            if more:
                assert more[0].lines[Operation.SCORE]
                assert len(more[0].lines[Operation.DRAW]) == 3


def test_it_is_said_where_turning_pieces_over_saves_a_set_up() -> None:
    assert laid("inside", False).advice == (
        "Card stock: no second set-up with its pieces inside up.",
    )
    assert laid("usual", True).advice == (
        "Card stock: no second set-up with its pieces outside up.",
    )
    assert laid("inside", True).advice == laid("usual", False).advice == ()


@pytest.fixture
def job() -> KeptJob:
    some, _ = stocks("usual", False, 2)
    return kept(laid("usual", False, 2), some)


def test_a_piece_is_turned_over_by_hand_and_back(job: KeptJob) -> None:
    """Then the sheet has register holes, its scores are made once it is turned over, and that is kept."""
    piece = job.sheets[0].pieces[0]
    assert job.sheets[0].holes == ()
    over = measured(job, piece.model_copy(update={"flipped": True}), about=piece)
    assert (over.width, over.height) == (piece.width, piece.height)
    turned = placed_anew(job, 0, 0, 0, over)
    assert len(turned.sheets[0].holes) == 3
    some, options = stocks("usual", False, 2)
    again = laid_again(turned, some, options, FLATBED, "job")
    (sheet,) = again.sheets
    assert [p.placed.part.flipped for p in sheet.lying].count(True) == 1
    first, second = sheet.plans
    assert len(first.lines[Operation.SCORE]) == len(second.lines[Operation.SCORE]) == 1
    (made,) = files_of_sheets(again, "gcode", FileOptions())
    for file, wanted in zip(made.files, made.wanted, strict=True):
        found = report_of(play(read_sent(file.content, FLATBED), FLATBED), wanted)
        assert found.faults == ()
    back = placed_anew(turned, 0, 0, 0, piece)
    assert back == job


def test_what_is_locked_inside_up_stays_so_when_laid_out_again(job: KeptJob) -> None:
    piece = job.sheets[0].pieces[0]
    over = measured(job, piece.model_copy(update={"flipped": True, "locked": True}), about=piece)
    turned = placed_anew(job, 0, 0, 0, over)
    some, options = stocks("usual", False, 2)
    locked = placed_of(turned, some, locked_only=True)
    again = lay_job("job", some, options, FLATBED, locked=locked)
    assert sorted(p.placed.part.flipped for s in again.sheets for p in s.lying) == [False, True]
    holes = again.sheets[0].form.holes
    shapes = [p.placed.shape for p in again.sheets[0].lying]
    assert len(holes) == 3
    assert rows.distances(shapes, np.array(holes)).min() >= again.sheets[0].form.gap + 1.5 - 1e-9


def test_holes_make_way_for_pieces(job: KeptJob) -> None:
    """A piece in each corner: the holes go to the nearest places that keep the gap, and not too near to
    each other; where pieces leave no room for three, turning over is refused."""
    one, other = job.sheets[0].pieces
    over = measured(job, one.model_copy(update={"flipped": True, "x": 5.0, "y": 5.0}))
    turned = placed_anew(job, 0, 0, 0, over)
    on = turned.sheets[0]
    shapes = [lying(turned, p) for p in on.pieces]
    away = rows.distances(shapes, np.array(on.holes))
    assert away.min() >= on.gap + 1.5 - 1e-9
    assert away.min() == pytest.approx(on.gap + 1.5, abs=1.0)
    for (x, y), (u, v) in zip(on.holes, hole_places(on.form), strict=True):
        assert on.edge <= x - 1.5
        assert x + 1.5 <= on.width - on.edge
        assert on.edge <= y - 1.5
        assert y + 1.5 <= on.height - on.edge
        assert np.hypot(x - u, y - v) < 0.6 * on.height
    other = measured(job, other.model_copy(update={"turn": 0.0, "x": 5.0, "y": 155.0}))
    narrow = on.model_copy(
        update={
            "width": over.width + 10,
            "height": 2 * over.height + 12,
            "holes": (),
            "pieces": [one, other],
        }
    )
    tight = job.model_copy(update={"sheets": [narrow]})
    near = nearness(tight, 0, over, without=0)
    assert not near.allowed
    assert near.said == (
        "There is no room left for the three holes by which the sheet is turned over."
    )
    with pytest.raises(DocumentError, match="no room left for the three holes"):
        placed_anew(tight, 0, 0, 0, over)


def lying(job: KeptJob, piece: KeptPiece) -> rows.Shape:
    shape = rows.shape_of(region_from_path(job.parts[piece.part].d))
    return rows.moved(rows.turned(shape, piece.turn, flipped=piece.flipped), piece.x, piece.y)
