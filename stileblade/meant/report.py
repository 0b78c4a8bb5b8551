"""The report: what came loose against what was meant, and all that is wrong."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
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
from stileblade.meant.passes import Work, corner_faults, line_faults
from stileblade.meant.register import Register, register
from stileblade.meant.sheet import MeantLine, MeantSheet, meant_lines
from stileblade.words import say

GOOD = 0.05
"""mm: outlines this near are as they were meant."""
WARN = 0.2
_ALIKE = 0.6
_AT_GAP = 1.0
"""mm: a gap this near to an outline is a gap of it."""
_BESIDE_GAP = 2.5
"""mm: two gaps this near to each other are one."""
_ON_SHEET = 0.05
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
    played = outcome.played
    refused = any(f.code is Fault.REFUSED for f in played.faults)
    placed = Register(identity())
    if not refused:
        placed = register([run.places for run in played.runs], [line.places for line in lines])
    named = _named(sheet, [line for line in lines if played.machine.tool_for(line.operation).cuts])
    taken: set[int] = set()
    pieces = [
        _meant(loosening.mapped(loose.face, placed.pieces), named, sheet, taken)
        for loose in outcome.loose
    ]
    joined = _still_joined(outcome, sheet, named, taken)
    comparison = _Comparison(outcome, sheet, lines, placed, pieces, joined)
    faults = _refusals(outcome) if refused else comparison.faults()
    return Report(outcome, tuple(m for m, _ in pieces), joined, tuple(faults), sheet)


def _refusals(outcome: Outcome) -> list[Found]:
    # what a machine refuses it does not run: what comes of the rest says nothing
    return [f for f in outcome.faults if f.code not in (Fault.ORDER, Fault.CUT_TWICE)]


_Joined = tuple[tuple[Meant | None, Joined], ...]


@dataclass(frozen=True, eq=False)
class _Comparison:
    """An outcome held against its sheet: ``lines`` are the designed ones where they lie under the tool, ``placed``
    takes the file onto them, ``pieces`` go with the outcome's loose ones."""

    outcome: Outcome
    sheet: MeantSheet
    lines: Sequence[MeantLine]
    placed: Register
    pieces: Sequence[tuple[Meant | None, bool]]
    joined: _Joined

    @cached_property
    def runs(self) -> list[Run]:
        """All runs, laid onto the design."""
        return [_moved(run, self.placed.matrix) for run in self.outcome.played.runs]

    def faults(self) -> list[Found]:
        """All that is wrong, without what something else that is wrong explains; places as the machine has them."""
        if self.placed.resized:
            # its places are rounded in another measure: it is compared when it is sent in the right size
            return self._about_all()
        faults = [*self._about_all(), *self._of_outcome()]
        if any(f.code in (Fault.OVERLAP, Fault.OFF_BED) for f in faults):
            # what lies in a wrong place is missing in its own, and is worked on when another is loose
            explained = {Fault.ORDER, Fault.CUT_TWICE}
            if any(f.code is Fault.OVERLAP for f in faults):
                explained.add(Fault.OFF_SHEET)
            return [f for f in faults if f.code not in explained]
        crumbs = _crumbs(self.outcome.loose, self.pieces)
        rounded = corner_faults(self.runs, self.lines)
        wrong = line_faults(self._work(crumbs, rounded=bool(rounded)))
        codes = {f.code for f in wrong}
        if codes & {Fault.SCORE_CUT, Fault.DRAWN_CUT, Fault.EXTRA}:
            # what is cut that was not to be comes loose before its time
            faults = [f for f in faults if f.code is not Fault.ORDER]
        if rounded:
            # a blade that trails ends short of where it began
            faults = [f for f in faults if f.code is not Fault.OPEN_CONTOUR]
        gaps = [f.at for f in faults if f.code is Fault.OPEN_CONTOUR and f.at is not None]
        told = [self._as_run(f) for f in [*wrong, *rounded]]
        faults += [f for f in told if f.code is not Fault.OPEN_CONTOUR or not _is_beside(f, gaps)]
        if not any(f.code in _EXPLAIN for f in faults):
            faults += [fault for _, fault in crumbs]
        faults += self._loose_though_held()
        if not faults:
            faults += [
                _uncut(meant, one)
                for meant, one in self.joined
                if meant and not self.sheet.pieces[meant.number].held
            ]
        return faults

    def _about_all(self) -> list[Found]:
        """How the whole file lies, whether all of it is on the bed, and on the paper."""
        played, found = self.outcome.played, list(self.placed.faults)
        reach = np.max([line.places.max(axis=0) for line in self.lines] or [np.zeros(2)], axis=0)
        size = np.maximum(self.sheet.format_mm, reach)
        beyond = off_sheet(played, (float(size[0]), float(size[1])))
        off_bed = [f for f in played.faults if f.code is Fault.OFF_BED]
        if not found or self.placed.stretched:
            return [*found, *off_bed, *([] if off_bed else beyond)]
        straight = replace(played, runs=tuple(self.runs))
        if beyond and not off_sheet(straight, (float(size[0]), float(size[1]))):
            first = found[0]
            return [replace(first, message=f"{first.message} {beyond[0].message}"), *found[1:]]
        return [*found, *off_bed]

    def _of_outcome(self) -> list[Found]:
        """What is wrong with what came loose, and with the order in which it did."""
        width = {j.at: j.gap_mm for j in self.outcome.joined}
        return [
            f
            for f in self.outcome.faults
            if f.code is not Fault.OFF_BED
            and (
                f.code is not Fault.OPEN_CONTOUR or self._is_gap(f, width.get(f.at or (0, 0), 0.0))
            )
        ]

    def _is_gap(self, fault: Found, gap_mm: float) -> bool:
        """Whether an open outline was designed closed, and no holding bridge is there."""
        if fault.at is None:
            return False
        matrix = self.placed.matrix
        place = np.array([fault.at]) @ matrix[:, :2].T + matrix[:, 2]
        rows, near = self._closed_cuts
        beside = {rows[k] for k in near.owner[near.within(place, _AT_GAP)[1]].tolist()}
        return bool(beside) and not any(
            self.lines[row].leaves_open(place, gap_mm) for row in beside
        )

    @cached_property
    def _closed_cuts(self) -> tuple[list[int], Near]:
        """The numbers of the lines that are cut all round, and a tree of them."""
        rows = [i for i, line in enumerate(self.lines) if line.closed and line.operation.parts]
        return rows, Near([self.lines[i].places for i in rows])

    def _work(self, crumbs: Sequence[tuple[Loose, Found]], *, rounded: bool) -> Work:
        machine = self.outcome.played.machine
        off = {m.number: m.deviation_mm for m, _ in self.pieces if m is not None}
        told = [
            ring
            for loose, _ in crumbs
            for ring in loosening.outlines_of(loosening.mapped(loose.face, self.placed.matrix))
        ]
        trail = max(tool.trail for tool in machine.tools)
        return Work(
            self.runs,
            self.lines,
            self.sheet,
            machine,
            off,
            told,
            _TRAILS * trail if rounded else 0.0,
        )

    def _loose_though_held(self) -> list[Found]:
        """Pieces whose holding bridges were cut through."""
        found = []
        for loose, (meant, _) in zip(self.outcome.loose, self.pieces, strict=True):
            if meant is None or not self.sheet.pieces[meant.number].bridges:
                continue
            said = say(
                "{piece} of {design} comes loose: its holding bridges are cut through.",
                piece=meant.piece,
                design=meant.design,
            )
            place = loosening.middle_of(loose.face)
            found.append(Found(Fault.EXTRA, said, place, loose.at_s))
        return found

    def _as_run(self, fault: Found) -> Found:
        """The fault at its place on the machine, from that on the design."""
        return fault if fault.at is None else replace(fault, at=self._back(fault.at))

    def _back(self, at: tuple[float, float]) -> tuple[float, float]:
        matrix = self.placed.matrix
        x, y = np.linalg.solve(matrix[:, :2], np.array(at) - matrix[:, 2])
        return float(x), float(y)


