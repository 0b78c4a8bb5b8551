"""The report: what came loose against what was meant, and all that is wrong."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from stileblade.cutter.loose import Joined, Loose, Outcome, outcome_of
from stileblade.cutter.play import Played, Run
from stileblade.cutter.sent import Fault, Found
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import identity, rotation
from stileblade.geometry.measures import loosening
from stileblade.geometry.measures.faces import Face, faces_of
from stileblade.geometry.measures.nearness import Near
from stileblade.meant.passes import corner_faults, line_faults
from stileblade.meant.register import Register, register
from stileblade.meant.sheet import MeantLine, MeantSheet, meant_lines
from stileblade.words import say

GOOD = 0.05
"""mm: outlines this near are as they were meant."""
WARN = 0.2
_ALIKE = 0.6
_AT_GAP = 1.0
"""mm: a gap this near to an outline is a gap of it."""
_STOPS = (Fault.REFUSED, Fault.OFF_BED)
_EXPLAIN = (Fault.OVERLAP, Fault.SCORE_CUT, Fault.DRAWN_CUT, Fault.SCALE, Fault.MIRRORED)


@dataclass(frozen=True)
class Meant:
    """Which piece something is, and the greatest distance in mm of its outlines from the meant ones."""

    number: int
    design: str
    piece: str
    deviation_mm: float

    @property
    def grade(self) -> str:
        """How well it is as it was meant: "good", "fair" or "off"."""
        if self.deviation_mm <= GOOD:
            return "good"
        return "fair" if self.deviation_mm <= WARN else "off"


@dataclass(frozen=True, eq=False)
class Report:
    """``pieces`` go with the outcome's loose ones, None for waste and for what nobody meant;
    ``joined`` are the meant pieces that stayed in the sheet, with a place in each."""

    outcome: Outcome
    pieces: tuple[Meant | None, ...]
    joined: tuple[tuple[Meant | None, Joined], ...]
    faults: tuple[Found, ...]
    sheet: MeantSheet | None = None


def report_of(played: Played, sheet: MeantSheet | None = None, *, askew_deg: float = 0.0) -> Report:
    """What came of a file; held against a sheet where that is given, which lay askew under the tool by so
    much, about its middle: shapes are told from their places."""
    outcome = outcome_of(played, runs=sheet.runs if sheet else 1)
    if sheet is None:
        joined = tuple((None, j) for j in outcome.joined)
        return Report(outcome, (None,) * len(outcome.loose), joined, outcome.faults)
    return _compared(outcome, sheet, askew_deg)


def _compared(outcome: Outcome, sheet: MeantSheet, askew_deg: float) -> Report:
    middle = sheet.format_mm[0] / 2, sheet.format_mm[1] / 2
    # clockwise with y downwards; lines have y upwards
    askew = rotation(-askew_deg, about=middle)
    lines = [line.moved(askew) for line in meant_lines(sheet)]
    found = _registered(outcome, lines)
    faults, stopped = _line_faults(outcome, lines, found, sheet.runs)
    machine = outcome.played.machine
    named = _named(sheet, [line for line in lines if machine.tool_for(line.operation).cuts])
    taken: set[int] = set()
    pieces = []
    for loose in outcome.loose:
        face = loosening.mapped(loose.face, found.pieces)
        pieces.append(_meant(face, named, sheet, taken))
    joined, held = _still_joined(outcome, sheet, named, taken)
    near = Near([line.places for line in lines if line.closed])
    faults = [
        f for f in faults if f.code is not Fault.OPEN_CONTOUR or _opens(f, near, found.matrix, held)
    ]
    if not stopped and not any(f.code in _EXPLAIN for f in faults):
        faults += _crumbs(outcome.loose, pieces)
    if not stopped and not faults:
        faults += [
            _uncut(meant, one) for meant, one in joined if meant and meant.number not in held
        ]
    return Report(outcome, tuple(m for m, _ in pieces), joined, tuple(faults), sheet)


def _registered(outcome: Outcome, lines: Sequence[MeantLine]) -> Register:
    if any(f.code in _STOPS for f in outcome.faults):
        return Register(identity())
    return register([run.places for run in outcome.played.runs], [line.places for line in lines])


def _line_faults(
    outcome: Outcome, lines: Sequence[MeantLine], found: Register, runs_each: int
) -> tuple[list[Found], bool]:
    """All faults but those of what came loose, without those that others explain; and whether no more can
    be said, since lines lie where they should not."""
    faults = [*outcome.faults, *found.faults]
    if any(f.code in (Fault.OVERLAP, *_STOPS) for f in faults):
        # what lies in a wrong place is missing in its own, and is worked on when another is loose
        return [f for f in faults if f.code not in (Fault.ORDER, Fault.CUT_TWICE)], True
    runs = [_moved(run, found.matrix) for run in outcome.played.runs]
    wrong = line_faults(runs, lines, outcome.played.machine, runs_each)
    if any(f.code in (Fault.SCORE_CUT, Fault.DRAWN_CUT) for f in wrong):
        # what is cut instead comes loose before its time
        faults = [f for f in faults if f.code is not Fault.ORDER]
    rounded = corner_faults(runs, lines)
    if rounded:
        # a blade that trails ends short of where it began
        faults = [f for f in faults if f.code is not Fault.OPEN_CONTOUR]
    return [*faults, *wrong, *rounded], False


def _uncut(meant: Meant, joined: Joined) -> Found:
    said = say(
        "{piece} of {design} stays joined to the sheet: its outline is not cut all round.",
        piece=meant.piece,
        design=meant.design,
    )
    return Found(Fault.OPEN_CONTOUR, said, joined.at)


def _moved(run: Run, matrix: Floats) -> Run:
    places = run.places @ matrix[:, :2].T + matrix[:, 2]
    return Run(run.stroke, run.tool, places, run.times, run.begun)


@dataclass(frozen=True, eq=False)
class _Named:
    """A face that was meant, and the number of the piece that it is of; -1 for waste."""

    face: Face
    piece: int


def _named(sheet: MeantSheet, lines: Sequence[MeantLine]) -> list[_Named]:
    """What the lines that go through the paper make of it."""
    if not lines:
        return []
    rings = [line for line in lines if line.closed and line.operation.parts]
    rings = [line for line in rings if len(line.places) > 3]
    areas = [loosening.polygon(line.places) for line in rings]
    found = []
    for face in faces_of([line.places for line in lines]).faces:
        spot = loosening.middle_of(face)
        odd: dict[int, int] = {}
        for k in loosening.holding(areas, spot):
            odd[rings[k].piece] = odd.get(rings[k].piece, 0) + 1
        piece = next((p for p, count in odd.items() if count % 2 and p >= 0), -1)
        found.append(_Named(face, piece))
    return found


def _meant(
    face: Face, named: Sequence[_Named], sheet: MeantSheet, taken: set[int]
) -> tuple[Meant | None, bool]:
    """Which piece a face is, and whether it was meant at all."""
    spot = loosening.middle_of(face)
    best, share = -1, _ALIKE
    for number in loosening.holding([n.face for n in named], spot):
        alike = loosening.likeness(face, named[number].face)
        if alike > share:
            best, share = int(number), alike
    if best < 0:
        return None, False
    taken.add(best)
    piece = named[best].piece
    if piece < 0:
        return None, True
    meant = sheet.pieces[piece]
    off = loosening.apart(face, named[best].face)
    return Meant(piece, meant.design, meant.piece, round(off, 4)), True


def _still_joined(
    outcome: Outcome, sheet: MeantSheet, named: Sequence[_Named], taken: set[int]
) -> tuple[tuple[tuple[Meant | None, Joined], ...], set[int]]:
    """The meant pieces that did not come loose, and which of them are held by bridges."""
    found: list[tuple[Meant | None, Joined]] = []
    held: set[int] = set()
    for number, face in enumerate(named):
        if face.piece < 0 or number in taken:
            continue
        piece = sheet.pieces[face.piece]
        if piece.held:
            held.add(face.piece)
        box = loosening.box_of(face.face)
        gap = max(
            (j.gap_mm for j in outcome.joined if _touches(j.bounds_mm, box.as_list())), default=0.0
        )
        at = loosening.middle_of(face.face)
        bounds = (box.left, box.head, box.right, box.foot)
        found.append((Meant(face.piece, piece.design, piece.piece, 0.0), Joined(gap, at, bounds)))
    return tuple(found), held


def _touches(a: Sequence[float], b: Sequence[float]) -> bool:
    return a[0] <= b[2] and b[0] <= a[2] and a[1] <= b[3] and b[1] <= a[3]


def _opens(fault: Found, closed: Near, matrix: Floats, held: set[int]) -> bool:
    """Whether an open outline was meant to be closed, and no bridge holds it."""
    if held or fault.at is None:
        return False
    place = np.array([fault.at]) @ matrix[:, :2].T + matrix[:, 2]
    return bool(closed.away(place)[0] < _AT_GAP)


def _crumbs(loose: Sequence[Loose], pieces: Sequence[tuple[Meant | None, bool]]) -> list[Found]:
    """What came loose and was not meant to."""
    found = []
    for piece, (_, meant) in zip(loose, pieces, strict=True):
        if not meant and piece.area_mm2 < _LITTLE:
            said = say(
                "A crumb of {area_mm2:.2f} mm² comes loose that was not meant to.",
                area_mm2=piece.area_mm2,
            )
            found.append(Found(Fault.CRUMB, said, loosening.middle_of(piece.face), piece.at_s))
    return found


_LITTLE = 100.0
"""mm^2: what is larger and comes loose unasked has another fault's name."""


