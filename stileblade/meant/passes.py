"""Whether a file does all that was designed, with the right tools, and nothing else."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from stileblade.cutter.play import Run
from stileblade.cutter.sent import Fault, Found
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.nearness import Near, spaced
from stileblade.machine.machine import Machine, Tool
from stileblade.machine.operation import WORDS, Operation
from stileblade.meant.coverage import LEAST, WITHIN, Stretch, sampled, times_passed, uncovered
from stileblade.meant.sheet import MeantLine, MeantSheet
from stileblade.words import say

SHAPE = 0.2
"""mm: an outline that is further from its design is a fault."""
_OPEN = 0.3
"""Share of a closed cut: if more than this is missing, the cut is missing, else it is open."""
_REACH = 2.5
"""mm: a line up to this far from its place has moved or changed its shape; beyond, it is another line."""
_MOST_LISTED = 20
_EVERY = 0.25
"""mm between the places at which it is counted how often lines are run along."""
_IS_CUT = {Operation.SCORE: Fault.SCORE_CUT, Operation.DRAW: Fault.DRAWN_CUT}
_TO_BE = {Fault.SCORE_CUT: "to be scored", Fault.DRAWN_CUT: "to be drawn"}
_ROUNDED = 0.04
_SHARP = np.radians(30)
_MANY = 0.3
"""Share of all sharp corners: if fewer are rounded, the blade's trail is not why."""


@dataclass(frozen=True, eq=False)
class Work:
    """What a file does, laid onto its design: ``runs`` are in the design's frame, ``pieces_off`` says by how many mm
    the outlines of pieces that came loose are off, by the piece's number; ``told`` are the lines of crumbs that
    another fault tells of; ``short`` is the length in mm up to which a stretch is explained by a blade's trail."""

    runs: Sequence[Run]
    designed: Sequence[MeantLine]
    sheet: MeantSheet
    machine: Machine
    pieces_off: Mapping[int, float] = field(default_factory=dict)
    told: Sequence[Floats] = ()
    short: float = 0.0

    def tool_of(self, line: MeantLine) -> Tool:
        return self.machine.tool_for(line.operation)

    def name(self, line: MeantLine) -> str:
        """The line's piece as a sentence names it; nothing for a line of no piece."""
        if line.piece < 0:
            return ""
        piece = self.sheet.pieces[line.piece]
        return say("{piece} of {design}", piece=piece.piece, design=piece.design)


@dataclass
class _Differences:
    """What one tool leaves out and adds: stretches by the number of the designed line, and stretches of runs."""

    missing: dict[int, list[Stretch]] = field(default_factory=lambda: defaultdict(list))
    extra: list[tuple[Run, Stretch]] = field(default_factory=list)
    off: dict[int, tuple[float, Stretch]] = field(default_factory=dict)
    """The designed lines that lie elsewhere: by how many mm at most."""


def line_faults(work: Work) -> list[Found]:
    """Operations that are missing in whole or in part, lines that are cut instead, that lie elsewhere, that are open,
    that nobody designed, and those that are run along more or less often than designed."""
    numbers = {work.tool_of(line).number for line in work.designed}
    numbers |= {run.tool.number for run in work.runs}
    found: list[Found] = []
    missing: dict[int, list[Stretch]] = {}
    extra: list[tuple[Run, Stretch]] = []
    cut_instead: dict[int, float] = defaultdict(float)
    for number in sorted(numbers):
        differences = _differences(work, number)
        _run_over_others(work, number, differences, cut_instead)
        _displaced(work, differences)
        found += _off_shape(work, differences)
        missing |= differences.missing
        extra += differences.extra
    found += _cut_faults(work, cut_instead)
    for line, length in cut_instead.items():
        if sum(s.length for s in missing.get(line, ())) <= length + 2 * LEAST:
            missing.pop(line, None)
    found += _missing_faults(work, missing)
    told = Near(work.told)
    found += _extra_faults([e for e in extra if told.away(e[1].places).max() > WITHIN])
    found += _extra_pricks(work)
    found += _too_often(work)
    if work.sheet.runs > 1 and not found:
        cuts = [line for line in work.designed if line.operation.parts]
        found += _too_seldom(work.runs, cuts, work.sheet.runs)
    return found


