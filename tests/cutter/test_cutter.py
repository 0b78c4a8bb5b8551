"""The cutter: what it reads, what it refuses, what comes loose of a sheet, from a file alone.

Expected figures are those of plane geometry; files are written here by hand.
"""

from __future__ import annotations

import math
import random
import time
from collections.abc import Callable
from contextlib import suppress

import numpy as np
import pytest
import shapely

from stileblade.cutter.loose import outcome_of
from stileblade.cutter.play import play
from stileblade.cutter.sent import Fault, read_sent
from stileblade.cutter.turned_out import Conditions, turned_out
from stileblade.errors import ReadingError
from stileblade.geometry.curves.vectors import norms
from stileblade.machine.machine import Machine
from stileblade.machine.shipped import FLATBED, PLOTTER
from stileblade.meant.report import report_data, report_of
from stileblade.meant.shown import cut_report

SQUARE = [(10, 10), (70, 10), (70, 70), (10, 70), (10, 10)]


def hpgl(*ways: list[tuple[float, float]], tool: int = 1) -> bytes:
    """Ways in mm as plotter language."""
    said = ["IN", f"SP{tool}"]
    for way in ways:
        units = [f"{round(x * 40)},{round(y * 40)}" for x, y in way]
        said += [f"PU{units[0]}", "PD" + ",".join(units[1:]), "PU"]
    return (";".join([*said, "SP0"]) + ";").encode()


def ring(
    r: float, *, at: tuple[float, float] = (60, 60), gap: float = 0.0
) -> list[tuple[float, float]]:
    """A circle of 240 chords, its end ``gap`` mm before its start."""
    turn = 2 * math.pi - gap / r
    angles = [turn * i / 240 for i in range(241)]
    return [(at[0] + r * math.cos(a), at[1] + r * math.sin(a)) for a in angles]


def svg(*paths: str, group: str = "cut-outer") -> bytes:
    lines = "".join(f'<path d="{d}"/>' for d in paths)
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">'
        f'<g id="{group}">{lines}</g></svg>'
    ).encode()


def codes(content: bytes, machine: Machine = PLOTTER) -> list[str]:
    return [str(f.code) for f in report_of(play(read_sent(content, machine), machine)).faults]


def test_a_ring_leaves_two_pieces_loose() -> None:
    """Radii 20 and 10: the disc of pi 10^2 = 314.16 and the ring of pi (400 - 100) = 942.48; 188.496 mm of
    cut, 9.42 s of it at 20 mm/s, and two lifts."""
    data = report_data(report_of(play(read_sent(hpgl(ring(10), ring(20)), PLOTTER), PLOTTER)))
    assert [(p["area_mm2"], p["contours"]) for p in data["loose"]] == [
        (pytest.approx(942.48, abs=0.2), 2), (pytest.approx(314.16, abs=0.1), 1),
    ]  # fmt: skip
    (done,) = data["passes"]
    assert done["length_mm"] == pytest.approx(188.496, abs=0.1)
    assert done["lifts"] == 2
    travel = math.hypot(70, 60) + 10
    assert done["time_s"] == pytest.approx(188.496 / 20 + 2 * 0.12 + travel / 150, abs=0.02)
    assert data["faults"] == []


def test_what_is_inside_has_to_come_first() -> None:
    (fault,) = report_of(play(read_sent(hpgl(ring(20), ring(10)), PLOTTER), PLOTTER)).faults
    assert fault.code is Fault.ORDER
    assert fault.at_s == pytest.approx(2 * math.pi * 20 / 20 + 1, abs=0.5)


@pytest.mark.parametrize(("gap", "loose", "faults"), [(0.04, 1, []), (0.2, 0, ["open-contour"])])
def test_small_gaps_tear(gap: float, loose: int, faults: list[str]) -> None:
    """A square whose end lies 0.04 mm before its start comes loose all the same; 0.2 mm hold."""
    d = f"M10 10H70V70H10V{10 + gap}"
    report = report_of(play(read_sent(svg(d), PLOTTER), PLOTTER))
    assert len(report.outcome.loose) == loose
    assert [str(f.code) for f in report.faults] == faults
    if faults:
        assert report.outcome.joined[0].gap_mm == pytest.approx(gap)