_TRAILS = 8.0
"""A blade is back on its line after so many times its trail."""


def _is_beside(fault: Found, places: Sequence[tuple[float, float]]) -> bool:
    return fault.at is not None and any(
        np.hypot(fault.at[0] - x, fault.at[1] - y) < _BESIDE_GAP for x, y in places
    )


def off_sheet(played: Played, size: tuple[float, float]) -> list[Found]:
    """How far lines run beyond paper of a size in mm."""
    worst_, place = 0.0, None
    for run in played.runs:
        out = np.maximum(-run.places, run.places - size).max(axis=1)
        k = int(np.argmax(out))
        if out[k] > worst_:
            worst_, place = float(out[k]), run.places[k]
    if place is None or worst_ < _ON_SHEET:
        return []
    at = float(place[0]), float(place[1])
    said = say("A line runs {worst:.2f} mm beyond the sheet.", worst=worst_)
    return [Found(Fault.OFF_SHEET, said, at)]


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
) -> _Joined:
    """The meant pieces that did not come loose."""
    found: list[tuple[Meant | None, Joined]] = []
    for number, face in enumerate(named):
        if face.piece < 0 or number in taken:
            continue
        piece = sheet.pieces[face.piece]
        box = loosening.box_of(face.face)
        gap = max(
            (j.gap_mm for j in outcome.joined if _touches(j.bounds_mm, box.as_list())), default=0.0
        )
        at = loosening.middle_of(face.face)
        bounds = (box.left, box.head, box.right, box.foot)
        found.append((Meant(face.piece, piece.design, piece.piece, 0.0), Joined(gap, at, bounds)))
    return tuple(found)


def _touches(a: Sequence[float], b: Sequence[float]) -> bool:
    return a[0] <= b[2] and b[0] <= a[2] and a[1] <= b[3] and b[1] <= a[3]


def _crumbs(
    loose: Sequence[Loose], pieces: Sequence[tuple[Meant | None, bool]]
) -> list[tuple[Loose, Found]]:
    """What came loose and was not meant to."""
    found = []
    for piece, (_, meant) in zip(loose, pieces, strict=True):
        if not meant and piece.area_mm2 < _LITTLE:
            said = say(
                "A crumb of {area_mm2:.2f} mm² comes loose that was not meant to.",
                area_mm2=piece.area_mm2,
            )
            fault = Found(Fault.CRUMB, said, loosening.middle_of(piece.face), piece.at_s)
            found.append((piece, fault))
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