def _differences(work: Work, number: int) -> _Differences:
    """What is missing of a tool's lines, and what it adds."""
    rows = [i for i, line in enumerate(work.designed) if work.tool_of(line).number == number]
    designed = [work.designed[i].places for i in rows]
    runs = [run for run in work.runs if run.tool.number == number]
    found = _Differences()
    ran = [run.places for run in runs]
    for stretch in uncovered(designed, ran):
        row = rows[stretch.line]
        if stretch.length > work.short and not work.designed[row].is_bridge(stretch.places):
            found.missing[row].append(stretch)
    found.extra += [
        (runs[stretch.line], stretch)
        for stretch in uncovered(ran, designed)
        if stretch.length > work.short
    ]
    return found


def _run_over_others(
    work: Work, number: int, found: _Differences, cut_instead: dict[int, float]
) -> None:
    """Takes out of the extra stretches of a tool what lies on lines of other tools: a knife cuts what was to be scored
    or drawn (``cut_instead``: mm by line), any other tool leaves undone what is told as missing."""
    rows = [i for i, line in enumerate(work.designed) if work.tool_of(line).number != number]
    if not rows or not found.extra:
        return
    near = Near([work.designed[i].places for i in rows])
    done = {
        tool.number: Near([run.places for run in work.runs if run.tool.number == tool.number])
        for tool in work.machine.tools
    }
    rest: list[tuple[Run, Stretch]] = []
    for run, stretch in found.extra:
        left = near.away(stretch.places) > WITHIN
        on = np.flatnonzero(~left)
        if len(on) * stretch.length < LEAST * len(left):
            rest.append((run, stretch))
            continue
        owner = near.which(stretch.places[on])
        for k in np.unique(owner).tolist():
            line, spots = work.designed[rows[k]], on[owner == k]
            if run.cuts and line.operation in _IS_CUT:
                cut_instead[rows[k]] += stretch.length * len(spots) / len(left)
            else:
                other = done[work.tool_of(line).number]
                left[spots[other.away(stretch.places[spots]) <= WITHIN]] = True
        rest += [(run, part) for part in _parts(stretch, left) if part.length >= LEAST]
    found.extra = rest


def _parts(stretch: Stretch, chosen: np.ndarray) -> Iterable[Stretch]:
    """The parts of a stretch at whose places ``chosen`` holds."""
    edges = np.flatnonzero(np.diff(np.concatenate([[False], chosen, [False]]).astype(np.int8)))
    for low, high in edges.reshape(-1, 2).tolist():
        length = stretch.length * (high - low) / len(chosen)
        yield Stretch(stretch.line, stretch.places[low:high], stretch.away[low:high], length)


def _ways(stretches: Iterable[Stretch]) -> list[Floats]:
    return [s.places if len(s.places) > 1 else np.repeat(s.places, 2, axis=0) for s in stretches]


def _displaced(work: Work, found: _Differences) -> None:
    """Takes what lies near its place, but not in it, out of what is missing and extra."""
    rows = [(row, stretch) for row, some in found.missing.items() for stretch in some]
    if not rows or not found.extra:
        return
    near = Near(_ways(stretch for _, stretch in rows))
    reach = np.array(
        [max(_REACH, work.pieces_off.get(work.designed[row].piece, 0.0) + SHAPE) for row, _ in rows]
    )
    beside = [
        (run, stretch)
        for run, stretch in found.extra
        if (near.away(stretch.places) <= reach[near.which(stretch.places)]).all()
    ]
    if not beside:
        return
    ran, gone = Near(_ways(stretch for _, stretch in beside)), []
    for (row, stretch), most in zip(rows, reach, strict=True):
        if ran.away(stretch.places).max() <= most:
            by = float(stretch.away.max())
            if by > found.off.get(row, (0.0, stretch))[0]:
                found.off[row] = by, stretch
            found.missing[row].remove(stretch)
            gone.append(stretch)
    if gone:
        left = Near(_ways(gone))
        explained = {
            id(stretch) for _, stretch in beside if left.away(stretch.places).max() <= reach.max()
        }
        found.extra = [pair for pair in found.extra if id(pair[1]) not in explained]