def test_bridges_and_perforations_hold() -> None:
    dashes = [f"M{10 + 60 * i / 20} 10h2" for i in range(20)]
    sides = ["M10 10V70H70V10"]
    report = report_of(play(read_sent(svg(*dashes, *sides), PLOTTER), PLOTTER))
    assert report.outcome.loose == ()
    half = report_of(play(read_sent(svg("M10.3 10H70V39", "M70 41V70H10V10.6"), PLOTTER), PLOTTER))
    assert half.outcome.loose == ()


def test_lines_run_again_outlines_over_each_other_crumbs() -> None:
    assert codes(hpgl(SQUARE, SQUARE)) == ["cut-twice"]
    beside = [(x + 40, y + 20) for x, y in SQUARE]
    assert codes(hpgl(SQUARE, beside)) == ["overlap"]
    # how small a thing is meant to be, a file alone does not say: thread holes are as small
    assert codes(hpgl([(5, 5), (5.9, 5), (5.4, 5.8), (5, 5)], SQUARE)) == []
    over = [*SQUARE, (10.3, 10)]
    assert codes(hpgl(over)) == []


REFUSED = {
    b"IN;SP1;QX5;PU0,0;PD400,0;": "'QX' is no command that it knows. (line 1)",
    b"IN;PU0,0;PD400,0;PU;": "It cuts before a tool is chosen. (line 1)",
    b"IN;SP8;PU0,0;": "There is no tool 8. (line 1)",
    b"IN;SP1;PU0,0;PD400,0;": "The file ends with the tool down.",
    b"IN;SP1;PU0,0;PD400;PU;": "A place has no second figure. (line 1)",
    b"G21\nG90\nM6 T1\nF600\nM3\nG0 X10 Y0\nM5\nM2": "It travels with the tool down. (line 6)",
    b"G21\nM6 T1\nM3\nG1 X9 Y9\nM5": "It cuts before a speed is given. (line 4)",
    b"G21\nF600\nM3\nG1 X9 Y9\nM5": "It cuts before a tool is chosen. (line 4)",
    b"G21\nM6 T1\nF600\nG1 Z-0.5\nG1 X9 Y9\nG0 Z3": "This machine lifts by M5 and lowers by M3: it has no height Z. (line 4)",
    b"G21\nG90\nG76 X1": "G76 is no code that it knows. (line 3)",
    b"G21\nM6 T1\nF600\nM3\nG2 X10 Y0 I1 J1\nM5": "An arc's end is not on its circle. (line 5)",
    b"G21\nG0 X?": "'X?' is not understood. (line 2)",
    b"G21\nG0 X1E2": "'E' is not understood. (line 2)",
    b"G21\nG0 X1 Y2 X3": "'X' is not understood. (line 2)",
    b"g21\ng0 x?": "'x?' is not understood. (line 2)",
    b"IN;SP1;PU0,0;PD100$4000;PU;": "PD: '$' is not understood. (line 1)",
    b"IN;SP1;PU0,0;PD1e2,40;PU;": "A place has no second figure. (line 1)",
    b"IN;SP1;PU0,0;PD400,0;PU;PD;": "The file ends with the tool down.",
    b"\x1b%-1BIN;LB1;": "'LB' is no command that it knows. (line 1)",
}


@pytest.mark.parametrize("content", REFUSED)
def test_what_a_machine_refuses(content: bytes) -> None:
    faults = report_of(play(read_sent(content, PLOTTER), PLOTTER)).faults
    assert (str(faults[0].code), faults[0].message) == ("refused", REFUSED[content])


BY_HEIGHT = {
    "M3\nG1 X40\nM5": "This machine lowers by the height Z: M3 does not set its tool down. (line 7)",
    "G1 Z-0.1\nG1 X40\nG0 Z3": "It cuts at Z -0.1; this machine sets its tool down at -0.5. (line 7)",
    "G1 Z-4\nG1 X40\nG0 Z3": "It cuts at Z -4; this machine sets its tool down at -0.5. (line 7)",
    "G1 Z-0.52\nG1 X40\nG0 Z3": "",
    "M3\nG1 Z-0.5\nG1 X40\nG0 Z3\nM5": "",  # a spindle that turns, and then the height
}


@pytest.mark.parametrize("lines", BY_HEIGHT)
def test_a_machine_that_lifts_by_height(lines: str) -> None:
    text = f"G21\nG90\nM6 T1\nF600\nG0 X10 Y10\n{lines}\nM2"
    refused = read_sent(text.encode(), FLATBED).refused
    assert [f.message for f in refused] == ([BY_HEIGHT[lines]] if BY_HEIGHT[lines] else [])


