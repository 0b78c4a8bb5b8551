"""Rolls: as long as is needed, never longer than the bed; and pieces turned freely to their narrowest."""

from __future__ import annotations

import pytest
import shapely

from stileblade.formats.plan import REGISTER_HOLE
from stileblade.geometry.measures import rows
from stileblade.machine.shipped import FLATBED, PLOTTER
from stileblade.sheets.holes import hole_places
from stileblade.sheets.job import Card, JobOptions, stocks_of
from stileblade.sheets.laying import Laid, lay_job
from stileblade.sheets.layout.distances import apart
from stileblade.sheets.layout.pack import lay_out
from stileblade.sheets.layout.parts import Format, Part, Turns
from tests.whole import whole

ROLL = JobOptions(formats={"paper": (300, 0)})
PAPER = {"sheet_width": 210, "sheet_height": 297, "price": 0.5}


def laid(count: int, options: JobOptions = ROLL, *more: dict[str, object]) -> Laid:
    """Bases of 210 x 148 (ISO A6)."""
    evaluation = whole([{"kind": "blank"}, *more], papers=[PAPER])
    return lay_job("job", stocks_of([Card("0", "C", evaluation, count)], options), options, PLOTTER)


def test_a_roll_is_cut_off_where_the_pieces_end() -> None:
    """One lies across: 5 + 148 + 5. Two lie beside each other upright, 148 + 2 + 148 within 290 do not fit:
    two across are 5 + 148 + 2 + 148 + 5."""
    for count, length in ((1, 158), (2, 308), (3, 458)):
        (sheet,) = laid(count).sheets
        assert (sheet.form.width, sheet.form.height) == (300, length)
        assert sheet.price == pytest.approx(0.5 * 300 * length / (210 * 297))


def test_a_roll_is_as_long_as_the_bed_at_most() -> None:
    """Of 720 mm: four of 150 in 710."""
    found = laid(6)
    assert [(s.form.height, len(s.lying)) for s in found.sheets] == [(608, 4), (308, 2)]
    assert found.advice == ()


def test_rectangles_are_laid_on_a_roll_as_short_as_they_can_be() -> None:
    """Twelve of 60 x 90 on 200 of width within 190: three beside each other, upright, in four rows: 4 x 90
    and gaps; lying three beside (184) and six rows of two are longer; found is 376 at most."""
    parts = [Part("r", shapely.box(0, 0, 60, 90)) for _ in range(12)]
    layout = lay_out(parts, Format(200, 900, 5, 2, roll=True))
    assert layout.sheets == 1
    assert apart(layout.placed, layout.form) == []
    assert max(p.y + p.part.size(p.turn)[1] for p in layout.placed) <= 5 + 4 * 90 + 3 * 2 + 1e-6


def test_holes_to_turn_a_roll_over_have_room_below_the_pieces() -> None:
    found = laid(2, ROLL, {"kind": "crease", "made": "score", "scored_from": "inside"})
    (sheet,) = found.sheets
    assert sheet.turned_over
    here = [lying.placed for lying in sheet.lying]
    assert apart(here, sheet.form) == []
    assert hole_places(sheet.form)[2][1] + REGISTER_HOLE / 2 < sheet.form.height
    assert sheet.form.height <= 308 + 2 * 12


def test_a_roll_wider_than_the_bed_is_refused() -> None:
    from stileblade.errors import DocumentError

    with pytest.raises(DocumentError, match="larger than the bed"):
        laid(1, JobOptions(formats={"paper": (400, 0)}))
    assert FLATBED.bed_width > 400


def test_a_slanting_bar_is_turned_upright() -> None:
    """280 x 20 at 37 degrees is 236 x 184 as it lies; upright nine are on A4, by quarters fewer."""
    bar = rows.turned(shapely.box(0, 0, 280, 20), 37)
    part = Part("bar", bar, Turns.FREE)
    assert sorted(round(v, 6) for v in part.size(part.boxed[0])) == [20, 280]
    layout = lay_out([part] * 9, Format(210, 297, 5, 2))
    assert layout.sheets == 1
    assert apart(layout.placed, layout.form) == []
    across = lay_out([Part("bar", part.shape, Turns.QUARTERS)] * 9, Format(210, 297, 5, 2))
    assert across.sheets > 1