def _off_shape(work: Work, found: _Differences) -> list[Found]:
    worst: dict[tuple[int, Operation], tuple[float, Stretch, MeantLine]] = {}
    for row, (by, stretch) in found.off.items():
        line = work.designed[row]
        if by <= (SHAPE if line.closed and line.operation.parts else WITHIN):
            continue
        key = line.piece, line.operation
        if key not in worst or by > worst[key][0]:
            worst[key] = by, stretch, line
    faults = []
    for by, stretch, line in worst.values():
        k = int(np.argmax(stretch.away))
        x, y = stretch.places[k]
        said = say(
            "{word}: up to {by:.2f} mm off the design{where}.",
            word=_begun(say(WORDS[line.operation])),
            by=by,
            where=_of(work.name(line)),
        )
        faults.append(Found(Fault.OFF_SHAPE, said, (float(x), float(y))))
    return faults


def _of(name: str) -> str:
    return say(" ({name})", name=name) if name else ""


def _begun(text: str) -> str:
    return text[:1].upper() + text[1:]


def _cut_faults(work: Work, cut_instead: Mapping[int, float]) -> list[Found]:
    found = []
    for operation, code in _IS_CUT.items():
        all_lines = [line for line in work.designed if line.operation is operation]
        cut = [
            work.designed[i]
            for i, length in cut_instead.items()
            if length >= LEAST and work.designed[i].operation is operation
        ]
        if cut:
            said = say(
                "Cut through: {lines} {says}.",
                lines=_lines(len(cut), len(all_lines)),
                says=_TO_BE[code],
            )
            found.append(Found(code, said, _middle(cut[0])))
    return found


def _missing_faults(work: Work, missing: Mapping[int, Sequence[Stretch]]) -> list[Found]:
    found = []
    gone: dict[Operation, list[tuple[MeantLine, float, Stretch]]] = defaultdict(list)
    for row, stretches in sorted(missing.items()):
        line, length = work.designed[row], sum(s.length for s in stretches)
        if not stretches:
            continue
        if line.closed and line.operation.parts and length <= _OPEN * _length(line.places):
            widest = max(stretches, key=lambda s: s.length)
            said = say(
                "An outline is open by {gap_mm:.2f} mm and stays joined.", gap_mm=widest.length
            )
            found.append(Found(Fault.OPEN_CONTOUR, said, widest.middle))
        else:
            gone[line.operation].append((line, length, stretches[0]))
    for operation, some in gone.items():
        all_lines = [line for line in work.designed if line.operation is operation]
        length = sum(length for _, length, _ in some)
        whole = sum(_length(line.places) for line, _, _ in some)
        word, lines = say(WORDS[operation]), _lines(len(some), len(all_lines))
        if whole - length < 2 * LEAST * len(some):
            said = say("{word} missing: {lines}.", word=word, lines=lines)
        else:
            said = say(
                "{word} missing: {length:.1f} of {whole:.1f} mm of {lines}.",
                word=word, length=length, whole=whole, lines=lines,
            )  # fmt: skip
        found.append(Found(Fault.PASS_MISSING, _begun(said), some[0][2].middle))
    return found


def _extra_faults(extra: Sequence[tuple[Run, Stretch]]) -> list[Found]:
    found = []
    for run, stretch in extra[:_MOST_LISTED]:
        where = say(" (line {line})", line=run.stroke.line) if run.stroke.line else ""
        said = say(
            "A line that is not in the design: {tool}, {length:.1f} mm{where}.",
            tool=run.tool.name,
            length=stretch.length,
            where=where,
        )
        found.append(Found(Fault.EXTRA, said, stretch.middle, float(run.times[0])))
    rest = extra[_MOST_LISTED:]
    if rest:
        said = say(
            "1 more line that is not in the design, {length:.1f} mm."
            " | {n} more lines that are not in the design, {length:.1f} mm together.",
            n=len(rest),
            length=sum(stretch.length for _, stretch in rest),
        )
        found.append(Found(Fault.EXTRA, said, rest[0][1].middle))
    return found


def _extra_pricks(work: Work) -> list[Found]:
    """Places that a tool pricks where nothing is to be done with it."""
    pricks = [run for run in work.runs if len(run.places) == 1]
    found = []
    for number in sorted({run.tool.number for run in pricks}):
        some = [run for run in pricks if run.tool.number == number]
        near = Near([line.places for line in work.designed if work.tool_of(line).number == number])
        away = near.away(np.concatenate([run.places for run in some])) > WITHIN
        if away.any():
            first = some[int(np.argmax(away))]
            said = say(
                "A prick that is not in the design: {tool}. | {n} pricks that are not in the design: {tool}.",
                n=int(away.sum()),
                tool=first.tool.name,
            )
            x, y = first.places[0]
            found.append(Found(Fault.EXTRA, said, (float(x), float(y)), float(first.times[0])))
    return found