@pytest.mark.parametrize(
    "written",
    [
        lambda text: text,
        str.lower,
        lambda text: "\ufeff" + text,
        lambda text: "\n".join(
            f"N{100_000 + n} {line}" for n, line in enumerate(text.splitlines())
        ),
    ],
    ids=["as it is", "lower case", "a byte-order mark", "numbered lines"],
)
def test_gcode_however_it_is_written(written: Callable[[str], str]) -> None:
    text = "G21\nG90\nM6 T1\nF600\nG0 X10 Y10\nG1 Z-0.5\nG1 X40\nG1 Y40\nG0 Z3\nM2"
    sent = read_sent(written(text).encode(), FLATBED)
    assert not sent.refused
    (stroke,) = sent.strokes
    assert stroke.places.tolist() == [[10, 10], [40, 10], [40, 40]]


@pytest.mark.parametrize(
    "before",
    ["", "\x1b%-1B", "\x1b%0B", "\x1b.(", "\x1b.I81;;17:\x1b.N;19:", "\x1bE\x1b%1B", "\ufeff"],
)
@pytest.mark.parametrize("lower", [False, True])
def test_plotter_language_however_it_begins(before: str, lower: bool) -> None:
    body = "IN;SP1;PU400,400;PD1600,400,1600,1600;PU;SP0;"
    sent = read_sent((before + (body.lower() if lower else body)).encode(), PLOTTER)
    assert not sent.refused
    (stroke,) = sent.strokes
    assert stroke.places.tolist() == [[10, 10], [40, 10], [40, 40]]


@pytest.mark.parametrize(
    ("content", "message"),
    [
        (b"IN;SP1;PU200000,0;", "It travels 4,670 mm beyond the bed of 330 x 720 mm (line 1)."),
        (
            b"IN;SP1;PU-400,0;PU99999,0;",
            "It travels 10 mm beyond the bed of 330 x 720 mm (line 1).",
        ),
        (b"G21\nG0 X5000 Y1", "It travels 4,670 mm beyond the bed of 330 x 720 mm (line 2)."),
        (b"IN;SP1;PU-20,0;PU0,0;PD400,0;PU;", None),
    ],
)
def test_travelling_beyond_the_bed(content: bytes, message: str | None) -> None:
    faults = report_of(play(read_sent(content, PLOTTER), PLOTTER)).faults
    assert [f.message for f in faults if f.code is Fault.OFF_BED] == ([message] if message else [])


def test_beyond_the_bed() -> None:
    (fault,) = report_of(
        play(read_sent(hpgl([(x + 300, y) for x, y in SQUARE]), PLOTTER), PLOTTER)
    ).faults
    assert str(fault.code) == "off-bed"
    assert fault.message == "A line runs 40.00 mm beyond the bed of 330 x 720 mm."


GCODES = {
    "circle": "G21 G90 G17\nM6 T1\nF1200\nG0 X60 Y40\nG1 Z-0.5\nG3 X60 Y40 I-20 J0\nG0 Z3\nM2",
    "halves": "G21\nG90\nM6T1\nF1200\nG0X60Y40\nM3\nG3 X20 Y40 R20\nG3 X60 Y40 R20\nM5",
    "relative": "G21\nG91\nM6 T1\nF1200\nG0 X60 Y40\nM3\nG3 X-40 Y0 I-20 J0\nG3 X40 Y0 I20\nM5",
    "inches": "G20\nG90\nM6 T1\nF50\nG0 X2.362204724 Y1.574803150\nM3\nG2 X2.362204724 Y1.574803150 I-0.787401575\nM5",
}


@pytest.mark.parametrize("name", GCODES)
def test_arcs_units_and_relative_moves(name: str) -> None:
    """A circle of radius 20: 1256.637 mm^2."""
    machine = PLOTTER if "M3" in GCODES[name] else FLATBED
    (piece,) = outcome_of(play(read_sent(GCODES[name].encode(), machine), machine)).loose
    assert piece.area_mm2 == pytest.approx(math.pi * 400, abs=0.3)