def report_data(report: Report) -> dict[str, Any]:
    """The report as the command line prints it."""
    outcome = report.outcome
    return {
        "loose": [
            {
                "area_mm2": round(piece.area_mm2, 3),
                "bounds_mm": [round(v, 3) for v in piece.bounds_mm],
                "contours": piece.contours,
                "at_s": round(piece.at_s, 2),
                "meant": None
                if meant is None
                else {
                    "design": meant.design,
                    "piece": meant.piece,
                    "number": meant.number,
                    "deviation_mm": meant.deviation_mm,
                    "grade": meant.grade,
                },
            }
            for piece, meant in zip(outcome.loose, report.pieces, strict=True)
        ],
        "joined": [
            {
                "gap_mm": round(joined.gap_mm, 3),
                "at": [round(v, 3) for v in joined.at],
                "bounds_mm": [round(v, 3) for v in joined.bounds_mm],
                "meant": None
                if meant is None
                else {"design": meant.design, "piece": meant.piece, "number": meant.number},
            }
            for meant, joined in report.joined
        ],
        "faults": [fault_data(fault) for fault in report.faults],
        "passes": [
            {
                "tool": done.tool,
                "length_mm": round(done.length_mm, 3),
                "lifts": done.lifts,
                "time_s": round(done.time_s, 2),
            }
            for done in outcome.played.passes
        ],
        "time_s": round(outcome.played.time_s, 2),
    }


def fault_data(fault: Found) -> dict[str, Any]:
    return {
        "code": str(fault.code),
        "message": fault.message,
        "at": None if fault.at is None else [round(v, 3) for v in fault.at],
        "at_s": None if fault.at_s is None else round(fault.at_s, 2),
    }


def worst(report: Report) -> float:
    """The greatest deviation in mm of all pieces."""
    return float(np.max([m.deviation_mm for m in report.pieces if m is not None], initial=0.0))