def _too_often(work: Work) -> list[Found]:
    """Lines of pens and crease tips that are run along again; cuts are told by what comes loose."""
    found = []
    for tool in work.machine.tools:
        if tool.cuts:
            continue
        designed = [line.places for line in work.designed if work.tool_of(line) is tool]
        runs = [run for run in work.runs if run.tool is tool]
        if not designed or not runs:
            continue
        samples = sampled(designed, _EVERY)
        more = times_passed(samples.places, [run.places for run in runs]) > times_passed(
            samples.places, designed
        )
        # where a closed line begins, and where lines cross, a place is passed twice for a moment
        edges = np.flatnonzero(np.diff(np.concatenate([[0], more.astype(np.int8), [0]])))
        begin, end = edges[::2], edges[1::2]
        longer = (end - begin) * _EVERY > work.machine.overlap + LEAST
        length = _EVERY * float((end - begin)[longer].sum())
        if length:
            x, y = samples.places[begin[longer][0]]
            said = say(
                "The {tool} runs along {length:.1f} mm more often than designed.",
                tool=tool.name,
                length=length,
            )
            found.append(Found(Fault.EXTRA, said, (float(x), float(y))))
    return found


def _too_seldom(runs: Sequence[Run], cuts: Sequence[MeantLine], wanted: int) -> list[Found]:
    """Cuts along which knives ran fewer times than they were to."""
    ran = [run.places for run in runs if run.cuts]
    if not ran or not cuts:
        return []
    found = []
    for line in cuts:
        times = float(np.median(times_passed(sampled([line.places], 1.0).places, ran)))
        if times < wanted - 0.4:
            found.append((line, round(times)))
    if not found:
        return []
    line, least = found[0]
    said = say(
        "Cuts run along {times} of {wanted} times: {lines}.",
        lines=_lines(len(found), len(cuts)),
        times=max(least, 1),
        wanted=wanted,
    )
    return [Found(Fault.PASS_MISSING, said, _middle(line))]


def _length(places: Floats) -> float:
    return float(norms(np.diff(places, axis=0)).sum())


def _lines(some: int, all_: int) -> str:
    if some == all_:
        return say("the line | all {n} lines", n=some)
    return say("{some} of {all} lines", some=some, all=all_)


def _middle(line: MeantLine) -> tuple[float, float]:
    place = spaced(line.places, 1.0)
    x, y = place[len(place) // 2]
    return float(x), float(y)


def corner_faults(runs: Sequence[Run], meant: Sequence[MeantLine]) -> list[Found]:
    """Corners that a trailing tool rounded since its trail was not made up for."""
    trails = [run.tool.trail for run in runs if run.cuts and run.tool.trail]
    if not trails:
        return []
    knives = Near([run.places for run in runs if run.cuts])
    corners = [_corners(line.places) for line in meant if line.operation.parts and line.closed]
    places = (
        np.concatenate([c for c in corners if len(c)])
        if any(map(len, corners))
        else np.zeros((0, 2))
    )
    if not len(places):
        return []
    away = knives.away(places)
    # a corner that is missing or elsewhere is further off than a blade of that trail would pass it
    rounded = (away > _ROUNDED) & (away < max(trails))
    if rounded.sum() < _MANY * len(places):
        return []
    worst = int(np.argmax(np.where(rounded, away, 0.0)))
    x, y = places[worst]
    said = say(
        "{n} corners are rounded, by up to {by:.2f} mm: the blade's trail of {trail:g} mm is not made up for.",
        n=int(rounded.sum()),
        by=away[worst],
        trail=max(trails),
    )
    return [Found(Fault.TRAIL, said, (float(x), float(y)))]


def _corners(places: Floats) -> Floats:
    """Sharp corners of a closed polyline."""
    way = np.diff(places, axis=0)
    angle = np.arctan2(way[:, 1], way[:, 0])
    turn = np.abs((angle - np.roll(angle, 1) + np.pi) % (2 * np.pi) - np.pi)
    return np.asarray(places[:-1][turn > _SHARP])