def test_plotter_arcs_and_relative_moves() -> None:
    text = b"IN;SP1;PU2400,1600;PD;AA1600,1600,360;PU;"
    (piece,) = outcome_of(play(read_sent(text, PLOTTER), PLOTTER)).loose
    assert piece.area_mm2 == pytest.approx(math.pi * 400, abs=0.3)
    text = b"IN;SP1;PU400,400;PD;PR2400,0,0,2400,-2400,0,0,-2400;PU;PA0,0;"
    (piece,) = outcome_of(play(read_sent(text, PLOTTER), PLOTTER)).loose
    assert piece.area_mm2 == pytest.approx(3600)


def test_a_blades_trail_rounds_corners() -> None:
    """The tip of a blade that trails by 0.25 stays within the square, short of its corners."""
    knife = PLOTTER.tools[-1].model_copy(update={"trail": 0.25})
    trailing = PLOTTER.model_copy(update={"tools": (*PLOTTER.tools[:-1], knife)})
    (run,) = play(read_sent(hpgl(SQUARE), trailing), trailing).runs
    away = min(math.dist(p, (70, 10)) for p in run.places)
    assert 0.05 < away < 0.25


def test_askew_stretched_worn_by_a_seed() -> None:
    sent = read_sent(hpgl(SQUARE), PLOTTER)
    worn, machine = turned_out(sent, PLOTTER, Conditions(worn=1, seed=4), (200, 200))
    again, _ = turned_out(sent, PLOTTER, Conditions(worn=1, seed=4), (200, 200))
    assert [s.places.tolist() for s in worn.strokes] == [s.places.tolist() for s in again.strokes]
    cut = sum(run.length for run in play(worn, machine).runs)
    assert 240 - 5 <= cut <= 240 - 3.9
    assert outcome_of(play(worn, machine)).loose == ()
    askew, _ = turned_out(sent, PLOTTER, Conditions(askew_deg=1), (80, 80))
    (piece,) = outcome_of(play(askew, PLOTTER)).loose
    turned = 60 * (math.cos(math.radians(1)) + math.sin(math.radians(1)))
    left, foot, right, head = piece.bounds_mm
    assert (right - left, head - foot) == (
        pytest.approx(turned, abs=0.01),
        pytest.approx(turned, abs=0.01),
    )
    stretched, _ = turned_out(sent, PLOTTER, Conditions(stretch=0.002), (80, 80))
    (piece,) = outcome_of(play(stretched, PLOTTER)).loose
    assert piece.area_mm2 == pytest.approx(3600 / 1.002, abs=0.2)


HOSTILE = [
    b"", b"hello", b"IN;" + b"PD1,1," * 100_000 + b";", b"IN" * 400_000, b"G1" + b"(" * 300_000,
    b"G1 X" + b"9" * 300_000, b"<svg" + b" a" * 50_000, b"<svg xmlns='http://www.w3.org/2000/svg'>" + b"<g>" * 5000,
    b"IN;PA" + b"-" * 400_000, b"0\nSECTION\n" * 50_000, b"IN;SP1;AA0,0,1e99;", b"\x1f\x8b" + bytes(900),
    b"IN;SP1;PD99999999999999999999,1;", b"G21\nG91\n" + b"G1 X99999\n" * 2000,
]  # fmt: skip


@pytest.mark.parametrize("number", range(len(HOSTILE)))
def test_hostile_files_are_refused_in_words(number: int) -> None:
    begun = time.process_time()
    with suppress(ReadingError):
        report = report_of(play(read_sent(HOSTILE[number], FLATBED), FLATBED))
        assert report.outcome.loose == ()
    assert time.process_time() - begun < 5


def test_what_is_no_file_for_a_machine_is_said() -> None:
    with pytest.raises(ReadingError) as error:
        read_sent(b"hello", PLOTTER)
    assert str(error.value) == (
        "This is in no language that the machine understands. It takes DXF, G-code, plotter language, SVG."
    )
    with pytest.raises(ReadingError, match="more than 1,500,000 places"):
        read_sent(
            b"IN;SP1;PD"
            + b"1,1,2,2," * 400_000
            + b"1,1;PU;PD"
            + b"1,1,2,2," * 400_000
            + b"9,9;PU;",
            PLOTTER,
        )


def test_any_bytes_are_read_or_refused() -> None:
    """Good files with bytes changed, left out and doubled."""
    chance = random.Random(5)
    good = [hpgl(SQUARE, ring(20)), GCODES["circle"].encode(), svg("M10 10H70V70H10Z")]
    for _ in range(300):
        spoiled = bytearray(chance.choice(good))
        for _ in range(chance.randint(1, 6)):
            at = chance.randrange(len(spoiled))
            spoiled[at : at + chance.randint(0, 3)] = chance.choice(
                [b"", bytes([chance.randrange(256)]), b"-", b"9999999", b";", b"PD", b"\n", b"<"]
            )
        with suppress(ReadingError):
            report_of(play(read_sent(bytes(spoiled), FLATBED), FLATBED))


