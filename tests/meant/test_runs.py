"""Thick papers: each cut is run along several times, in the machine's languages; the report counts them."""

from __future__ import annotations

import re
from functools import lru_cache

import numpy as np
import pytest

from stileblade.cutter.loose import outcome_of
from stileblade.cutter.play import play
from stileblade.cutter.sent import read_sent
from stileblade.formats.options import FileOptions
from stileblade.formats.passes import passes_of
from stileblade.machine.machine import Machine
from stileblade.machine.operation import Operation
from stileblade.machine.shipped import FLATBED
from stileblade.meant.report import report_of, worst
from stileblade.meant.sheet import MeantSheet
from stileblade.sheets.files import SheetFiles, files_of_sheets
from stileblade.sheets.job import Card, JobOptions, stocks_of
from stileblade.sheets.laying import lay_job
from tests.sheets.spoiling import parts_of, strokes_of, written
from tests.whole import whole

SLOT = {"kind": "slot-ladder", "count": 3, "cut": "flaps"}
CUTS = (Operation.CUT_INNER, Operation.CUT_OUTER)


@lru_cache(maxsize=8)
def made(kind: str, runs: int) -> SheetFiles:
    """A blank with three slits, of a paper whose cuts are run along so many times."""
    evaluation = whole(
        [{"kind": "blank"}, SLOT],
        papers=[{"cut_runs": runs, "sheet_width": 297, "sheet_height": 420}],
    )
    options = JobOptions()
    laid = lay_job("job", stocks_of([Card("0", "Card", evaluation, 1)], options), options, FLATBED)
    return files_of_sheets(laid, kind, FileOptions())[0]


def faults(content: bytes, meant: MeantSheet, machine: Machine = FLATBED) -> list[str]:
    return [
        str(f.code) for f in report_of(play(read_sent(content, machine), machine), meant).faults
    ]


@pytest.mark.parametrize("kind", ["hpgl", "gcode", "svg", "dxf"])
@pytest.mark.parametrize("runs", [2, 3])
def test_what_is_cut_several_times_is_as_it_was_meant(kind: str, runs: int) -> None:
    files = made(kind, runs)
    found = report_of(play(read_sent(files.files[0].content, FLATBED), FLATBED), files.wanted[0])
    assert found.faults == ()
    assert worst(found) <= 0.03
    assert files.wanted[0].runs == (runs if kind in ("hpgl", "gcode") else 1)
    assert [m.piece for m in found.pieces if m] == ["Base"]


def test_length_and_lifts_of_several_runs() -> None:
    """A closed cut goes round without a lift, and runs over its start once; a slit is begun anew."""
    for runs in (1, 2, 3):
        plan = made("hpgl", runs).sheet.plans[0]
        passes = {p.operation: p for p in passes_of(plan, FLATBED)}
        once = {p.operation: p for p in passes_of(made("hpgl", 1).sheet.plans[0], FLATBED)}
        for operation in CUTS:
            assert passes[operation].length == pytest.approx(runs * once[operation].length)
        assert passes[Operation.CUT_OUTER].lifts == once[Operation.CUT_OUTER].lifts == 1
        assert passes[Operation.CUT_INNER].lifts == runs * once[Operation.CUT_INNER].lifts
        (outer,) = passes[Operation.CUT_OUTER].strokes
        assert outer.way.length == pytest.approx(outer.run + FLATBED.overlap)
        assert passes[Operation.SCORE].length == once[Operation.SCORE].length


def test_too_many_and_too_few_runs_are_found() -> None:
    once, twice, thrice = (made("hpgl", n) for n in (1, 2, 3))
    assert faults(once.files[0].content, twice.wanted[0]) == ["pass-missing"]
    assert faults(twice.files[0].content, thrice.wanted[0]) == ["pass-missing"]
    assert set(faults(twice.files[0].content, once.wanted[0])) == {"cut-twice"}
    assert set(faults(thrice.files[0].content, twice.wanted[0])) == {"cut-twice"}
    said = report_of(
        play(read_sent(once.files[0].content, FLATBED), FLATBED), twice.wanted[0]
    ).faults[0]
    assert re.match(r"Cuts run along 1 of 2 times: all \d+ lines\.", said.message)


def test_one_slit_that_was_left_out_once_is_found() -> None:
    files = made("hpgl", 2)
    parts = parts_of(files.files[0].content)
    (knife,) = {p for _, p in parts if isinstance(p, str) and p.startswith("SP1")}
    short = min(strokes_of(parts, knife), key=lambda i: len(parts[i][1]))
    assert faults(written(parts[:short] + parts[short + 1 :]), files.wanted[0]) == ["pass-missing"]


def test_a_file_alone_is_told_how_often_each_cut_is_run() -> None:
    """Of a square that is cut three times, one is too many for two runs, two for one."""
    square = [(10, 10), (70, 10), (70, 70), (10, 70)]
    units = ",".join(f"{x * 40},{y * 40}" for x, y in [*(square * 3)[1:], square[0]])
    content = f"IN;SP1;PU400,400;PD{units};PU;SP0;".encode()
    for runs, found in ((1, 1), (2, 1), (3, 0)):
        outcome = outcome_of(play(read_sent(content, FLATBED), FLATBED), runs=runs)
        assert len(outcome.faults) == found
        assert np.isclose(outcome.loose[0].area_mm2, 3600)
