"""What a machine does with a plan: passes in their order, in each the ways that the tool runs along.

Score, perforate, prick, draw (by pen), inner cuts, outer cuts; what lies inside another contour before
it. A closed cut begins at a corner where there is one, and runs on over its start by the machine's
overlap; a paper may ask for several runs, which go round without a lift where a cut is closed. Lengths
in mm, times in seconds.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from stileblade.formats.lines import Line, rounds_of
from stileblade.formats.order import Stop, tour
from stileblade.formats.plan import Plan
from stileblade.formats.trailing import AHEAD, axis_of
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.paths.ways import Way, joined, way_of
from stileblade.machine.machine import Machine, Tool
from stileblade.machine.operation import Operation

CORNER = np.radians(25.0)
"""A contour that turns by more at a place has a corner there."""
_MOST_STARTS = 24
_WITHIN = 0.002
"""mm: how closely a trailing tool's tip keeps to a curve."""


@dataclass(frozen=True, eq=False)
class Stroke:
    """One way with the tool down: ``run`` is the length that was asked for, without overlaps; ``axis`` what the
    tool's axis runs along, which is the way itself unless the tool trails."""

    line: Line
    way: Way
    run: float
    axis: Way


@dataclass(frozen=True, eq=False)
class Pass:
    """All strokes of an operation in one round, with one tool and one pen (``group``); ``changed`` says whether the
    tool is changed before it."""

    operation: Operation
    round: int
    group: str
    tool: Tool
    strokes: tuple[Stroke, ...]
    travel: float
    machine: Machine
    changed: bool

    @property
    def name(self) -> str:
        """What it is called in files."""
        parts = (str(self.operation), self.group, str(self.round + 1) if self.round else "")
        return "-".join(filter(None, parts))

    @property
    def lifts(self) -> int:
        return len(self.strokes)

    @cached_property
    def length(self) -> float:
        """mm that are to be cut, scored or drawn; what a cut runs on over its start does not count."""
        return sum(stroke.run for stroke in self.strokes)

    @cached_property
    def time_s(self) -> float:
        """With the tool down, moved from place to place, lifted, and changed before."""
        down = sum(stroke.axis.length for stroke in self.strokes) / self.tool.speed
        up = self.travel / self.machine.travel + self.lifts * self.machine.lift_s
        return down + up + (self.machine.change_s if self.changed else 0.0)


def passes_of(plan: Plan, machine: Machine) -> list[Pass]:
    """The passes of a plan, y downwards as in the plan. DocumentError where the machine has no tool for
    one of its operations."""
    at, found = np.array([0.0, plan.height]), []
    before: Tool | None = None
    heading = AHEAD
    for operation, round_, group, lines in _sorted(plan):
        tool = machine.tool_for(operation)
        if before is None or tool.number != before.number:
            heading = AHEAD
        overlap, runs = (machine.overlap, plan.cut_runs) if operation.parts else (0.0, 1)
        strokes, heading = _by_axis(_strokes(lines, at, overlap, runs), tool, heading)
        starts = np.array([stroke.axis.start for stroke in strokes])
        ends = np.array([at, *(stroke.axis.end for stroke in strokes)])
        found.append(
            Pass(
                operation, round_, group, tool, tuple(strokes), float(norms(starts - ends[:-1]).sum()),
                machine, before is not None and tool.number != before.number,
            )
        )  # fmt: skip
        at, before = ends[-1], tool
    return found


def _by_axis(strokes: Iterable[Stroke], tool: Tool, heading: Floats) -> tuple[list[Stroke], Floats]:
    """The strokes with what the tool's axis runs along, and how its blade points in the end."""
    if not tool.trail:
        return list(strokes), heading
    found = []
    for stroke in strokes:
        axis, heading = axis_of(stroke.way.flat(_WITHIN), tool.trail, heading)
        found.append(replace(stroke, axis=axis))
    return found, heading


def _sorted(plan: Plan) -> Iterator[tuple[Operation, int, str, list[Line]]]:
    for operation, round_ in rounds_of(plan.lines):
        groups = plan.groups(operation, round_)
        if operation is Operation.DRAW:
            for group, lines in groups.items():
                yield operation, round_, group, lines
        elif groups:
            yield operation, round_, "", [line for some in groups.values() for line in some]


def _strokes(lines: list[Line], at: Floats, overlap: float, runs: int) -> Iterator[Stroke]:
    ways = [way_of(line.segments, closed=line.closed) for line in lines]
    begun = [
        corners_of(way) if line.closed else None for line, way in zip(lines, ways, strict=True)
    ]
    stops = [
        Stop(
            np.stack([way.start, way.end]) if places is None else way.points[places],
            line.closed,
            float((way.points.max(axis=0) - way.points.min(axis=0)).max()),
        )
        for line, way, places in zip(lines, ways, begun, strict=True)
    ]
    for number, which in tour(stops, at):
        way, places = ways[number], begun[number]
        if places is None:
            way = way.reversed() if which else way
        else:
            way = way.from_place(int(places[which]))
        run = way.length
        made = [way] * runs
        if places is not None:
            made = [joined(*made)] if runs > 1 else made
            if overlap:
                made = [joined(made[0], way.stretch(0.0, min(overlap, run / 2)))]
            run *= runs
        for each in made:
            yield Stroke(lines[number], each, run, each)


def corners_of(way: Way) -> np.ndarray:
    """Numbers of the places of a closed way at which it turns sharply, its first where there are none;
    a bounded number of them, evenly chosen."""
    into, out = directions(way)
    turn = np.abs(angle_between(np.roll(into, 1, axis=0), out))
    found = np.flatnonzero(turn > CORNER)
    if not len(found):
        return np.zeros(1, np.int64)
    if len(found) > _MOST_STARTS:
        found = found[np.linspace(0, len(found) - 1, _MOST_STARTS).astype(np.int64)]
    return found


def directions(way: Way) -> tuple[Floats, Floats]:
    """Unit vectors (n - 1, 2) in which each stretch arrives, and in which it sets out."""
    chord = np.diff(way.points, axis=0)
    chord = chord / np.maximum(norms(chord), 1e-12)[:, None]
    half = 2 * np.arctan(way.bulges)
    return _spun(chord, half), _spun(chord, -half)


def _spun(vectors: Floats, angles: Floats) -> Floats:
    c, s = np.cos(angles), np.sin(angles)
    x, y = vectors[:, 0], vectors[:, 1]
    return np.stack([x * c - y * s, x * s + y * c], axis=1)


def angle_between(first: Floats, second: Floats) -> Floats:
    """Turns (n,) from unit vectors to others, positive from x to y."""
    cross = first[:, 0] * second[:, 1] - first[:, 1] * second[:, 0]
    return np.asarray(np.arctan2(cross, (first * second).sum(axis=1)))