def test_what_a_worn_blade_costs_is_bounded() -> None:
    """679 bytes that run to and fro over the whole measure took five minutes."""
    far = [(float(i % 2) * 99_000, i * 0.3) for i in range(75)]
    began = time.process_time()
    with pytest.raises(ReadingError, match="a worn blade is tried on 400 m at most"):
        cut_report(hpgl(far), PLOTTER, None, Conditions(worn=1))
    near = [(float(i % 2) * 320, i * 0.5) for i in range(1200)]
    data, _ = cut_report(hpgl(near), PLOTTER, None, Conditions(worn=1))
    assert data["faults"]
    assert time.process_time() - began < 12


def test_a_worn_blade_leaves_out_so_much_and_the_rest_lies_where_it_was() -> None:
    """1 mm in each 50 of 251 mm; all that is cut lies on the lines that were asked for."""
    asked = read_sent(hpgl(ring(40)), PLOTTER)
    worn, _ = turned_out(asked, PLOTTER, Conditions(worn=1, seed=3), (330, 720))
    whole, left = (
        sum(float(norms(np.diff(s.places, axis=0)).sum()) for s in sent.strokes)
        for sent in (asked, worn)
    )
    assert len(worn.strokes) > 5
    assert 4 < whole - left < 7
    lines = shapely.MultiLineString([s.places for s in asked.strokes])
    for stroke in worn.strokes:
        assert shapely.distance(shapely.points(stroke.places), lines).max() < 1e-9


def test_what_lines_run_many_times_cost_grows_with_their_number() -> None:
    """A sheet's outlines twenty times over: noding took minutes, and each pair was held against each other."""
    rings = [ring(9, at=(20 + 20 * (n % 14), 20 + 20 * (n // 14))) for n in range(42)]
    began = time.process_time()
    once = report_of(play(read_sent(hpgl(*rings), PLOTTER), PLOTTER))
    many = report_of(play(read_sent(hpgl(*(rings * 20)), PLOTTER), PLOTTER))
    assert time.process_time() - began < 20
    assert len(many.outcome.loose) == len(once.outcome.loose) == 42
    assert {str(f.code) for f in many.faults} == {"cut-twice"}
    areas = [sorted(loose.area_mm2 for loose in r.outcome.loose) for r in (once, many)]
    assert areas[0] == pytest.approx(areas[1], abs=1e-6)


def test_outlines_over_each_other_are_told_up_to_a_number() -> None:
    rings = [ring(20, at=(40 + n, 40 + n)) for n in range(40)]
    faults = report_of(play(read_sent(hpgl(*rings), PLOTTER), PLOTTER)).faults
    assert sum(f.code is Fault.OVERLAP for f in faults) == 100


@pytest.mark.parametrize(
    ("content", "machine"),
    [
        (b"IN;SP1;PU400,400;PD;PU;PU800,400;PD;PU;SP0;", PLOTTER),
        (b"G21\nG90\nM6 T1\nF600\nG0 X10 Y10\nM3\nM5\nG0 X20 Y10\nM3\nM5\nM2", PLOTTER),
        (
            b"G21\nG90\nM6 T3\nF600\nG0 X10 Y10\nG1 Z-0.5\nG0 Z3\nG0 X20 Y10\nG1 Z-0.5\nG0 Z3\nM2",
            FLATBED,
        ),
    ],
)
def test_pricks_by_a_plunge_alone(content: bytes, machine: Machine) -> None:
    """Two places, each with its tool and the time at which it is pricked; no paper comes loose."""
    report = report_of(play(read_sent(content, machine), machine))
    runs = report.outcome.played.runs
    assert [run.places.tolist() for run in runs] == [[[10, 10]], [[20, 10]]]
    travel = (math.hypot(10, 10), 10)
    for run, way, before in zip(runs, travel, (0.0, runs[0].times[0]), strict=True):
        assert run.times[0] - before == pytest.approx(way / machine.travel + machine.lift_s)
    assert report.faults == ()
    assert report.outcome.loose == ()
