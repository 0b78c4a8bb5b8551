"""Files held against what was meant: as they are written, and spoiled by their bytes."""

from __future__ import annotations

import json
import math
import random
import time
from functools import lru_cache
from pathlib import Path
from typing import Any

import pytest

from stileblade.cutter.play import play
from stileblade.cutter.sent import Fault, read_sent
from stileblade.cutter.turned_out import Conditions
from stileblade.errors import DocumentError
from stileblade.formats.format import formats
from stileblade.formats.options import FileOptions
from stileblade.formats.passes import passes_of
from stileblade.machine.machine import Machine
from stileblade.machine.shipped import FLATBED, PLOTTER
from stileblade.meant.report import Report, report_of, worst
from stileblade.meant.sheet import MeantSheet, read_meant
from stileblade.meant.shown import cut_data
from stileblade.sheets.files import files_of_sheets
from stileblade.sheets.job import Card, JobOptions, stocks_of
from stileblade.sheets.laying import Laid, lay_job
from tests.conftest import TIMES
from tests.sheets.jobs import random_job
from tests.sheets.spoiling import CODES, SPOILED, CannotBeSpoiled, parts_of, written
from tests.whole import WINDOW, whole

WITHIN = {"svg": 0.01, "dxf": 0.01, "gcode": 0.01, "hpgl": 0.03}
STEPS: tuple[dict[str, Any], ...] = (
    {"kind": "blank"},
    {**WINDOW, "outline": {"kind": "rectangle", "width": 40, "height": 60}},
)


@lru_cache(maxsize=8)
def sheets(machine: Machine = FLATBED, inside: bool = False, bridges: int = 0) -> Laid:
    """Two side fold cards with a window, a pen line, and a mat."""
    step = {"kind": "crease", "made": "score", "scored_from": "inside"} if inside else None
    base = [s for s in (STEPS[0], STEPS[1], step) if s]
    mat = {"id": "m", "name": "Mat", "host": "base", "steps": [{"kind": "mat"}]}
    evaluation = whole(
        base, mat, papers=[{"thickness": 0.3, "sheet_width": 297, "sheet_height": 420}]
    )
    options = JobOptions(bridges=bridges)
    return lay_job("job", stocks_of([Card("0", "Card", evaluation, 2)], options), options, machine)


def report(content: bytes, meant: MeantSheet, machine: Machine = FLATBED) -> Report:
    return report_of(play(read_sent(content, machine), machine), meant)


@pytest.mark.parametrize("kind", WITHIN)
@pytest.mark.parametrize("bridges", [0, 3])
def test_what_was_meant_comes_of_every_format(kind: str, bridges: int) -> None:
    """Two bases and two mats; with holding bridges nothing comes loose but windows, and that is no fault."""
    laid = sheets(bridges=bridges)
    gone: list[str] = []
    for made in files_of_sheets(laid, kind, FileOptions.model_validate({"machine": "flatbed"})):
        found = report(made.files[0].content, made.sheet.meant())
        assert found.faults == ()
        assert worst(found) <= WITHIN[kind]
        loose = [m.piece for m in found.pieces if m]
        held = [m.piece for m, _ in found.joined if m]
        gone += held if bridges else loose
        assert not (loose if bridges else held)
    assert sorted(gone) == ["Base", "Base", "Mat", "Mat"]


@pytest.mark.parametrize("seed", range(4 * TIMES))
def test_random_jobs_of_the_demo_come_loose_as_meant(seed: int) -> None:
    """In one format each; with more times than one, in every format."""
    laid = random_job(seed)
    kinds = sorted(WITHIN)
    options = FileOptions.model_validate({"machine": "flatbed"})
    for kind in kinds if TIMES > 1 else [kinds[seed % len(kinds)]]:
        for made in files_of_sheets(laid, kind, options):
            for file, plan in zip(made.files, made.sheet.plans, strict=True):
                found = report(file.content, made.sheet.meant(inside=plan.inside))
                assert (found.faults, found.joined) == ((), ()), file.name
                assert worst(found) <= WITHIN[kind], file.name


@pytest.mark.parametrize("way", SPOILED)
@pytest.mark.parametrize("first", range(40, 40 + 20 * TIMES, 20))
def test_one_fault_is_found_and_no_other(way: str, first: int) -> None:
    """Each way to spoil a file is tried on sheets of the demo until one has something to spoil; the file's
    bytes are changed, not what it was made of."""
    for seed in range(first, first + 60):
        chance = random.Random(seed)
        laid = random_job(seed)
        options = FileOptions.model_validate({"machine": "flatbed"})
        made = chance.choice(files_of_sheets(laid, "hpgl", options))
        try:
            content = written(SPOILED[way](parts_of(made.files[0].content), chance))
        except CannotBeSpoiled:
            continue
        found = report(content, made.sheet.meant())
        assert {str(f.code) for f in found.faults} == {CODES.get(way, way)}, (seed, found.faults)
        return
    pytest.fail("no sheet could be spoiled in this way")


def test_pricks_that_nobody_designed_are_extra() -> None:
    made = files_of_sheets(sheets(), "hpgl", FileOptions())[0]
    content = made.files[0].content.replace(b"SP0", b"SP1;PU4000,4000;PD;PU;PU4400,4000;PD;PU;SP0")
    (fault,) = report(content, made.sheet.meant()).faults
    assert fault.code is Fault.EXTRA
    assert fault.message == "2 pricks that are not in the design: knife."


def test_a_trail_that_was_not_made_up_for_is_told_with_its_size() -> None:
    """The same sheet made for a blade without trail and for one of 0.25, cut with the latter."""
    knife = FLATBED.tools[-1].model_copy(update={"trail": 0.25})
    trailing = FLATBED.model_copy(update={"tools": (*FLATBED.tools[:-1], knife)})
    for kind in ("hpgl", "gcode"):
        made = files_of_sheets(sheets(), kind, FileOptions())[0]
        (fault,) = report(made.files[0].content, made.sheet.meant(), trailing).faults
        assert str(fault.code) == "trail"
        assert "the blade's trail of 0.25 mm is not made up for" in fault.message
        right = files_of_sheets(sheets(trailing), kind, FileOptions())[0]
        found = report(right.files[0].content, right.sheet.meant(), trailing)
        assert found.faults == ()
        assert worst(found) <= 0.03


def test_a_trailing_blades_gcode_is_judged_as_soon_as_its_plotter_file() -> None:
    """It took 64 times as long, since a swivel was written as a thousand steps; now it is an arc."""
    knife = FLATBED.tools[-1].model_copy(update={"trail": 0.25})
    trailing = FLATBED.model_copy(update={"tools": (*FLATBED.tools[:-1], knife)})
    laid, took = random_job(63, trailing), {}
    for kind in ("hpgl", "gcode"):
        made = files_of_sheets(laid, kind, FileOptions())[0]
        began = time.process_time()
        found = report(made.files[0].content, made.sheet.meant(), trailing)
        took[kind] = time.process_time() - began
        assert found.faults == ()
        assert worst(found) <= 0.03
        assert len(made.files[0].content) < 60_000
    assert took["gcode"] <= 3 * took["hpgl"]


@pytest.mark.parametrize("trail", [0.0, 0.25])
@pytest.mark.parametrize("kind", ["hpgl", "gcode"])
def test_passes_and_the_cutter_tell_the_same_time(kind: str, trail: float) -> None:
    """Changes of tools are in it, and what a trailing blade's axis runs round corners; units of the plotter's language
    and arcs of the other one come to under two tenths of a second."""
    knife = FLATBED.tools[-1].model_copy(update={"trail": trail})
    machine = FLATBED.model_copy(update={"tools": (*FLATBED.tools[:-1], knife), "change_s": 7.5})
    made = files_of_sheets(sheets(machine), kind, FileOptions())[0]
    passes = passes_of(made.sheet.plans[0], machine)
    played = play(read_sent(made.files[0].content, machine), machine)
    assert sum(1 for p in passes if p.changed) >= 1
    assert sum(p.time_s for p in passes) == pytest.approx(played.time_s, abs=0.2)
    assert sum(p.time_s for p in played.passes) == pytest.approx(played.time_s)


def test_scores_from_the_inside_are_a_set_up_of_their_own() -> None:
    laid = sheets(inside=True)
    (made,) = files_of_sheets(laid, "svg", FileOptions())[:1]
    names = [f.name for f in made.files]
    assert [n.endswith(e) for n, e in zip(names, ("-all.svg", "-inside-all.svg"), strict=True)] == [
        True,
        True,
    ]
    for file, inside in zip(made.files, (False, True), strict=True):
        found = report(file.content, made.sheet.meant(inside=inside))
        assert found.faults == ()
    swapped = report(made.files[0].content, made.sheet.meant(inside=True))
    assert swapped.faults


def test_askew_leaves_shapes_as_they_are_and_runs_off_the_sheet() -> None:
    made = files_of_sheets(sheets(PLOTTER), "hpgl", FileOptions())[0]
    data = cut_data(made.files[0].content, PLOTTER, made.sheet.meant(), Conditions(askew_deg=2))
    assert data["worst_mm"] <= 0.03
    assert [f["code"] for f in data["faults"]] == ["off-bed"]
    # 297 x 420: half a diagonal of 257 mm, turned by 2 degrees
    assert data["askew_mm"] == pytest.approx(2 * math.sin(math.radians(1)) * 257.2, rel=0.1)
    assert "off by up to" in data["left_out"][-1]["reason"]
    stretched = cut_data(
        made.files[0].content, PLOTTER, made.sheet.meant(), Conditions(stretch=0.002)
    )
    assert 0.1 < stretched["worst_mm"] < 1
    assert [(f["code"], f["message"]) for f in stretched["faults"]] == [
        ("scale", "All is 99.8 % of what was meant, along its height: too small.")
    ]
    worn = cut_data(made.files[0].content, PLOTTER, made.sheet.meant(), Conditions(worn=1))
    assert worn["missing"] == 4
    assert {f["code"] for f in worn["faults"]} == {"open-contour"}


def test_a_sheet_is_read_from_its_file_or_from_what_was_printed(tmp_path: Path) -> None:
    made = files_of_sheets(sheets(), "svg", FileOptions())[0]
    own = tmp_path / "one.sheet.json"
    own.write_bytes(made.meant[0].content)
    assert read_meant(own) == made.sheet.meant().model_copy(update={"number": 1})
    printed = tmp_path / "printed.json"
    printed.write_text(json.dumps({"format_mm": [1, 1], "pieces": [], "meant": str(own)}))
    assert read_meant(printed) == read_meant(own)
    printed.write_text(json.dumps({"format_mm": [1, 1], "meant": "gone.json"}))
    with pytest.raises(DocumentError, match=r"the sheet's own file 'gone\.json' is not there"):
        read_meant(printed)
    printed.write_text("[1")
    with pytest.raises(DocumentError, match="is no JSON"):
        read_meant(printed)


def test_formats_of_whole_sheets_are_those_of_single_pieces() -> None:
    assert {"svg", "pdf", "dxf", "hpgl", "gcode"} <= set(formats().names())
